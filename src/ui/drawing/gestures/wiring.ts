import type { EditorContext } from '@/commands/context';
import type { Point } from '@/core/circuit/geometry';
import { type End, isPinEnd, type PinEnd, type Sheet } from '@/core/circuit/sheet';
import { connect } from '@/core/drawing/editing/gestures';
import { busSweep, columnSweep, meantSweep, pinPairs } from '@/core/drawing/editing/multi-pin-drag';
import { gather, spreadBus, widthAt } from '@/core/drawing/editing/remedies';
import { endPoint, pinOf } from '@/core/drawing/geometry/placement';
import { counted } from '@/core/values/wording';
import { wirePairs } from '@/session/changes/wires';
import type { Session } from '@/session/session';
import { told } from '@/session/told';
import type { Picked } from '../canvas/pick';
import type { PickedEnd, Wiring } from './gesture-state';

/*
 * Wires that are being drawn: their ends, their preview, and the edits that join them.
 */

/** A wire that begins at a pin or on another wire. */
export function wiringFrom(picked: PickedEnd, clicking: boolean): Wiring {
  const from: End = picked.is === 'pin' ? picked.end : { wire: picked.wire, at: picked.at };
  const { at } = picked;
  return { state: 'wiring', from: [from], onto: [], start: at, to: at, clicking, end: null };
}

/** A wire that was taken by one of its ends. */
export function wiringOfEnd(sheet: Sheet, wire: string, key: 'from' | 'to'): Wiring {
  const there = sheet.wires.get(wire)!;
  const other = key === 'from' ? there.to : there.from;
  const start = endPoint(sheet, other)!;
  return { state: 'wiring', from: [other], onto: [], start, to: start, clicking: false, end: { wire, key } };
}

/** The pin or wire under the pointer at which a wire could end. */
export function wiringTarget(wiring: Wiring, hover: Picked | null): { end: End; at: Point } | null {
  if (!hover || hover.is === 'part') return null;
  const from = wiring.from[0]!;
  if (hover.is === 'wire') {
    if (!isPinEnd(from) && from.wire === hover.wire) return null;
    if (wiring.end?.wire === hover.wire) return null;
    return { end: { wire: hover.wire, at: hover.at }, at: hover.at };
  }
  const { end, at } = hover;
  if (isPinEnd(from) && isPinEnd(end) && from.part === end.part && from.port === end.port) return null;
  return { end, at };
}

/** The courses to draw for wires that are being drawn. */
export function wirePreview(
  sheet: Sheet,
  wiring: Wiring,
  hover: Picked | null,
): readonly (readonly Point[])[] {
  const { start, to, from } = wiring;
  const pairs = sweptPairs(sheet, wiring);
  if (pairs.length > 0)
    return pairs.map((ends) => ends.map((end) => endPoint(sheet, end)).filter((point) => point !== null));
  const target = wiringTarget(wiring, hover);
  if (target) {
    const edit = connect(sheet, from[0]!, target.end);
    if (edit?.type === 'addWire') return [[start, ...edit.wire.course, target.at]];
  }
  return [[start, { x: to.x, y: start.y }, to]];
}

/** The pins that a sweep joins if it ends now, pair by pair; none for a wire from one end to another. */
function sweptPairs(sheet: Sheet, wiring: Wiring): readonly (readonly [End, End])[] {
  const bus = busSweep(sheet, wiring);
  if (bus) return bus.pins.map((pin) => [bus.bus, pin]);
  const column = columnSweep(sheet, wiring);
  const end = column.length > 0 ? endPoint(sheet, wiring.passed!.at(-1)!) : null;
  // It is over as soon as the hand goes on elsewhere.
  if (end && Math.hypot(end.x - wiring.to.x, end.y - wiring.to.y) <= AT_PIN)
    return column.map((pin) => [wiring.from[0]!, pin]);
  const meant = meantSweep(sheet, wiring);
  return meant.from.length > 1 || meant.from.length < wiring.from.length ? pinPairs(sheet, meant) : [];
}

/** Grid steps from a pin within which the hand is at it. */
const AT_PIN = 1.5;

/** The places of the pins that a sweep joins if it ends now. */
export const sweptPins = (sheet: Sheet, wiring: Wiring): readonly Point[] =>
  sweptPairs(sheet, wiring)
    .flat()
    .map((end) => endPoint(sheet, end))
    .filter((point) => point !== null);

/** Joins two ends, or asks how if their widths differ. */
export function joinEnds({ session, drawing }: EditorContext, from: End, to: End): void {
  const { sheet } = session;
  const reads = (end: End) =>
    isPinEnd(end) && pinOf(sheet, end.part, end.port)?.port.direction === 'in' ? end : null;
  const [onto, into] = [reads(to), reads(from)];
  if (widthAt(sheet, from) === widthAt(sheet, to) || (!onto && !into)) told(wirePairs(session, [[from, to]]));
  else if (onto) drawing.open({ is: 'widths', at: drawing.spot(), from, to: onto });
  else if (into) drawing.open({ is: 'widths', at: drawing.spot(), from: to, to: into });
}

/** Joins the pins that were passed over one by one, or all of them bit by bit to one bus. */
export function joinPassedPins(session: Session, wiring: Wiring): boolean {
  const { sheet } = session;
  const bus = busSweep(sheet, wiring);
  if (bus) {
    const { spreads, pins } = bus;
    const edit = spreads ? spreadBus(sheet, bus.bus, pins) : gather(sheet, pins, bus.bus as PinEnd);
    if (edit) told(session.edit(spreads ? 'spread a bus' : 'gather wires into a bus', edit));
    return edit !== null;
  }
  const pairs = sweptPairs(sheet, wiring);
  if (pairs.length === 0) return false;
  const unequal = pairs.find(([a, b]) => widthAt(sheet, a) !== widthAt(sheet, b));
  if (unequal) {
    const [some, other] = unequal.map((end) => counted(widthAt(sheet, end), 'bit'));
    session.say(`These pins cannot be joined one by one: ${some} on one side, ${other} on the other.`, 'bad');
  } else told(wirePairs(session, pairs));
  return true;
}
