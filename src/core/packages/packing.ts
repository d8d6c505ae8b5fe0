import { gateOfKey } from './realisations';
import { inDrawer, type UnitSort } from './units';

/*
 * Gates into units of packages. A gate fits its own sort of unit, a wider one of its kind with the other inputs tied, and an
 * inverter any spare gate that inverts. Wider units are fewer in a package, and inverters the most, so that it never saves a
 * package to open a wider one for a gate that has units of its own size: what is spare is given away from the widest down, and
 * inverters come last. Where the drawer is short, wider and other packages are opened instead.
 */

/** How a sort of gate is spread: units of its own and of other sorts. */
export interface Packed {
  /** Packages opened, by sort of unit. */
  readonly packages: ReadonlyMap<string, number>;
  /** For each sort of gate the units that hold it: by sort of unit, how many. */
  readonly held: ReadonlyMap<string, ReadonlyMap<string, number>>;
  readonly count: number;
  /** Packages among them that the drawer does not have. */
  readonly lacking: number;
  /** Gates that are in a unit of another sort. */
  readonly moved: number;
}

const WIDER = new Set(['and', 'or', 'nand', 'nor', 'xor', 'xnor']);
const INVERTING = new Set(['nand', 'nor', 'xor', 'xnor']);

/** The size of a packing. */
export type PackedCounts = Pick<Packed, 'count' | 'lacking' | 'moved'>;

/** Packs gates of the sorts of a family; made once, and asked a hundred thousand times: sorts are numbers within. */
export class Packing {
  /** Sorts of gates, wider ones of a kind first, inverters last; their numbers are their places here. */
  readonly order: readonly string[];
  /** All sorts of units: those of `order`, then others that hold their gates or are there. */
  private readonly all: readonly string[];
  /** Of each sort of units how many are in a package, how many packages the drawer has, and how many units are there. */
  private readonly each: readonly number[];
  private readonly there: readonly number[];
  private readonly atFirst: readonly number[];
  /** The sorts of units that hold a sort of gate, its own first, then in the order in which they are tried. */
  private readonly holders: readonly (readonly number[])[];
  /** Of the last packing: packages and spare units by sort, and units by sort of gate and of unit. */
  private readonly packages: number[];
  private readonly spare: number[];
  private readonly held: number[][];
  private readonly counts = { count: 0, lacking: 0, moved: 0 };

  /**
   * @param keys the sorts of gates that are packed.
   * @param isFree whether gates may be put into units of other sorts while there are units of their own.
   * @param free units that are there already.
   */
  constructor(
    private readonly sorts: ReadonlyMap<string, UnitSort>,
    keys: Iterable<string>,
    private readonly isFree: boolean,
    free: ReadonlyMap<string, number>,
  ) {
    const own = [...new Set(keys)];
    const size = (key: string) => gateOfKey(key)?.inputs ?? 0;
    const isLast = (key: string) => Number(key === 'not1');
    this.order = own.sort((a, b) => isLast(a) - isLast(b) || size(b) - size(a));
    const holders = this.order.map((key) => [key, ...this.otherHolders(key)]);
    this.all = [...new Set([...this.order, ...holders.flat(), ...free.keys()])];
    const numberOf = new Map(this.all.map((key, i) => [key, i]));
    this.holders = holders.map((list) => list.map((key) => numberOf.get(key)!));
    this.each = this.all.map((key) => sorts.get(key)?.each ?? 1);
    this.there = this.all.map((key) => (sorts.has(key) ? inDrawer(sorts.get(key)!) : 0));
    this.atFirst = this.all.map((key) => free.get(key) ?? 0);
    this.packages = this.all.map(() => 0);
    this.spare = this.all.map(() => 0);
    this.held = this.order.map(() => this.all.map(() => 0));
  }

  private otherHolders(key: string): string[] {
    const gate = gateOfKey(key);
    if (!gate) return [];
    const all = [...this.sorts.keys()].flatMap((other) => {
      const found = gateOfKey(other);
      return found && other !== key ? [{ key: other, ...found }] : [];
    });
    const fits = all.filter(({ kind, inputs }) =>
      gate.kind === 'not'
        ? INVERTING.has(kind)
        : kind === gate.kind && WIDER.has(kind) && inputs > gate.inputs,
    );
    return fits.sort((a, b) => a.inputs - b.inputs).map((one) => one.key);
  }

  /** The least share of a package that a gate takes, whatever holds it. @param sort its number. */
  share(sort: number): number {
    return 1 / Math.max(...this.holders[sort]!.map((holder) => this.each[holder]!));
  }

  /** Packages for so many gates of each sort, by number. */
  pack(gates: readonly number[]): Packed {
    const counts = { ...this.counted(gates) };
    const named = (numbers: readonly number[]) =>
      new Map(this.all.flatMap((key, i) => (numbers[i]! > 0 ? [[key, numbers[i]!] as const] : [])));
    const held = new Map(this.order.map((key, i) => [key, named(this.held[i]!)] as const));
    for (const [key, holders] of held) if (holders.size === 0) held.delete(key);
    return { packages: named(this.packages), held, ...counts };
  }

  /** What so many gates of each sort come to. The object that is handed out is used again. */
  counted(gates: readonly number[]): PackedCounts {
    const { packages, spare, counts, each, there } = this;
    counts.count = 0;
    counts.lacking = 0;
    counts.moved = 0;
    packages.fill(0);
    for (let i = 0; i < spare.length; i++) spare[i] = this.atFirst[i]!;
    for (const list of this.held) list.fill(0);
    for (let sort = 0; sort < this.order.length; sort++) {
      let left = gates[sort]!;
      if (left === 0) continue;
      const holders = this.holders[sort]!;
      // Units already present; other sorts only on request, and only if that saves a package.
      left -= this.take(sort, sort, left);
      if (this.isFree && left > 0) {
        let inOthers = 0;
        for (let h = 1; h < holders.length; h++) inOthers += spare[holders[h]!]!;
        // Only so many are moved as it takes to open fewer packages.
        const fewest = Math.ceil(Math.max(0, left - inOthers) / each[sort]!);
        let over = Math.max(0, left - fewest * each[sort]!);
        for (let h = 1; h < holders.length && over > 0; h++) {
          const units = this.take(sort, holders[h]!, over);
          over -= units;
          left -= units;
        }
      }
      for (let h = 0; h < holders.length && left > 0; h++) {
        const holder = holders[h]!;
        const unopened = there[holder]! - packages[holder]!;
        this.open(holder, Math.min(unopened, Math.ceil(left / each[holder]!)));
        left -= this.take(sort, holder, left);
      }
      for (let h = 0; h < holders.length && left > 0; h++) left -= this.take(sort, holders[h]!, left);
      if (left > 0) {
        const more = Math.ceil(left / each[sort]!);
        counts.lacking += more;
        this.open(sort, more);
        this.take(sort, sort, left);
      }
    }
    return counts;
  }

  /** Puts gates of a sort into spare units. @returns how many. */
  private take(sort: number, holder: number, most: number): number {
    const units = Math.min(most, this.spare[holder]!);
    if (units <= 0) return 0;
    this.spare[holder]! -= units;
    this.held[sort]![holder]! += units;
    if (holder !== sort) this.counts.moved += units;
    return units;
  }

  private open(holder: number, packages: number): void {
    if (packages <= 0) return;
    this.packages[holder]! += packages;
    this.spare[holder]! += packages * this.each[holder]!;
    this.counts.count += packages;
  }
}
