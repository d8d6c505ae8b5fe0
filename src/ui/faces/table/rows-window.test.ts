import fc from 'fast-check';
import { windowOf } from './rows-window';

const ROW = 31;
/** The heading stands above the rows and stays in sight. */
const HEADING = 45;

/** The rows that one sees wholly below the heading, scrolled to a place. */
function wholly(count: number, height: number, top: number): number[] {
  const { shown } = windowOf(count, ROW, { top, height, heading: HEADING });
  return shown.flatMap(({ row, top: at }) => {
    const y = HEADING + at - top;
    return y >= HEADING - 1e-6 && y + ROW <= height + 1e-6 ? [row] : [];
  });
}

const counts = fc.oneof(
  fc.integer({ min: 1, max: 200 }),
  fc.constantFrom(2 ** 12, 2 ** 20, 2 ** 24, 2 ** 26),
);
const heights = fc.integer({ min: 4 * ROW, max: 900 });

test('a row that is to be seen is, wherever the table was scrolled to before', () => {
  fc.assert(
    fc.property(
      counts,
      heights,
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.nat(),
      (count, height, share, n) => {
        const row = n % count;
        const all = windowOf(count, ROW, { top: 0, height, heading: HEADING }).height;
        const farthest = Math.max(0, all + HEADING - height);
        const before = share * farthest;
        const to = windowOf(count, ROW, { top: before, height, heading: HEADING }).scrolledTo(row);
        const top = to ?? before;
        expect(top).toBeGreaterThanOrEqual(0);
        expect(top).toBeLessThanOrEqual(farthest + 1);
        // Of millions of rows a pixel is several: then the row is there, be it cut by less than itself.
        const seen = wholly(count, height, top);
        const { shown } = windowOf(count, ROW, { top, height, heading: HEADING });
        if (count * ROW <= all) expect(seen).toContain(row);
        else expect(shown.map((s) => s.row)).toContain(row);
      },
    ),
    { numRuns: 500 },
  );
});

test('the first and the last row are wholly seen at both ends, however many there are', () => {
  for (const count of [1, 8, 300, 2 ** 16, 2 ** 24, 2 ** 26])
    for (const height of [200, 523, 800]) {
      expect(wholly(count, height, 0)).toContain(0);
      const all = windowOf(count, ROW, { top: 0, height, heading: HEADING }).height;
      expect(wholly(count, height, Math.max(0, all + HEADING - height))).toContain(count - 1);
      const to = windowOf(count, ROW, { top: 0, height, heading: HEADING }).scrolledTo(count - 1) ?? 0;
      expect(wholly(count, height, to)).toContain(count - 1);
    }
});

test('no more rows are there than are in sight, and a few beside them', () => {
  fc.assert(
    fc.property(counts, heights, fc.double({ min: 0, max: 1, noNaN: true }), (count, height, share) => {
      const all = windowOf(count, ROW, { top: 0, height, heading: HEADING }).height;
      const { shown } = windowOf(count, ROW, {
        top: share * Math.max(0, all - height),
        height,
        heading: HEADING,
      });
      expect(shown.length).toBeLessThanOrEqual(height / ROW + 15);
      expect(shown.length).toBeGreaterThanOrEqual(Math.min(count, Math.floor(height / ROW)));
      for (const [i, { row, top }] of shown.entries())
        if (i > 0) expect([row - shown[i - 1]!.row, Math.round(top - shown[i - 1]!.top)]).toEqual([1, ROW]);
    }),
  );
});
