import { type Problem, problem } from '../../values/result';
import {
  type BooleanFunction,
  type Cube,
  coversRow,
  isContainedIn,
  literalCount,
  OFF,
  ON,
} from '../minimise/cube';
import { primes } from '../minimise/primes';

/*
 * The Karnaugh map: the rows of a table laid out so that neighbours differ in one input (Karnaugh, 1953).
 */

export const LEAST_ON_MAP = 2;
export const MOST_ON_MAP = 6;

/** Two bits in an order in which neighbours, the last and the first among them, differ in one. */
const GRAY = [0, 1, 3, 2];

/**
 * Where the inputs stand: those of the layers first, then down, then across, at most two of each. `axes` are numbers
 * of inputs.
 */
export interface MapLayout {
  readonly inputs: number;
  readonly layers: readonly number[];
  readonly down: readonly number[];
  readonly across: readonly number[];
}

/** The layout for inputs in an order: the last ones across, those before them down, the first ones as layers. */
export function layoutOf(order: readonly number[]): MapLayout {
  const n = order.length;
  if (n < LEAST_ON_MAP || n > MOST_ON_MAP) throw new RangeError(`a map has 2 to 6 inputs, not ${n}`);
  const across = n === 2 ? 1 : 2;
  const down = Math.min(2, n - across);
  return {
    inputs: n,
    layers: order.slice(0, n - across - down),
    down: order.slice(n - across - down, n - across),
    across: order.slice(n - across),
  };
}

export const sizeOfAxis = (axis: readonly number[]) => 2 ** axis.length;

/** The values of an axis' inputs at a place on it, the first input first. */
export function valuesAt(axis: readonly number[], place: number): (0 | 1)[] {
  const code = GRAY[place]!;
  return axis.map((_, i) => ((code >> (axis.length - 1 - i)) & 1) as 0 | 1);
}

/** The row of the table at a cell. A layer's number counts in the same order as its places. */
export function rowAt(layout: MapLayout, layer: number, down: number, across: number): number {
  let row = 0;
  const put = (axis: readonly number[], place: number) => {
    for (const [i, value] of valuesAt(axis, place).entries()) row |= value << (layout.inputs - 1 - axis[i]!);
  };
  put(layout.layers, layer);
  put(layout.down, down);
  put(layout.across, across);
  return row;
}

/** A stretch of a loop within a layer, from one cell to another; open where it continues across the edge. */
export interface LoopPiece {
  readonly layer: number;
  readonly down: readonly [number, number];
  readonly across: readonly [number, number];
  readonly open: {
    readonly top: boolean;
    readonly bottom: boolean;
    readonly left: boolean;
    readonly right: boolean;
  };
}

/** A run of places on an axis, with the edges across which it continues. */
interface Run {
  readonly from: number;
  readonly to: number;
  readonly opensBefore: boolean;
  readonly opensAfter: boolean;
}

/** The places of an axis at which a cube holds, as runs: one, or two if it continues across the edge. */
function runs(cube: Cube, layout: MapLayout, axis: readonly number[]): Run[] {
  const size = sizeOfAxis(axis);
  const holds = Array.from({ length: size }, (_, place) =>
    valuesAt(axis, place).every((value, i) => {
      const bit = 1 << (layout.inputs - 1 - axis[i]!);
      return !(cube.mask & bit) || ((cube.value & bit) !== 0) === (value === 1);
    }),
  );
  if (holds.every(Boolean)) return [{ from: 0, to: size - 1, opensBefore: false, opensAfter: false }];
  const found: Run[] = [];
  for (let place = 0; place < size; place++) {
    if (!holds[place] || holds[place - 1]) continue;
    let to = place;
    while (holds[to + 1]) to++;
    found.push({ from: place, to, opensBefore: false, opensAfter: false });
  }
  if (found.length < 2) return found;
  // The first and the last place are neighbours.
  return found.map((run) => ({ ...run, opensBefore: run.from === 0, opensAfter: run.to === size - 1 }));
}

/** The loop around a cube's cells, piece by piece: those that wrap round an edge are open there. */
export function loopOf(cube: Cube, layout: MapLayout): LoopPiece[] {
  const pieces: LoopPiece[] = [];
  for (const layer of runs(cube, layout, layout.layers).flatMap((r) => range(r.from, r.to)))
    for (const down of runs(cube, layout, layout.down))
      for (const across of runs(cube, layout, layout.across))
        pieces.push({
          layer,
          down: [down.from, down.to],
          across: [across.from, across.to],
          open: {
            top: down.opensBefore,
            bottom: down.opensAfter,
            left: across.opensBefore,
            right: across.opensAfter,
          },
        });
  return pieces;
}

const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i);

/** The cube whose rows are exactly these; null if there is none. */
export function cubeOfRows(rows: ReadonlySet<number>, inputs: number): Cube | null {
  if (rows.size === 0) return null;
  const all = 2 ** inputs - 1;
  let [both, either] = [all, 0];
  for (const row of rows) {
    both &= row;
    either |= row;
  }
  const mask = all & ~(both ^ either);
  const cube = { mask, value: both & mask };
  return 2 ** (inputs - literalCount(cube)) === rows.size ? cube : null;
}

/** The error of a group that was drawn by hand; null if there is none. */
export function wrongWithGroup(
  rows: ReadonlySet<number>,
  { inputs, rows: values }: BooleanFunction,
): Problem | null {
  const { size } = rows;
  if ((size & (size - 1)) !== 0)
    return problem(
      'group-size',
      `${size} cells are no group: a group has 1, 2, 4, 8 or more cells, doubling`,
    );
  const cube = cubeOfRows(rows, inputs);
  if (!cube)
    return problem(
      'no-block',
      'these cells do not make a block: they must lie side by side, across the edges too',
    );
  const zero = [...rows].find((row) => values[row] === OFF);
  if (zero !== undefined) return problem('zero-in-group', `there is a 0 in it, in row ${zero}`);
  if (![...rows].some((row) => values[row] === ON))
    return problem('no-one-in-group', 'it covers no 1, only don’t-cares');
  return null;
}

/** How a grouping stands that was drawn by hand. */
export interface Judged {
  /** For each group a possible improvement; null if there is none. */
  readonly groups: readonly (string | null)[];
  /** Rows with a 1 under no group. */
  readonly bare: readonly number[];
  readonly isRight: boolean;
}

/** Judges groups that are each all right on their own: as large as possible, all ones covered, none superfluous. */
export function judged(groups: readonly Cube[], fn: BooleanFunction): Judged {
  const all = primes(fn);
  const on = [...fn.rows.keys()].filter((row) => fn.rows[row] === ON);
  const said = groups.map((group, i) => {
    const larger = all.find((p) => p.mask !== group.mask && isContainedIn(group, p));
    if (larger) return `It can be larger: ${2 ** (fn.inputs - literalCount(larger))} cells.`;
    const own = on.filter((row) => coversRow(group, row));
    const others = groups.filter((_, k) => k !== i);
    return own.every((row) => others.some((o) => coversRow(o, row)))
      ? 'It is redundant: the others cover all of its ones.'
      : null;
  });
  const bare = on.filter((row) => !groups.some((g) => coversRow(g, row)));
  return { groups: said, bare, isRight: bare.length === 0 && said.every((s) => s === null) };
}

/** The products of a cover without which some row would have none: no cover can do without them. */
export function essential(fn: BooleanFunction): Cube[] {
  const all = primes(fn);
  const found = new Set<Cube>();
  for (const [row, value] of fn.rows.entries()) {
    if (value !== ON) continue;
    const mine = all.filter((cube) => coversRow(cube, row));
    if (mine.length === 1) found.add(mine[0]!);
  }
  return [...found];
}

/** Two neighbouring ones under no common product: when the input between them changes, the sum may drop for a moment. */
export interface Hazard {
  readonly rows: readonly [number, number];
  /** The input that changes, by number. */
  readonly input: number;
  /** A product that holds in both, and so keeps the sum up. */
  readonly remedy: Cube;
}

/** The static hazards of a sum of products (Huffman, 1957). */
export function hazards(cubes: readonly Cube[], fn: BooleanFunction): Hazard[] {
  const all = primes(fn);
  const found: Hazard[] = [];
  for (const [row, value] of fn.rows.entries())
    for (let input = 0; input < fn.inputs; input++) {
      const bit = 1 << (fn.inputs - 1 - input);
      const other = row | bit;
      if (row & bit || value !== ON || fn.rows[other] !== ON) continue;
      if (cubes.some((c) => coversRow(c, row) && coversRow(c, other))) continue;
      const remedy = all
        .filter((c) => coversRow(c, row) && coversRow(c, other))
        .reduce((a, b) => (literalCount(b) < literalCount(a) ? b : a));
      found.push({ rows: [row, other], input, remedy });
    }
  return found;
}
