/**
 * A product of literals over n inputs. Bit n - 1 - i stands for input i, as in row numbers: `mask` has a bit for each
 * input that stands in the product, `value` for those that stand in it plain.
 */
export interface Cube {
  readonly mask: number;
  readonly value: number;
}

export const UNIVERSAL_CUBE: Cube = { mask: 0, value: 0 };

/** The values of a function in a row. */
export const OFF = 0;
export const ON = 1;
export const DONT_CARE = 2;

/** A function of n inputs: for each of 2^n rows `OFF`, `ON` or `EITHER`. */
export interface BooleanFunction {
  readonly inputs: number;
  readonly rows: Uint8Array;
}

export const sameCube = (a: Cube, b: Cube) => a.mask === b.mask && a.value === b.value;

export function coversRow(cube: Cube, row: number): boolean {
  return (row & cube.mask) === cube.value;
}

/** Whether all rows of a cube are rows of another one. */
export function isContainedIn(small: Cube, large: Cube): boolean {
  return (small.mask & large.mask) === large.mask && (small.value & large.mask) === large.value;
}

/** How many literals a cube has. */
export function literalCount({ mask }: Cube): number {
  let count = 0;
  for (let left = mask; left; left &= left - 1) count++;
  return count;
}

/** The rows of a cube over n inputs. */
export function* rowsOf({ mask, value }: Cube, inputs: number): Iterable<number> {
  const free = (2 ** inputs - 1) & ~mask;
  let some = 0;
  do {
    yield value | some;
    some = (some - free) & free;
  } while (some !== 0);
}

/** A product over named inputs as one over the same inputs in another order; null if the inputs differ. */
export function reordered(cube: Cube, from: readonly string[], to: readonly string[]): Cube | null {
  if (from.length !== to.length) return null;
  let [mask, value] = [0, 0];
  for (const [i, name] of from.entries()) {
    const at = to.indexOf(name);
    if (at === -1) return null;
    const was = from.length - 1 - i;
    const is = to.length - 1 - at;
    mask |= ((cube.mask >>> was) & 1) << is;
    value |= ((cube.value >>> was) & 1) << is;
  }
  return { mask, value };
}

/** The complement: 1 where it was 0. */
export function complement(fn: BooleanFunction): BooleanFunction {
  return { ...fn, rows: fn.rows.map((v) => (v === DONT_CARE ? v : v === ON ? OFF : ON)) };
}
