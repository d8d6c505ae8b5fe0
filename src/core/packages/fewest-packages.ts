import { type Packed, Packing } from './packing';
import type { UnitSort } from './units';

/*
 * The fewest packages for some gates, each of which can be built in several ways. Branch and bound over how many gates of each
 * sort are built in each way. Gates already decided are packed; each other gate counts as the least share of a package that it
 * can take.
 */

/** Gates that are alike: how many, and the gates of which each way consists. */
export interface GateSort {
  readonly count: number;
  /** At least one; the one as drawn first. */
  readonly ways: readonly { readonly units: readonly string[]; readonly isDrawn: boolean }[];
}

export interface Fewest {
  /** How many gates of each sort take which way. */
  readonly taken: readonly (readonly number[])[];
  readonly packed: Packed;
  /** Gates that are not had as they are drawn. */
  readonly changes: number;
  /** A lower bound of packages; equal to the number used if that is proved minimal. */
  readonly atLeast: number;
}

/** Choices that are looked at, at most; what is best so far then stands, with a bound. */
const MOST_STEPS = 200_000;

/**
 * The fewest packages lacking, then the fewest packages, then the fewest changes.
 * @param isFree whether gates may be put into units of other sorts.
 * @param free units that are there already, in packages which the drawing has.
 */
export function fewestPackages(
  sorts: readonly GateSort[],
  units: ReadonlyMap<string, UnitSort>,
  isFree: boolean,
  free: ReadonlyMap<string, number> = new Map(),
): Fewest {
  return new Search(sorts, units, isFree, free).found();
}

interface Choice {
  /** Gates of each sort that it adds, by their place in the packing's order. */
  readonly adds: readonly (readonly [at: number, count: number])[];
  readonly isDrawn: boolean;
}

class Search {
  private readonly packing: Packing;
  private readonly choices: readonly (readonly Choice[])[];
  /** The least share of packages that the sorts from each one on take, in the order in which they are decided. */
  private readonly rest: readonly number[];
  /** Sorts in the order in which they are decided: those with one way first. */
  private readonly order: readonly number[];
  private readonly gates: number[];
  private readonly freeShare: number;
  private readonly taken: number[][];
  private best: Omit<Fewest, 'atLeast'> | null = null;
  private steps = 0;

  constructor(
    private readonly sorts: readonly GateSort[],
    units: ReadonlyMap<string, UnitSort>,
    isFree: boolean,
    free: ReadonlyMap<string, number>,
  ) {
    const keys = sorts.flatMap(({ ways }) => ways.flatMap((way) => way.units));
    this.packing = new Packing(units, keys, isFree, free);
    const placeOf = new Map(this.packing.order.map((key, i) => [key, i]));
    this.choices = sorts.map(({ ways }) =>
      ways.map(({ units: own, isDrawn }) => {
        const adds = new Map<number, number>();
        for (const key of own) adds.set(placeOf.get(key)!, (adds.get(placeOf.get(key)!) ?? 0) + 1);
        return { adds: [...adds], isDrawn };
      }),
    );
    this.order = sorts
      .map((_, i) => i)
      .sort((a, b) => sorts[a]!.ways.length - sorts[b]!.ways.length || sorts[b]!.count - sorts[a]!.count);
    this.gates = this.packing.order.map(() => 0);
    this.taken = sorts.map(({ ways }) => ways.map(() => 0));
    const least = (sort: number) =>
      sorts[sort]!.count * Math.min(...this.choices[sort]!.map((choice) => this.shareOf(choice)));
    const rest = [0];
    for (const sort of [...this.order].reverse()) rest.unshift(rest[0]! + least(sort));
    this.rest = rest;
    this.freeShare = [...free].reduce((sum, [key, count]) => sum + count / (units.get(key)?.each ?? 1), 0);
  }

  private shareOf({ adds }: Choice): number {
    return adds.reduce((sum, [at, count]) => sum + count * this.packing.share(at), 0);
  }

  found(): Fewest {
    this.decide(0, 0, 0);
    const best = this.best!;
    const isProved = this.steps <= MOST_STEPS;
    const bound = Math.max(0, Math.ceil(this.rest[0]! - this.freeShare - 1e-9));
    return { ...best, atLeast: isProved ? best.packed.count : Math.min(bound, best.packed.count) };
  }

  /** Whether nothing that begins as it is decided now is better than what is known. */
  private isHopeless(at: number, changes: number, share: number): boolean {
    const { best } = this;
    if (!best) return false;
    if (this.steps > MOST_STEPS) return true;
    const { packed } = best;
    const bound = Math.ceil(share + this.rest[at]! - this.freeShare - 1e-9);
    if (packed.lacking === 0 && bound > packed.count) return true;
    const now = this.packing.counted(this.gates);
    if (now.lacking !== packed.lacking) return now.lacking > packed.lacking;
    const least = Math.max(now.count, bound);
    return least > packed.count || (least === packed.count && changes >= best.changes);
  }

  /** @param share the least share of packages that the decided cells need. */
  private decide(at: number, changes: number, share: number): void {
    this.steps++;
    if (this.isHopeless(at, changes, share)) return;
    if (at === this.order.length) {
      this.keepIfBetter(changes);
      return;
    }
    const sort = this.order[at]!;
    this.share(at, sort, 0, this.sorts[sort]!.count, changes, share);
  }

  private keepIfBetter(decided: number): void {
    const { lacking, count, moved } = this.packing.counted(this.gates);
    const changes = decided + moved;
    const { best } = this;
    const isBetter =
      !best || (lacking - best.packed.lacking || count - best.packed.count || changes - best.changes) < 0;
    if (!isBetter) return;
    const packed = this.packing.pack(this.gates);
    this.best = { taken: this.taken.map((t) => [...t]), packed, changes };
  }

  /** Shares what is left of a sort's gates among its ways from one on. */
  private share(at: number, sort: number, way: number, left: number, changes: number, share: number): void {
    const choice = this.choices[sort]![way]!;
    const each = this.shareOf(choice);
    const isLast = way === this.choices[sort]!.length - 1;
    const add = (count: number) => {
      for (const [place, gates] of choice.adds) this.gates[place]! += gates * count;
      this.taken[sort]![way]! += count;
    };
    for (let count = left; count >= (isLast ? left : 0); count--) {
      add(count);
      const now = changes + (choice.isDrawn ? 0 : count);
      if (count === left) this.decide(at + 1, now, share + each * count);
      else {
        this.steps++;
        if (!this.isHopeless(at + 1, now, share + each * count))
          this.share(at, sort, way + 1, left - count, now, share + each * count);
      }
      add(-count);
      if (this.steps > MOST_STEPS && this.best) return;
    }
  }
}
