import fc from 'fast-check';
import { partOf } from '../testing/rig';
import { orderSlots } from './slot-order';
import { isOrdered, LEAVING, type Link, type Slot, type Slots } from './slots';

/** Columns of parts of a kind, with links between columns by places. */
function slotsOf(
  kinds: readonly (readonly string[])[],
  joins: readonly (readonly [column: number, from: number, to: number])[],
): Slots {
  const columns = kinds.map((column, c) =>
    column.map(
      (kind, at): Slot => ({ part: partOf(kind, `${kind}${c}${at}`, {}, at), above: 1, below: 1, at, y: 0 }),
    ),
  );
  const links: Link[][] = kinds.map(() => []);
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

/** Pairs of links of different slots that cross, those on the way to outputs counted as often as they matter. */
function crossed({ links }: Slots): number {
  let count = 0;
  for (const a of links.flat())
    for (const b of links.find((gap) => gap.includes(a))!)
      if (a.from.at < b.from.at && a.to.at > b.to.at) count += isOrdered(a.to) ? LEAVING ** 2 : 1;
  return count;
}

test('gates are ordered by the inputs that they read, so that nothing crosses that need not', () => {
  const slots = slotsOf(
    [['switch', 'switch', 'switch'], ['not', 'not', 'not'], ['or']],
    [
      [0, 0, 2],
      [0, 1, 0],
      [0, 2, 1],
      [1, 0, 0],
      [1, 1, 0],
      [1, 2, 0],
    ],
  );
  orderSlots(slots);
  expect(crossed(slots)).toBe(0);
  expect(slots.columns[1]!.map((s) => s.part!.id)).toEqual(['not12', 'not10', 'not11']);
});

test('inputs and outputs keep their declared order, whatever crosses; all stay where they belong', () => {
  const joins = fc.array(fc.tuple(fc.nat(1), fc.nat(3), fc.nat(3)), { maxLength: 16 });
  fc.assert(
    fc.property(joins, (given) => {
      const slots = slotsOf([Array(4).fill('switch'), Array(4).fill('not'), Array(4).fill('lamp')], given);
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
