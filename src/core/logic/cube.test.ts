import fc from 'fast-check';
import { type Cube, covers, EITHER, inverted, isInside, literals, OFF, ON, reordered, rowsOf } from './cube';
import { inputAt } from './truth-table';

const INPUTS = 5;
const cubes: fc.Arbitrary<Cube> = fc
  .tuple(fc.nat(2 ** INPUTS - 1), fc.nat(2 ** INPUTS - 1))
  .map(([care, some]) => ({ care, ones: some & care }));
const ROWS = Array.from({ length: 2 ** INPUTS }, (_, row) => row);
const rowsIn = (cube: Cube) => ROWS.filter((row) => covers(cube, row));

test('a product has the rows at which all its literals hold, each once', () => {
  fc.assert(
    fc.property(cubes, (cube) => {
      const rows = [...rowsOf(cube, INPUTS)];
      expect([...rows].sort((a, b) => a - b)).toEqual(rowsIn(cube));
      expect(rows).toHaveLength(2 ** (INPUTS - literals(cube)));
    }),
  );
});

test('one product is inside another exactly where all its rows are', () => {
  fc.assert(
    fc.property(cubes, cubes, (a, b) => {
      const large = new Set(rowsIn(b));
      expect(isInside(a, b)).toBe(rowsIn(a).every((row) => large.has(row)));
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
        expect(covers(made, there)).toBe(covers(cube, row));
      }
    }),
  );
  expect(reordered({ care: 1, ones: 1 }, ['Key'], ['Bars'])).toBeNull();
  expect(reordered({ care: 1, ones: 1 }, ['Key'], ['Key', 'Bars'])).toBeNull();
});

test('a function turned over is 1 where it was 0, and may be either where it might', () => {
  const wish = { inputs: 2, rows: Uint8Array.of(OFF, ON, EITHER, ON) };
  expect([...inverted(wish).rows]).toEqual([ON, OFF, EITHER, OFF]);
  expect(inverted(inverted(wish))).toEqual(wish);
});
