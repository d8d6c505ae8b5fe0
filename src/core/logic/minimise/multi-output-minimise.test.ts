import fc from 'fast-check';
import { type BooleanFunction, type Cube, coversRow, DONT_CARE, OFF, ON } from './cube';
import { minimise } from './minimise';
import { minimiseMultiOutput } from './multi-output-minimise';

const fns = (least: number, most: number, outputs: number): fc.Arbitrary<BooleanFunction[]> =>
  fc.integer({ min: least, max: most }).chain((inputs) =>
    fc.array(
      fc
        .array(fc.constantFrom(OFF, OFF, ON, ON, DONT_CARE), {
          minLength: 2 ** inputs,
          maxLength: 2 ** inputs,
        })
        .map((rows) => ({ inputs, rows: Uint8Array.from(rows) })),
      { minLength: 2, maxLength: outputs },
    ),
  );
const key = (c: Cube) => `${c.mask} ${c.value}`;
const different = (sums: readonly (readonly Cube[])[]) => new Set(sums.flat().map(key)).size;
const is = (cubes: readonly Cube[], { rows }: BooleanFunction) =>
  rows.every((v, row) => v === DONT_CARE || (v === ON) === cubes.some((c) => coversRow(c, row)));

test('each sum is its function, and together they take no more products than each on its own', () => {
  fc.assert(
    fc.property(fns(1, 4, 3), (all) => {
      const made = minimiseMultiOutput(all);
      for (const [o, fn] of all.entries()) expect(is(made[o]!.cubes, fn)).toBe(true);
      expect(made.every((m) => m.exact)).toBe(true);
      expect(different(made.map((m) => m.cubes))).toBeLessThanOrEqual(
        different(all.map((w) => minimise(w).cubes)),
      );
    }),
    { numRuns: 150 },
  );
});

test('no fewer products do for two functions of two inputs, all choices tried', () => {
  fc.assert(
    fc.property(fns(2, 2, 2), (all) => {
      const cubes: Cube[] = [];
      for (let mask = 0; mask < 4; mask++)
        for (let value = 0; value < 4; value++) if (!(value & ~mask)) cubes.push({ mask, value });
      const fits = (c: Cube, w: BooleanFunction) => w.rows.every((v, row) => v !== OFF || !coversRow(c, row));
      let least = Number.POSITIVE_INFINITY;
      for (let set = 0; set < 2 ** cubes.length; set++) {
        const some = cubes.filter((_, i) => set & (1 << i));
        if (
          some.length < least &&
          all.every((w) =>
            is(
              some.filter((c) => fits(c, w)),
              w,
            ),
          )
        )
          least = some.length;
      }
      expect(different(minimiseMultiOutput(all).map((m) => m.cubes))).toBe(least);
    }),
    { numRuns: 40 },
  );
});

test('a product that serves two outputs is taken for both, though each alone would take a shorter one', () => {
  // Y = A B + B' C' and Z = A B C + A' C: together one term less when the shared product is used.
  const of = (f: (a: number, b: number, c: number) => boolean): BooleanFunction => ({
    inputs: 3,
    rows: Uint8Array.from({ length: 8 }, (_, r) => (f(r >> 2, (r >> 1) & 1, r & 1) ? ON : OFF)),
  });
  const y = of((a, b, c) => (a & b & c) === 1 || (!b && !c));
  const z = of((a, b, c) => (a & b & c) === 1 || (!a && b === 1 && !c));
  const made = minimiseMultiOutput([y, z]).map((m) => m.cubes);
  expect(different(made)).toBe(3);
  expect(made.every((cubes) => cubes.some((c) => c.mask === 7 && c.value === 7))).toBe(true);
});
