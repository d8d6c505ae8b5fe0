import type { Signal } from '@/core/packages/cell-builder';
import { dataSheet, type PlannedPackage, type PlannedUnit } from '@/core/packages/plan';
import type { PackagePin } from '@/core/parts/packages/package-type';
import { plainText } from '@/core/values/markup';

/** Pins of a unit, by the data sheet. */
export function pinsOf(one: PlannedPackage, unit: PlannedUnit): PackagePin[] {
  return [
    ...dataSheet(one)
      .units.find(({ letter }) => letter === unit.letter)!
      .pins.values(),
  ];
}

/** The signal at each pin of a package that has one. */
export function signalsAtPins(one: PlannedPackage): ReadonlyMap<number, Signal> {
  const at = new Map<number, Signal>(one.units.flatMap(({ pins }) => [...pins]));
  for (const { number, use } of dataSheet(one).pins) {
    if (use === 'plus') at.set(number, '+');
    if (use === 'minus') at.set(number, '-');
  }
  return at;
}

/** A signal as it stands beside its pin; empty where there is none. */
export const signalName = (signal: Signal | undefined, names: ReadonlyMap<Signal, string>): string =>
  signal === undefined ? '' : signal === '-' ? '−' : plainText(names.get(signal) ?? '');
