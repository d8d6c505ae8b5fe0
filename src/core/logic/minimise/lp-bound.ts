/*
 * How little a cover can cost, and a cover that costs little, both without a search.
 */
import type { Matrix } from './covering-matrix';

/**
 * The state of a relaxation, by rows and columns of the whole problem: kept from one part of a search to the
 * next, so that each continues from the last.
 */
export interface RelaxationState {
  /** The price of each row. */
  readonly prices: Float64Array;
  /** How much of each column is taken, 0 to 1. */
  readonly shares: Float64Array;
}

/** The conclusion about a column: none, or that no cheap cover has it, or that every cheap cover has it. */
const OPEN = 0;
export const OUT = 1;
export const IN = 2;

export interface Relaxed {
  /** No cover costs less. */
  readonly least: number;
  /** The reduced cost of each column. */
  readonly reduced: Float64Array;
  /** How much of each column is taken where columns may be taken in part. */
  readonly share: Float64Array;
  /** `OPEN`, `OUT` or `IN` for each column. */
  readonly fixed: Uint8Array;
  /** How often all entries were looked at. */
  readonly passes: number;
}

/** Rounds between two looks at the bound. */
const ROUNDS_A_LOOK = 10;
/** Rounds before it may be given up, and after which it restarts from the mean of its iterates. */
const LEAST_ROUNDS = 30;
const ROUNDS_A_START = 100;
/** It is given up when a round gains less than this share of the gap. */
const GAIN = 0.08;
/** How far prices move for each step of the shares, in costs of a column, and how far both overstep. */
const PRICE_STEP = 2;
const OVERSTEP = 1.6;
/** Bounds are taken to be this much lower than they are computed. */
const ROUNDING = 1e-6;

/** Whether whole costs are at least `bound` when they cannot be below `least`. */
export const reaches = (least: number, bound: number) => Math.ceil(least - ROUNDING) >= bound;

/** Whether a column must go, or stay, in all covers that cost less than `bound`, by any prices of the rows. */
export function reducedCostFixing(least: number, reduced: number, bound: number): number {
  if (least + Math.abs(reduced) - ROUNDING <= bound - 1) return OPEN;
  return reduced > 0 ? OUT : IN;
}

/**
 * The linear relaxation of a covering problem, by the primal-dual hybrid gradient method (Chambolle and Pock,
 * 2011) with a step for each row and column (Pock and Chambolle, 2011), restarted from the mean of its
 * iterates (Applegate and others, 2021). Every iterate gives a valid bound, and fixes columns, however far it
 * is from the optimum.
 * @param below the cost that a cover must stay under to be of interest.
 * @param rounds most rounds.
 */
export function relax(matrix: Matrix, standing: RelaxationState, below: number, rounds: number): Relaxed {
  const relaxation = new Relaxation(matrix, standing, below);
  relaxation.run(rounds);
  return relaxation.result(standing);
}

class Relaxation {
  private readonly price: Float64Array;
  private readonly share: Float64Array;
  /** The shares, overstepped, from which the next prices are found. */
  private readonly ahead: Float64Array;
  private readonly priceStep: Float64Array;
  private readonly shareStep: Float64Array;
  /** Sums since the last start, and of how many rounds. */
  private readonly prices: Float64Array;
  private readonly shares: Float64Array;
  private summed = 0;
  /** The best so far. */
  private least = Number.NEGATIVE_INFINITY;
  private readonly bestPrice: Float64Array;
  private readonly bestReduced: Float64Array;
  private readonly reduced: Float64Array;
  private readonly fixed: Uint8Array;
  private passes = 0;

  constructor(
    private readonly matrix: Matrix,
    standing: RelaxationState,
    private readonly below: number,
  ) {
    const { rows, columns, rowStart, start, cost } = matrix;
    const unit = (PRICE_STEP * cost.reduce((sum, c) => sum + c, 0)) / columns;
    this.price = new Float64Array(rows);
    this.priceStep = new Float64Array(rows);
    for (let r = 0; r < rows; r++) {
      this.price[r] = standing.prices[matrix.ids[r]!]!;
      this.priceStep[r] = unit / (rowStart[r + 1]! - rowStart[r]!);
    }
    this.share = new Float64Array(columns);
    this.shareStep = new Float64Array(columns);
    for (let c = 0; c < columns; c++) {
      this.share[c] = standing.shares[matrix.names[c]!]!;
      this.shareStep[c] = 1 / unit / (start[c + 1]! - start[c]!);
    }
    this.ahead = new Float64Array(columns);
    this.prices = new Float64Array(rows);
    this.shares = new Float64Array(columns);
    this.bestPrice = this.price.slice();
    this.bestReduced = cost.slice();
    this.reduced = cost.slice();
    this.fixed = new Uint8Array(columns);
  }

  run(rounds: number): void {
    const mean = new Float64Array(this.price.length);
    this.look(this.price);
    for (let round = 0; round < rounds && !reaches(this.least, this.below); ) {
      const before = this.least;
      for (let n = 0; n < ROUNDS_A_LOOK; n++) {
        this.moveShares();
        this.movePrices();
      }
      round += ROUNDS_A_LOOK;
      this.summed += ROUNDS_A_LOOK;
      this.passes += 2 * ROUNDS_A_LOOK;
      for (let r = 0; r < mean.length; r++) mean[r] = this.prices[r]! / this.summed;
      const here = this.look(this.price);
      const there = this.look(mean);
      if (this.summed >= ROUNDS_A_START) this.startAgain(there > here ? mean : this.price, there > here);
      if (round >= LEAST_ROUNDS && this.least - before < GAIN * (this.below - 1 - before)) break;
    }
  }

  result({ prices, shares }: RelaxationState): Relaxed {
    const { ids, names } = this.matrix;
    for (let r = 0; r < ids.length; r++) prices[ids[r]!] = this.bestPrice[r]!;
    for (let c = 0; c < names.length; c++) shares[names[c]!] = this.share[c]!;
    const { least, share, fixed, passes } = this;
    return { least, reduced: this.bestReduced, share, fixed, passes };
  }

  /** The bound by some prices; fixed columns are kept, and the prices themselves if they are the best. */
  private look(price: Float64Array): number {
    const { matrix, reduced, fixed, below } = this;
    let bound = surplus(matrix, price, reduced);
    for (let r = 0; r < price.length; r++) bound += price[r]!;
    this.passes++;
    for (let c = 0; c < reduced.length; c++) fixed[c] ||= reducedCostFixing(bound, reduced[c]!, below);
    if (bound > this.least) {
      this.least = bound;
      this.bestPrice.set(price);
      this.bestReduced.set(reduced);
    }
    return bound;
  }

  private moveShares(): void {
    const { start, covered, cost } = this.matrix;
    const { price, share, ahead, shares, shareStep } = this;
    for (let c = 0; c < share.length; c++) {
      let dear = cost[c]!;
      for (let k = start[c]!, end = start[c + 1]!; k < end; k++) dear -= price[covered[k]!]!;
      const old = share[c]!;
      const next = Math.min(1, Math.max(0, old - shareStep[c]! * dear));
      ahead[c] = 2 * next - old;
      share[c] = old + OVERSTEP * (next - old);
      shares[c]! += share[c]!;
    }
  }

  private movePrices(): void {
    const { rowStart, by } = this.matrix;
    const { price, ahead, prices, priceStep } = this;
    for (let r = 0; r < price.length; r++) {
      let open = 1;
      for (let k = rowStart[r]!, end = rowStart[r + 1]!; k < end; k++) open -= ahead[by[k]!]!;
      const old = price[r]!;
      const next = Math.max(0, old + priceStep[r]! * open);
      price[r] = Math.max(0, old + OVERSTEP * (next - old));
      prices[r]! += price[r]!;
    }
  }

  private startAgain(price: Float64Array, isMean: boolean): void {
    this.price.set(price);
    if (isMean) for (let c = 0; c < this.share.length; c++) this.share[c] = this.shares[c]! / this.summed;
    this.prices.fill(0);
    this.shares.fill(0);
    this.summed = 0;
  }
}

/** The reduced cost of each column, written to `reduced`; returns the sum of the negative ones. */
function surplus(
  { columns, start, covered, cost }: Matrix,
  price: Float64Array,
  reduced: Float64Array,
): number {
  let sum = 0;
  for (let c = 0; c < columns; c++) {
    let left = cost[c]!;
    for (let k = start[c]!, end = start[c + 1]!; k < end; k++) left -= price[covered[k]!]!;
    reduced[c] = left;
    if (left < 0) sum += left;
  }
  return sum;
}

/**
 * A cover by the columns that cost least for each newly covered row, without those that turn out redundant.
 * @param worth the assumed cost of each column, by its place in the matrix.
 * @returns places of columns.
 */
export function greedy(
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
