import fc from 'fast-check';
import { allCovers, coverings } from '../../testing/random-covering';
import { type Covering, matrixOf } from './covering-matrix';
import { greedy, IN, OUT, relax } from './lp-bound';

const standing = ({ rows, cost }: Covering) => ({
  prices: new Float64Array(rows.length),
  shares: new Float64Array(cost.length),
});

test('no cover costs less than the bound, and what is fixed holds for all that are cheap enough', () => {
  fc.assert(
    fc.property(
      coverings,
      fc.integer({ min: 1, max: 40 }),
      fc.constantFrom(0, 10, 300),
      (problem, below, rounds) => {
        const { least, fixed } = relax(matrixOf(problem), standing(problem), below, rounds);
        for (const { columns, cost } of allCovers(problem)) {
          expect(cost).toBeGreaterThanOrEqual(least - 1e-6);
          if (cost >= below) continue;
          for (const c of fixed.keys()) {
            if (fixed[c] === OUT) expect(columns).not.toContain(c);
            if (fixed[c] === IN) expect(columns).toContain(c);
          }
        }
      },
    ),
    { numRuns: 300 },
  );
});

test('the bound of a ring of rows that share a column with each neighbour is half their number', () => {
  const rows = Array.from({ length: 7 }, (_, r) => [r, (r + 1) % 7]);
  const problem = { rows, cost: rows.map(() => 1) };
  const { least, share } = relax(matrixOf(problem), standing(problem), 5, 1000);
  expect(least).toBeCloseTo(3.5, 3);
  for (const part of share) expect(part).toBeCloseTo(0.5, 2);
});

test('the bound goes on from where it stood', () => {
  const rows = Array.from({ length: 9 }, (_, r) => [r, (r + 1) % 9, (r + 4) % 9]);
  const problem = { rows, cost: rows.map((_, c) => 3 + (c % 4)) };
  const kept = standing(problem);
  const first = relax(matrixOf(problem), kept, 99, 300).least;
  expect(relax(matrixOf(problem), kept, 99, 0).least).toBeCloseTo(first, 9);
  expect(relax(matrixOf(problem), standing(problem), 99, 0).least).toBeLessThan(first);
});

test('a quick cover covers all rows and has no column too many', () => {
  fc.assert(
    fc.property(coverings, (problem) => {
      const matrix = matrixOf(problem);
      const found = greedy(matrix, matrix.cost);
      const isCover = (columns: readonly number[]) =>
        problem.rows.every((row) => row.some((c) => columns.includes(c)));
      expect(isCover(found)).toBe(true);
      for (const c of found) expect(isCover(found.filter((other) => other !== c))).toBe(false);
    }),
  );
});
