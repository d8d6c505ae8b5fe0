import { keepsFamily, ringPlace, wayBetween } from './ring-places';

const COUNTS = { recent: 4, families: 8, parts: 6 };
const at = (r: number, turns: number) => ({
  x: r * Math.sin(2 * Math.PI * turns),
  y: -r * Math.cos(2 * Math.PI * turns),
});

test('each circle is told apart, and each slice of it, the first at the top', () => {
  expect(ringPlace(at(5, 0), COUNTS)).toEqual({ on: 'hub' });
  expect(ringPlace(at(40, 0.25), COUNTS)).toEqual({ on: 'recent', index: 1 });
  expect(ringPlace(at(40, 0.25), { ...COUNTS, recent: 0 })).toEqual({ on: 'hub' });
  expect(ringPlace(at(80, 0.99), COUNTS)).toEqual({ on: 'family', index: 0 });
  expect(ringPlace(at(80, 0.5), COUNTS)).toEqual({ on: 'family', index: 4 });
  expect(ringPlace(at(150, 5 / 6), COUNTS)).toEqual({ on: 'part', index: 5 });
  expect(ringPlace(at(400, 0), COUNTS)).toEqual({ on: 'outside' });
});

test('a flick that jumps from the hub to the rim passes through its family', () => {
  const way = wayBetween({ x: 0, y: 0 }, at(150, 0.25)).map((p) => ringPlace(p, COUNTS));
  expect(way).toContainEqual({ on: 'family', index: 2 });
  expect(way.at(-1)!.on).toBe('part');
});

test('from a family outwards it is kept, sideways another is taken', () => {
  expect(keepsFamily({ x: 0, y: 0 }, at(150, 0.1))).toBe(false);
  expect(keepsFamily(at(80, 0.125), at(150, 0))).toBe(true);
  expect(keepsFamily(at(80, 0.125), at(82, 0.2))).toBe(false);
});
