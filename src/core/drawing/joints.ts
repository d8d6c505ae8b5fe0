import { nearestOnPiece, type Point, samePoint } from '../circuit/geometry';
import type { Sheet } from '../circuit/lesson';
import { courseOf, pinsOf } from './placement';
import { wireNets } from './wire-nets';

/** A dot: a point where three or more ways of one net meet. */
export interface Joint {
  readonly at: Point;
  /** A wire of the net, whose value the dot shows. */
  readonly wire: string;
}

interface NetCourse {
  readonly wire: string;
  readonly points: readonly Point[];
}

const WAYS = { right: 1, down: 2, left: 4, up: 8 };

function way(from: Point, to: Point): number {
  if (to.x !== from.x) return to.x > from.x ? WAYS.right : WAYS.left;
  return to.y > from.y ? WAYS.down : WAYS.up;
}

const cached = new WeakMap<Sheet, readonly Joint[]>();

/** The dots of a sheet: exactly where wires of one net meet, and nowhere else. */
export function jointsOf(sheet: Sheet): readonly Joint[] {
  let joints = cached.get(sheet);
  if (!joints) {
    joints = findJoints(sheet);
    cached.set(sheet, joints);
  }
  return joints;
}

function findJoints(sheet: Sheet): Joint[] {
  const nets = wireNets(sheet);
  const courses = new Map<number, NetCourse[]>();
  for (const wire of sheet.wires.values()) {
    const net = nets.ofWire(wire.id)!;
    const list = courses.get(net) ?? [];
    list.push({ wire: wire.id, points: courseOf(sheet, wire) });
    courses.set(net, list);
  }
  const leads = new Map<string, number>();
  for (const part of sheet.parts.values())
    for (const pin of pinsOf(part))
      leads.set(`${pin.at.x},${pin.at.y}`, way(pin.at, { x: pin.at.x - pin.out.x, y: pin.at.y - pin.out.y }));

  const joints: Joint[] = [];
  for (const net of courses.values()) {
    const seen = new Set<string>();
    for (const { wire, points } of net)
      for (const at of points) {
        const key = `${at.x},${at.y}`;
        if (seen.has(key)) continue;
        seen.add(key);
        let ways = leads.get(key) ?? 0;
        for (const other of net) ways |= waysThrough(other.points, at);
        if (bits(ways) > 2) joints.push({ at, wire });
      }
  }
  return joints;
}

function waysThrough(points: readonly Point[], at: Point): number {
  let ways = 0;
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1]!;
    const b = points[i]!;
    if (!samePoint(nearestOnPiece(a, b, at), at)) continue;
    if (!samePoint(a, at)) ways |= way(at, a);
    if (!samePoint(b, at)) ways |= way(at, b);
  }
  return ways;
}

function bits(mask: number): number {
  return (mask & 1) + ((mask >> 1) & 1) + ((mask >> 2) & 1) + ((mask >> 3) & 1);
}
