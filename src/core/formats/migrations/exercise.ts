import { isObject, type Migration } from './migrate';

/**
 * The expectation gets an explicit kind: `wanted`, whose `is` could be left out for a table, becomes
 * `expected`.
 */
export const exercise1to2: Migration = (file) => {
  const { wanted, ...rest } = file;
  if (!isObject(wanted)) return file;
  const { is = 'table', ...others } = wanted;
  return { ...rest, expected: { kind: is, ...others } };
};

/** The id of the one task of an exercise from before there were several. */
export const ONLY_TASK = 'task1';

/** An exercise becomes a set of tasks, with the one that it was: to build a circuit, every row told with what is wanted. */
export const exercise2to3: Migration = (file) => {
  const { task, expected, allowed, ...rest } = file;
  const only = {
    id: ONLY_TASK,
    kind: 'build',
    title: file.title,
    words: task,
    points: 1,
    tells: 'wanted',
    tries: null,
    given: null,
    asked: { parts: allowed, drawing: 'typed' },
    key: expected,
  };
  return { ...rest, words: '', edition: 1, order: 'free', tasks: [only] };
};

/** Steps of exercise files, the first from version 1 to 2. */
export const EXERCISE_STEPS: readonly Migration[] = [exercise1to2, exercise2to3];
