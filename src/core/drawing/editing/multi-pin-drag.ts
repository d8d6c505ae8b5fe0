import { type End, isPinEnd, type PinEnd, type Sheet } from '../../circuit/lesson';
import { pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';

/** Pins that a wire being drawn has passed over: on the part that it leaves, and on the one that it comes to. */
export interface MultiPinDrag {
  readonly from: readonly End[];
  readonly onto: readonly End[];
}

const samePin = (a: End, b: PinEnd) => isPinEnd(a) && a.part === b.part && a.port === b.port;

/** The sweep with one more pin passed over. */
export function extended(sheet: Sheet, drag: MultiPinDrag, over: End | null): MultiPinDrag {
  const [first] = drag.from;
  if (!over || !isPinEnd(over) || !first || !isPinEnd(first)) return drag;
  const { from, onto } = drag;
  if ([...from, ...onto].some((end) => samePin(end, over))) return drag;
  if (onto.length === 0 && over.part === first.part)
    return directionOf(sheet, over) === directionOf(sheet, first) ? { from: [...from, over], onto } : drag;
  const [target] = onto;
  if (!target || (isPinEnd(target) && target.part === over.part)) return { from, onto: [...onto, over] };
  // Over another part than before: that one was only passed on the way.
  return { from, onto: [over] };
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
