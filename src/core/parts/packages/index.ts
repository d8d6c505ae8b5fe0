import { counterPackages } from './counter-packages';
import { flipFlopPackages } from './flip-flop-packages';
import { functionPackages } from './function-packages';
import { gatePackages } from './gate-packages';
import { LOGIC_FAMILIES, type LogicFamily, type PackageType } from './package-type';

/** Every package, in the order of its number within its sort. */
export const PACKAGES: readonly PackageType[] = [
  ...gatePackages,
  ...flipFlopPackages,
  ...counterPackages,
  ...functionPackages,
];

/** A package of one family, by the name that is printed on it: `74HC08`, `4011`. */
export interface LogicPackage {
  readonly name: string;
  readonly family: LogicFamily;
  readonly type: PackageType;
}

export const packageName = ({ number }: PackageType, family: LogicFamily): string =>
  family === '4000B' ? number : family + number;

/** Every package in every family in which it is made. */
export const LOGIC_PACKAGES: readonly LogicPackage[] = PACKAGES.flatMap((type) =>
  LOGIC_FAMILIES.filter((family) => type.ns[family] !== undefined).map((family) => ({
    name: packageName(type, family),
    family,
    type,
  })),
);

/** Packages by what they do, for choosing among them. */
export const PACKAGE_GROUPS: readonly {
  readonly name: string;
  readonly packages: readonly LogicPackage[];
}[] = (
  [
    ['Gates', gatePackages.filter(({ gate }) => gate !== undefined && gate.inputs <= 2)],
    ['Wide gates', gatePackages.filter(({ gate }) => gate === undefined || gate.inputs > 2)],
    ['Storage', flipFlopPackages],
    ['Counters', counterPackages],
    ['Functions', functionPackages],
  ] as const
).map(([name, types]) => ({
  name,
  packages: LOGIC_PACKAGES.filter(({ type }) => types.includes(type)),
}));

const byName = new Map(LOGIC_PACKAGES.map((one) => [one.name, one]));

/** The package with exactly that name. */
export const findPackage = (name: string): LogicPackage | undefined => byName.get(name);

/** How a package is called on an order or in a drawer: makers' letters before the number, and the letters of its case behind. */
const TYPED = /^(?:[a-z]{1,3})?(?:74([a-z]{0,3})(\d{2,3})|(4\d{3}))(?:b|be|n|p)?$/i;

/**
 * The package that a person means by `7400`, `74ls00`, `4011B`; a bare number of the 74 series is the CMOS one, where there is
 * one. Undefined for a text that is no such number, or one that is not in the catalogue.
 */
export function packageCalled(text: string): LogicPackage | undefined {
  const [, letters, number, of4000] = TYPED.exec(text.trim().replaceAll(/[\s-]+/g, '')) ?? [];
  if (of4000) return byName.get(of4000);
  if (number === undefined) return undefined;
  const bare = byName.get(`74HC${number}`) ?? byName.get(`74LS${number}`);
  return letters ? byName.get(`74${letters.toUpperCase()}${number}`) : bare;
}

/**
 * What is said of a number that looks like a package's and is none, as a clause: the ones beside it. Null for any other text.
 */
export function noSuchPackage(text: string): string | null {
  const written = text.trim().replace(/\.[a-f]$/i, '');
  const [, , number, of4000] = TYPED.exec(written) ?? [];
  if ((number ?? of4000) === undefined || packageCalled(written)) return null;
  const isOf4000 = of4000 !== undefined;
  const known = PACKAGES.filter(({ number: own }) => (own.length === 4 && own.startsWith('4')) === isOf4000);
  const away = ({ number: own }: PackageType) => Math.abs(Number(own) - Number(number ?? of4000));
  const near = known
    .toSorted((a, b) => away(a) - away(b))
    .slice(0, 2)
    .map(({ number: own }) => (isOf4000 ? own : `74${own}`));
  return `the catalogue has no ${written.toUpperCase()}; the nearest are ${near.join(' and ')}`;
}
