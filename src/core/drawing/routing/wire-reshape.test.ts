import { Sketch } from '../../testing/sketch';
import { expectTidy } from '../../testing/tidy-sheet';
import { move } from '../editing/gestures';
import { courseOf } from '../geometry/placement';
import { isFlat, reconnect, reshapedCourse, routeAfresh, segmentAt, setCourse } from './wire-reshape';

/** A switch left of two lamps, one above the other, the wire to the lower one with an upright piece. */
function two(): { s: Sketch; wire: string } {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('lamp', 30, 10, 'Drive');
  s.place('lamp', 30, -10, 'Warn');
  return { s, wire: s.wire('switch1.Y', 'lamp1.A') };
}

const points = (s: Sketch, wire: string) => courseOf(s.sheet, s.sheet.wires.get(wire)!);

function upright(s: Sketch, wire: string): number {
  const all = points(s, wire);
  const piece = all.findIndex((_, i) => i + 1 < all.length && !isFlat(all, i));
  expect(piece).toBeGreaterThan(0);
  return piece;
}

test('a piece is pulled aside and stays there when an end moves', () => {
  const { s, wire } = two();
  const piece = upright(s, wire);
  const was = points(s, wire)[piece]!.x;
  const pulled = reshapedCourse(s.sheet, wire, piece, -5)!;
  s.make(setCourse(s.lesson, 'sheet1', wire, pulled));
  expect(points(s, wire)[piece]!.x).toBe(was - 5);
  s.make(move(s.lesson, 'sheet1', new Set(['lamp1']), { x: 3, y: 5 }));
  expect(points(s, wire)[piece]!.x).toBe(was - 5);
  expect(s.sheet.wires.get(wire)!.drawn).toBe(true);
  expectTidy(s.sheet);
});

test('what was drawn by hand is laid anew where it would run over a part', () => {
  const { s, wire } = two();
  const piece = upright(s, wire);
  const x = points(s, wire)[piece]!.x;
  s.make(setCourse(s.lesson, 'sheet1', wire, reshapedCourse(s.sheet, wire, piece, 4)!));
  // The switch goes where its first stretch would have to run back through it.
  s.make(move(s.lesson, 'sheet1', new Set(['switch1']), { x: x + 10, y: 0 }));
  expect(s.sheet.wires.get(wire)!.drawn).toBeUndefined();
  expectTidy(s.sheet);
});

test('it is pulled no further than to what stands in the way', () => {
  const { s, wire } = two();
  const piece = upright(s, wire);
  const x = points(s, wire)[piece]!.x;
  s.place('not', x + 6, 5);
  const body = x + 4;
  const pulled = reshapedCourse(s.sheet, wire, piece, 6)!;
  expect(pulled[piece]!.x).toBeLessThanOrEqual(body);
  s.make(setCourse(s.lesson, 'sheet1', wire, pulled));
  expectTidy(s.sheet);
});

test('a straight wire gets a stub at either end when it is pulled', () => {
  const s = new Sketch();
  s.place('switch', 0, 0);
  s.place('lamp', 20, 0);
  const wire = s.wire('switch1.Y', 'lamp1.A');
  const pulled = reshapedCourse(s.sheet, wire, 0, -5)!;
  expect(pulled).toHaveLength(6);
  expect(pulled[2]!.y).toBe(-5);
  s.make(setCourse(s.lesson, 'sheet1', wire, pulled));
  expectTidy(s.sheet);
  s.make(routeAfresh(s.lesson, 'sheet1', new Set([wire])));
  expect(s.sheet.wires.get(wire)).toMatchObject({ course: [] });
  expect(s.sheet.wires.get(wire)!.drawn).toBeUndefined();
});

test('branches follow the piece on which they hang', () => {
  const { s, wire } = two();
  const piece = upright(s, wire);
  const corner = points(s, wire)[piece]!;
  const branch = s.branch(wire, corner.x, 4, 'lamp2.A');
  s.make(setCourse(s.lesson, 'sheet1', wire, reshapedCourse(s.sheet, wire, piece, 5)!));
  const from = s.sheet.wires.get(branch)!.from;
  expect(from).toMatchObject({ wire });
  expect(segmentAt(points(s, wire), points(s, branch)[0]!)).not.toBeNull();
  expectTidy(s.sheet);
});

test('an end is put elsewhere, but never onto its own branch', () => {
  const { s, wire } = two();
  s.make(reconnect(s.lesson, 'sheet1', wire, 'to', { part: 'lamp2', port: 'A' }));
  expect(s.sheet.wires.get(wire)!.to).toEqual({ part: 'lamp2', port: 'A' });
  expectTidy(s.sheet);
  const [, corner] = points(s, wire);
  const branch = s.branch(wire, corner!.x, corner!.y, 'lamp1.A');
  const at = points(s, branch)[1]!;
  expect(reconnect(s.lesson, 'sheet1', wire, 'from', { wire: branch, at })).toBeNull();
  expect(reconnect(s.lesson, 'sheet1', wire, 'from', { part: 'lamp2', port: 'A' })).toBeNull();
});
