import { findPackage } from '../parts/packages';
import type { PackagePlan, PlannedPackage, PlannedUnit } from './plan';

/** The name within a unit at which a port of a drawn part is; several where families differ. */
const PORT_PINS: Readonly<Record<string, readonly string[]>> = {
  C: ['CLK'],
  PRE: ["PRE'", 'S'],
  CLR: ["CLR'", 'R'],
  T: ['J'],
  S: ['J'],
  R: ['K'],
};

/** The designator of each part of the sheet itself, and the number of its pins by the names of its ports. */
export function pinNotesOf({
  packages,
}: PackagePlan): Map<string, { ref: string; pins: Map<string, string> }> {
  const notes = new Map<string, { ref: string; pins: Map<string, string> }>();
  for (const one of packages) {
    const { units: sheets } = findPackage(one.name)!.type;
    const whole = wholePart(one);
    if (whole !== null) {
      notes.set(whole, { ref: one.ref, pins: allNumbers(one) });
      continue;
    }
    for (const unit of one.units)
      for (const [i, part] of unit.parts.entries()) {
        if (part.includes('/')) continue;
        const name = sheets.length > 1 ? `${one.ref}${unit.letter}` : one.ref;
        const known = notes.get(part);
        // A gate that is made of several, or has several bits, tells them all, and no numbers.
        if (known) {
          if (known.ref !== name) notes.set(part, { ref: `${known.ref} ${name}`, pins: new Map() });
          continue;
        }
        const isOne = unit.way === 'as drawn' || unit.way === 'other unit';
        notes.set(part, { ref: name, pins: isOne ? numbersOf(one, unit, i) : new Map() });
      }
  }
  return notes;
}

/** The part that is drawn as this package, whole; null where its units are parts of their own. */
function wholePart({ name, units }: PlannedPackage): string | null {
  const [first] = units;
  const part = first?.parts[0];
  if (part === undefined || part.includes('/') || first!.sort !== name) return null;
  return units.every(({ parts }) => parts.length === 1 && parts[0] === part) ? part : null;
}

/** The number of every pin, by its name on the data sheet; where there is one unit, also by that within it. */
function allNumbers({ name }: PlannedPackage): Map<string, string> {
  const { pins, units } = findPackage(name)!.type;
  const within = units.length === 1 ? [...units[0]!.pins] : [];
  return new Map(
    [...within, ...pins.map((pin) => [pin.name, pin] as const)].map(([as, { number }]) => [
      as,
      String(number),
    ]),
  );
}

/** Numbers by the names of ports. @param index which of the flip-flops that share a package it is. */
function numbersOf(
  one: PackagePlan['packages'][number],
  unit: PlannedUnit,
  index: number,
): Map<string, string> {
  const own = findPackage(one.name)!.type.units.find(({ letter }) => letter === unit.letter)!.pins;
  const isShared = unit.parts.length > 1;
  const numbers = new Map<string, string>();
  for (const [name, { number }] of own) {
    const bare = isShared && new RegExp(`^${index + 1}[A-Z]`).test(name) ? name.slice(1) : name;
    if (unit.pins.has(number)) numbers.set(bare, String(number));
  }
  for (const [port, names] of Object.entries(PORT_PINS)) {
    const found = names.find((name) => numbers.has(name));
    if (found && !numbers.has(port)) numbers.set(port, numbers.get(found)!);
  }
  return numbers;
}
