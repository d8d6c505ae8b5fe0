import fc from 'fast-check';
import { contains, samePoint, type Turn } from '../../circuit/geometry';
import type { Part } from '../../circuit/sheet';
import { partOf, sheetOfParts } from '../../testing/rig';
import {
  bodyOf,
  courseOf,
  endPoint,
  extentOf,
  footprintOf,
  inPart,
  labelBox,
  labelPlace,
  labelSide,
  oriented,
  pinsOf,
} from './placement';

const kinds = ['and', 'not', 'xor', 'switch', 'lamp', 'dff', 'mux'];
const placed: fc.Arbitrary<Part> = fc
  .record({
    kind: fc.constantFrom(...kinds),
    x: fc.integer({ min: -50, max: 50 }),
    y: fc.integer({ min: -50, max: 50 }),
    turn: fc.constantFrom<Turn>(0, 1, 2, 3),
    mirrored: fc.boolean(),
  })
  .map(({ kind, x, y, turn, mirrored }) => ({
    ...partOf(kind, 'p', {}, 0, 'Label'),
    at: { x, y },
    turn,
    mirrored: mirrored || undefined,
  }));

test('pins lie on grid points, at or outside the body, and lead out of it', () => {
  fc.assert(
    fc.property(placed, (part) => {
      const body = bodyOf(part);
      for (const { at, out } of pinsOf(part)) {
        expect([Number.isInteger(at.x), Number.isInteger(at.y)]).toEqual([true, true]);
        expect(Math.abs(out.x) + Math.abs(out.y)).toBe(1);
        expect(contains(body, { x: at.x + out.x, y: at.y + out.y })).toBe(false);
      }
    }),
  );
});

test('body, pins and label lie inside each other’s boxes, whatever way the part stands', () => {
  fc.assert(
    fc.property(placed, (part) => {
      const [body, extent, footprint] = [bodyOf(part), extentOf(part), footprintOf(part)];
      for (const [inner, outer] of [
        [body, extent],
        [extent, footprint],
      ] as const) {
        expect(contains(outer, { x: inner.x0, y: inner.y0 })).toBe(true);
        expect(contains(outer, { x: inner.x1, y: inner.y1 })).toBe(true);
      }
      expect(['left', 'right', 'top', 'none']).toContain(labelSide(part));
      // What keeps clear of a label keeps clear of its letters.
      const [place, box] = [labelPlace(part), labelBox(part)];
      expect(place === null).toBe(box === null);
      if (!place || !box) return;
      const wide = part.label.length * 0.62;
      const x0 = place.at.x - { left: 0, right: wide, center: wide / 2 }[place.align];
      expect([x0 - box.x0, box.x1 - x0 - wide].every((room) => room > -1e-9)).toBe(true);
    }),
  );
});

test('a point brought into a part and back is where it was', () => {
  fc.assert(
    fc.property(placed, fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), (part, x, y) => {
      const own = inPart({ x, y }, { ...part, mirrored: undefined });
      const back = oriented(own, { turn: part.turn });
      expect(samePoint({ x: back.x + part.at.x, y: back.y + part.at.y }, { x, y })).toBe(true);
    }),
  );
});

test('a course goes orthogonally from pin to pin; corners are put in where the file has none', () => {
  const sheet = sheetOfParts([partOf('not', 'a'), partOf('not', 'b')], ['a.Y-b.A']);
  const [wire] = sheet.wires.values();
  const moved = new Map(sheet.parts);
  moved.set('b', { ...sheet.parts.get('b')!, at: { x: 20, y: 7 } });
  const points = courseOf({ ...sheet, parts: moved }, { ...wire!, course: [] });
  expect(points[0]).toEqual(endPoint({ ...sheet, parts: moved }, wire!.from));
  expect(points.at(-1)).toEqual(endPoint({ ...sheet, parts: moved }, wire!.to));
  for (let i = 1; i < points.length; i++)
    expect(points[i]!.x === points[i - 1]!.x || points[i]!.y === points[i - 1]!.y).toBe(true);
  moved.delete('b');
  expect(courseOf({ ...sheet, parts: moved }, { ...wire!, course: [] })).toEqual([]);
});
