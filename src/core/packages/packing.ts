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

/** Packs gates of the sorts of a family; made once, and asked often. */
export class Packing {
  /** Sorts of units, wider ones of a kind first, inverters last. */
  readonly order: readonly string[];
  private readonly each = new Map<string, number>();
  private readonly there = new Map<string, number>();
  /** The sorts of units that hold a sort of gate, its own first, then in the order in which they are tried. */
  private readonly holders = new Map<string, readonly string[]>();

  /**
   * @param keys the sorts of gates that are packed.
   * @param isFree whether gates may be put into units of other sorts while there are units of their own.
   * @param free units that are there already.
   */
  constructor(
    private readonly sorts: ReadonlyMap<string, UnitSort>,
    keys: Iterable<string>,
    private readonly isFree: boolean,
    private readonly free: ReadonlyMap<string, number>,
  ) {
    const own = [...new Set(keys)];
    const size = (key: string) => gateOfKey(key)?.inputs ?? 0;
    const isLast = (key: string) => Number(key === 'not1');
    this.order = own.sort((a, b) => isLast(a) - isLast(b) || size(b) - size(a));
    for (const key of this.order) this.holders.set(key, [key, ...this.otherHolders(key)]);
    for (const key of new Set([...this.holders.values()].flat())) {
      const sort = sorts.get(key);
      this.each.set(key, sort?.each ?? 1);
      this.there.set(key, sort ? inDrawer(sort) : 0);
    }
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

  /** The least share of a package that a gate takes, whatever holds it. */
  share(key: string): number {
    const sizes = (this.holders.get(key) ?? [key]).map((holder) => this.each.get(holder) ?? 1);
    return 1 / Math.max(...sizes);
  }

  /**
   * Packages for so many gates of each sort.
   * @param gates their numbers, in the order of `order`.
   */
  pack(gates: readonly number[]): Packed {
    const packages = new Map<string, number>();
    const spare = new Map<string, number>();
    const held = new Map<string, Map<string, number>>();
    let [count, lacking, moved] = [0, 0, 0];
    for (const [key, units] of this.free) spare.set(key, units);
    const take = (key: string, holder: string, most: number): number => {
      const units = Math.min(most, spare.get(holder) ?? 0);
      if (units <= 0) return 0;
      spare.set(holder, spare.get(holder)! - units);
      const into = held.get(key) ?? new Map<string, number>();
      held.set(key, into.set(holder, (into.get(holder) ?? 0) + units));
      if (holder !== key) moved += units;
      return units;
    };
    const open = (holder: string, most: number): void => {
      if (most <= 0) return;
      packages.set(holder, (packages.get(holder) ?? 0) + most);
      spare.set(holder, (spare.get(holder) ?? 0) + most * this.each.get(holder)!);
      count += most;
    };
    for (const [i, key] of this.order.entries()) {
      let left = gates[i]!;
      if (left === 0) continue;
      const holders = this.holders.get(key)!;
      // Units already present; other sorts only on request, and only if that saves a package.
      left -= take(key, key, left);
      const each = this.each.get(key)!;
      if (this.isFree && left > 0) {
        const inOthers = holders.slice(1).reduce((sum, holder) => sum + (spare.get(holder) ?? 0), 0);
        // Only so many are moved as it takes to open fewer packages.
        const fewest = Math.ceil(Math.max(0, left - inOthers) / each);
        let over = Math.max(0, left - fewest * each);
        for (const holder of holders.slice(1)) {
          const units = take(key, holder, over);
          over -= units;
          left -= units;
        }
      }
      for (const holder of holders) {
        const unopened = this.there.get(holder)! - (packages.get(holder) ?? 0);
        open(holder, Math.min(unopened, Math.ceil(left / this.each.get(holder)!)));
        left -= take(key, holder, left);
      }
      for (const holder of holders) left -= take(key, holder, left);
      if (left > 0) {
        lacking += Math.ceil(left / each);
        open(key, Math.ceil(left / each));
        left -= take(key, key, left);
      }
    }
    return { packages, held, count, lacking, moved };
  }
}
