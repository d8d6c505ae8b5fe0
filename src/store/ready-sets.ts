import { exerciseFromJson } from '@/core/formats/exercise-file';
import { mapped, type Result } from '@/core/values/result';
import { load } from '@/loading/load';
import { randomId } from './database';
import { isExerciseKept, saveExercise } from './exercises';

/** A set of tasks that comes with Manege. */
export interface ReadySet {
  readonly id: string;
  readonly title: string;
  readonly says: string;
  readonly fetch: () => Promise<{ default: unknown }>;
}

/** The sets that come with Manege, in the order of a course. */
export const READY_SETS: readonly ReadySet[] = [
  {
    id: 'first-gates',
    title: 'First gates',
    says: 'AND, OR and NOT: predicted, observed, described.',
    fetch: () => load('a ready set', () => import('../../demo/sets/first-gates.exercise.json')),
  },
  {
    id: 'interlock',
    title: 'Interlock',
    says: 'From the words to the circuit: table, map, smallest sum, NANDs alone.',
    fetch: () => load('a ready set', () => import('../../demo/sets/interlock.exercise.json')),
  },
  {
    id: 'tickets',
    title: 'Tickets',
    says: 'A ladder from the half adder to sixteen bits and a small arithmetic unit.',
    fetch: () => load('a ready set', () => import('../../demo/sets/tickets.exercise.json')),
  },
  {
    id: 'find-the-fault',
    title: 'Find the fault',
    says: 'Four circuits with something wrong inside one part.',
    fetch: () => load('a ready set', () => import('../../demo/sets/find-the-fault.exercise.json')),
  },
  {
    id: 'lamp-chase',
    title: 'Lamp chase',
    says: 'Flip-flops, counters, a count that is cut at ten, the shortest clock period.',
    fetch: () => load('a ready set', () => import('../../demo/sets/lamp-chase.exercise.json')),
  },
  {
    id: 'read-the-diagram',
    title: 'Read the diagram',
    says: 'Lanes of timing diagrams to complete.',
    fetch: () => load('a ready set', () => import('../../demo/sets/read-the-diagram.exercise.json')),
  },
  {
    id: 'numbers',
    title: 'Numbers',
    says: 'Binary, hexadecimal and two’s complement.',
    fetch: () => load('a ready set', () => import('../../demo/sets/numbers.exercise.json')),
  },
  {
    id: 'on-the-board',
    title: 'On the board',
    says: 'From the drawing to packages, pins and wires.',
    fetch: () => load('a ready set', () => import('../../demo/sets/on-the-board.exercise.json')),
  },
];

/** Puts a set among one's own exercises, where it can be changed and handed out. @returns the id that it has there. */
export async function takeReadySet({ id, fetch }: ReadySet): Promise<Result<string>> {
  const { default: file } = await fetch();
  const read = exerciseFromJson(file);
  if (!read.ok) return read;
  const own = (await isExerciseKept(`ready-${id}`)) ? randomId() : read.value.id;
  await saveExercise({ ...read.value, id: own });
  return mapped(read, () => own);
}
