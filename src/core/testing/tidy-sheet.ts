import {
  boxOfPiece,
  contains,
  eachSegment,
  grown,
  overlap,
  type Point,
  samePoint,
} from '../circuit/geometry';
import type { Sheet } from '../circuit/sheet';
import { bodyOf, courseOf, endPoint, labelBox, pinsOf } from '../drawing/geometry/placement';
import { wireNets } from '../drawing/geometry/wire-nets';

/** All grid points of a straight piece. */
export function along(a: Point, b: Point): Point[] {
  const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
  const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
  return Array.from({ length: steps + 1 }, (_, i) => ({ x: a.x + dx * i, y: a.y + dy * i }));
}

/**
 * The conditions for every wire: it keeps its ends, is orthogonal, and crosses no body and no foreign pin.
 */
export function expectTidy(sheet: Sheet): void {
  expect(runsOverThings(sheet)).toEqual([]);
}

/** Where wires break those conditions, in words. */
export function runsOverThings(sheet: Sheet): string[] {
  const nets = wireNets(sheet);
  const wrong: string[] = [];
  const parts = [...sheet.parts.values()].map((part) => ({ part, body: grown(bodyOf(part), -0.3) }));
  for (const wire of sheet.wires.values()) {
    const points = courseOf(sheet, wire);
    const ends = [endPoint(sheet, wire.from), endPoint(sheet, wire.to)];
    if (![points[0], points.at(-1)].every((p, i) => p && ends[i] && samePoint(p, ends[i])))
      wrong.push(`${wire.id} has lost an end`);
    const corners = wire.course.length + 2;
    if (points.length !== corners) wrong.push(`${wire.id} is not orthogonal`);
    eachSegment(points, (a, b) => {
      const steps = along(a, b);
      for (const { part, body } of parts) {
        if (steps.some((p) => contains(body, p))) wrong.push(`${wire.id} runs through ${part.id}`);
        for (const pin of pinsOf(part)) {
          const own = nets.ofEnd({ part: part.id, port: pin.port.name }) === nets.ofWire(wire.id);
          if (!own && steps.some((p) => samePoint(p, pin.at)))
            wrong.push(`${wire.id} runs over ${part.id}.${pin.port.name}`);
        }
      }
    });
  }
  return wrong;
}

/** Places at which wires of different nets look joined: they run along each other, or one turns or ends on the other. */
export function looksJoined(sheet: Sheet): string[] {
  const nets = wireNets(sheet);
  const across = new Map<string, number>();
  const down = new Map<string, number>();
  const nodes = new Map<string, number>();
  const found: string[] = [];
  const take = (taken: Map<string, number>, { x, y }: Point, net: number, wire: string) => {
    const key = `${x} ${y}`;
    const other = taken.get(key);
    if (other !== undefined && other !== net) found.push(`${wire} at ${key}`);
    taken.set(key, net);
  };
  const courses = [...sheet.wires.values()].map((wire) => ({
    id: wire.id,
    net: nets.ofWire(wire.id) ?? -1,
    points: courseOf(sheet, wire),
  }));
  for (const { id, net, points } of courses) {
    eachSegment(points, (a, b) => {
      for (const p of along(a, b)) take(a.x === b.x ? down : across, p, net, id);
    });
    for (const p of points) take(nodes, p, net, id);
  }
  for (const { id, net, points } of courses)
    eachSegment(points, (a, b) => {
      for (const p of along(a, b)) {
        const there = nodes.get(`${p.x} ${p.y}`);
        if (there !== undefined && there !== net) found.push(`${id} over a corner at ${p.x} ${p.y}`);
      }
    });
  return found;
}

/** Wires that cross the label of a part. */
export function crossesLabels(sheet: Sheet): string[] {
  const found: string[] = [];
  for (const part of sheet.parts.values()) {
    const label = labelBox(part);
    if (!label) continue;
    const letters = grown(label, -0.3);
    for (const wire of sheet.wires.values()) {
      let isOver = false;
      eachSegment(courseOf(sheet, wire), (a, b) => {
        isOver ||= overlap(boxOfPiece(a, b), letters);
      });
      if (isOver) found.push(`${wire.id} over the label of ${part.id}`);
    }
  }
  return found;
}
