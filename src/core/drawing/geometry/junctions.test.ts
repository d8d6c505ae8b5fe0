import fc from 'fast-check';
import { nearestOnSegment, type Point, samePoint } from '../../circuit/geometry';
import type { Sheet, Wire } from '../../circuit/sheet';
import { partOf, sheetOfParts } from '../../testing/rig';
import { junctionsOfNet } from './junctions';
import { courseOf, pinOf } from './placement';

const PARTS = 4;

/** Wires from one gate to others, with corners at random on a few lines of the grid, so that many of them meet. */
const net = fc.array(
  fc.array(fc.record({ along: fc.boolean(), by: fc.integer({ min: -3, max: 3 }) }), { maxLength: 6 }),
  { minLength: 1, maxLength: 8 },
);

function sheetWith(courses: readonly (readonly { along: boolean; by: number }[])[]): Sheet {
  const parts = Array.from({ length: PARTS }, (_, i) => ({
    ...partOf('not', `n${i}`),
    at: { x: 6 * i, y: 2 * (i % 2) },
  }));
  const sheet = sheetOfParts(parts, []);
  const wires = courses.map((moves, i): Wire => {
    const from = { part: 'n0', port: 'Y' };
    const to = { part: `n${1 + (i % (PARTS - 1))}`, port: 'A' };
    let at = pinOf(sheet, from.part, from.port)!.at;
    const course: Point[] = moves.map(({ along, by }) => {
      at = along ? { x: at.x + by, y: at.y } : { x: at.x, y: at.y + by };
      return at;
    });
    const end = pinOf(sheet, to.part, to.port)!.at;
    return { id: `w${i}`, from, to, course: [...course, { x: at.x, y: end.y }] };
  });
  return { ...sheet, wires: new Map(wires.map((wire) => [wire.id, wire])) };
}

/** The ways that leave a point, each piece of each wire asked by itself. */
function waysAt(sheet: Sheet, at: Point): number {
  const ways = new Set<string>();
  const go = (to: Point) => {
    if (!samePoint(to, at))
      ways.add(`${Math.sign(to.x - at.x)},${to.x === at.x ? Math.sign(to.y - at.y) : 0}`);
  };
  for (const wire of sheet.wires.values()) {
    const points = courseOf(sheet, wire);
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      if (!samePoint(nearestOnSegment(a, b, at), at)) continue;
      go(a);
      go(b);
    }
    for (const end of [wire.from, wire.to])
      if ('part' in end) {
        const pin = pinOf(sheet, end.part, end.port)!;
        if (samePoint(pin.at, at)) go({ x: at.x - pin.out.x, y: at.y - pin.out.y });
      }
  }
  return ways.size;
}

test('a dot stands exactly where three ways or more of a net meet', () => {
  fc.assert(
    fc.property(net, (courses) => {
      const sheet = sheetWith(courses);
      const wires = [...sheet.wires.values()];
      const dots = new Set(junctionsOfNet(sheet, wires).map(({ at }) => `${at.x},${at.y}`));
      const corners = new Map(
        wires.flatMap((wire) => courseOf(sheet, wire)).map((at) => [`${at.x},${at.y}`, at]),
      );
      const expected = [...corners].filter(([, at]) => waysAt(sheet, at) > 2).map(([key]) => key);
      expect([...dots].sort()).toEqual(expected.sort());
    }),
    { numRuns: 300 },
  );
});
