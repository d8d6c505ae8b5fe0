import fc from 'fast-check';
import { partOf } from '../testing/rig';
import { slotsOf } from '../testing/slots';
import { orderSlots } from './slot-order';
import { isOrdered, LEAVING, type Slot, type Slots } from './slots';

/** Columns of parts of some kinds. */
const partsOf = (kinds: readonly (readonly string[])[]) =>
  kinds.map((column, c) =>
    column.map(
      (kind, at): Slot => ({ part: partOf(kind, `${kind}${c}${at}`, {}, at), above: 1, below: 1, at, y: 0 }),
    ),
  );

/** Pairs of links of different slots that cross, those on the way to outputs counted as often as they matter. */
function crossed({ links }: Slots): number {
  let count = 0;
  for (const a of links.flat())
    for (const b of links.find((gap) => gap.includes(a))!)
      if (a.from.at < b.from.at && a.to.at > b.to.at) count += isOrdered(a.to) ? LEAVING ** 2 : 1;
  return count;
}

test('gates are ordered by the inputs that they read, so that nothing crosses that need not', () => {
  const slots = slotsOf(partsOf([['switch', 'switch', 'switch'], ['not', 'not', 'not'], ['or']]), [
    [0, 0, 2],
    [0, 1, 0],
    [0, 2, 1],
    [1, 0, 0],
    [1, 1, 0],
    [1, 2, 0],
  ]);
  orderSlots(slots);
  expect(crossed(slots)).toBe(0);
  expect(slots.columns[1]!.map((s) => s.part!.id)).toEqual(['not12', 'not10', 'not11']);
});

test('inputs and outputs keep their declared order, whatever crosses; all stay where they belong', () => {
  const joins = fc.array(fc.tuple(fc.nat(1), fc.nat(3), fc.nat(3)), { maxLength: 16 });
  fc.assert(
    fc.property(joins, (given) => {
      const slots = slotsOf(partsOf(['switch', 'not', 'lamp'].map((kind) => Array(4).fill(kind))), given);
      const before = crossed(slots);
      orderSlots(slots);
      expect(slots.columns[0]!.map((s) => s.part!.rank)).toEqual([0, 1, 2, 3]);
      expect(slots.columns[2]!.map((s) => s.part!.rank)).toEqual([0, 1, 2, 3]);
      expect(slots.columns[1]!.map((s) => s.part!.rank).sort()).toEqual([0, 1, 2, 3]);
      for (const column of slots.columns) expect(column.map((s) => s.at)).toEqual([0, 1, 2, 3]);
      // Each link counts whole where no slot has two.
      const isSimple = new Set(given.map(([c, from]) => `${c} ${from}`)).size === given.length;
      if (isSimple) expect(crossed(slots)).toBeLessThanOrEqual(before);
    }),
    { numRuns: 300 },
  );
});
