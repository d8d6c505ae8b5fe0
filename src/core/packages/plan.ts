import type { Sheet } from '../circuit/sheet';
import { findPackage, type LogicPackage } from '../parts/packages';
import type { PackageType } from '../parts/packages/package-type';
import { type Cell, inputLetters, isGateCell, type Signal } from './cell-builder';
import { cellsOf, type Terminal, type Unplaced } from './cells';
import { type Fewest, fewestPackages, type GateSort } from './fewest-packages';
import { type Feed, gateOfKey, type Realisation, Realisations, unitsOf } from './realisations';
import { gateKey, inDrawer, type Supply, type UnitSort, unitSorts } from './units';

/*
 * The plan of a sheet: the logic packages that hold its gates and flip-flops, and which unit each of them is.
 */

/** How a unit stands for what is drawn: as it is, in a unit of another sort, as part of a split, by other gates, or within a part. */
export type HowPlanned = Realisation['way'] | 'other unit' | 'inside';

/** What one unit of a package is there for. */
export interface PlannedUnit {
  readonly letter: string;
  /** Signals by the number of the pin; every input has one. */
  readonly pins: ReadonlyMap<number, Signal>;
  /** The paths of the parts that it is, or belongs to; none for a unit that is spare. */
  readonly parts: readonly string[];
  /** Which bit of a wider gate it is. */
  readonly bit?: number;
  /** `nand`, `dff` ..., as the drawing has it. */
  readonly sort?: string;
  /** How it stands for what is drawn. */
  readonly way?: HowPlanned;
  /** Which of the gates that take the drawn one's place it is, and what leads into its pins. */
  readonly step?: number;
  readonly feeds?: ReadonlyMap<string, Feed>;
}

export interface PlannedPackage {
  /** U1, U2 ... in their order on the board. */
  readonly ref: string;
  /** The package's name: `74HC08`. */
  readonly name: string;
  /** One for each of the package's units, in their order. */
  readonly units: readonly PlannedUnit[];
}

export interface PackagePlan {
  readonly packages: readonly PlannedPackage[];
  readonly terminals: readonly Terminal[];
  readonly unplaced: readonly Unplaced[];
  /** Packages that the drawer does not have, by name. */
  readonly lacking: ReadonlyMap<string, number>;
  /** A lower bound of packages; equal to the number used if that is proved minimal. */
  readonly atLeast: number;
  /** Gates that are not had as they are drawn. */
  readonly changes: number;
}

/** The data sheet of a planned package. */
export const dataSheet = ({ name }: Pick<PlannedPackage, 'name'>): PackageType => findPackage(name)!.type;

/** Whether gates stay as they are drawn where there is a unit for them, or whatever saves packages is done. */
export type Freedom = 'as drawn' | 'whatever saves';

/** A unit that is taken, before it has its place. */
interface TakenUnit {
  readonly key: string;
  readonly pins: ReadonlyMap<string, Signal>;
  readonly parts: readonly string[];
  readonly bit?: number;
  readonly sort: string;
  readonly way: HowPlanned;
  readonly step?: number;
  readonly feeds?: ReadonlyMap<string, Feed>;
}

/** Packages of flip-flops with one clock and one clear, and how many are in each. */
const COMMON: readonly (readonly [number: string, size: number])[] = [
  ['175', 4],
  ['174', 6],
  ['273', 8],
];

/**
 * The plan of a sheet, blocks unfolded, with units in the order of the drawing; `arranged` finds the places for short wires.
 */
export function planOf(
  sheet: Sheet,
  sheets: readonly Sheet[],
  supply: Supply,
  freedom: Freedom = 'as drawn',
): PackagePlan {
  return new Planner(cellsOf(sheet, sheets, supply.family), supply, freedom).plan();
}

/** Cells that are had in the same ways. */
interface Alike {
  readonly cells: Cell[];
  readonly sort: GateSort;
  /** What the units of a cell are when it goes a way. */
  readonly unitsFor: (cell: Cell, way: number) => readonly TakenUnit[];
}

class Planner {
  private readonly sorts: Map<string, UnitSort>;
  private readonly ways: Realisations;
  /** The first number that is free for a net between two units. */
  private next = 0;

  constructor(
    private readonly found: ReturnType<typeof cellsOf>,
    supply: Supply,
    private readonly freedom: Freedom,
  ) {
    this.sorts = new Map(unitSorts(supply));
    this.ways = new Realisations(this.sorts);
    // Behind every net of the sheet, also of an input that nothing reads.
    const signals = [
      ...found.cells.flatMap(({ pins }) => [...pins.values()]),
      ...found.terminals.map(({ signal }) => signal),
    ];
    for (const signal of signals) if (typeof signal === 'number') this.next = Math.max(this.next, signal + 1);
  }

  plan(): PackagePlan {
    const { cells, terminals, unplaced } = this.found;
    const fixed = fixedPackages(cells.filter((cell) => cell.fixed));
    const free = freeUnits(fixed);
    const alike = this.alike(cells.filter((cell) => !cell.fixed));
    const missing = alike.filter(({ sort }) =>
      sort.ways.some(({ units }) => units.some((u) => !this.sorts.has(u))),
    );
    const placed = alike.filter((one) => !missing.includes(one));
    const fewest = fewestPackages(
      placed.map(({ sort }) => sort),
      this.sorts,
      this.freedom === 'whatever saves',
      free,
    );
    const taken = placed.flatMap((one, i) => takenUnits(one, fewest.taken[i]!));
    const packages = this.filled(fixed, heldUnits(taken, fewest));
    const noPackage = missing.flatMap((one) =>
      one.cells.map(({ part, sort }) => ({
        part,
        why: `This family has no package for ${sort.toUpperCase()}.`,
      })),
    );
    return {
      packages,
      terminals,
      unplaced: [...unplaced, ...noPackage],
      lacking: this.lacking(packages),
      atLeast: fewest.atLeast + fixed.length,
      changes: fewest.changes,
    };
  }

  /** Cells by what they can be. */
  private alike(cells: readonly Cell[]): Alike[] {
    const groups = new Map<string, Cell[]>();
    for (const cell of cells) {
      const key = this.keyOf(cell);
      groups.set(key, [...(groups.get(key) ?? []), cell]);
    }
    return [...groups].map(([key, group]) => {
      const [first] = group as [Cell];
      if (isGateCell(first)) return this.gates(group, first);
      return first.sort === 'dff' ? this.flipFlops(group, key) : this.whole(group, first.sort);
    });
  }

  private keyOf(cell: Cell): string {
    const { sort, pins } = cell;
    if (isGateCell(cell)) return gateKey(sort, pins.size - 1);
    if (sort !== 'dff' || pins.get("PRE'") !== '+') return sort;
    // Those with one clock and one clear can share a package; with their complement, only some.
    const inverse = pins.get("Q'");
    const usesInverse = inverse !== undefined && this.isRead(inverse);
    return `dff ${pins.get('CLK')} ${pins.get("CLR'")} ${usesInverse}`;
  }

  private readonly read = new Set<Signal>();
  private isRead(signal: Signal): boolean {
    if (this.read.size === 0) {
      for (const { direction, signal: at } of this.found.terminals)
        if (direction === 'out') this.read.add(at);
      for (const { pins, outputs } of this.found.cells)
        for (const [name, at] of pins) if (!outputs.includes(name)) this.read.add(at);
      this.read.add('+');
    }
    return this.read.has(signal);
  }

  private gates(cells: Cell[], { sort, pins }: Cell): Alike {
    const count = pins.size - 1;
    const found = this.freedom === 'as drawn' ? this.ways.asDrawn(sort, count) : this.drawnFirst(sort, count);
    return {
      cells,
      sort: {
        count: cells.length,
        ways: found.map((way) => ({ units: unitsOf(way), isDrawn: way.way === 'as drawn' })),
      },
      unitsFor: (cell, way) => this.gateUnits(cell, found[way]!),
    };
  }

  /** All ways, the one that the plan would take without freedom among them. */
  private drawnFirst(sort: string, count: number): readonly Realisation[] {
    const all = this.ways.all(sort, count);
    return all.length > 0 ? all : this.ways.asDrawn(sort, count);
  }

  private gateUnits(cell: Cell, { way, uses }: Realisation): TakenUnit[] {
    const inputs = inputLetters(cell.pins.size - 1).map((letter) => cell.pins.get(letter)!);
    const output = cell.pins.get('Y')!;
    const between = uses.map((_, i) => (i === uses.length - 1 ? output : this.next++));
    const signalOf = (feed: Feed): Signal => {
      if (typeof feed === 'string') return feed;
      return 'input' in feed ? inputs[feed.input]! : between[feed.unit]!;
    };
    return uses.map(({ key, feeds }, i) => ({
      key,
      pins: new Map<string, Signal>([
        ...feeds.map((feed, k) => [inputLetters(feeds.length)[k]!, signalOf(feed)] as const),
        ['Y', between[i]!],
      ]),
      parts: [cell.part],
      bit: cell.bit ?? 0,
      sort: cell.sort,
      way: cell.isDrawn ? way : 'inside',
      step: i,
      feeds: new Map(feeds.map((feed, k) => [inputLetters(feeds.length)[k]!, feed])),
    }));
  }

  /** D flip-flops: two to a package, or several with one clock in one. */
  private flipFlops(cells: Cell[], key: string): Alike {
    const [, , , usesInverse] = key.split(' ');
    const common = usesInverse === undefined ? [] : this.commonSorts(key, usesInverse === 'true');
    return {
      cells,
      sort: {
        count: cells.length,
        ways: [
          { units: ['dff'], isDrawn: true },
          ...common.map((units) => ({ units: [units], isDrawn: true })),
        ],
      },
      unitsFor: (cell, way) => [
        {
          key: way === 0 ? 'dff' : common[way - 1]!,
          pins: cell.pins,
          parts: [cell.part],
          sort: cell.sort,
          way: 'as drawn',
        },
      ],
    };
  }

  /** A sort of unit for each package that flip-flops with these controls can share. */
  private commonSorts(key: string, usesInverse: boolean): string[] {
    return COMMON.flatMap(([number, size]) => {
      const sort = this.sorts.get(number);
      if (!sort || inDrawer(sort) === 0 || (usesInverse && number !== '175')) return [];
      const shared = `${number}@${key}`;
      this.sorts.set(shared, { ...sort, key: shared, each: size });
      return [shared];
    });
  }

  private whole(cells: Cell[], sort: string): Alike {
    return {
      cells,
      sort: { count: cells.length, ways: [{ units: [sort], isDrawn: true }] },
      unitsFor: (cell) => [{ key: sort, pins: cell.pins, parts: [cell.part], sort, way: 'as drawn' }],
    };
  }

  /** Packages with their units, those of the drawing first. */
  private filled(fixed: readonly FixedPackage[], taken: readonly TakenUnit[]): PlannedPackage[] {
    const byKey = new Map<string, TakenUnit[]>();
    for (const unit of taken) byKey.set(unit.key, [...(byKey.get(unit.key) ?? []), unit]);
    const packages: Omit<PlannedPackage, 'ref'>[] = fixed.map((one) => {
      const rest = byKey.get(one.key) ?? [];
      const units = one.package.type.units.map((unit): PlannedUnit => {
        const own = one.units.get(unit.letter);
        if (own) return unitAt(one.package, unit.letter, own);
        const next = one.isWhole ? undefined : rest.shift();
        return next ? unitAt(one.package, unit.letter, next) : spareUnit(one.package, unit.letter);
      });
      return { name: one.package.name, units };
    });
    for (const [key, units] of byKey) {
      const sort = this.sorts.get(key)!;
      const sources = sort.sources.flatMap(({ package: one, count }) =>
        Array(Math.min(count, units.length)).fill(one),
      );
      for (let at = 0, n = 0; at < units.length; at += sort.each, n++)
        packages.push(filledPackage(sources[n] ?? sort.sources[0]!.package, units.slice(at, at + sort.each)));
    }
    return packages.map((one, i) => ({ ...one, ref: `U${i + 1}` }));
  }

  private lacking(packages: readonly PlannedPackage[]): Map<string, number> {
    const needed = new Map<string, number>();
    for (const { name } of packages) needed.set(name, (needed.get(name) ?? 0) + 1);
    const lacking = new Map<string, number>();
    for (const sort of this.sorts.values())
      for (const { package: one, count } of sort.sources) {
        const missing = (needed.get(one.name) ?? 0) - count;
        if (missing > 0) lacking.set(one.name, missing);
      }
    return lacking;
  }
}

function takenUnits({ cells, unitsFor }: Alike, shared: readonly number[]): TakenUnit[] {
  const ways = shared.flatMap((count, way) => Array<number>(count).fill(way));
  return cells.flatMap((cell, i) => unitsFor(cell, ways[i]!));
}

/** A level at a spare input that changes nothing, and one that makes the gate an inverter. */
const NEUTRAL: Readonly<Record<string, Signal>> = {
  and: '+',
  nand: '+',
  or: '-',
  nor: '-',
  xor: '-',
  xnor: '-',
};
const INVERTS: Readonly<Record<string, Signal>> = { nand: '+', nor: '-', xor: '+', xnor: '-' };

/** Gates in the units that hold them: those that are in a wider unit, or in another kind, have their other inputs tied. */
function heldUnits(taken: readonly TakenUnit[], { packed }: Fewest): TakenUnit[] {
  const left = new Map(
    [...packed.held].map(([key, held]) => [
      key,
      [...held].flatMap(([holder, n]) => Array<string>(n).fill(holder)),
    ]),
  );
  return taken.map((unit) => {
    const holder = left.get(unit.key)?.shift() ?? unit.key;
    if (holder === unit.key) return unit;
    const { kind, inputs } = gateOfKey(holder)!;
    const tied = (gateOfKey(unit.key)!.kind === 'not' ? INVERTS : NEUTRAL)[kind]!;
    const pins = new Map(inputLetters(inputs).map((letter) => [letter, unit.pins.get(letter) ?? tied]));
    pins.set('Y', unit.pins.get('Y')!);
    const feeds = new Map<string, Feed>(
      inputLetters(inputs).map((letter) => [letter, unit.feeds?.get(letter) ?? (tied as '+' | '-')]),
    );
    return { ...unit, key: holder, pins, feeds, way: unit.way === 'inside' ? 'inside' : 'other unit' };
  });
}

/** A package that the drawing has, by itself or by its units. */
interface FixedPackage {
  readonly package: LogicPackage;
  readonly key: string;
  readonly isWhole: boolean;
  readonly units: ReadonlyMap<string, TakenUnit>;
}

/** Units of the drawing with the same letter are in different packages. */
function fixedPackages(cells: readonly Cell[]): FixedPackage[] {
  const packages: { package: LogicPackage; key: string; isWhole: boolean; units: Map<string, TakenUnit> }[] =
    [];
  for (const cell of cells) {
    const { type: name, unit: letter } = cell.fixed!;
    const one = findPackage(name)!;
    const { gate } = one.type;
    const key = gate ? gateKey(gate.kind, gate.inputs) : one.type.number;
    const taken = (pins: ReadonlyMap<string, Signal>): TakenUnit => ({
      key,
      pins,
      parts: [cell.part],
      sort: name,
      way: 'as drawn',
    });
    if (letter === '') {
      const units = one.type.units.map((unit) => {
        const pins = [...unit.pins].map(
          ([inner, { name: outer }]) => [inner, cell.pins.get(outer)!] as const,
        );
        return [unit.letter, taken(new Map(pins))] as const;
      });
      packages.push({ package: one, key, isWhole: true, units: new Map(units) });
      continue;
    }
    const open = packages.find((p) => p.package === one && !p.isWhole && !p.units.has(letter));
    const into = open ?? { package: one, key, isWhole: false, units: new Map<string, TakenUnit>() };
    into.units.set(letter, taken(cell.pins));
    if (!open) packages.push(into);
  }
  return packages;
}

function freeUnits(fixed: readonly FixedPackage[]): Map<string, number> {
  const free = new Map<string, number>();
  for (const { key, isWhole, units, package: one } of fixed)
    if (!isWhole) free.set(key, (free.get(key) ?? 0) + one.type.units.length - units.size);
  return free;
}

function unitAt(one: LogicPackage, letter: string, { key: _, pins, ...taken }: TakenUnit): PlannedUnit {
  const unit = one.type.units.find((u) => u.letter === letter)!;
  const signals = [...unit.pins].flatMap(([name, { number, use }]) => {
    const signal = pins.get(name) ?? (use === 'in' ? '-' : undefined);
    return signal === undefined ? [] : [[number, signal] as const];
  });
  return { letter, pins: new Map(signals), ...taken };
}

/** A unit that is not used: its inputs are tied. */
function spareUnit(one: LogicPackage, letter: string): PlannedUnit {
  const unit = one.type.units.find((u) => u.letter === letter)!;
  const inputs = [...unit.pins.values()].filter(({ use }) => use === 'in');
  return { letter, pins: new Map(inputs.map(({ number }) => [number, '-'])), parts: [] };
}

/** A package with units of one sort; several flip-flops of one clock are one unit together. */
function filledPackage(one: LogicPackage, units: readonly TakenUnit[]): Omit<PlannedPackage, 'ref'> {
  const isShared = units[0]!.key.includes('@');
  if (!isShared)
    return {
      name: one.name,
      units: one.type.units.map(({ letter }, i) => {
        const unit = units[i];
        return unit ? unitAt(one, letter, unit) : spareUnit(one, letter);
      }),
    };
  const pins = new Map<string, Signal>([
    ['CLK', units[0]!.pins.get('CLK')!],
    ["CLR'", units[0]!.pins.get("CLR'")!],
  ]);
  for (const [i, { pins: own }] of units.entries())
    for (const name of ['D', 'Q', "Q'"]) if (own.has(name)) pins.set(`${i + 1}${name}`, own.get(name)!);
  const parts = units.flatMap((unit) => unit.parts);
  return { name: one.name, units: [unitAt(one, 'a', { ...units[0]!, pins, parts })] };
}
