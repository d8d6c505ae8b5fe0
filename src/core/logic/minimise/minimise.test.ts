import fc from 'fast-check';
import { dice } from '../../testing/dice';
import {
  type BooleanFunction,
  type Cube,
  coversRow,
  DONT_CARE,
  isContainedIn,
  literalCount,
  OFF,
  ON,
} from './cube';
import { heuristic, MOST_EXACT_SLOWLY, minimise } from './minimise';
import { primes } from './primes';

const wish = (most: number, least = 1): fc.Arbitrary<BooleanFunction> =>
  fc.integer({ min: least, max: most }).chain((inputs) =>
    fc
      .array(fc.constantFrom(OFF, OFF, ON, ON, DONT_CARE), {
        minLength: 2 ** inputs,
        maxLength: 2 ** inputs,
      })
      .map((rows) => ({ inputs, rows: Uint8Array.from(rows) })),
  );

const of = (inputs: number, text: string): BooleanFunction => ({
  inputs,
  rows: Uint8Array.from([...text].map((c) => (c === 'x' ? DONT_CARE : Number(c)))),
});

/** Whether a sum of products is the function. */
function is(cubes: readonly Cube[], { rows }: BooleanFunction): boolean {
  return rows.every(
    (value, row) => value === DONT_CARE || (value === ON) === cubes.some((c) => coversRow(c, row)),
  );
}

/** The least number of cubes that cover, tried out: every choice of one fewer, of two fewer and so on. */
function fewest(all: readonly Cube[], { rows }: BooleanFunction): number {
  const on = [...rows.keys()].filter((row) => rows[row] === ON);
  const reach = (row: number, left: number, chosen: Cube[]): boolean => {
    const open = on.find((r) => r >= row && !chosen.some((c) => coversRow(c, r)));
    if (open === undefined) return true;
    if (left === 0) return false;
    return all.some((c) => coversRow(c, open) && reach(open, left - 1, [...chosen, c]));
  };
  for (let size = 0; ; size++) if (reach(0, size, [])) return size;
}

test('the prime implicants of a textbook function, and the two of them that are essential', () => {
  // Rows 4, 8, 10, 11, 12, 15 are 1, rows 9 and 14 are free.
  const f = of(4, '00001000' + '1x111' + '0x1');
  expect(primes(f).map((c) => [c.mask, c.value])).toEqual(
    expect.arrayContaining([
      [0b0111, 0b0100],
      [0b1001, 0b1000],
      [0b1100, 0b1000],
      [0b1010, 0b1010],
    ]),
  );
  expect(primes(f)).toHaveLength(4);
  const { cubes, exact, fewestLiterals } = minimise(f);
  expect([cubes.length, exact, fewestLiterals]).toEqual([3, true, true]);
});

test('a product is prime exactly where it is nowhere 0 and loses that with any of its literals', () => {
  fc.assert(
    fc.property(wish(4), (f) => {
      const all = 2 ** f.inputs;
      const fits = (c: Cube) => f.rows.every((v, row) => v !== OFF || !coversRow(c, row));
      const useful = (c: Cube) => f.rows.some((v, row) => v === ON && coversRow(c, row));
      const expected: Cube[] = [];
      for (let mask = 0; mask < all; mask++)
        for (let value = 0; value < all; value++) {
          if (value & ~mask) continue;
          const c = { mask, value };
          let grows = false;
          for (let bit = 1; bit < all; bit *= 2)
            if (mask & bit && fits({ mask: mask & ~bit, value: value & ~bit })) grows = true;
          if (fits(c) && useful(c) && !grows) expected.push(c);
        }
      const key = (c: Cube) => `${c.mask} ${c.value}`;
      expect(primes(f).map(key).sort()).toEqual(expected.map(key).sort());
    }),
  );
});

test('the smallest sum is the function, of prime implicants, and none is smaller', () => {
  fc.assert(
    fc.property(wish(4), (f) => {
      const { cubes, exact } = minimise(f);
      const all = primes(f);
      expect(exact).toBe(true);
      expect(is(cubes, f)).toBe(true);
      expect(cubes).toHaveLength(fewest(all, f));
      for (const c of cubes)
        if (c.mask) expect(all.some((p) => p.mask === c.mask && p.value === c.value)).toBe(true);
    }),
    { numRuns: 200 },
  );
});

test('of the smallest sums it is one with the fewest literals', () => {
  fc.assert(
    fc.property(wish(3), (f) => {
      const { cubes, fewestLiterals } = minimise(f);
      const size = (list: readonly Cube[]) => list.reduce((sum, c) => sum + literalCount(c), 0);
      expect(fewestLiterals).toBe(true);
      const all = primes(f);
      // All choices of as many primes.
      const choices = (left: number, from: number): Cube[][] =>
        left === 0
          ? [[]]
          : all.flatMap((c, i) => (i < from ? [] : choices(left - 1, i + 1).map((rest) => [c, ...rest])));
      for (const choice of choices(cubes.length, 0))
        if (is(choice, f)) expect(size(cubes)).toBeLessThanOrEqual(size(choice));
    }),
  );
});

test('larger functions stay what they are; no two rows of an independent set share a prime', () => {
  fc.assert(
    fc.property(wish(8, 5), (f) => {
      const { cubes, exact } = minimise(f);
      expect(is(cubes, f)).toBe(true);
      expect(exact).toBe(true);
      // Rows of which no prime covers two: each needs a product of its own.
      const all = primes(f);
      const apart: Cube[][] = [];
      for (const [row, value] of f.rows.entries()) {
        const mine = all.filter((c) => coversRow(c, row));
        if (value === ON && !apart.some((other) => other.some((c) => mine.includes(c)))) apart.push(mine);
      }
      expect(cubes.length).toBeGreaterThanOrEqual(apart.length);
      const guessed = heuristic(f);
      expect(is(guessed, f)).toBe(true);
      expect(guessed.length).toBeGreaterThanOrEqual(cubes.length);
      for (const [i, c] of guessed.entries())
        expect(guessed.some((other, k) => k !== i && isContainedIn(c, other))).toBe(false);
    }),
    { numRuns: 40 },
  );
});

test('beyond ten inputs the sum is the function and is not said to be the smallest', () => {
  const rows = Uint8Array.from({ length: 2 ** 12 }, (_, row) => ((row * 2654435761) >>> 13) & 1);
  const { cubes, exact } = minimise({ inputs: 12, rows });
  expect(exact).toBe(false);
  expect(is(cubes, { inputs: 12, rows })).toBe(true);
  expect(() => minimise({ inputs: 17, rows })).toThrow(/17 inputs/);
});

test('random functions of ten inputs have a sum that is proved to have the fewest products', () => {
  let seed = 11;
  const next = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed >>> 31;
  };
  for (let n = 0; n < 4; n++) {
    const f = { inputs: 10, rows: Uint8Array.from({ length: 1024 }, next) };
    const { cubes, exact } = minimise(f);
    expect(exact).toBe(true);
    expect(is(cubes, f)).toBe(true);
  }
});

test('one product of many literals is smaller than two of one literal each', () => {
  // Of eight inputs the first two decide; where both are 0, the function must be 0 but in one row, where it is free.
  const rows = Uint8Array.from({ length: 256 }, (_, row) =>
    row === 0b1000_0000 || row === 0b0100_0000 ? ON : row > 0 && row < 0b0100_0000 ? OFF : DONT_CARE,
  );
  const { cubes, exact, fewestLiterals } = minimise({ inputs: 8, rows });
  expect(cubes).toEqual([{ mask: 0b0011_1111, value: 0 }]);
  expect([exact, fewestLiterals]).toEqual([true, true]);
});

test('eleven and twelve inputs are proved where that is quick, else it is told how few there may be', () => {
  const roll = dice(6);
  const random = (inputs: number, ones: number): BooleanFunction => ({
    inputs,
    rows: Uint8Array.from({ length: 2 ** inputs }, () => (roll() < ones ? ON : OFF)),
  });
  const sparse = random(12, 0.15);
  const proved = minimise(sparse, MOST_EXACT_SLOWLY);
  expect(is(proved.cubes, sparse)).toBe(true);
  expect(proved).toMatchObject({ exact: true, least: proved.cubes.length });
  const dense = random(11, 0.5);
  const found = minimise(dense, MOST_EXACT_SLOWLY);
  expect(is(found.cubes, dense)).toBe(true);
  expect(found.cubes.length).toBeLessThan(heuristic(dense).length);
  expect(found.least).toBeGreaterThan(0.9 * found.cubes.length);
  expect(found.least).toBeLessThanOrEqual(found.cubes.length);
  // Where nobody waits, the heuristic says nothing of it.
  expect(minimise(dense)).toMatchObject({ exact: false, least: 1 });
});
