import fc from 'fast-check';
import { contains, eachSegment, grown, type Point, samePoint } from '../../circuit/geometry';
import type { Sheet } from '../../circuit/sheet';
import { dice } from '../../testing/dice';
import { Sketch } from '../../testing/sketch';
import { bodyOf, courseOf, endPoint, pinsOf } from '../geometry/placement';
import { wireNets } from '../geometry/wire-nets';
import { ACROSS, ALONG, BLOCKED, Obstacles, OWN, type RouteEnd, route } from './route';

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

const WAYS = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** Whether there is any course at all between two ends: all points and directions that can be reached, one after the other. */
function isReached(obstacles: Obstacles, from: RouteEnd, to: RouteEnd, net: number): boolean {
  const { box } = obstacles;
  const at = (x: number, y: number) => {
    const isEnd = [from, to].some((end) => end.at.x === x && end.at.y === y);
    return obstacles.at(obstacles.index(x, y), net, isEnd);
  };
  const range = (a: number, b: number, least: number, most: number) =>
    [Math.max(least, Math.min(a, b) - 40), Math.min(most, Math.max(a, b) + 40)] as const;
  const [x0, x1] = range(from.at.x, to.at.x, box.x0, box.x1);
  const [y0, y1] = range(from.at.y, to.at.y, box.y0, box.y1);
  const isOwn = (x: number, y: number) => x >= x0 && x <= x1 && y >= y0 && y <= y1 && (at(x, y) & OWN) !== 0;
  const seen = new Set<string>();
  const open: [x: number, y: number, way: number][] = [];
  for (const [way, [dx, dy]] of WAYS.entries())
    if (from.out ? from.out.x === dx && from.out.y === dy : !isOwn(from.at.x + dx, from.at.y + dy))
      open.push([from.at.x, from.at.y, way]);
  for (const [x, y, way] of open) {
    const [cx, cy] = WAYS[way]!;
    if (x === to.at.x && y === to.at.y) {
      if (to.out ? to.out.x === -cx && to.out.y === -cy : !isOwn(x - cx, y - cy)) return true;
      continue;
    }
    for (const [next, [dx, dy]] of WAYS.entries()) {
      const turns = next !== way;
      const isStart = x === from.at.x && y === from.at.y;
      if (turns && (isStart || dx === -cx || dy === -cy || at(x, y) & (ACROSS | ALONG))) continue;
      const [nx, ny] = [x + dx, y + dy];
      if (nx < x0 || nx > x1 || ny < y0 || ny > y1) continue;
      if (at(nx, ny) & (BLOCKED | (dx !== 0 ? ACROSS : ALONG))) continue;
      const key = `${nx},${ny},${next}`;
      if (seen.has(key)) continue;
      seen.add(key);
      open.push([nx, ny, next]);
    }
  }
  return false;
}

test('a course is found wherever there is one, however narrow the place', () => {
  const count = { found: 0, none: 0 };
  for (let seed = 1; seed <= 40; seed++) {
    const roll = dice(seed);
    const one = <T>(of: readonly T[]): T => of[Math.floor(roll() * of.length)]!;
    const s = new Sketch();
    const kinds = ['and', 'not', 'dff', 'switch', 'lamp'];
    for (let i = 0; i < 8; i++) s.place(one(kinds), 5 * Math.floor(6 * roll()), 4 * Math.floor(6 * roll()));
    const pins = [...s.sheet.parts.values()].flatMap((p) => pinsOf(p));
    for (let i = 0; i < 5; i++) {
      const [a, b] = [one(pins), one(pins)];
      if (a !== b) s.wire(`${a.part}.${a.port.name}`, `${b.part}.${b.port.name}`);
    }
    const nets = wireNets(s.sheet);
    const obstacles = new Obstacles(s.sheet, nets, new Set());
    for (let i = 0; i < 6; i++) {
      const [from, to] = [one(pins), one(pins)].map(({ at, out }) =>
        roll() < 0.7 ? { at, out } : { at: { x: at.x + 2 * out.x, y: at.y + 2 * out.y } },
      ) as [RouteEnd, RouteEnd];
      if (samePoint(from.at, to.at)) continue;
      const found = route(obstacles, from, to, 3);
      expect([seed, i, found !== null]).toEqual([seed, i, isReached(obstacles, from, to, 3)]);
      count[found ? 'found' : 'none']++;
    }
  }
  expect(Math.min(count.found, count.none)).toBeGreaterThan(30);
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
