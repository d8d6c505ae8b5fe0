import {
  type Box,
  contains,
  eachSegment,
  grown,
  nearestOnSegment,
  overlap,
  type Point,
} from '@/core/circuit/geometry';
import type { End, Sheet } from '@/core/circuit/sheet';
import { bodyOf, courseOf, labelBox, pinsOf } from '@/core/drawing/geometry/placement';
import { spatialIndexOf } from '@/core/drawing/geometry/spatial-index';
import { wireNets } from '@/core/drawing/geometry/wire-nets';

/** The object under the pointer: a pin before a body, a body before a wire, a wire before a label. */
export type Picked =
  | { readonly is: 'pin'; readonly end: End; readonly at: Point; readonly part: string }
  | { readonly is: 'part'; readonly part: string; readonly onLabel?: boolean }
  | { readonly is: 'wire'; readonly wire: string; readonly at: Point };

/**
 * How near in grid steps counts as on it at scale 1, where a step has 14 pixels; more when zoomed out. On a body, where
 * the part itself can be meant, a pin reaches less far.
 */
const PIN_REACH = 1;
const PIN_REACH_ON_BODY = 0.75;
const WIRE_REACH = 0.6;

/** How many times farther than usual it reaches: a finger, or a press that misses by a little, is not exact. */
export interface Reach {
  readonly pins?: number;
  readonly wires?: number;
}

const spot = (p: Point): Box => ({ x0: p.x, y0: p.y, x1: p.x, y1: p.y });

export function pick(
  sheet: Sheet,
  p: Point,
  scale: number,
  { pins: pinReach = 1, wires: wireReach = 1 }: Reach = {},
): Picked | null {
  const far = 1 / Math.min(1, Math.max(0.4, scale));
  let nearest: Picked | null = null;
  let least = PIN_REACH * far * pinReach;
  let body: Picked | null = null;
  for (const part of spatialIndexOf(sheet).partsIn(grown(spot(p), least))) {
    for (const pin of pinsOf(part)) {
      const distance = Math.hypot(pin.at.x - p.x, pin.at.y - p.y);
      if (distance <= least) {
        least = distance;
        nearest = { is: 'pin', end: { part: part.id, port: pin.port.name }, at: pin.at, part: part.id };
      }
    }
    if (contains(grown(bodyOf(part), 0.3), p)) body = { is: 'part', part: part.id };
  }
  if (body && least > PIN_REACH_ON_BODY * far * pinReach) return body;
  return nearest ?? body ?? pickWire(sheet, p, WIRE_REACH * far * wireReach) ?? pickLabel(sheet, p);
}

/** A label is never longer than this many grid steps. */
const LONGEST_LABEL = 26;

function pickLabel(sheet: Sheet, p: Point): Picked | null {
  for (const part of spatialIndexOf(sheet).partsIn(grown(spot(p), LONGEST_LABEL))) {
    const box = labelBox(part);
    if (box && contains(box, p)) return { is: 'part', part: part.id, onLabel: true };
  }
  return null;
}

function pickWire(sheet: Sheet, p: Point, reach: number): Picked | null {
  let best: Picked | null = null;
  let least = reach;
  for (const { wire } of spatialIndexOf(sheet).wiresIn(grown(spot(p), reach)))
    eachSegment(courseOf(sheet, sheet.wires.get(wire!)!), (a, b) => {
      const at = nearestOnSegment(a, b, p);
      const distance = Math.hypot(at.x - p.x, at.y - p.y);
      if (distance >= least) return;
      least = distance;
      best = { is: 'wire', wire: wire!, at: { x: Math.round(at.x), y: Math.round(at.y) } };
    });
  return best;
}

/** All wires connected to one. */
export function wiresOfNet(sheet: Sheet, wire: string): Set<string> {
  const nets = wireNets(sheet);
  const net = nets.ofWire(wire);
  return new Set([...sheet.wires.keys()].filter((id) => nets.ofWire(id) === net));
}

/** Parts whose bodies touch a box, and wires that lie wholly in it. */
export function pickBox(sheet: Sheet, box: Box): { parts: Set<string>; wires: Set<string> } {
  const index = spatialIndexOf(sheet);
  const parts = index.partsIn(box).filter((part) => overlap(bodyOf(part), box));
  const wires = index
    .wiresIn(box)
    .map(({ wire }) => wire!)
    .filter((id) => courseOf(sheet, sheet.wires.get(id)!).every((p) => contains(box, p)));
  return { parts: new Set(parts.map((part) => part.id)), wires: new Set(wires) };
}
