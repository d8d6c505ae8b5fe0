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

/** Steps of exercise files, the first from version 1 to 2. */
export const EXERCISE_STEPS: readonly Migration[] = [exercise1to2];
