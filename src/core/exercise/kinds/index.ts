import type { Answer, GivenCircuit, Task } from '../../circuit/exercise';
import { done, type Result } from '../../values/result';
import { bench } from './bench';
import { build } from './build';
import { diagram } from './diagram';
import { fault } from './fault';
import { formula } from './formula';
import { map } from './map';
import { number } from './number';
import { table } from './table';
import type { TaskKind } from './task-kind';
import { words } from './words';

/** All kinds of task, in the order in which they are offered. A new kind is a folder here and an entry in this list. */
export const TASK_KINDS = [build, bench, table, diagram, fault, formula, map, number, words] as const;

/** The kind of that name, or undefined. */
export const findTaskKind = (kind: string): TaskKind | undefined =>
  TASK_KINDS.find((k) => k.kind === kind) as unknown as TaskKind | undefined;

/** The kind of a task or an answer. @throws Error for an unknown kind: file readers let none pass. */
export function taskKindOf({ kind }: Pick<Task | Answer, 'kind'>): TaskKind {
  const found = findTaskKind(kind);
  if (!found) throw new Error(`no kind of task is called ${kind}`);
  return found;
}

/** A task with the circuits in what is asked, and in the wanted answer, read as such: see `circuitContent`. */
export const withCircuits = (task: Task): Result<Task> => taskKindOf(task).withCircuits?.(task) ?? done(task);

/** The circuit that stands in for a student's, where a task has one. */
export const standInOf = (task: Task): GivenCircuit | null => taskKindOf(task).standIn?.(task) ?? null;
