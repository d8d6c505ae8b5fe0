/**
 * A product of literals over n inputs. Bit n - 1 - i stands for input i, as in row numbers: `care` has a bit for each
 * input that stands in the product, `ones` for those that stand in it plain.
 */
export interface Cube {
  readonly care: number;
  readonly ones: number;
}

export const ANYTHING: Cube = { care: 0, ones: 0 };

/** What a function is to be in a row. */
export const OFF = 0;
export const ON = 1;
export const EITHER = 2;

/** A function of n inputs: for each of 2^n rows `OFF`, `ON` or `EITHER`. */
export interface Wish {
  readonly inputs: number;
  readonly rows: Uint8Array;
}

export const sameCube = (a: Cube, b: Cube) => a.care === b.care && a.ones === b.ones;

export function covers(cube: Cube, row: number): boolean {
  return (row & cube.care) === cube.ones;
}

/** Whether all rows of a cube are rows of another one. */
export function isInside(small: Cube, large: Cube): boolean {
  return (small.care & large.care) === large.care && (small.ones & large.care) === large.ones;
}

/** How many literals a cube has. */
export function literals({ care }: Cube): number {
  let count = 0;
  for (let left = care; left; left &= left - 1) count++;
  return count;
}

/** The rows of a cube over n inputs. */
export function* rowsOf({ care, ones }: Cube, inputs: number): Iterable<number> {
  const free = (2 ** inputs - 1) & ~care;
  let some = 0;
  do {
    yield ones | some;
    some = (some - free) & free;
  } while (some !== 0);
}

/** A product over inputs of some names as one over the same inputs in another order; null where they are others. */
export function reordered(cube: Cube, from: readonly string[], to: readonly string[]): Cube | null {
  if (from.length !== to.length) return null;
  let [care, ones] = [0, 0];
  for (const [i, name] of from.entries()) {
    const at = to.indexOf(name);
    if (at === -1) return null;
    const was = from.length - 1 - i;
    const is = to.length - 1 - at;
    care |= ((cube.care >>> was) & 1) << is;
    ones |= ((cube.ones >>> was) & 1) << is;
  }
  return { care, ones };
}

/** The same function turned over: 1 where it was 0. */
export function inverted(wish: Wish): Wish {
  return { ...wish, rows: wish.rows.map((v) => (v === EITHER ? v : v === ON ? OFF : ON)) };
}
