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
const INNER_ROUNDS = 60;

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
    // A column that is nearly in the relaxed cover: with it, and without it.
    const { by } = rows.reduce((a, b) => (b.by.length < a.by.length ? b : a));
    const pick = by.reduce((a, b) => (relaxed.reduced.get(b)! < relaxed.reduced.get(a)! ? b : a));
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

/** Lagrangian relaxation by the subgradient method; on the way, covers are built greedily by the reduced costs. */
function relax(
  rows: Rows,
  cost: readonly number[],
  prices: Float64Array,
  below: number,
  rounds: number,
): Relaxed {
  const columns = [...columnsOf(rows)];
  const costOf = (positions: readonly number[]) =>
    positions.reduce((sum, i) => sum + cost[columns[i]![0]]!, 0);
  const price = Float64Array.from(rows, ({ id }) => prices[id]!);
  const reduced = Float64Array.from(columns, ([c]) => cost[c]!);
  const excess = new Float64Array(rows.length);
  const kept = { reduced: reduced.slice(), price: price.slice() };
  let cheapest = greedy(rows.length, columns, cost, reduced);
  let costs = costOf(cheapest);
  let least = Number.NEGATIVE_INFINITY;
  let step = 1;
  let stale = 0;
  let round = 0;
  for (; round < rounds; round++) {
    let bound = 0;
    for (const p of price) bound += p;
    excess.fill(1);
    for (const [i, [c, covered]] of columns.entries()) {
      let left = cost[c]!;
      for (const r of covered) left -= price[r]!;
      reduced[i] = left;
      if (left < 0) {
        bound += left;
        for (const r of covered) excess[r]!--;
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
      const found = greedy(rows.length, columns, cost, reduced);
      const sum = costOf(found);
      if (sum < costs) [cheapest, costs] = [found, sum];
    }
    const aim = Math.min(costs, below);
    if (Math.ceil(least - 1e-6) >= aim) break;
    let norm = 0;
    for (const e of excess) norm += e * e;
    if (norm === 0) break;
    const by = (step * (1.02 * aim - bound)) / norm;
    for (let r = 0; r < price.length; r++) price[r] = Math.max(0, price[r]! + by * excess[r]!);
  }
  for (const [r, { id }] of rows.entries()) prices[id] = kept.price[r]!;
  return {
    least,
    reduced: new Map(columns.map(([c], i) => [c, kept.reduced[i]!])),
    cover: cheapest.map((i) => columns[i]![0]),
    costs,
    rounds: round + 1,
  };
}

/**
 * A cover by the columns that cost least for each row that they cover newly, without those that turn out superfluous.
 * @param worth what each column is taken to cost, by its position.
 * @returns positions of columns.
 */
function greedy(
  rows: number,
  columns: readonly (readonly [number, readonly number[]])[],
  cost: readonly number[],
  worth: Float64Array,
): number[] {
  const counts = new Int32Array(rows);
  let open = rows;
  const taken: number[] = [];
  const take = (i: number) => {
    taken.push(i);
    for (const r of columns[i]![1]) if (counts[r]!++ === 0) open--;
  };
  for (const i of columns.keys()) if (worth[i]! <= 0) take(i);
  let left = [...columns.keys()].filter((i) => worth[i]! > 0);
  while (open > 0) {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    left = left.filter((i) => {
      let newly = 0;
      for (const r of columns[i]![1]) if (counts[r] === 0) newly++;
      if (newly > 0 && worth[i]! / newly < least) [best, least] = [i, worth[i]! / newly];
      return newly > 0;
    });
    take(best);
  }
  // The dearest first: each whose rows all have another one.
  const costs = (i: number) => cost[columns[i]![0]]!;
  taken.sort((a, b) => costs(b) - costs(a) || worth[b]! - worth[a]!);
  return taken.filter((i) => {
    const [, covered] = columns[i]!;
    if (!covered.every((r) => counts[r]! > 1)) return true;
    for (const r of covered) counts[r]!--;
    return false;
  });
}
