import fc from 'fast-check';
import { contains, eachSegment, grown, type Point, samePoint } from '../../circuit/geometry';
import type { Sheet } from '../../circuit/sheet';
import { Sketch } from '../../testing/sketch';
import { bodyOf, courseOf, endPoint, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';

/** Gates in a grid with room between them, in random kinds and turns, with random wires from outputs to inputs. */
const sheets = fc
  .record({
    kinds: fc.array(fc.constantFrom('and', 'or', 'not', 'xor', 'dff', 'nand'), {
      minLength: 3,
      maxLength: 9,
    }),
    joins: fc.array(fc.record({ from: fc.nat(), to: fc.nat() }), { minLength: 1, maxLength: 8 }),
  })
  .map(({ kinds, joins }) => {
    const s = new Sketch();
    for (const [i, kind] of kinds.entries()) s.place(kind, 18 * (i % 3), 14 * Math.floor(i / 3));
    const pins = [...s.sheet.parts.values()].flatMap((p) => pinsOf(p));
    const outs = pins.filter((p) => p.port.direction === 'out');
    const free = pins.filter((p) => p.port.direction === 'in');
    for (const { from, to } of joins) {
      const [target] = free.splice(to % Math.max(1, free.length), 1);
      const source = outs[from % outs.length]!;
      if (target) s.wire(`${source.part}.${source.port.name}`, `${target.part}.${target.port.name}`);
    }
    return s.sheet;
  });

function pointsOf(sheet: Sheet, id: string): Point[] {
  const all: Point[] = [];
  eachSegment(courseOf(sheet, sheet.wires.get(id)!), (a, b) => {
    const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
    for (let i = 0; i <= steps; i++)
      all.push({
        x: a.x + Math.sign(b.x - a.x) * Math.min(i, Math.abs(b.x - a.x)),
        y: a.y + Math.sign(b.y - a.y) * Math.min(i, Math.abs(b.y - a.y)),
      });
  });
  return all;
}

test('every wire keeps its ends, is orthogonal, and crosses no body and no foreign pin', () => {
  fc.assert(
    fc.property(sheets, (sheet) => {
      const nets = wireNets(sheet);
      for (const wire of sheet.wires.values()) {
        const course = courseOf(sheet, wire);
        expect([course[0], course.at(-1)]).toEqual([endPoint(sheet, wire.from), endPoint(sheet, wire.to)]);
        const points = pointsOf(sheet, wire.id);
        for (const part of sheet.parts.values()) {
          const body = grown(bodyOf(part), -0.2);
          expect(points.some((p) => contains(body, p))).toBe(false);
          for (const pin of pinsOf(part)) {
            const own = nets.ofEnd({ part: part.id, port: pin.port.name }) === nets.ofWire(wire.id);
            if (!own) expect(points.some((p) => samePoint(p, pin.at))).toBe(false);
          }
        }
      }
    }),
    { numRuns: 60 },
  );
});

test('no two nets share a stretch, and none turns on the other', () => {
  fc.assert(
    fc.property(sheets, (sheet) => {
      const nets = wireNets(sheet);
      const seen = new Map<string, number>();
      const corners = new Map<string, number>();
      const key = (p: Point, way: string) => `${p.x},${p.y}${way}`;
      for (const wire of sheet.wires.values()) {
        const net = nets.ofWire(wire.id)!;
        const course = courseOf(sheet, wire);
        for (const p of course) corners.set(key(p, ''), net);
        eachSegment(course, (a, b) => {
          const way = a.y === b.y ? '-' : '|';
          const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
          for (let i = 0; i < steps; i++) {
            const p = {
              x: Math.min(a.x, b.x) + (way === '-' ? i : 0),
              y: Math.min(a.y, b.y) + (way === '|' ? i : 0),
            };
            const other = seen.get(key(p, way));
            expect(other === undefined || other === net).toBe(true);
            seen.set(key(p, way), net);
          }
        });
      }
      for (const wire of sheet.wires.values())
        for (const p of pointsOf(sheet, wire.id)) {
          const other = corners.get(key(p, ''));
          expect(other === undefined || other === nets.ofWire(wire.id)).toBe(true);
        }
    }),
    { numRuns: 60 },
  );
});

test('a straight way is taken where there is one', () => {
  const s = new Sketch();
  s.place('switch', 0, 0);
  s.place('lamp', 30, 0);
  const w = s.wire('switch1.Y', 'lamp1.A');
  expect(s.sheet.wires.get(w)!.course).toEqual([]);
});

test('a wire whose pin is shut in by another makes that one give way', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 10, 'B');
  s.place('lamp', 30, 0);
  s.place('lamp', 30, 20);
  // A wire that turns right before the first lamp's pin.
  s.make({
    type: 'addWire',
    sheet: 'sheet1',
    wire: {
      id: 'w1',
      from: { part: 'switch2', port: 'Y' },
      to: { part: 'lamp2', port: 'A' },
      course: [
        { x: 27, y: 10 },
        { x: 27, y: 0 },
        { x: 25, y: 0 },
        { x: 25, y: 20 },
      ],
    },
  });
  const w = s.wire('switch1.Y', 'lamp1.A');
  const mine = new Set(pointsOf(s.sheet, w).map((p) => `${p.x},${p.y}`));
  expect(s.sheet.wires.get(w)!.course.length).toBeLessThanOrEqual(2);
  expect(courseOf(s.sheet, s.sheet.wires.get('w1')!).some((p) => mine.has(`${p.x},${p.y}`))).toBe(false);
});
