import fc from 'fast-check';
import { allCovers, coverings } from '../../testing/random-covering';
import { cover } from './covering';

const leastOf = (covers: readonly { cost: number }[]) => Math.min(...covers.map((c) => c.cost));

test('a cover costs no more than any other that is tried out', () => {
  fc.assert(
    fc.property(coverings, (problem) => {
      const found = cover(problem);
      expect([found.cost, found.exact]).toEqual([leastOf(allCovers(problem)), true]);
      expect(problem.rows.every((row) => row.some((c) => found.columns.includes(c)))).toBe(true);
    }),
    { numRuns: 500 },
  );
  expect(() => cover({ rows: [[]], cost: [] })).toThrow('a row has no column');
});

test('a cover that is known gives way to a cheaper one only', () => {
  fc.assert(
    fc.property(coverings, fc.nat(), (problem, some) => {
      const covers = allCovers(problem);
      const known = covers[some % covers.length]!;
      const found = cover(problem, undefined, known.columns);
      expect([found.cost, found.exact]).toEqual([leastOf(covers), true]);
      if (known.cost === found.cost) expect(found.columns).toEqual(known.columns);
    }),
  );
});

test('what every cover is said to cost at least, it does, however little work there is for a proof', () => {
  fc.assert(
    fc.property(coverings, fc.nat({ max: 400 }), (problem, steps) => {
      const found = cover(problem, steps);
      const cheapest = leastOf(allCovers(problem));
      expect(found.least).toBeLessThanOrEqual(cheapest);
      expect(found.cost).toBeGreaterThanOrEqual(cheapest);
      if (found.exact) expect(found.least).toBe(found.cost);
    }),
    { numRuns: 300 },
  );
});

test('without the work for a proof it is still a cover, and is not said to be the cheapest', () => {
  // Each row has three of eleven columns in a ring: the relaxation is far from any cover.
  const rows = Array.from({ length: 11 }, (_, r) => [r, (r + 1) % 11, (r + 3) % 11]);
  const problem = { rows, cost: rows.map(() => 1) };
  const hasty = cover(problem, 0);
  expect(hasty.exact).toBe(false);
  expect(rows.every((row) => row.some((c) => hasty.columns.includes(c)))).toBe(true);
  const patient = cover(problem);
  expect(patient).toMatchObject({ exact: true, cost: leastOf(allCovers(problem)) });
  expect(patient.steps).toBeGreaterThan(0);
});
