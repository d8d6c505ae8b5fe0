import fc from 'fast-check';
import type { Covering } from '../logic/minimise/covering-matrix';

const COLUMNS = 9;

/** Small covering problems, each row with a column at least. */
export const coverings: fc.Arbitrary<Covering> = fc.record({
  rows: fc.array(fc.uniqueArray(fc.nat(COLUMNS - 1), { minLength: 1, maxLength: 4 }), {
    minLength: 1,
    maxLength: 12,
  }),
  cost: fc.array(fc.integer({ min: 1, max: 9 }), { minLength: COLUMNS, maxLength: COLUMNS }),
});

/** All covers of a small problem with their costs, found by trying each set of columns. */
export function allCovers({ rows, cost }: Covering): { columns: number[]; cost: number }[] {
  const found: { columns: number[]; cost: number }[] = [];
  for (let set = 0; set < 2 ** cost.length; set++) {
    const columns = [...cost.keys()].filter((c) => set & (1 << c));
    if (rows.every((row) => row.some((c) => set & (1 << c))))
      found.push({ columns, cost: columns.reduce((sum, c) => sum + cost[c]!, 0) });
  }
  return found;
}
