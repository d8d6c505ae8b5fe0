import fc from 'fast-check';
import { allCovers, coverings } from '../../testing/random-covering';
import { components, type Matrix, matrixOf, reduced, submatrix, uncovered } from './covering-matrix';

/** The columns of each row, by names in the whole problem. */
const rowsOf = ({ rows, rowStart, by, names }: Matrix) =>
  Array.from({ length: rows }, (_, r) =>
    [...by.subarray(rowStart[r], rowStart[r + 1])].map((c) => names[c]!),
  );

/** The cost of the cheapest cover of a small matrix. */
function leastCost(matrix: Matrix): number {
  const places = new Map([...matrix.names].map((name, c) => [name, c]));
  const rows = rowsOf(matrix).map((row) => row.map((name) => places.get(name)!));
  return Math.min(...allCovers({ rows, cost: [...matrix.cost] }).map((c) => c.cost));
}

test('what is taken and dropped leaves a cheapest cover, and nothing more can be', () => {
  fc.assert(
    fc.property(coverings, (problem) => {
      const { chosen, matrix } = reduced(matrixOf(problem));
      const spent = chosen.reduce((sum, c) => sum + problem.cost[c]!, 0);
      expect(spent + leastCost(matrix)).toBe(leastCost(matrixOf(problem)));
      const rows = rowsOf(matrix);
      for (const [r, row] of rows.entries()) {
        expect(row.length).toBeGreaterThan(1);
        for (const [s, other] of rows.entries())
          if (s !== r) expect(row.every((c) => other.includes(c))).toBe(false);
      }
    }),
    { numRuns: 300 },
  );
});

test('rows and columns are kept as they are told; a row without columns ends it', () => {
  const whole = matrixOf({ rows: [[0, 1], [1, 2], [2, 3], [3]], cost: [5, 6, 7, 8] });
  const some = submatrix(whole, Uint8Array.of(1, 0, 1, 1), Uint8Array.of(0, 1, 0, 0))!;
  expect(rowsOf(some)).toEqual([[0], [2, 3], [3]]);
  expect([[...some.ids], [...some.names], [...some.cost]]).toEqual([
    [0, 2, 3],
    [0, 2, 3],
    [5, 7, 8],
  ]);
  // The rows of columns 0, 2 and 3.
  expect([[...some.start], [...some.covered]]).toEqual([
    [0, 1, 2, 4],
    [0, 1, 1, 2],
  ]);
  expect(submatrix(whole, Uint8Array.of(1, 1, 1, 1), Uint8Array.of(0, 0, 0, 1))).toBeNull();
  expect([...uncovered(whole, [1])]).toEqual([0, 0, 1, 1]);
});

test('parts that share no column stand on their own', () => {
  const whole = matrixOf({ rows: [[0, 1], [4, 5], [1, 2], [3, 5], [6]], cost: Array(7).fill(1) });
  expect(components(whole).map(rowsOf)).toEqual([
    [
      [0, 1],
      [1, 2],
    ],
    [
      [4, 5],
      [3, 5],
    ],
    [[6]],
  ]);
});
