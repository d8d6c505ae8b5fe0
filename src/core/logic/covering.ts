/*
 * The set covering problem: the cheapest choice of columns such that each row has one of them.
 */

/** `rows[r]` are the columns that cover row r; `cost[c]` is a whole number of at least 1. */
export interface Covering {
  readonly rows: readonly (readonly number[])[];
  readonly cost: readonly number[];
}

export interface Cover {
  readonly columns: readonly number[];
  readonly cost: number;
  /** Whether it is proved that no cover costs less. */
  readonly exact: boolean;
}

/**
 * Solves a covering problem: essential columns and dominance until nothing more goes, then each connected part on
 * its own by branch and bound, with bounds and fixing by Lagrangian relaxation (Held and Karp, 1971; Beasley, 1987).
 * @param steps of work (entries of the problem that are looked at) after which the proof is given up and what is best
 *   so far is kept; so the result does not depend on the machine.
 * @throws RangeError where a row has no column.
 */
export function cover(problem: Covering, steps = 200_000_000): Cover {
  if (problem.rows.some((row) => row.length === 0)) throw new RangeError('a row has no column');
  const search = new Search(problem, steps);
  const columns = search.best(wholeOf(problem), Number.POSITIVE_INFINITY)!;
  return { columns: columns.sort((a, b) => a - b), cost: search.costOf(columns), exact: search.exact };
}

/** A part of the problem as flat lists: what a column covers, and what covers a row, both in order. */
interface Matrix {
  readonly rows: number;
  readonly columns: number;
  /** The number of a row in the whole problem. */
  readonly ids: Int32Array;
  /** The number of a column in the whole problem, and its cost. */
  readonly names: Int32Array;
  readonly cost: Float64Array;
  /** The columns of row r stand in `by` from `rowStart[r]` to `rowStart[r + 1]`. */
  readonly rowStart: Int32Array;
  readonly by: Int32Array;
  /** The rows of column i stand in `covered` from `start[i]` to `start[i + 1]`. */
  readonly start: Int32Array;
  readonly covered: Int32Array;
}

/** Rounds of the relaxation: at the root of the search, and within it, where it goes on from what was found before. */
const ROUNDS = 600;
const INNER_ROUNDS = 120;

/** Rows that a column must cover more to be picked though its reduced cost is one farther from 0. */
const UNDECIDED = 8;

class Search {
  exact = true;
  /** What each row pays in the relaxation, kept from node to node. */
  private readonly prices: Float64Array;

  constructor(
    private readonly problem: Covering,
    private steps: number,
  ) {
    const least = (row: readonly number[]) => Math.min(...row.map((c) => problem.cost[c]!));
    this.prices = Float64Array.from(problem.rows, (row) => least(row) / 3);
  }

  costOf(columns: readonly number[]): number {
    return columns.reduce((sum, c) => sum + this.problem.cost[c]!, 0);
  }

  /** The cheapest cover of all rows that costs less than a bound, by columns of the whole problem; null for none. */
  best(given: Matrix, below: number, deep = 0): number[] | null {
    const { chosen, matrix } = reduced(given);
    const spent = this.costOf(chosen);
    if (spent >= below) return null;
    if (matrix.rows === 0) return chosen;
    const parts = connected(matrix);
    if (parts.length === 1) {
      const found = this.branched(matrix, below - spent, deep);
      return found && [...chosen, ...found];
    }
    // The parts have nothing to do with each other; what all of them cost together must stay below the bound.
    let left = below - spent;
    const all = [...chosen];
    for (const part of parts) {
      const found = this.best(part, left, deep);
      if (!found) return null;
      left -= this.costOf(found);
      all.push(...found);
    }
    return all;
  }

  private branched(matrix: Matrix, below: number, deep: number): number[] | null {
    const { columns } = matrix;
    const relaxed = relax(matrix, this.prices, below, deep === 0 ? ROUNDS : INNER_ROUNDS);
    let best: number[] | null = relaxed.costs < below ? [...relaxed.cover] : null;
    let bound = Math.min(below, relaxed.costs);
    if (Math.ceil(relaxed.least - 1e-6) >= bound) return best;
    this.steps -= relaxed.rounds * matrix.by.length;
    if (this.steps <= 0) {
      this.exact = false;
      return best;
    }
    // Columns that no cheaper cover can have are left out, those that each must have are taken.
    const out = new Uint8Array(columns);
    const must: number[] = [];
    let outs = 0;
    for (let c = 0; c < columns; c++) {
      const dear = relaxed.reduced[c]!;
      if (relaxed.least + Math.abs(dear) - 1e-6 <= bound - 1) continue;
      if (dear > 0) outs += out[c] = 1;
      else if (dear < 0) must.push(c);
    }
    if (outs > 0 || must.length > 0) return this.with(must, matrix, out, bound, deep) ?? best;
    const pick = telling(matrix, relaxed.reduced);
    // With a column, and without it.
    const withIt = this.with([pick], matrix, out, bound, deep);
    if (withIt) {
      best = withIt;
      bound = this.costOf(withIt);
    }
    out[pick] = 1;
    return this.with([], matrix, out, bound, deep) ?? best;
  }

  /** The cheapest cover that has some columns and has not some others. */
  private with(
    taken: readonly number[],
    matrix: Matrix,
    out: Uint8Array,
    below: number,
    deep: number,
  ): number[] | null {
    const names = taken.map((c) => matrix.names[c]!);
    const left = kept(matrix, uncovered(matrix, taken), out);
    if (!left) return null;
    const found = this.best(left, below - this.costOf(names), deep + 1);
    return found && [...names, ...found];
  }
}

/** The whole of a problem. */
function wholeOf({ rows, cost }: Covering): Matrix {
  const sorted = rows.map((row) => [...row].sort((a, b) => a - b));
  const rowStart = new Int32Array(rows.length + 1);
  for (const [r, row] of sorted.entries()) rowStart[r + 1] = rowStart[r]! + row.length;
  const by = Int32Array.from(sorted.flat());
  return {
    rows: rows.length,
    columns: cost.length,
    ids: Int32Array.from(rows.keys()),
    names: Int32Array.from(cost.keys()),
    cost: Float64Array.from(cost),
    rowStart,
    by,
    ...turned(rowStart, by, cost.length),
  };
}

/** The rows of each column, from the columns of each row. */
function turned(rowStart: Int32Array, by: Int32Array, columns: number): Pick<Matrix, 'start' | 'covered'> {
  const start = new Int32Array(columns + 1);
  for (let k = 0; k < by.length; k++) start[by[k]! + 1]!++;
  for (let c = 0; c < columns; c++) start[c + 1]! += start[c]!;
  const free = start.slice();
  const covered = new Int32Array(by.length);
  for (let r = 0; r + 1 < rowStart.length; r++)
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++) covered[free[by[k]!]!++] = r;
  return { start, covered };
}

/** 1 for each row that none of some columns covers. */
function uncovered({ rows, start, covered }: Matrix, columns: readonly number[]): Uint8Array {
  const open = new Uint8Array(rows).fill(1);
  for (const c of columns) for (let k = start[c]!; k < start[c + 1]!; k++) open[covered[k]!] = 0;
  return open;
}

/**
 * The problem with some of its rows and without some of its columns; null where a row is left without any.
 * @param keep 1 for each row that stays; @param out 1 for each column that goes. Columns without rows go as well.
 */
function kept(matrix: Matrix, keep: Uint8Array, out: Uint8Array): Matrix | null {
  const { rows, columns, rowStart, by } = matrix;
  const places = new Int32Array(columns);
  let [rowsLeft, entries] = [0, 0];
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    rowsLeft++;
    const before = entries;
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++) {
      if (out[by[k]!]) continue;
      entries++;
      places[by[k]!] = 1;
    }
    if (entries === before) return null;
  }
  let columnsLeft = 0;
  for (let c = 0; c < columns; c++) if (places[c]) places[c] = ++columnsLeft;
  const names = new Int32Array(columnsLeft);
  const cost = new Float64Array(columnsLeft);
  for (let c = 0; c < columns; c++)
    if (places[c]) {
      names[places[c]! - 1] = matrix.names[c]!;
      cost[places[c]! - 1] = matrix.cost[c]!;
    }
  const ids = new Int32Array(rowsLeft);
  const nextStart = new Int32Array(rowsLeft + 1);
  const nextBy = new Int32Array(entries);
  let [row, at] = [0, 0];
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    ids[row++] = matrix.ids[r]!;
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++)
      if (!out[by[k]!]) nextBy[at++] = places[by[k]!]! - 1;
    nextStart[row] = at;
  }
  return {
    rows: rowsLeft,
    columns: columnsLeft,
    ids,
    names,
    cost,
    rowStart: nextStart,
    by: nextBy,
    ...turned(nextStart, nextBy, columnsLeft),
  };
}

/** Takes what must be taken and drops what cannot matter, until nothing changes. */
function reduced(given: Matrix): { chosen: number[]; matrix: Matrix } {
  const chosen: number[] = [];
  let matrix = given;
  for (let size = -1; size !== matrix.by.length && matrix.rows > 0; ) {
    size = matrix.by.length;
    const essential = essentials(matrix);
    if (essential.length > 0) {
      for (const c of essential) chosen.push(matrix.names[c]!);
      matrix = kept(matrix, uncovered(matrix, essential), new Uint8Array(matrix.columns))!;
    }
    matrix = kept(matrix, harder(matrix), new Uint8Array(matrix.columns))!;
    matrix = kept(matrix, new Uint8Array(matrix.rows).fill(1), dominated(matrix))!;
  }
  return { chosen, matrix };
}

/** The columns that alone cover some row. */
function essentials({ rows, columns, rowStart, by }: Matrix): number[] {
  const isOnly = new Uint8Array(columns);
  const found: number[] = [];
  for (let r = 0; r < rows; r++) {
    const c = by[rowStart[r]!]!;
    if (rowStart[r + 1]! - rowStart[r]! !== 1 || isOnly[c]) continue;
    isOnly[c] = 1;
    found.push(c);
  }
  return found;
}

/** Of some entries of a list, from one place to another, the one whose own stretch is shortest. */
function rarestOf(list: Int32Array, from: number, to: number, starts: Int32Array): number {
  let rarest = list[from]!;
  for (let k = from + 1; k < to; k++)
    if (starts[list[k]! + 1]! - starts[list[k]!]! < starts[rarest + 1]! - starts[rarest]!) rarest = list[k]!;
  return rarest;
}

/** Whether all of one stretch of a list is in another one, both in order. */
function isWithin(list: Int32Array, some: number, someEnd: number, all: number, allEnd: number): boolean {
  for (let k = some, at = all; k < someEnd; k++, at++) {
    while (at < allEnd && list[at]! < list[k]!) at++;
    if (at === allEnd || list[at] !== list[k]) return false;
  }
  return true;
}

/** 0 for each row that is covered whenever a certain other one is. */
function harder({ rows, rowStart, by, start, covered }: Matrix): Uint8Array {
  const keep = new Uint8Array(rows).fill(1);
  for (let r = 0; r < rows; r++) {
    if (!keep[r]) continue;
    const [from, to] = [rowStart[r]!, rowStart[r + 1]!];
    const rarest = rarestOf(by, from, to, start);
    for (let k = start[rarest]!; k < start[rarest + 1]!; k++) {
      const s = covered[k]!;
      const [begin, end] = [rowStart[s]!, rowStart[s + 1]!];
      if (s === r || !keep[s] || end - begin < to - from || (end - begin === to - from && s < r)) continue;
      if (isWithin(by, from, to, begin, end)) keep[s] = 0;
    }
  }
  return keep;
}

/** 1 for each column whose rows another one covers as well, at no more cost. */
function dominated({ columns, rowStart, by, start, covered, cost }: Matrix): Uint8Array {
  const out = new Uint8Array(columns);
  for (let c = 0; c < columns; c++) {
    const [from, to] = [start[c]!, start[c + 1]!];
    // Only columns of its rarest row can cover all of its rows.
    const rarest = rarestOf(covered, from, to, rowStart);
    for (let k = rowStart[rarest]!; k < rowStart[rarest + 1]!; k++) {
      const d = by[k]!;
      const [begin, end] = [start[d]!, start[d + 1]!];
      if (d === c || out[d] || cost[d]! > cost[c]! || end - begin < to - from) continue;
      if (end - begin === to - from && cost[d] === cost[c] && d > c) continue;
      if (!isWithin(covered, from, to, begin, end)) continue;
      out[c] = 1;
      break;
    }
  }
  return out;
}

/** The parts whose rows hang together by columns. */
function connected(matrix: Matrix): Matrix[] {
  const { rows, rowStart, by, start, covered } = matrix;
  const partOf = new Int32Array(rows).fill(-1);
  const todo = new Int32Array(rows);
  let parts = 0;
  for (let first = 0; first < rows; first++) {
    if (partOf[first] !== -1) continue;
    let [at, end] = [0, 1];
    todo[0] = first;
    partOf[first] = parts;
    for (; at < end; at++)
      for (let k = rowStart[todo[at]!]!; k < rowStart[todo[at]! + 1]!; k++)
        for (let j = start[by[k]!]!; j < start[by[k]! + 1]!; j++) {
          const s = covered[j]!;
          if (partOf[s] !== -1) continue;
          partOf[s] = parts;
          todo[end++] = s;
        }
    parts++;
  }
  if (parts === 1) return [matrix];
  const none = new Uint8Array(matrix.columns);
  return Array.from({ length: parts }, (_, part) => {
    const mine = Uint8Array.from(partOf, (p) => (p === part ? 1 : 0));
    return kept(matrix, mine, none)!;
  });
}

/** A column that decides much: it covers many rows, and whether it belongs to the relaxed cover is nearly undecided. */
function telling({ columns, start }: Matrix, reducedCost: Float64Array): number {
  let [pick, most] = [-1, Number.NEGATIVE_INFINITY];
  for (let c = 0; c < columns; c++) {
    const worth = start[c + 1]! - start[c]! - UNDECIDED * Math.abs(reducedCost[c]!);
    if (worth > most) [pick, most] = [c, worth];
  }
  return pick;
}

interface Relaxed {
  /** No cover costs less. */
  readonly least: number;
  /** What each column costs beyond what its rows pay for it. */
  readonly reduced: Float64Array;
  /** A cover by columns of the whole problem. */
  readonly cover: readonly number[];
  readonly costs: number;
  /** How often all entries were looked at. */
  readonly rounds: number;
}

/** Lagrangian relaxation by the subgradient method; on the way, covers are built greedily by the reduced costs. */
function relax(matrix: Matrix, prices: Float64Array, below: number, rounds: number): Relaxed {
  const { rows, columns, ids, names, cost, start, covered } = matrix;
  const costOf = (taken: readonly number[]) => taken.reduce((sum, i) => sum + cost[i]!, 0);
  const price = new Float64Array(rows);
  for (let r = 0; r < rows; r++) price[r] = prices[ids[r]!]!;
  const reduced = cost.slice();
  const excess = new Float64Array(rows);
  const best = { reduced: reduced.slice(), price: price.slice() };
  let cheapest = greedy(matrix, reduced);
  let costs = costOf(cheapest);
  let least = Number.NEGATIVE_INFINITY;
  let step = 1;
  let stale = 0;
  let round = 0;
  for (; round < rounds; round++) {
    let bound = 0;
    for (let r = 0; r < price.length; r++) bound += price[r]!;
    excess.fill(1);
    for (let i = 0; i < columns; i++) {
      let left = cost[i]!;
      const end = start[i + 1]!;
      for (let k = start[i]!; k < end; k++) left -= price[covered[k]!]!;
      reduced[i] = left;
      if (left < 0) {
        bound += left;
        for (let k = start[i]!; k < end; k++) excess[covered[k]!]!--;
      }
    }
    if (bound > least + 1e-9) {
      least = bound;
      best.reduced.set(reduced);
      best.price.set(price);
      stale = 0;
    } else if (++stale > 8) {
      step /= 2;
      stale = 0;
    }
    if (round % INNER_ROUNDS === INNER_ROUNDS - 1) {
      const found = greedy(matrix, reduced);
      const sum = costOf(found);
      if (sum < costs) [cheapest, costs] = [found, sum];
    }
    const aim = Math.min(costs, below);
    if (Math.ceil(least - 1e-6) >= aim) break;
    let norm = 0;
    for (let r = 0; r < excess.length; r++) norm += excess[r]! * excess[r]!;
    if (norm === 0) break;
    const by = (step * (1.02 * aim - bound)) / norm;
    for (let r = 0; r < price.length; r++) price[r] = Math.max(0, price[r]! + by * excess[r]!);
  }
  for (let r = 0; r < rows; r++) prices[ids[r]!] = best.price[r]!;
  return {
    least,
    reduced: best.reduced,
    cover: cheapest.map((i) => names[i]!),
    costs,
    rounds: round + 1,
  };
}

/**
 * A cover by the columns that cost least for each row that they cover newly, without those that turn out superfluous.
 * @param worth what each column is taken to cost, by its place in the matrix.
 * @returns places of columns.
 */
function greedy(
  { rows, columns, cost, start, covered, rowStart, by }: Matrix,
  worth: Float64Array,
): number[] {
  const counts = new Int32Array(rows);
  const newly = new Int32Array(columns);
  for (let i = 0; i < columns; i++) newly[i] = start[i + 1]! - start[i]!;
  let open = rows;
  const taken: number[] = [];
  const take = (i: number) => {
    taken.push(i);
    for (let k = start[i]!; k < start[i + 1]!; k++) {
      const r = covered[k]!;
      if (counts[r]!++ > 0) continue;
      open--;
      for (let j = rowStart[r]!; j < rowStart[r + 1]!; j++) newly[by[j]!]!--;
    }
  };
  for (let i = 0; i < columns; i++) if (worth[i]! <= 0) take(i);
  while (open > 0) {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i < columns; i++)
      if (newly[i]! > 0 && worth[i]! < least * newly[i]!) [best, least] = [i, worth[i]! / newly[i]!];
    take(best);
  }
  // The dearest first: each whose rows all have another one.
  taken.sort((a, b) => cost[b]! - cost[a]! || worth[b]! - worth[a]!);
  return taken.filter((i) => {
    for (let k = start[i]!; k < start[i + 1]!; k++) if (counts[covered[k]!] === 1) return true;
    for (let k = start[i]!; k < start[i + 1]!; k++) counts[covered[k]!]!--;
    return false;
  });
}
