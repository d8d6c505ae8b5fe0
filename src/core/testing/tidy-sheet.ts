import { contains, eachPiece, grown, type Point, samePoint } from '../circuit/geometry';
import type { Sheet } from '../circuit/lesson';
import { bodyOf, courseOf, endPoint, pinsOf } from '../drawing/placement';
import { wireNets } from '../drawing/wire-nets';

/** All grid points of a straight piece. */
export function along(a: Point, b: Point): Point[] {
  const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
  const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
  return Array.from({ length: steps + 1 }, (_, i) => ({ x: a.x + dx * i, y: a.y + dy * i }));
}

/** What must hold of every wire: it keeps its ends, is orthogonal, and crosses no body and no foreign pin. */
export function expectTidy(sheet: Sheet): void {
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
    eachPiece(points, (a, b) => {
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
  expect(wrong).toEqual([]);
}
