/*
 * The set covering problem: the cheapest choice of columns such that each row has one of them.
 */

import {
  type Covering,
  components,
  type Matrix,
  matrixOf,
  reduced,
  submatrix,
  uncovered,
} from './covering-matrix';
import { greedy, IN, OUT, type RelaxationState, reaches, reducedCostFixing, relax } from './lp-bound';

export interface Cover {
  readonly columns: readonly number[];
  readonly cost: number;
  /** Whether it is proved that no cover costs less. */
  readonly exact: boolean;
  /** What every cover costs at least, as far as that is proved; costs are whole numbers. */
  readonly least: number;
  /** Work that it took, in the steps of `cover`. */
  readonly steps: number;
}

/**
 * Solves a covering problem: essential columns and dominance to a fixed point, then each connected part on
 * its own by branch and bound, with bounds by the linear relaxation and columns fixed by reduced costs.
 * @param steps of work (entries of the problem that are read) after which the proof is given up and the best
 *   cover so far is kept; the result therefore does not depend on the machine.
 * @param known a known cover; only a cheaper one replaces it.
 * @throws RangeError for a row without a column.
 */
export function cover(problem: Covering, steps = 200_000_000, known?: readonly number[]): Cover {
  if (problem.rows.some((row) => row.length === 0)) throw new RangeError('a row has no column');
  const search = new Search(problem, steps);
  const below = known ? search.costOf(known) : Number.POSITIVE_INFINITY;
  const columns = search.best(matrixOf(problem), below) ?? [...known!];
  return {
    columns: columns.sort((a, b) => a - b),
    cost: search.costOf(columns),
    exact: search.exact,
    least: search.exact ? search.costOf(columns) : search.least,
    steps: steps - search.stepsLeft,
  };
}

/**
 * Rounds of the relaxation at the root of the search, and within it, where it continues from earlier results.
 */
const ROUNDS = 600;
const INNER_ROUNDS = 160;

/** How often about the entries are looked at while a part of the problem is made smaller. */
const REDUCING = 50;

/** Near the root covers are looked for at each node, farther in at one in so many. */
const NEAR = 4;
const NODES_A_COVER = 8;

/** By how much a bound of the relaxation may be off by rounding. */
const ROUNDED = 1e-6;

/** A column that the relaxation takes whole is worth almost nothing, so it is picked first. */
const JUST_OVER_ONE = 1.001;

/** Rows that a column must cover more to be picked before one that is wholly undecided. */
const UNDECIDED = 5;

class Search {
  exact = true;
  /** A lower bound on the cost of any cover: the sum of the bounds of the independent parts of the problem. */
  least = 0;
  private nodes = 0;
  private readonly standing: RelaxationState;

  constructor(
    private readonly problem: Covering,
    public stepsLeft: number,
  ) {
    const least = (row: readonly number[]) => Math.min(...row.map((c) => problem.cost[c]!));
    this.standing = {
      prices: Float64Array.from(problem.rows, (row) => least(row) / 3),
      shares: new Float64Array(problem.cost.length).fill(0.3),
    };
  }

  costOf(columns: readonly number[]): number {
    return columns.reduce((sum, c) => sum + this.problem.cost[c]!, 0);
  }

  /** The cheapest cover of all rows that costs less than a bound, by columns of the whole problem; null for none. */
  best(given: Matrix, below: number, deep = 0): number[] | null {
    const { chosen, matrix } = reduced(given);
    this.stepsLeft -= REDUCING * given.by.length;
    const spent = this.costOf(chosen);
    if (deep === 0) this.least += spent;
    if (spent >= below) return null;
    if (matrix.rows === 0) return chosen;
    const parts = components(matrix);
    if (parts.length === 1) {
      const found =
        deep === 0 ? this.whole(matrix, below - spent) : this.branched(matrix, below - spent, deep);
      return found && [...chosen, ...found];
    }
    // The parts are independent; the sum of their costs must stay below the bound.
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

  /** Solves one independent part of the original problem, and adds its lower bound to `least`. */
  private whole(matrix: Matrix, below: number): number[] | null {
    const others = this.exact;
    this.exact = true;
    this.atRoot = 0;
    const found = this.branched(matrix, below, 0);
    this.least += found && this.exact ? this.costOf(found) : this.atRoot;
    this.exact &&= others;
    return found;
  }
  private atRoot = 0;

  private branched(matrix: Matrix, below: number, deep: number): number[] | null {
    let best: number[] | null = null;
    let bound = below;
    const pickBy = (worth: Float64Array) => {
      const found = greedy(matrix, worth).map((c) => matrix.names[c]!);
      if (this.costOf(found) < bound) [best, bound] = [found, this.costOf(found)];
    };
    if (deep === 0) pickBy(matrix.cost);
    const relaxed = relax(matrix, this.standing, bound, deep === 0 ? ROUNDS : INNER_ROUNDS);
    this.stepsLeft -= relaxed.passes * matrix.by.length;
    if (deep === 0) this.atRoot = Math.ceil(relaxed.least - ROUNDED);
    if (reaches(relaxed.least, bound)) return best;
    if (deep < NEAR || this.nodes++ % NODES_A_COVER === 0) {
      pickBy(relaxed.reduced);
      pickBy(relaxed.share.map((share) => JUST_OVER_ONE - share));
    }
    if (reaches(relaxed.least, bound)) return best;
    if (this.stepsLeft <= 0) {
      this.exact = false;
      return best;
    }
    // Columns that no cheaper cover can have are left out, those that each must have are taken.
    const out = new Uint8Array(matrix.columns);
    const must: number[] = [];
    let outs = 0;
    for (let c = 0; c < out.length; c++) {
      const fixed = relaxed.fixed[c] || reducedCostFixing(relaxed.least, relaxed.reduced[c]!, bound);
      if (fixed === OUT) outs += out[c] = 1;
      else if (fixed === IN) must.push(c);
    }
    if (outs > 0 || must.length > 0) return this.with(must, matrix, out, bound, deep) ?? best;
    const pick = telling(matrix, relaxed.share);
    // With a column, and without it.
    const withIt = this.with([pick], matrix, out, bound, deep);
    if (withIt) {
      best = withIt;
      bound = this.costOf(withIt);
    }
    out[pick] = 1;
    return this.with([], matrix, out, bound, deep) ?? best;
  }

  /** The cheapest cover with some columns and without some others. */
  private with(
    taken: readonly number[],
    matrix: Matrix,
    out: Uint8Array,
    below: number,
    deep: number,
  ): number[] | null {
    const names = taken.map((c) => matrix.names[c]!);
    const left = submatrix(matrix, uncovered(matrix, taken), out);
    if (!left) return null;
    const found = this.best(left, below - this.costOf(names), deep + 1);
    return found && [...names, ...found];
  }
}

/** A column that decides much: about half of it is taken, and it covers many rows. */
function telling({ columns, start }: Matrix, share: Float64Array): number {
  let [pick, most] = [-1, Number.NEGATIVE_INFINITY];
  for (let c = 0; c < columns; c++) {
    const worth = start[c + 1]! - start[c]! + 2 * UNDECIDED * Math.min(share[c]!, 1 - share[c]!);
    if (worth > most) [pick, most] = [c, worth];
  }
  return pick;
}
