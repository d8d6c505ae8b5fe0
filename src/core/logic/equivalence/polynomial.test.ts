import fc from 'fast-check';
import { Polynomial, type Sum, TooMuch, times } from './polynomial';

const VARIABLES = 4;
const ROWS = Array.from({ length: 2 ** VARIABLES }, (_, row) => row);
const PLENTY = { terms: 1000, work: 100_000 };

const product = fc
  .uniqueArray(fc.nat({ max: VARIABLES - 1 }), { maxLength: VARIABLES })
  .map((list) => list.sort((x, y) => x - y));
const sum: fc.Arbitrary<Sum> = fc.array(
  fc.tuple(
    fc.bigInt({ min: -9n, max: 9n }).filter((f) => f !== 0n),
    product,
  ),
  { maxLength: 5 },
);

/** The value of a sum where the variables are the bits of a row. */
const valueIn = (of: Sum, row: number, modulus?: bigint): bigint => {
  const all = of.reduce((total, [f, p]) => (p.every((v) => (row >> v) & 1) ? total + f : total), 0n);
  return modulus ? ((all % modulus) + modulus) % modulus : all;
};
const polynomialOf = (of: Sum, bits: bigint) => {
  const made = new Polynomial(bits, PLENTY);
  for (const [f, p] of of) made.add(f, p);
  return made;
};

test('the product of two sums has the product of their values, as a variable times itself is itself', () => {
  fc.assert(
    fc.property(sum, sum, (a, b) => {
      for (const row of ROWS) expect(valueIn(times(a, b), row)).toBe(valueIn(a, row) * valueIn(b, row));
    }),
  );
});

test('two sums are told apart exactly where they are different functions, by a row that shows it', () => {
  fc.assert(
    fc.property(sum, sum, fc.boolean(), (a, other, isSame) => {
      const b: Sum = isSame ? [...[...a].reverse(), [8n, [0, 1]]] : other;
      // Eight times anything is nothing modulo eight.
      const ones = polynomialOf(a, 3n).firstDifference(polynomialOf(b, 3n));
      const differing = ROWS.filter((row) => valueIn(a, row, 8n) !== valueIn(b, row, 8n));
      if (!ones) expect(differing).toEqual([]);
      else expect(differing).toContain(ones.reduce((row, v) => row | (1 << v), 0));
    }),
    { numRuns: 300 },
  );
});

test('a sum in the place of a variable has its value there', () => {
  fc.assert(
    fc.property(sum, sum, (of, instead) => {
      // The sum that replaces the last variable has the others only.
      const free = instead.filter(([, p]) => !p.includes(VARIABLES - 1));
      const made = polynomialOf(of, 64n);
      made.replace(VARIABLES - 1, free);
      expect(made.has(VARIABLES - 1)).toBe(false);
      const expected = of.flatMap(([f, p]): Sum => {
        if (!p.includes(VARIABLES - 1)) return [[f, p]];
        return times([[f, p.filter((v) => v !== VARIABLES - 1)]], free);
      });
      expect(made.firstDifference(polynomialOf(expected, 64n))).toBeNull();
    }),
  );
});

test('too many terms, too large ones and too much work are given up', () => {
  const few = new Polynomial(8n, { terms: 2, work: 100 });
  few.add(1n, [1]);
  few.add(1n, [2]);
  expect(() => few.add(1n, [3])).toThrow(TooMuch);
  expect(() => new Polynomial(8n, PLENTY).add(1n, [...Array(13).keys()])).toThrow(TooMuch);
  const hasty = new Polynomial(8n, { terms: 100, work: 3 });
  for (let i = 0; i < 3; i++) hasty.add(1n, [i]);
  expect(() => hasty.add(1n, [3])).toThrow(TooMuch);
});
