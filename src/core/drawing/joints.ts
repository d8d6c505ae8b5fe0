import { nearestOnPiece, type Point, samePoint } from '../circuit/geometry';
import { isPinEnd, type Sheet, type Wire } from '../circuit/lesson';
import { courseOf, pinOf } from './placement';
import { wireNets } from './wire-nets';

/** A dot: a point where three or more ways of one net meet. */
export interface Joint {
  readonly at: Point;
  /** A wire of the net, whose value the dot shows. */
  readonly wire: string;
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

/** Joints found before for the courses of one net: while all of them stay as they are, so do its joints. */
const byNet = new WeakMap<
  readonly Point[],
  { readonly courses: readonly (readonly Point[])[]; readonly joints: readonly Joint[] }
>();

function findJoints(sheet: Sheet): Joint[] {
  const nets = wireNets(sheet);
  const byNumber = new Map<number, Wire[]>();
  for (const wire of sheet.wires.values()) {
    const net = nets.ofWire(wire.id)!;
    const list = byNumber.get(net);
    if (list) list.push(wire);
    else byNumber.set(net, [wire]);
  }
  const joints: Joint[] = [];
  for (const wires of byNumber.values()) {
    if (wires.length < 2) continue;
    const courses = wires.map((w) => courseOf(sheet, w));
    const known = byNet.get(courses[0]!);
    const same = known?.courses.length === courses.length && known.courses.every((c, i) => c === courses[i]);
    const found = same ? known.joints : jointsOfNet(sheet, wires, courses);
    if (!same) byNet.set(courses[0]!, { courses, joints: found });
    joints.push(...found);
  }
  return joints;
}

function jointsOfNet(sheet: Sheet, wires: readonly Wire[], courses: readonly (readonly Point[])[]): Joint[] {
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
  const joints: Joint[] = [];
  const seen = new Set<string>();
  for (const [i, points] of courses.entries())
    for (const at of points) {
      const key = `${at.x},${at.y}`;
      if (seen.has(key)) continue;
      seen.add(key);
      let ways = leads.get(key) ?? 0;
      for (const other of courses) ways |= waysThrough(other, at);
      if (bits(ways) > 2) joints.push({ at, wire: wires[i]!.id });
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
