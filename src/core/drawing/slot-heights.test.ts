import fc from 'fast-check';
import { setHeights } from './slot-heights';
import type { Link, Slot, Slots } from './slots';

const pass = (at: number): Slot => ({ part: null, above: 1, below: 1, at, y: 0 });

/** Columns of some slots each, with links between them by their places. */
function slotsOf(
  counts: readonly number[],
  joins: readonly (readonly [column: number, from: number, to: number])[],
): Slots {
  const columns = counts.map((count) => Array.from({ length: count }, (_, at) => pass(at)));
  const links: Link[][] = counts.map(() => []);
  for (const [column, from, to] of joins)
    links[column]!.push({
      from: columns[column]![from]!,
      fromAt: 0,
      to: columns[column + 1]![to]!,
      toAt: 0,
      weight: 1,
    });
  return { columns, links, ways: new Map(), isCoarse: false };
}

test('a signal runs straight where nothing is in its way', () => {
  const slots = slotsOf(
    [3, 2, 3],
    [
      [0, 0, 0],
      [1, 0, 0],
      [0, 2, 1],
      [1, 1, 2],
    ],
  );
  setHeights(slots, 0);
  const [first, middle, last] = slots.columns;
  expect(first![0]!.y).toBe(middle![0]!.y);
  expect(middle![0]!.y).toBe(last![0]!.y);
  expect(first![2]!.y).toBe(middle![1]!.y);
  expect(middle![1]!.y).toBe(last![2]!.y);
});

test('the order of each column is kept, and so is the room between its slots', () => {
  const joins = fc.array(fc.tuple(fc.nat(1), fc.nat(3), fc.nat(3)), { maxLength: 12 });
  fc.assert(
    fc.property(joins, fc.nat(3), (given, wider) => {
      const slots = slotsOf([4, 4, 4], given);
      setHeights(slots, wider);
      for (const column of slots.columns)
        for (const [i, slot] of column.entries()) {
          expect(Number.isInteger(slot.y)).toBe(true);
          if (i > 0) expect(slot.y - column[i - 1]!.y).toBeGreaterThan(slot.above + column[i - 1]!.below);
        }
    }),
  );
});
