import type { PackageType } from '../parts/packages/package-type';
import type { Signal } from './cell-builder';
import { dataSheet, type PackagePlan, type PlannedPackage, type PlannedUnit } from './plan';
import { random } from './random';

/*
 * The order of packages on the board, and which gate goes into which unit, for short wires: simulated annealing (Kirkpatrick,
 * Gelatt, Vecchi: Optimization by Simulated Annealing, 1983) over the columns of the board, from a seed.
 */

/** Columns between two packages. */
export const GAP = 2;
/** What crossing the trench costs, in columns. */
const ACROSS = 3;
/** Columns between the switches and the first package, and between the last one and the lamps. */
export const BESIDE = 2;

/** A place on the board: the column, and the side of the trench. */
interface Place {
  readonly column: number;
  readonly side: 0 | 1;
}

/** How far two places are apart, in columns. */
export const apart = (a: Place, b: Place): number =>
  Math.abs(a.column - b.column) + (a.side === b.side ? 0 : ACROSS);

/** Where a pin stands, from the package's first column: pin 1 at the lower left, the last one above it. */
export function pinPlace(type: PackageType, number: number): Place {
  const each = type.pins.length / 2;
  return number <= each ? { column: number - 1, side: 0 } : { column: 2 * each - number, side: 1 };
}

/** Columns that a package covers. */
export const packageColumns = ({ pins }: PackageType): number => pins.length / 2;

/** A plan whose packages are in order. */
export interface Arranged {
  readonly plan: PackagePlan;
  /** Columns over which all signal wires run together. */
  readonly length: number;
  /** No arrangement of these packages has less. */
  readonly atLeast: number;
}

/** A pin that a net joins: of a unit, or of a switch or lamp. */
type Joint = { readonly slot: number; readonly pin: number } | { readonly terminal: number };

/** A unit's place that a gate can be put into. */
interface Slot {
  readonly package: number;
  readonly letter: string;
  readonly sort: string;
}

class Arrangement {
  /** Packages from left to right. */
  readonly order: number[];
  private first: number[] = [];
  readonly slots: Slot[] = [];
  /** What stands in each slot: the number of a unit. */
  readonly content: number[];
  readonly units: PlannedUnit[] = [];
  private readonly slotOf: number[];
  private readonly nets: Joint[][] = [];
  private readonly netsOfUnit: number[][] = [];
  private readonly costs: number[];
  private width = 0;
  total = 0;

  constructor(
    readonly plan: PackagePlan,
    private readonly isPinned: (one: PlannedPackage, unit: PlannedUnit) => boolean,
  ) {
    this.order = plan.packages.map((_, i) => i);
    const nets = new Map<Signal, Joint[]>();
    const join = (signal: Signal, joint: Joint) => {
      if (typeof signal === 'number') nets.set(signal, [...(nets.get(signal) ?? []), joint]);
    };
    for (const [i, terminal] of plan.terminals.entries()) join(terminal.signal, { terminal: i });
    for (const [p, one] of plan.packages.entries())
      for (const unit of one.units) {
        const sort = this.isPinned(one, unit) ? `pinned ${p}${unit.letter}` : one.name;
        this.slots.push({ package: p, letter: unit.letter, sort });
        this.units.push(unit);
      }
    for (const [u, unit] of this.units.entries())
      for (const [pin, signal] of unit.pins) join(signal, { slot: u, pin });
    this.content = this.units.map((_, i) => i);
    this.slotOf = [...this.content];
    this.nets = [...nets.values()].filter((joints) => joints.length > 1);
    this.netsOfUnit = this.units.map(() => []);
    for (const [n, joints] of this.nets.entries())
      for (const joint of joints)
        if ('slot' in joint && !this.netsOfUnit[joint.slot]!.includes(n))
          this.netsOfUnit[joint.slot]!.push(n);
    this.costs = this.nets.map(() => 0);
    this.layColumns();
    this.measureAll();
  }

  private typeOf(index: number): PackageType {
    return dataSheet(this.plan.packages[index]!);
  }

  private layColumns(): void {
    let column = 0;
    for (const index of this.order) {
      this.first[index] = column;
      column += packageColumns(this.typeOf(index)) + GAP;
    }
    this.width = column - GAP;
  }

  private placeOf(joint: Joint): Place {
    if ('terminal' in joint) {
      const isInput = this.plan.terminals[joint.terminal]!.direction === 'in';
      return { column: isInput ? -BESIDE : this.width - 1 + BESIDE, side: 0 };
    }
    const slot = this.slots[this.slotOf[joint.slot]!]!;
    const type = this.typeOf(slot.package);
    // The pin of the unit that it is in now has the same name as the one of the unit that was planned.
    const planned = this.slots[joint.slot]!;
    const own = pinPlace(type, samePin(type, planned.letter, slot.letter, joint.pin));
    return { column: this.first[slot.package]! + own.column, side: own.side };
  }

  /** The length of the shortest tree over a net's places (Prim 1957). */
  private measure(net: number): number {
    const places = this.nets[net]!.map((joint) => this.placeOf(joint));
    const far = places.map((place) => apart(places[0]!, place));
    const isIn = places.map((_, i) => i === 0);
    let sum = 0;
    for (let step = 1; step < places.length; step++) {
      let next = -1;
      for (let i = 0; i < places.length; i++) if (!isIn[i] && (next < 0 || far[i]! < far[next]!)) next = i;
      sum += far[next]!;
      isIn[next] = true;
      for (let i = 0; i < places.length; i++) far[i] = Math.min(far[i]!, apart(places[next]!, places[i]!));
    }
    return sum;
  }

  private remeasure(nets: Iterable<number>): void {
    for (const net of nets) {
      const now = this.measure(net);
      this.total += now - this.costs[net]!;
      this.costs[net] = now;
    }
  }

  private measureAll(): void {
    this.remeasure(this.nets.keys());
  }

  /** Exchanges what stands in two slots. */
  swapUnits(a: number, b: number): void {
    const [x, y] = [this.content[a]!, this.content[b]!];
    [this.content[a], this.content[b]] = [y, x];
    [this.slotOf[x], this.slotOf[y]] = [b, a];
    this.remeasure(new Set([...this.netsOfUnit[x]!, ...this.netsOfUnit[y]!]));
  }

  /** Exchanges two packages on the board. */
  swapPackages(a: number, b: number): void {
    [this.order[a], this.order[b]] = [this.order[b]!, this.order[a]!];
    this.layColumns();
    this.measureAll();
  }

  /** Pairs of slots whose content can be exchanged. */
  exchangeable(): (readonly [number, number])[] {
    const pairs: (readonly [number, number])[] = [];
    for (let a = 0; a < this.slots.length; a++)
      for (let b = a + 1; b < this.slots.length; b++)
        if (this.slots[a]!.sort === this.slots[b]!.sort) pairs.push([a, b]);
    return pairs;
  }

  /**
   * A bound below every arrangement: for each net the shortest tree over how near each two of its pins could ever be, whichever
   * units they are in and whichever packages stand beside each other.
   */
  bound(): number {
    return this.nets.reduce((sum, joints) => sum + this.leastTree(joints), 0);
  }

  private leastTree(joints: readonly Joint[]): number {
    const near = joints.map((a, i) => joints.map((b, k) => (i === k ? 0 : this.nearest(a, b))));
    const far = [...near[0]!];
    const isIn = joints.map((_, i) => i === 0);
    let sum = 0;
    for (let step = 1; step < joints.length; step++) {
      let next = -1;
      for (let i = 0; i < joints.length; i++) if (!isIn[i] && (next < 0 || far[i]! < far[next]!)) next = i;
      sum += far[next]!;
      isIn[next] = true;
      for (let i = 0; i < joints.length; i++) far[i] = Math.min(far[i]!, near[next]![i]!);
    }
    return sum;
  }

  /** Where a pin can be: the package, its column there, its side, and the unit's place. */
  private possible(joint: { readonly slot: number; readonly pin: number }) {
    const planned = this.slots[joint.slot]!;
    return this.slots.flatMap((slot, at) => {
      if (slot.sort !== planned.sort) return [];
      const type = this.typeOf(slot.package);
      const place = pinPlace(type, samePin(type, planned.letter, slot.letter, joint.pin));
      return [{ ...place, at, package: slot.package, width: packageColumns(type) }];
    });
  }

  /** The least distance of two pins in any arrangement. */
  private nearest(a: Joint, b: Joint): number {
    if ('terminal' in a && 'terminal' in b) {
      const [x, y] = [a, b].map(({ terminal }) => this.plan.terminals[terminal]!.direction);
      return x === y ? 0 : this.width - 1 + 2 * BESIDE;
    }
    if ('terminal' in a) return this.nearest(b, a);
    const first = this.possible(a);
    if ('terminal' in b) {
      const isInput = this.plan.terminals[b.terminal]!.direction === 'in';
      return Math.min(
        ...first.map(
          ({ column, side, width }) =>
            BESIDE + (isInput ? column : width - 1 - column) + (side === 0 ? 0 : ACROSS),
        ),
      );
    }
    const isSame = a.slot === b.slot;
    let least = Number.POSITIVE_INFINITY;
    for (const x of first)
      for (const y of this.possible(b)) {
        if ((x.at === y.at) !== isSame) continue;
        const across = x.side === y.side ? 0 : ACROSS;
        const inOne = Math.abs(x.column - y.column);
        const sideBySide = Math.min(x.width - x.column + y.column, y.width - y.column + x.column) + GAP;
        least = Math.min(least, across + (x.package === y.package ? inOne : sideBySide));
      }
    return least;
  }

  /** The plan with packages numbered from left to right. */
  arranged(): PackagePlan {
    const packages = this.order.map((index, place): PlannedPackage => {
      const one = this.plan.packages[index]!;
      const type = dataSheet(one);
      const units = one.units.map(({ letter }): PlannedUnit => {
        const slot = this.slots.findIndex((s) => s.package === index && s.letter === letter);
        const number = this.content[slot]!;
        const unit = this.units[number]!;
        const from = this.slots[number]!.letter;
        const pins = new Map(
          [...unit.pins].map(([pin, signal]) => [samePin(type, from, letter, pin), signal] as const),
        );
        return { ...unit, letter, pins };
      });
      return { ref: `U${place + 1}`, name: one.name, units };
    });
    return { ...this.plan, packages };
  }
}

/** The pin of another unit with the name that a pin has in its own. */
function samePin(type: PackageType, from: string, to: string, pin: number): number {
  if (from === to) return pin;
  const [own, other] = [from, to].map((letter) => type.units.find((unit) => unit.letter === letter)!);
  for (const [name, { number }] of own!.pins) if (number === pin) return other!.pins.get(name)!.number;
  return pin;
}

/** Tries of the annealing, for each pair that can be exchanged; and at most. */
const TRIES_EACH = 60;
const MOST_TRIES = 30_000;

/**
 * The plan with its packages in order and gates in the units where wires are short.
 * @param seed the same gives the same.
 * @param isPinned units that stay where they are.
 */
export function arranged(
  plan: PackagePlan,
  seed = 1,
  isPinned: (one: PlannedPackage, unit: PlannedUnit) => boolean = () => false,
): Arranged {
  const now = new Arrangement(
    plan,
    (one, unit) => (unit.way === 'as drawn' && isFixed(one, unit)) || isPinned(one, unit),
  );
  const pairs = now.exchangeable();
  const count = plan.packages.length;
  const moves = pairs.length + (count * (count - 1)) / 2;
  const tries = moves === 0 ? 0 : Math.min(MOST_TRIES, 400 + TRIES_EACH * moves);
  const roll = random(seed);
  let heat = Math.max(2, now.total / Math.max(1, 2 * count));
  const cooling = (0.05 / heat) ** (1 / Math.max(1, tries));
  for (let i = 0; i < tries; i++, heat *= cooling) {
    const before = now.total;
    const undo = tryMove(now, pairs, count, roll);
    if (now.total > before && roll() >= Math.exp((before - now.total) / heat)) undo();
  }
  descend(now, pairs, count);
  return { plan: now.arranged(), length: now.total, atLeast: now.bound() };
}

/** Whether the drawing says which unit it is. */
const isFixed = ({ name }: PlannedPackage, { sort }: PlannedUnit): boolean => sort === name;

function tryMove(
  now: Arrangement,
  pairs: readonly (readonly [number, number])[],
  count: number,
  roll: () => number,
): () => void {
  if (pairs.length === 0 || (count > 1 && roll() < 0.3)) {
    const a = Math.floor(roll() * count);
    const b = (a + 1 + Math.floor(roll() * (count - 1))) % count;
    now.swapPackages(a, b);
    return () => now.swapPackages(a, b);
  }
  const [a, b] = pairs[Math.floor(roll() * pairs.length)]!;
  now.swapUnits(a, b);
  return () => now.swapUnits(a, b);
}

/** With more packages than this, all pairs of them are not tried out at the end. */
const MOST_DESCENDED = 40;

/** Takes whatever exchange still shortens wires, until there is none. */
function descend(now: Arrangement, pairs: readonly (readonly [number, number])[], count: number): void {
  for (let isBetter = true; isBetter; ) {
    const before = now.total;
    for (const [a, b] of pairs) {
      const was = now.total;
      now.swapUnits(a, b);
      if (now.total >= was) now.swapUnits(a, b);
    }
    for (let a = 0; a < count && count <= MOST_DESCENDED; a++)
      for (let b = a + 1; b < count; b++) {
        const was = now.total;
        now.swapPackages(a, b);
        if (now.total >= was) now.swapPackages(a, b);
      }
    isBetter = now.total < before;
  }
}
