import fc from 'fast-check';
import { slotsOf } from '../testing/slots';
import { setHeights } from './slot-heights';
import type { Slot } from './slots';

const passes = (count: number) =>
  Array.from({ length: count }, (_, at): Slot => ({ part: null, above: 1, below: 1, at, y: 0 }));

test('a signal runs straight where nothing is in its way', () => {
  const slots = slotsOf([3, 2, 3].map(passes), [
    [0, 0, 0],
    [1, 0, 0],
    [0, 2, 1],
    [1, 1, 2],
  ]);
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
      const slots = slotsOf([4, 4, 4].map(passes), given);
      setHeights(slots, wider);
      for (const column of slots.columns)
        for (const [i, slot] of column.entries()) {
          expect(Number.isInteger(slot.y)).toBe(true);
          if (i > 0) expect(slot.y - column[i - 1]!.y).toBeGreaterThan(slot.above + column[i - 1]!.below);
        }
    }),
  );
});
