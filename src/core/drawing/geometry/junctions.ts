import { nearestOnSegment, type Point, samePoint } from '../../circuit/geometry';
import { isPinEnd, type Sheet, type Wire } from '../../circuit/lesson';
import { courseOf, pinOf } from './placement';

/** A dot: a point where three or more ways of one net meet. */
export interface Junction {
  readonly at: Point;
  /** A wire of the net, whose value the dot shows. */
  readonly wire: string;
}

const WAYS = { right: 1, down: 2, left: 4, up: 8 };

function way(from: Point, to: Point): number {
  if (to.x !== from.x) return to.x > from.x ? WAYS.right : WAYS.left;
  return to.y > from.y ? WAYS.down : WAYS.up;
}

/** The dots of one net's wires: exactly where three or more ways meet, and nowhere else. */
export function junctionsOfNet(sheet: Pick<Sheet, 'parts' | 'wires'>, wires: readonly Wire[]): Junction[] {
  const courses = wires.map((wire) => courseOf(sheet, wire));
  const leads = new Map<string, number>();
  for (const wire of wires)
    for (const end of [wire.from, wire.to]) {
      const pin = isPinEnd(end) ? pinOf(sheet, end.part, end.port) : null;
      if (pin)
        leads.set(
          `${pin.at.x},${pin.at.y}`,
          way(pin.at, { x: pin.at.x - pin.out.x, y: pin.at.y - pin.out.y }),
        );
    }
  const junctions: Junction[] = [];
  const seen = new Set<string>();
  for (const [i, points] of courses.entries())
    for (const at of points) {
      const key = `${at.x},${at.y}`;
      if (seen.has(key)) continue;
      seen.add(key);
      let ways = leads.get(key) ?? 0;
      for (const other of courses) ways |= waysThrough(other, at);
      if (bits(ways) > 2) junctions.push({ at, wire: wires[i]!.id });
    }
  return junctions;
}

function waysThrough(points: readonly Point[], at: Point): number {
  let ways = 0;
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!;
    const b = points[i]!;
    if (!samePoint(nearestOnSegment(a, b, at), at)) continue;
    if (!samePoint(a, at)) ways |= way(at, a);
    if (!samePoint(b, at)) ways |= way(at, b);
  }
  return ways;
}

function bits(mask: number): number {
  return (mask & 1) + ((mask >> 1) & 1) + ((mask >> 2) & 1) + ((mask >> 3) & 1);
}
