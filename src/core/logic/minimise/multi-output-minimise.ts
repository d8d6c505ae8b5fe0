import { cover } from './covering';
import { type BooleanFunction, type Cube, coversRow, DONT_CARE, literalCount, OFF, ON } from './cube';
import { type Minimised, minimise } from './minimise';
import { onRows, primes } from './primes';

/** More outputs, or more inputs, are each minimised on their own. */
export const MOST_TOGETHER = 5;
export const MOST_INPUTS_TOGETHER = 8;

const TERM = 10_000;
const STEPS = 20_000_000;

/**
 * Sums of products of several functions of the same inputs that use as few different products as possible, and of
 * those as few literals: a product that serves several outputs is built once. The products that can serve a set of
 * outputs are the prime implicants of the function that is 1 where all of them may be (Bartee, 1961).
 * @returns for each function its products; each on its own where there are too many to be taken together.
 */
export function minimiseMultiOutput(fns: readonly BooleanFunction[]): Minimised[] {
  const inputs = fns[0]?.inputs ?? 0;
  if (fns.length < 2 || fns.length > MOST_TOGETHER || inputs > MOST_INPUTS_TOGETHER) return fns.map(minimise);
  const columns: { readonly cube: Cube; readonly serves: number }[] = [];
  for (let serves = 1; serves < 2 ** fns.length; serves++) {
    const all = fns.filter((_, o) => serves & (1 << o));
    for (const cube of primes(joint(all))) columns.push({ cube, serves });
  }
  const rows: number[][] = [];
  for (const [o, wish] of fns.entries())
    for (const row of onRows(wish)) {
      const by: number[] = [];
      for (const [c, { cube, serves }] of columns.entries())
        if (serves & (1 << o) && coversRow(cube, row)) by.push(c);
      rows.push(by);
    }
  const cost = columns.map(({ cube }) => TERM + literalCount(cube));
  const found = cover({ rows, cost }, STEPS);
  const chosen = found.columns.map((c) => columns[c]!);
  return fns.map((fn, o) => ({
    cubes: needed(
      chosen.filter(({ serves }) => serves & (1 << o)).map(({ cube }) => cube),
      fn,
    ),
    exact: found.exact,
    fewestLiterals: found.exact,
    least: 1,
  }));
}

/** 1 in rows where one function must be 1 and all others may be. */
function joint(fns: readonly BooleanFunction[]): BooleanFunction {
  const rows = fns[0]!.rows.map((_, row) => {
    if (fns.some((w) => w.rows[row] === OFF)) return OFF;
    return fns.some((w) => w.rows[row] === ON) ? ON : DONT_CARE;
  });
  return { inputs: fns[0]!.inputs, rows };
}

/** A function does not read a product that serves others where its own products do without it. */
function needed(cubes: readonly Cube[], fn: BooleanFunction): Cube[] {
  let left = [...new Map(cubes.map((c) => [`${c.mask} ${c.value}`, c])).values()];
  for (const cube of [...left].sort((a, b) => literalCount(b) - literalCount(a))) {
    const others = left.filter((c) => c !== cube);
    if (onRows(fn).every((row) => others.some((c) => coversRow(c, row)))) left = others;
  }
  return left;
}
