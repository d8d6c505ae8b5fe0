import { gateKey, inDrawer, type UnitSort } from './units';

/*
 * The ways in which a gate can be had: as it is, of several smaller ones, or of other kinds by inversion and by De Morgan's laws.
 * A way consists of gates that are each put into one unit; which unit, `packing.ts` finds.
 */

/** What leads into an input: an input of the gate by its number, the output of an earlier gate of the way, or a supply end. */
export type Feed = { readonly input: number } | { readonly unit: number } | '+' | '-';

/** A gate that takes one unit. */
export interface UnitUse {
  /** The sort of unit that it is, as in `UnitSort`. */
  readonly key: string;
  readonly feeds: readonly Feed[];
}

/** How far a way is from what is drawn. */
export type Way = 'as drawn' | 'split' | 'other kind';

/** One way to have a gate. The last of its gates gives its output. */
export interface Realisation {
  readonly way: Way;
  readonly uses: readonly UnitUse[];
}

/** The kind of gate and its inputs that a key says; null for other sorts of units. */
export function gateOfKey(key: string): { readonly kind: string; readonly inputs: number } | null {
  const [, kind, inputs] = /^(and|or|nand|nor|xor|xnor|not|buffer)(\d+)$/.exec(key) ?? [];
  return kind ? { kind, inputs: Number(inputs) } : null;
}

const COMPLEMENT: Readonly<Record<string, string>> = {
  and: 'nand',
  nand: 'and',
  or: 'nor',
  nor: 'or',
  xor: 'xnor',
  xnor: 'xor',
};
/** The kind that does the same once all its inputs are inverted. */
const DUAL: Readonly<Record<string, string>> = { and: 'nor', nor: 'and', or: 'nand', nand: 'or' };
/** The kind without its inversion: what groups of its inputs go into. */
const BASE: Readonly<Record<string, string>> = {
  and: 'and',
  nand: 'and',
  or: 'or',
  nor: 'or',
  xor: 'xor',
  xnor: 'xor',
};

/** Ways that are kept for one gate, those of the fewest units first. */
const MOST_WAYS = 16;
/** Of gates with more inputs, groups are made as even as possible; up to here all ways to group are tried. */
const MOST_GROUPED = 6;
/** De Morgan's laws are tried on gates of so many inputs. */
const MOST_INVERTED = 3;

const inputs = (count: number): Feed[] => Array.from({ length: count }, (_, input) => ({ input }));

/** Finds the ways to have gates of the units that there are. */
export class Realisations {
  private readonly sizes = new Map<string, number[]>();
  private readonly known = new Map<string, readonly Realisation[]>();

  constructor(sorts: ReadonlyMap<string, UnitSort>) {
    for (const sort of sorts.values()) {
      const gate = gateOfKey(sort.key);
      if (gate && inDrawer(sort) > 0)
        this.sizes.set(gate.kind, [...(this.sizes.get(gate.kind) ?? []), gate.inputs]);
    }
  }

  /**
   * The gate as drawn, if a package holds such a unit; otherwise all realisations with gates of the same kind; if there are
   * none, all realisations; and if there are none of those either, the two-input gates that it would take.
   */
  asDrawn(kind: string, count: number): readonly Realisation[] {
    const same = this.sameKind(kind, count);
    const direct = same.filter(({ way }) => way === 'as drawn');
    if (direct.length > 0) return direct;
    if (same.length > 0) return same;
    const all = this.all(kind, count);
    return all.length > 0 ? all : [chain(kind, count)];
  }

  /** Every way, the one as drawn first. */
  all(kind: string, count: number): readonly Realisation[] {
    const key = gateKey(kind, count);
    const known = this.known.get(key);
    if (known) return known;
    const ways = distinct([...this.sameKind(kind, count), ...this.otherKinds(kind, count)]);
    this.known.set(key, ways);
    return ways;
  }

  /** Whether there is a unit of a kind with at least so many inputs. */
  private isThere(kind: string, count: number): boolean {
    return this.sizes.get(kind)?.some((size) => size >= count && (size === count || BASE[kind])) ?? false;
  }

  private get canInvert(): boolean {
    return ['not', 'nand', 'nor', 'xor', 'xnor'].some((kind) => this.sizes.has(kind));
  }

  private sameKind(kind: string, count: number): Realisation[] {
    if (kind === 'not')
      return this.canInvert ? [{ way: 'as drawn', uses: [{ key: 'not1', feeds: inputs(1) }] }] : [];
    const ways: Realisation[] = [];
    if (this.isThere(kind, count))
      ways.push({ way: 'as drawn', uses: [{ key: gateKey(kind, count), feeds: inputs(count) }] });
    if (BASE[kind] && count > 2)
      for (let size = 2; size < count; size++)
        if (this.isThere(kind, size))
          for (const groups of partitions(count, size)) ways.push(...this.split(kind, groups));
    return distinct(ways);
  }

  /** The gate as one whose inputs are groups, each of which is one input or a gate of its own. */
  private split(kind: string, groups: readonly number[]): Realisation[] {
    interface Begun {
      readonly uses: readonly UnitUse[];
      readonly feeds: readonly Feed[];
      readonly at: number;
    }
    let begun: Begun[] = [{ uses: [], feeds: [], at: 0 }];
    for (const group of groups)
      begun = begun
        .flatMap(({ uses, feeds, at }): Begun[] => {
          if (group === 1) return [{ uses, feeds: [...feeds, { input: at }], at: at + 1 }];
          return this.sameKind(BASE[kind]!, group)
            .slice(0, 4)
            .map((inner) => {
              const all = [...uses, ...moved(inner.uses, uses.length, at)];
              return { uses: all, feeds: [...feeds, { unit: all.length - 1 }], at: at + group };
            });
        })
        .slice(0, MOST_WAYS);
    return begun.map(({ uses, feeds }) => ({
      way: 'split',
      uses: [...uses, { key: gateKey(kind, groups.length), feeds }],
    }));
  }

  private otherKinds(kind: string, count: number): Realisation[] {
    if (kind === 'not' || !this.canInvert) return [];
    if (kind === 'buffer') return this.buffers();
    const ways: Realisation[] = this.sameKind(COMPLEMENT[kind]!, count).map(({ uses }) => ({
      way: 'other kind',
      uses: [...uses, { key: 'not1', feeds: [{ unit: uses.length - 1 }] }],
    }));
    const dual = DUAL[kind];
    if (dual && count <= MOST_INVERTED)
      for (const { uses } of this.sameKind(dual, count)) {
        const before = inputs(count).map((feed) => ({ key: 'not1', feeds: [feed] }));
        const after = uses.map((use) => ({
          ...use,
          feeds: use.feeds.map((feed): Feed => {
            if (typeof feed === 'string') return feed;
            return { unit: 'input' in feed ? feed.input : feed.unit + count };
          }),
        }));
        ways.push({ way: 'other kind', uses: [...before, ...after] });
      }
    if (count === 2) ways.push(...this.parityOfFour(kind));
    return ways;
  }

  /** Exclusive-or of four NAND gates, or its complement of four NOR gates. */
  private parityOfFour(kind: string): Realisation[] {
    const of = kind === 'xor' ? 'nand' : kind === 'xnor' ? 'nor' : '';
    if (!of || !this.isThere(of, 2)) return [];
    const key = gateKey(of, 2);
    const uses: UnitUse[] = [
      { key, feeds: [{ input: 0 }, { input: 1 }] },
      { key, feeds: [{ input: 0 }, { unit: 0 }] },
      { key, feeds: [{ input: 1 }, { unit: 0 }] },
      { key, feeds: [{ unit: 1 }, { unit: 2 }] },
    ];
    return [{ way: 'other kind', uses }];
  }

  private buffers(): Realisation[] {
    const ways: Realisation[] = [];
    if (this.isThere('and', 2))
      ways.push({ way: 'other kind', uses: [{ key: 'and2', feeds: [{ input: 0 }, '+'] }] });
    if (this.isThere('or', 2))
      ways.push({ way: 'other kind', uses: [{ key: 'or2', feeds: [{ input: 0 }, '-'] }] });
    const twice = [
      { key: 'not1', feeds: inputs(1) },
      { key: 'not1', feeds: [{ unit: 0 }] },
    ];
    return [...ways, { way: 'other kind', uses: twice }];
  }
}

/** A chain of gates with two inputs, whether there are any or not. */
function chain(kind: string, count: number): Realisation {
  const base = BASE[kind];
  if (!base || count <= 2)
    return { way: 'as drawn', uses: [{ key: gateKey(kind, count), feeds: inputs(count) }] };
  const uses: UnitUse[] = [];
  let last: Feed = { input: 0 };
  for (let i = 1; i < count; i++) {
    uses.push({ key: gateKey(i === count - 1 ? kind : base, 2), feeds: [last, { input: i }] });
    last = { unit: uses.length - 1 };
  }
  return { way: 'split', uses };
}

/** Gates with their numbers, and those of the inputs that they read, moved on. */
const moved = (uses: readonly UnitUse[], units: number, at: number): UnitUse[] =>
  uses.map(({ key, feeds }) => ({
    key,
    feeds: feeds.map((feed): Feed => {
      if (typeof feed === 'string') return feed;
      return 'input' in feed ? { input: feed.input + at } : { unit: feed.unit + units };
    }),
  }));

/** Ways to write a number as so many positive ones, the largest first; above a size only the most even one. */
function partitions(sum: number, count: number): number[][] {
  if (sum > MOST_GROUPED) {
    const least = Math.floor(sum / count);
    return [Array.from({ length: count }, (_, i) => least + (i < sum % count ? 1 : 0))];
  }
  const found: number[][] = [];
  const go = (left: number, most: number, so: number[]) => {
    if (so.length === count) {
      if (left === 0) found.push(so);
      return;
    }
    for (let next = Math.min(most, left - (count - so.length - 1)); next >= 1; next--)
      go(left - next, next, [...so, next]);
  };
  go(sum, sum, []);
  return found;
}

/** Of ways that take the same units only the first; the fewest units first, and what is drawn before all. */
function distinct(ways: readonly Realisation[]): Realisation[] {
  const byUnits = new Map<string, Realisation>();
  for (const way of ways) {
    const key = unitsOf(way).join(' ');
    if (!byUnits.has(key)) byUnits.set(key, way);
  }
  const rank = ({ way, uses }: Realisation) => (way === 'as drawn' ? 0 : uses.length);
  return [...byUnits.values()].sort((a, b) => rank(a) - rank(b)).slice(0, MOST_WAYS);
}

/** The sorts of the gates of which a way consists, in order. */
export const unitsOf = ({ uses }: Realisation): string[] => uses.map(({ key }) => key).sort();
