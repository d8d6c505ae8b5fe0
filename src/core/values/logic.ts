/**
 * The four values of a net, as in IEEE Std 1364-2005, clause 4.1. They are plain small integers so that they
 * pack into typed arrays; `Z` is the value of an undriven net.
 */
export const ZERO = 0;
export const ONE = 1;
export const X = 2;
export const Z = 3;
export type Logic = 0 | 1 | 2 | 3;

const LETTERS = ['0', '1', 'X', 'Z'] as const;

/** The letter that people read: `0`, `1`, `X` or `Z`. */
export function letterOf(value: Logic): (typeof LETTERS)[number] {
  return LETTERS[value];
}

/** The value of a net with two drivers (IEEE Std 1364-2005, table 4-2): Z yields, 0 against 1 is X. */
export function resolve(a: Logic, b: Logic): Logic {
  if (a === Z) return b;
  if (b === Z || a === b) return a;
  return X;
}
