import { exercise1to2 } from './exercise';
import { isObject, type Migration } from './migrate';

/** The exercise inside is one of version 2. */
const lesson1to2: Migration = (file) =>
  isObject(file.exercise) ? { ...file, exercise: exercise1to2({ ...file.exercise, version: 1 }) } : file;

/** Steps of lesson files, the first from version 1 to 2. */
export const LESSON_STEPS: readonly Migration[] = [lesson1to2];
