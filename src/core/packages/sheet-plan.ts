import { type ChipsSetup, NO_CHIPS_SETUP } from '../circuit/chips-setup';
import type { Sheet } from '../circuit/sheet';
import { arranged } from './arrange';
import { type Offer, offerOf } from './offer';
import { dataSheet, type PackagePlan, type PlannedPackage, type PlannedUnit, planOf } from './plan';
import { type StageTest, stageTests } from './stage-tests';
import type { Supply } from './units';
import { type Wiring, wiringOf } from './wiring';

/** Everything about a sheet in packages, as the faces show it. */
export interface SheetPlan {
  readonly plan: PackagePlan;
  readonly wiring: Wiring;
  readonly tests: readonly StageTest[];
  readonly offer: Offer | null;
  /** Columns over which all signal wires run together, and a bound below it. */
  readonly length: number;
  readonly lengthAtLeast: number;
}

export const supplyOf = ({ family, without, stock }: ChipsSetup): Supply => ({
  family,
  without,
  ...(stock ? { stock } : {}),
});

/** Larger sheets are planned without asking what other gates would save. */
const MOST_OFFERED = 400;

/** The plan of a sheet by what people set for it. */
export function sheetPlan(
  sheet: Sheet,
  sheets: readonly Sheet[],
  setup: ChipsSetup = sheet.chips ?? NO_CHIPS_SETUP,
): SheetPlan {
  const supply = supplyOf(setup);
  const planned = planOf(sheet, sheets, supply);
  const best = arranged(planned);
  const plan = adjusted(best.plan, setup);
  const wiring = wiringOf(plan);
  const isLarge = planned.packages.length > MOST_OFFERED;
  return {
    plan,
    wiring,
    tests: stageTests(plan, wiring),
    offer: isLarge ? null : offerOf(planned, planOf(sheet, sheets, supply, 'whatever saves')),
    length: best.length,
    lengthAtLeast: best.atLeast,
  };
}

/** The plan with the gates in the units that somebody chose, and inputs exchanged; what no longer fits is left. */
export function adjusted(plan: PackagePlan, { pinned, exchanged }: ChipsSetup): PackagePlan {
  let packages = plan.packages;
  for (const { part, bit, ref, unit } of pinned) {
    const from = whereIs(packages, part, bit);
    const to = packages.find((one) => one.ref === ref);
    const place = to?.units.find((one) => one.letter === unit);
    if (from && to && place && from.one.name === to.name)
      packages = swapped(packages, from, { one: to, unit: place });
  }
  for (const { part, bit, pins } of exchanged) {
    const at = whereIs(packages, part, bit);
    const [a, b] = pins;
    if (at && a && b) packages = replaced(packages, at, withExchanged(at.one, at.unit, a, b));
  }
  return { ...plan, packages };
}

interface UnitPlace {
  readonly one: PlannedPackage;
  readonly unit: PlannedUnit;
}

/** Where a drawn gate is. */
export function whereIs(packages: readonly PlannedPackage[], part: string, bit = 0): UnitPlace | null {
  for (const one of packages)
    for (const unit of one.units)
      if (unit.parts.includes(part) && (unit.bit ?? 0) === bit) return { one, unit };
  return null;
}

const replaced = (packages: readonly PlannedPackage[], at: UnitPlace, by: PlannedUnit) =>
  packages.map((one) =>
    one.ref === at.one.ref
      ? { ...one, units: one.units.map((unit) => (unit.letter === at.unit.letter ? by : unit)) }
      : one,
  );

const swapped = (packages: readonly PlannedPackage[], a: UnitPlace, b: UnitPlace) =>
  replaced(
    replaced(packages, a, inUnit(a.one, b.unit, a.unit.letter)),
    b,
    inUnit(b.one, a.unit, b.unit.letter),
  );

/** A unit's content at the pins of another unit of the package. */
function inUnit(one: PlannedPackage, unit: PlannedUnit, letter: string): PlannedUnit {
  const { units } = dataSheet(one);
  const [from, to] = [unit.letter, letter].map((l) => units.find((u) => u.letter === l)!);
  const pins = [...from!.pins].flatMap(([name, { number }]) => {
    const signal = unit.pins.get(number);
    return signal === undefined ? [] : [[to!.pins.get(name)!.number, signal] as const];
  });
  return { ...unit, letter, pins: new Map(pins) };
}

/** A unit with two of its inputs exchanged, where the package lets them be. */
function withExchanged(one: PlannedPackage, unit: PlannedUnit, a: string, b: string): PlannedUnit {
  const type = dataSheet(one);
  if (!type.exchangeable.some((group) => group.includes(a) && group.includes(b))) return unit;
  const own = type.units.find((u) => u.letter === unit.letter)!;
  const [x, y] = [own.pins.get(a)!.number, own.pins.get(b)!.number];
  const pins = new Map(unit.pins);
  pins.set(x, unit.pins.get(y)!);
  pins.set(y, unit.pins.get(x)!);
  return { ...unit, pins };
}
