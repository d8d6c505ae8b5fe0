import type { Edit } from '../circuit/edit';
import type { Point } from '../circuit/geometry';
import type { End, Part, PinEnd, Sheet } from '../circuit/sheet';
import { connect, remove } from '../drawing/editing/gestures';
import { freePlace } from '../drawing/geometry/free-place';
import { pinOf, pinsOf } from '../drawing/geometry/placement';
import { wireNets } from '../drawing/geometry/wire-nets';
import { kindOf, roleOf } from '../parts/catalogue';

/*
 * Statements whose target is already on the sheet: the lamp, net label or readers of the target are wired to the new gates.
 */

/** A sheet that is edited step by step. */
interface Editing {
  readonly sheet: Sheet;
  /** The ids of the parts that the statement has drawn. */
  readonly parts: readonly string[];
  make(edit: Edit | null): void;
}

/** Whether a part is an output, or a net label. */
export const isShown = (part: Part): boolean =>
  roleOf(part)?.role === 'output' || kindOf(part).joinsByLabel === true;

export const isSwitch = (part: Part): boolean => {
  const role = roleOf(part);
  return role?.role === 'input' && role.by === 'switch';
};

const endOf = (part: Part, at = 0): PinEnd => ({ part: part.id, port: pinsOf(part)[at]!.port.name });

/** The drivers and the readers on the net of a pin. */
function onNet(sheet: Sheet, end: PinEnd): { readonly drivers: PinEnd[]; readonly readers: PinEnd[] } {
  const nets = wireNets(sheet);
  const net = nets.ofEnd(end);
  const found = { drivers: [] as PinEnd[], readers: [] as PinEnd[] };
  for (const part of net === undefined ? [] : sheet.parts.values())
    for (const [i, { port }] of pinsOf(part).entries())
      if (nets.ofEnd(endOf(part, i)) === net)
        (port.direction === 'out' ? found.drivers : found.readers).push(endOf(part, i));
  return found;
}

function lead(on: Editing, driver: End, pins: readonly PinEnd[]): void {
  for (const pin of pins) on.make(connect(on.sheet, driver, pin));
}

/** Whether two ends are on the same net. */
export function onOneNet(sheet: Sheet, one: End, other: PinEnd): boolean {
  const nets = wireNets(sheet);
  const net = 'part' in one ? nets.ofEnd(one) : nets.ofWire(one.wire);
  return net !== undefined && net === nets.ofEnd(other);
}

/** Wires the readers of a switch to a driver, and removes the switch. */
export function replaceSwitch(on: Editing, before: Part, driver: End): void {
  const { readers } = onNet(on.sheet, endOf(before));
  on.make(remove(on.sheet, new Set([before.id]), new Set()));
  lead(on, driver, readers);
}

/** Whether something drives the wire at a lamp, or at a net label. */
export const isDriven = (sheet: Sheet, shown: Part): boolean => onNet(sheet, endOf(shown)).drivers.length > 0;

/**
 * Wires a driver to a lamp or a net label. The readers of its net move with it, except new parts, and except on a net that has
 * another name too. Gates without readers are removed.
 * @param beside where the lamp goes if it lies left of the driver, so that the wire would run backwards.
 * @returns whether something else drove it.
 */
export function redrive(on: Editing, shown: Part, driver: End, beside: Point): boolean {
  const own = endOf(shown);
  if (onOneNet(on.sheet, driver, own)) return false;
  const { drivers, readers } = onNet(on.sheet, own);
  if (drivers.length === 0) {
    lead(on, driver, [own]);
    return false;
  }
  const others = readers.filter((end) => end.part !== shown.id);
  const partOf = (end: PinEnd) => on.sheet.parts.get(end.part)!;
  const hasOtherNames =
    drivers.some((end) => partOf(end).label) || others.some((end) => isShown(partOf(end)));
  const left = others.filter((end) => hasOtherNames || on.parts.includes(end.part));
  const nets = wireNets(on.sheet);
  const net = nets.ofEnd(own);
  const wires = [...on.sheet.wires.keys()].filter((wire) => nets.ofWire(wire) === net);
  on.make(remove(on.sheet, new Set(), new Set(wires)));
  const from = 'part' in driver ? pinOf(on.sheet, driver.part, driver.port)!.at : driver.at;
  if (pinsOf(shown)[0]!.at.x <= from.x) {
    const at = freePlace(on.sheet, { ...shown, at: beside });
    on.make({ type: 'changePart', sheet: on.sheet.id, id: shown.id, change: { at } });
  }
  // The first reader is wired to all drivers of a bus, the others to one of them.
  for (const [i, end] of drivers.entries()) lead(on, end, i === 0 ? left : left.slice(0, 1));
  lead(on, driver, [own, ...others.filter((end) => !left.includes(end))]);
  for (const end of drivers) prune(on, end.part);
  return true;
}

/** Removes a gate if nothing reads it, and then the gates that drove it. */
function prune(on: Editing, id: string): void {
  const part = on.sheet.parts.get(id);
  if (!part || part.label || !kindOf(part).isGate) return;
  const nets = wireNets(on.sheet);
  const pins = pinsOf(part).map(({ port }, at) => ({
    end: endOf(part, at),
    isOutput: port.direction === 'out',
  }));
  if (pins.some(({ end, isOutput }) => isOutput && nets.ofEnd(end) !== undefined)) return;
  const drivers = pins.flatMap(({ end, isOutput }) => (isOutput ? [] : onNet(on.sheet, end).drivers));
  on.make(remove(on.sheet, new Set([id]), new Set()));
  for (const driver of drivers) prune(on, driver.part);
}
