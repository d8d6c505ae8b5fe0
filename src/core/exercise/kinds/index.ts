import type { Expected } from '../../circuit/exercise';
import { z } from '../../values/schema';
import type { ExerciseKind } from './exercise-kind';
import { run } from './run';
import { table } from './table';

/** All kinds of exercise, in the order in which they are offered. A new kind is a folder here and an entry in this list. */
export const EXERCISE_KINDS = [table, run] as const;

/** The expectation in a file, of any kind, told apart by `kind`. */
export const AnyExpected = z.discriminatedUnion(
  'kind',
  EXERCISE_KINDS.map((kind) => kind.schema) as [(typeof EXERCISE_KINDS)[number]['schema']],
);

/** The kind of an expectation. @throws Error for an unknown kind: file readers let none pass. */
export function exerciseKindOf<E extends Expected>({ kind }: E): ExerciseKind<E> {
  const found = EXERCISE_KINDS.find((k) => k.kind === kind);
  if (!found) throw new Error(`no kind of exercise is called ${kind}`);
  return found as unknown as ExerciseKind<E>;
}
