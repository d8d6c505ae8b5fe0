import { ONLY_TASK } from './exercise';
import { workOnFirstSheet } from './lesson';
import { isObject, type Migration } from './migrate';

/** The lesson inside has a version of its own and is brought up when it is read. */
const handIn1to2: Migration = (file) => file;

/** The result becomes that of the one task, and the first sheet the work at it. */
const handIn2to3: Migration = ({ result, exercise, lesson, ...rest }) => {
  if (!isObject(result) || !isObject(exercise) || !isObject(lesson))
    return { ...rest, result, exercise, lesson };
  const { right, rows, complaints } = result;
  return {
    ...rest,
    exercise: { ...exercise, edition: 1 },
    results: { [ONLY_TASK]: { right, of: rows, complaints } },
    lesson: { ...lesson, work: workOnFirstSheet(lesson) },
  };
};

/** Steps of hand-in files, the first from version 1 to 2. */
export const HAND_IN_STEPS: readonly Migration[] = [handIn1to2, handIn2to3];
