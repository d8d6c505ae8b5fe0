import { exercise1to2, exercise2to3, ONLY_TASK } from './exercise';
import { isObject, type JsonFile, type Migration } from './migrate';

/** The exercise inside is one of version 2. */
const lesson1to2: Migration = (file) =>
  isObject(file.exercise) ? { ...file, exercise: exercise1to2({ ...file.exercise, version: 1 }) } : file;

/** The work at the one task of an exercise from before there were several: the first sheet. */
export function workOnFirstSheet({ sheets }: Readonly<Record<string, unknown>>): unknown {
  const first: unknown = Array.isArray(sheets) ? sheets[0] : undefined;
  const sheet = isObject(first) ? first.id : undefined;
  return { tasks: { [ONLY_TASK]: { sheet, answer: null } }, checks: {} };
}

/** The exercise inside is one of version 3, and the first sheet is the work at its task. */
const lesson2to3: Migration = (file) =>
  isObject(file.exercise)
    ? {
        ...file,
        exercise: exercise2to3({ ...file.exercise, version: 2 } as JsonFile),
        work: workOnFirstSheet(file),
      }
    : file;

/** Sheets may have a plan of packages and a wiring board; those of older files have none. */
const lesson3to4: Migration = (file) => file;

/** Large sheets may be written as tables; those of older files are not. */
const lesson4to5: Migration = (file) => file;

/** Steps of lesson files, the first from version 1 to 2. */
export const LESSON_STEPS: readonly Migration[] = [lesson1to2, lesson2to3, lesson3to4, lesson4to5];
