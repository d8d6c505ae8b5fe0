import { type End, isPinEnd, type PinEnd, type Sheet } from '../../circuit/sheet';
import { endPoint, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { requirementAt } from './compatible-parts';
import { widthAt } from './remedies';

/** Pins that a wire being drawn has passed over, on its first and on its last part. */
export interface MultiPinDrag {
  readonly from: readonly End[];
  readonly onto: readonly End[];
  /** All inputs that were passed over since it left, in their order. */
  readonly passed?: readonly PinEnd[];
}

const samePin = (a: End, b: PinEnd) => isPinEnd(a) && a.part === b.part && a.port === b.port;

/** The sweep with one more pin passed over. A bus gathers narrower pins of any parts. */
export function extended(sheet: Sheet, drag: MultiPinDrag, over: End | null): MultiPinDrag {
  const next = withPins(sheet, drag, over);
  const { passed = [] } = drag;
  if (
    !over ||
    !isPinEnd(over) ||
    directionOf(sheet, over) !== 'in' ||
    passed.some((end) => samePin(end, over))
  )
    return next;
  return { ...next, passed: [...passed, over] };
}

function withPins(sheet: Sheet, drag: MultiPinDrag, over: End | null): MultiPinDrag {
  const [first] = drag.from;
  if (!over || !isPinEnd(over) || !first) return drag;
  const { from, onto } = drag;
  if ([...from, ...onto].some((end) => samePin(end, over))) return drag;
  if (from.length === 1 && widthAt(sheet, over) < widthAt(sheet, first)) {
    const [one] = onto;
    const isLike =
      one && isPinEnd(one) && directionOf(sheet, one) === directionOf(sheet, over) && !isOf(over, first);
    return { from, onto: isLike ? [...onto, over] : [over] };
  }
  if (!isPinEnd(first)) return drag;
  if (onto.length === 0 && over.part === first.part)
    return directionOf(sheet, over) === directionOf(sheet, first) ? { from: [...from, over], onto } : drag;
  const [target] = onto;
  if (!target || (isPinEnd(target) && target.part === over.part)) return { from, onto: [...onto, over] };
  // Over another part than before: that one was only passed on the way.
  return { from, onto: [over] };
}

const isOf = (pin: PinEnd, end: End) => isPinEnd(end) && end.part === pin.part;

/**
 * The sweep as it is meant: on a straight way the pins between were only passed, and the first is led to the last.
 * Any other sweep is meant for all of its pins.
 */
export function meantSweep(sheet: Sheet, drag: MultiPinDrag): MultiPinDrag {
  const last = drag.onto.at(-1);
  if (drag.from.length < 2 || !last) return drag;
  const places = [...drag.from, last].map((end) => endPoint(sheet, end));
  const inLine = (axis: 'x' | 'y') =>
    places.every((p) => p && Math.abs(p[axis] - places[0]![axis]) <= OFF_LINE);
  return inLine('x') || inLine('y') ? { from: drag.from.slice(0, 1), onto: [last] } : drag;
}

/** Pins off one line by no more grid steps than this are in line. */
const OFF_LINE = 1;

/**
 * The inputs that one driver is led to by a sweep along a column: the like inputs of parts of one kind below each other, each
 * free, and none of them left out. None for any other sweep.
 */
export function columnSweep(sheet: Sheet, { from, passed = [] }: MultiPinDrag): readonly PinEnd[] {
  const [first] = from;
  const last = passed.at(-1);
  if (!first || !last || from.length > 1 || requirementAt(sheet, first).direction !== 'in') return [];
  const kind = sheet.parts.get(last.part)?.kind;
  const place = endPoint(sheet, last)!;
  const nets = wireNets(sheet);
  const column = [...sheet.parts.values()].flatMap((part) => {
    const end = { part: part.id, port: last.port };
    const at = part.kind === kind ? endPoint(sheet, end) : null;
    return at && Math.abs(at.x - place.x) <= OFF_LINE ? [{ end, y: at.y }] : [];
  });
  column.sort((a, b) => a.y - b.y);
  const swept = column.filter(({ end }) => passed.some((over) => samePin(over, end)));
  if (swept.length < 2 || passed[0]!.port !== last.port) return [];
  const between = column.slice(column.indexOf(swept[0]!), column.indexOf(swept.at(-1)!) + 1);
  const isWhole = between.length === swept.length;
  const from0 = endPoint(sheet, first);
  const isStraight = from0 !== null && Math.abs(from0.x - place.x) <= OFF_LINE;
  const areFree = swept.every(({ end }) => nets.ofEnd(end) === undefined);
  const isLike = swept.every(({ end }) => widthAt(sheet, end) === widthAt(sheet, first));
  return isWhole && !isStraight && areFree && isLike ? swept.map(({ end }) => end) : [];
}

/** A bus and the narrower pins that a sweep joins to it, in the order of their bits, the highest first. */
export interface BusSweep {
  readonly bus: End;
  readonly pins: readonly PinEnd[];
  /** Whether the bus drives the pins; else they drive it. */
  readonly spreads: boolean;
}

/**
 * The bus of a sweep and its pins, whichever was swept first; null for any other sweep, or where the pins do not fill the bus
 * or neither drives the other. Pins with numbers in their names go to those bits; else the first is the highest.
 */
export function busSweep(sheet: Sheet, { from, onto }: MultiPinDrag): BusSweep | null {
  const [bus, pins] = from.length === 1 ? [from[0], onto] : onto.length === 1 ? [onto[0], from] : [];
  if (!bus || !pins || pins.length < 2) return null;
  const ends = pins.filter(isPinEnd);
  const bits = ends.reduce((sum, end) => sum + widthAt(sheet, end), 0);
  if (ends.length < pins.length || bits !== widthAt(sheet, bus)) return null;
  const reads = ends.map((end) => directionOf(sheet, end) !== 'out');
  const isDriven = requirementAt(sheet, bus).direction === 'in';
  const spreads = isDriven && reads.every(Boolean);
  const gathers = !isDriven && isPinEnd(bus) && reads.every((r) => !r);
  if (!spreads && !gathers) return null;
  const numbers = ends.map((end) => numberOf(sheet, end));
  const areBits = new Set(numbers).size === ends.length && numbers.every((n) => n >= 0 && n < ends.length);
  const order = areBits ? ends.map((_, i) => ends[numbers.indexOf(ends.length - 1 - i)]!) : ends;
  return { bus, pins: order, spreads };
}

/** The number at the end of a pin's name, or of the label of a part with one pin; -1 without one. */
function numberOf(sheet: Sheet, end: PinEnd): number {
  const part = sheet.parts.get(end.part);
  const name = part && pinsOf(part).length === 1 ? part.label : end.port;
  return Number(/\d+$/.exec(name ?? '')?.[0] ?? -1);
}

function directionOf(sheet: Sheet, end: PinEnd): string | undefined {
  const part = sheet.parts.get(end.part);
  return part && pinsOf(part).find((p) => p.port.name === end.port)?.port.direction;
}

/**
 * The pins of a sweep joined one by one. Where fewer were passed over at the far end, the free ones that follow
 * there are taken.
 */
export function pinPairs(sheet: Sheet, { from, onto }: MultiPinDrag): (readonly [End, End])[] {
  const last = onto.at(-1);
  if (!last || !isPinEnd(last)) return [];
  const nets = wireNets(sheet);
  const part = sheet.parts.get(last.part);
  const pins = part ? pinsOf(part).filter((p) => p.port.direction === directionOf(sheet, last)) : [];
  const at = pins.findIndex((p) => p.port.name === last.port);
  const more = pins
    .slice(at + 1)
    .map((p): End => ({ part: last.part, port: p.port.name }))
    .filter((end) => nets.ofEnd(end) === undefined);
  const targets = [...onto, ...more];
  return from.slice(0, targets.length).map((end, i) => [end, targets[i]!] as const);
}
