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
  const rows = problem.rows.map((row, id) => ({ id, by: [...row].sort((a, b) => a - b) }));
  const columns = search.best(rows, Number.POSITIVE_INFINITY)!;
  return { columns: columns.sort((a, b) => a - b), cost: search.costOf(columns), exact: search.exact };
}

/** A row, known by its number whatever columns are left to it. */
interface Row {
  readonly id: number;
  readonly by: readonly number[];
}
type Rows = readonly Row[];

/** Rounds of the relaxation: at the root of the search, and within it, where it goes on from what was found before. */
const ROUNDS = 600;
const INNER_ROUNDS = 120;

/** Rows that a column must cover more to be picked though its reduced cost is one farther from 0. */
const UNDECIDED = 4;

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

  /** The cheapest cover of rows that costs less than a bound; null where there is none. */
  best(given: Rows, below: number, deep = 0): number[] | null {
    const { chosen, rows } = this.reduced(given);
    const spent = this.costOf(chosen);
    if (spent >= below) return null;
    if (rows.length === 0) return chosen;
    const parts = connected(rows);
    if (parts.length === 1) {
      const found = this.branched(rows, below - spent, deep);
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

  private branched(rows: Rows, below: number, deep: number): number[] | null {
    const relaxed = relax(rows, this.problem.cost, this.prices, below, deep === 0 ? ROUNDS : INNER_ROUNDS);
    let best: number[] | null = relaxed.costs < below ? [...relaxed.cover] : null;
    let bound = Math.min(below, relaxed.costs);
    if (Math.ceil(relaxed.least - 1e-6) >= bound) return best;
    this.steps -= relaxed.rounds * weight(rows);
    if (this.steps <= 0) {
      this.exact = false;
      return best;
    }
    // Columns that no cheaper cover can have are left out, those that each must have are taken.
    const out = new Set<number>();
    const must: number[] = [];
    for (const [c, dear] of relaxed.reduced) {
      if (relaxed.least + dear - 1e-6 > bound - 1 && dear > 0) out.add(c);
      else if (dear < 0 && relaxed.least - dear - 1e-6 > bound - 1) must.push(c);
    }
    const narrowed = without(rows, out);
    if (narrowed.some(({ by }) => by.length === 0)) return best;
    if (out.size > 0 || must.length > 0) {
      const found = this.with(must, narrowed, bound, deep);
      return found ?? best;
    }
    const pick = telling(rows, relaxed.reduced);
    // With a column, and without it.
    const withIt = this.with([pick], rows, bound, deep);
    if (withIt) {
      best = withIt;
      bound = this.costOf(withIt);
    }
    const others = without(rows, new Set([pick]));
    if (others.some((row) => row.by.length === 0)) return best;
    return this.best(others, bound, deep + 1) ?? best;
  }

  private with(taken: readonly number[], rows: Rows, below: number, deep: number): number[] | null {
    const left = rows.filter(({ by }) => !by.some((c) => taken.includes(c)));
    const found = this.best(left, below - this.costOf(taken), deep + 1);
    return found && [...taken, ...found];
  }

  /** Takes what must be taken and drops what cannot matter, until nothing changes. */
  reduced(given: Rows): { chosen: number[]; rows: Rows } {
    const chosen: number[] = [];
    let rows = given;
    for (let size = -1; size !== weight(rows) && rows.length > 0; ) {
      size = weight(rows);
      const essential = new Set(rows.filter(({ by }) => by.length === 1).map(({ by }) => by[0]!));
      if (essential.size > 0) {
        chosen.push(...essential);
        rows = rows.filter(({ by }) => !by.some((c) => essential.has(c)));
      }
      rows = this.withoutDominated(withoutEasier(rows));
    }
    return { chosen, rows };
  }

  /** Leaves out each column whose rows another one covers as well, at no more cost. */
  private withoutDominated(rows: Rows): Rows {
    const { cost } = this.problem;
    const covers = columnsOf(rows);
    const out = new Set<number>();
    for (const [c, mine] of covers) {
      // Only columns of its rarest row can cover all of its rows.
      const rarest = mine.reduce((a, b) => (rows[b]!.by.length < rows[a]!.by.length ? b : a));
      for (const d of rows[rarest]!.by) {
        if (d === c || out.has(d) || cost[d]! > cost[c]!) continue;
        const other = covers.get(d)!;
        if (other.length < mine.length) continue;
        if (other.length === mine.length && cost[d] === cost[c] && d > c) continue;
        if (isWithin(mine, other)) {
          out.add(c);
          break;
        }
      }
    }
    return without(rows, out);
  }
}

const weight = (rows: Rows) => rows.reduce((sum, { by }) => sum + by.length, 0);

/** The rows without some columns. */
function without(rows: Rows, columns: ReadonlySet<number>): Rows {
  if (columns.size === 0) return rows;
  return rows.map(({ id, by }) => ({ id, by: by.filter((c) => !columns.has(c)) }));
}

/** The rows of each column, in order. */
function columnsOf(rows: Rows): Map<number, number[]> {
  const columns = new Map<number, number[]>();
  for (const [r, { by }] of rows.entries())
    for (const c of by) {
      const list = columns.get(c);
      if (list) list.push(r);
      else columns.set(c, [r]);
    }
  return columns;
}

/** Whether all of a sorted list is in another sorted one. */
function isWithin(some: readonly number[], all: readonly number[]): boolean {
  let at = 0;
  for (const one of some) {
    while (at < all.length && all[at]! < one) at++;
    if (all[at] !== one) return false;
    at++;
  }
  return true;
}

/** Leaves out each row that is covered whenever a certain other one is. */
function withoutEasier(rows: Rows): Rows {
  const columns = columnsOf(rows);
  const out = new Set<number>();
  for (const [r, { by: row }] of rows.entries()) {
    if (out.has(r)) continue;
    const rarest = row.reduce((a, b) => (columns.get(b)!.length < columns.get(a)!.length ? b : a));
    for (const s of columns.get(rarest)!) {
      const other = rows[s]!.by;
      if (s === r || out.has(s) || other.length < row.length) continue;
      if (other.length === row.length && s < r) continue;
      if (isWithin(row, other)) out.add(s);
    }
  }
  return out.size === 0 ? rows : rows.filter((_, r) => !out.has(r));
}

/** Rows that hang together by columns. */
function connected(rows: Rows): Rows[] {
  const columns = columnsOf(rows);
  const seen = new Uint8Array(rows.length);
  const parts: Rows[] = [];
  for (const r of rows.keys()) {
    if (seen[r]) continue;
    const part: Row[] = [];
    const todo = [r];
    seen[r] = 1;
    for (let at = todo.pop(); at !== undefined; at = todo.pop()) {
      part.push(rows[at]!);
      for (const c of rows[at]!.by)
        for (const s of columns.get(c)!)
          if (!seen[s]) {
            seen[s] = 1;
            todo.push(s);
          }
    }
    parts.push(part);
  }
  return parts;
}

/** A column that decides much: it covers many rows, and whether it belongs to the relaxed cover is nearly undecided. */
function telling(rows: Rows, reduced: ReadonlyMap<number, number>): number {
  const counts = new Map<number, number>();
  for (const { by } of rows) for (const c of by) counts.set(c, (counts.get(c) ?? 0) + 1);
  let [pick, most] = [-1, Number.NEGATIVE_INFINITY];
  for (const [c, count] of counts) {
    const worth = count - UNDECIDED * Math.abs(reduced.get(c)!);
    if (worth > most) [pick, most] = [c, worth];
  }
  return pick;
}

interface Relaxed {
  /** No cover costs less. */
  readonly least: number;
  /** What each column costs beyond what its rows pay for it. */
  readonly reduced: ReadonlyMap<number, number>;
  readonly cover: readonly number[];
  readonly costs: number;
  /** How often all entries were looked at. */
  readonly rounds: number;
}

/** Rows and columns of a part of the problem as flat lists: what a column covers, and what covers a row. */
interface Matrix {
  readonly rows: number;
  readonly columns: number;
  /** The number of a column in the whole problem, and its cost. */
  readonly names: Int32Array;
  readonly cost: Float64Array;
  /** The rows of column i stand in `covered` from `start[i]` to `start[i + 1]`. */
  readonly start: Int32Array;
  readonly covered: Int32Array;
  /** The columns of row r stand in `by` from `rowStart[r]` to `rowStart[r + 1]`. */
  readonly rowStart: Int32Array;
  readonly by: Int32Array;
}

function matrixOf(rows: Rows, cost: readonly number[]): Matrix {
  const places = new Map<number, number>();
  const rowStart = new Int32Array(rows.length + 1);
  const by = new Int32Array(weight(rows));
  let at = 0;
  for (const [r, row] of rows.entries()) {
    for (const c of row.by) {
      const place = places.get(c) ?? places.size;
      places.set(c, place);
      by[at++] = place;
    }
    rowStart[r + 1] = at;
  }
  const names = Int32Array.from(places.keys());
  const start = new Int32Array(names.length + 1);
  for (const c of by) start[c + 1]!++;
  for (let c = 0; c < names.length; c++) start[c + 1]! += start[c]!;
  const free = start.slice();
  const covered = new Int32Array(by.length);
  for (let r = 0; r < rows.length; r++)
    for (let k = rowStart[r]!; k < rowStart[r + 1]!; k++) covered[free[by[k]!]!++] = r;
  return {
    rows: rows.length,
    columns: names.length,
    names,
    cost: Float64Array.from(names, (c) => cost[c]!),
    start,
    covered,
    rowStart,
    by,
  };
}

/** Lagrangian relaxation by the subgradient method; on the way, covers are built greedily by the reduced costs. */
function relax(
  rows: Rows,
  costOfAll: readonly number[],
  prices: Float64Array,
  below: number,
  rounds: number,
): Relaxed {
  const matrix = matrixOf(rows, costOfAll);
  const { columns, cost, start, covered } = matrix;
  const costOf = (taken: readonly number[]) => taken.reduce((sum, i) => sum + cost[i]!, 0);
  const price = Float64Array.from(rows, ({ id }) => prices[id]!);
  const reduced = cost.slice();
  const excess = new Float64Array(rows.length);
  const kept = { reduced: reduced.slice(), price: price.slice() };
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
      kept.reduced.set(reduced);
      kept.price.set(price);
      stale = 0;
    } else if (++stale > 8) {
      step /= 2;
      stale = 0;
    }
    if (round % 30 === 29 || round === rounds - 1) {
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
  for (const [r, { id }] of rows.entries()) prices[id] = kept.price[r]!;
  const names = [...matrix.names];
  return {
    least,
    reduced: new Map(names.map((c, i) => [c, kept.reduced[i]!])),
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
