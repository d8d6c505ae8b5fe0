import fc from 'fast-check';
import { inputAt } from '../table/truth-table';
import {
  type Cube,
  complement,
  coversRow,
  DONT_CARE,
  isContainedIn,
  literalCount,
  OFF,
  ON,
  reordered,
  rowsOf,
} from './cube';

const INPUTS = 5;
const cubes: fc.Arbitrary<Cube> = fc
  .tuple(fc.nat(2 ** INPUTS - 1), fc.nat(2 ** INPUTS - 1))
  .map(([mask, some]) => ({ mask, value: some & mask }));
const ROWS = Array.from({ length: 2 ** INPUTS }, (_, row) => row);
const rowsIn = (cube: Cube) => ROWS.filter((row) => coversRow(cube, row));

test('a product has the rows at which all its literals hold, each once', () => {
  fc.assert(
    fc.property(cubes, (cube) => {
      const rows = [...rowsOf(cube, INPUTS)];
      expect([...rows].sort((a, b) => a - b)).toEqual(rowsIn(cube));
      expect(rows).toHaveLength(2 ** (INPUTS - literalCount(cube)));
    }),
  );
});

test('one product is inside another exactly where all its rows are', () => {
  fc.assert(
    fc.property(cubes, cubes, (a, b) => {
      const large = new Set(rowsIn(b));
      expect(isContainedIn(a, b)).toBe(rowsIn(a).every((row) => large.has(row)));
    }),
    { numRuns: 300 },
  );
});

test('a product over inputs in another order has the rows with the same values', () => {
  const names = ['Key', 'Bars', 'Clear', 'Stop', 'Horn'];
  fc.assert(
    fc.property(cubes, fc.shuffledSubarray(names, { minLength: INPUTS }), (cube, order) => {
      const made = reordered(cube, names, order)!;
      for (const row of ROWS) {
        const there = order.reduce((sum, name) => sum * 2 + inputAt(INPUTS, names.indexOf(name), row), 0);
        expect(coversRow(made, there)).toBe(coversRow(cube, row));
      }
    }),
  );
  expect(reordered({ mask: 1, value: 1 }, ['Key'], ['Bars'])).toBeNull();
  expect(reordered({ mask: 1, value: 1 }, ['Key'], ['Key', 'Bars'])).toBeNull();
});

test('a function turned over is 1 where it was 0, and may be either where it might', () => {
  const wish = { inputs: 2, rows: Uint8Array.of(OFF, ON, DONT_CARE, ON) };
  expect([...complement(wish).rows]).toEqual([ON, OFF, DONT_CARE, OFF]);
  expect(complement(complement(wish))).toEqual(wish);
});
