import { LOGIC_PACKAGES, type LogicPackage } from '../parts/packages';
import type { LogicFamily } from '../parts/packages/package-type';

/*
 * Where the units of packages come from: for each sort of unit (a NAND gate with two inputs, a D flip-flop) the packages of a
 * family that hold it, as far as there are any in the drawer.
 */

/** Packages that are at hand, by the number on them: `08`, `74HC08`, `4011`. */
export interface Stock {
  readonly type: string;
  readonly count: number;
}

export interface Supply {
  readonly family: LogicFamily;
  /** Numbers of packages that are not used. */
  readonly without?: readonly string[];
  /** The packages that there are; without it there are enough of each. */
  readonly stock?: readonly Stock[];
}

/** A package that holds a sort of unit. */
export interface Source {
  readonly package: LogicPackage;
  /** How many of the package there are. */
  readonly count: number;
}

/** A sort of unit: all its sources hold the same number of it. */
export interface UnitSort {
  /** `nand2`, `dff`, `jkff`, or the number of a package. */
  readonly key: string;
  /** Units in one package. */
  readonly each: number;
  /** The usual one first. */
  readonly sources: readonly Source[];
}

/** Flip-flop packages by what each of their units is; the usual one of a family first. */
const FLIP_FLOPS: Readonly<Record<string, readonly string[]>> = {
  dff: ['74', '4013'],
  jkff: ['112', '76', '4027'],
};

/** Packages with the same gates as a more usual one, which come after it. */
const SECOND = new Set(['14', '4030', '4049']);

export const gateKey = (kind: string, inputs: number): string => `${kind}${inputs}`;

/** Whether a number in a list of packages, as people write it, means this package. */
export const isCalled = ({ name, type }: LogicPackage, written: string): boolean => {
  const text = written.trim().toUpperCase();
  return text === name || text === type.number || text === `74${type.number}`;
};

/** A number in a list of packages as it is told: `7408` for the bare `08`. */
export const numberText = (written: string): string => (/^\d{2,3}$/.test(written) ? `74${written}` : written);

/** How many of a package there are. */
function counted(one: LogicPackage, { without = [], stock }: Supply): number {
  if (without.some((written) => isCalled(one, written))) return 0;
  if (!stock) return Number.POSITIVE_INFINITY;
  return stock.filter(({ type }) => isCalled(one, type)).reduce((sum, { count }) => sum + count, 0);
}

function keyOf({ type }: LogicPackage): string {
  if (type.gate) return gateKey(type.gate.kind, type.gate.inputs);
  const flipFlop = Object.keys(FLIP_FLOPS).find((key) => FLIP_FLOPS[key]!.includes(type.number));
  return flipFlop ?? type.number;
}

/** The sorts of units in a family. Those of which the drawer has no package have sources without any. */
export function unitSorts(supply: Supply): ReadonlyMap<string, UnitSort> {
  const order = ({ type: { number } }: LogicPackage) => {
    const among = Object.values(FLIP_FLOPS).find((list) => list.includes(number));
    return among ? among.indexOf(number) : SECOND.has(number) ? 1 : 0;
  };
  const sorts = new Map<string, UnitSort>();
  const packages = LOGIC_PACKAGES.filter(({ family }) => family === supply.family);
  for (const one of [...packages].sort((a, b) => order(a) - order(b))) {
    const key = keyOf(one);
    const known = sorts.get(key);
    const source = { package: one, count: counted(one, supply) };
    sorts.set(key, { key, each: one.type.units.length, sources: [...(known?.sources ?? []), source] });
  }
  return sorts;
}

/** How many packages of a sort there are. */
export const inDrawer = ({ sources }: UnitSort): number => sources.reduce((sum, { count }) => sum + count, 0);
