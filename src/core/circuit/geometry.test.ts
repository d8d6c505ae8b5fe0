import fc from 'fast-check';
import {
  type Box,
  boundingBox,
  boundingBoxOfPoints,
  contains,
  eachSegment,
  grown,
  nearestOnCourse,
  overlap,
  type Point,
  samePoint,
  simplified,
  type Turn,
  turned,
} from './geometry';

const whole = fc.integer({ min: -20, max: 20 });
const point = fc.record({ x: whole, y: whole });
const box = fc.tuple(point, point).map(([a, b]) => boundingBoxOfPoints([a, b])!);
/** Points each of which lies straight beside or above the one before. */
const course = fc
  .tuple(point, fc.array(fc.tuple(fc.boolean(), fc.integer({ min: -6, max: 6 })), { maxLength: 8 }))
  .map(([start, steps]) => {
    const points = [start];
    for (const [across, by] of steps) {
      const last = points.at(-1)!;
      points.push(across ? { x: last.x + by, y: last.y } : { x: last.x, y: last.y + by });
    }
    return points;
  });

/** Every point of the grid on a course. */
function pointsOn(points: readonly Point[]): Point[] {
  const found = points.length === 1 ? [points[0]!] : [];
  eachSegment(points, (a, b) => {
    const length = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
    for (let k = 0; k <= length; k++)
      found.push({ x: a.x + Math.sign(b.x - a.x) * k, y: a.y + Math.sign(b.y - a.y) * k });
  });
  return found;
}

test('four quarter turns are none, and each keeps the distance from the middle', () => {
  fc.assert(
    fc.property(point, fc.constantFrom<Turn>(0, 1, 2, 3), (p, turn) => {
      const there = turned(p, turn);
      const back = turned(there, ((4 - turn) % 4) as Turn);
      expect(back.x).toBeCloseTo(p.x);
      expect(back.y).toBeCloseTo(p.y);
      expect(Math.hypot(there.x, there.y)).toBeCloseTo(Math.hypot(p.x, p.y));
    }),
  );
});

test('the box around boxes holds all their points, and nothing is around nothing', () => {
  expect(boundingBox([])).toBeNull();
  expect(boundingBoxOfPoints([])).toBeNull();
  fc.assert(
    fc.property(fc.array(box, { minLength: 1, maxLength: 5 }), (boxes) => {
      const all = boundingBox(boxes)!;
      const corners = boxes.flatMap(({ x0, y0, x1, y1 }) => [
        { x: x0, y: y0 },
        { x: x1, y: y1 },
      ]);
      expect(all).toEqual(boundingBoxOfPoints(corners));
      expect(corners.every((p) => contains(all, p))).toBe(true);
    }),
  );
});

test('two boxes overlap where some point of the grid lies in both', () => {
  const points = (b: Box) =>
    Array.from({ length: b.x1 - b.x0 + 1 }, (_, i) =>
      Array.from({ length: b.y1 - b.y0 + 1 }, (_, j) => ({ x: b.x0 + i, y: b.y0 + j })),
    ).flat();
  fc.assert(
    fc.property(box, box, (a, b) => {
      expect(overlap(a, b)).toBe(points(a).some((p) => contains(b, p)));
      expect(overlap(a, b)).toBe(overlap(b, a));
      expect(overlap(grown(a, 1), b)).toBe(overlap(a, grown(b, 1)));
    }),
    { numRuns: 60 },
  );
});

test('a simplified course goes the same way with no point to spare', () => {
  fc.assert(
    fc.property(course, (points) => {
      const short = simplified(points);
      expect(short.length).toBeLessThanOrEqual(points.length);
      expect(samePoint(short[0]!, points[0]!)).toBe(true);
      expect(samePoint(short.at(-1)!, points.at(-1)!)).toBe(true);
      for (let i = 1; i < short.length; i++) expect(samePoint(short[i - 1]!, short[i]!)).toBe(false);
      for (let i = 2; i < short.length; i++) {
        const [a, b, c] = [short[i - 2]!, short[i - 1]!, short[i]!];
        expect((a.x === b.x && b.x === c.x) || (a.y === b.y && b.y === c.y)).toBe(false);
      }
      // Only a stretch that goes there and back along itself may be left out.
      const before = new Set(pointsOn(points).map((p) => `${p.x},${p.y}`));
      for (const p of pointsOn(short)) expect(before.has(`${p.x},${p.y}`)).toBe(true);
    }),
  );
});

test('the nearest point of a course is on it, and no other is nearer', () => {
  fc.assert(
    fc.property(course, point, (points, p) => {
      fc.pre(points.length > 1);
      const near = nearestOnCourse(points, p);
      const away = (q: Point) => Math.hypot(q.x - p.x, q.y - p.y);
      const all = pointsOn(points);
      expect(all.some((q) => samePoint(q, near))).toBe(true);
      expect(away(near)).toBeCloseTo(Math.min(...all.map(away)));
    }),
  );
});
