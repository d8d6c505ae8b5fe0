import fc from 'fast-check';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../minimise/cube';
import { type Expression, evaluate } from './expression';
import { Formula, sizeOf } from './forms';
import { written } from './notation';

/*
 * Sums with exclusive-ors, on functions of the carousel: the parity of its gates, a sum, a comparison.
 */

const said = (names: string, does: (...bits: number[]) => number) => {
  const list = names.split(' ');
  const rows = Uint8Array.from({ length: 2 ** list.length }, (_, row) =>
    does(...list.map((_, i) => (row >> (list.length - 1 - i)) & 1)),
  );
  return new Formula('Y', list, { inputs: list.length, rows });
};
const mixed = (names: string, does: (...bits: number[]) => number) =>
  written(said(names, does).in('mixed'), 'prime');

test('an input that turns the function over stands outside', () => {
  expect(mixed('Sum Carry', (a, b) => a! ^ b!)).toBe('Sum ⊕ Carry');
  expect(mixed('A B C', (a, b, c) => a! ^ b! ^ c!)).toBe('A ⊕ B ⊕ C');
  expect(mixed('A B C', (a, b, c) => 1 ^ a! ^ b! ^ c!)).toBe("(A ⊕ B ⊕ C)'");
  expect(mixed('Flip Key Bars', (f, k, b) => f! ^ (k! & b!))).toBe('Flip ⊕ Key Bars');
});

test('inputs that matter only by whether they differ become one', () => {
  const equal = (a: number, b: number) => 1 ^ a ^ b;
  expect(mixed('A1 A0 B1 B0', (a1, a0, b1, b0) => equal(a1!, b1!) & equal(a0!, b0!))).toBe(
    "(A1 ⊕ B1)'(A0 ⊕ B0)'",
  );
});

test('two products of a sum become one', () => {
  const text = mixed('A B C D', (a, b, c, d) => (a! & (b! ^ c!)) | (d! & b! & c!));
  expect(text).toContain('⊕');
  expect(text).toContain(' + ');
});

test('where no exclusive-or helps, the smallest sum stays', () => {
  const majority = said('A B C', (a, b, c) => (a! + b! + c! > 1 ? 1 : 0));
  expect(majority.in('mixed')).toEqual(majority.in('sop'));
});

const wish: fc.Arbitrary<BooleanFunction> = fc.integer({ min: 1, max: 6 }).chain((inputs) =>
  fc
    .tuple(
      fc.array(fc.constantFrom(OFF, ON, DONT_CARE), { minLength: 2 ** inputs, maxLength: 2 ** inputs }),
      fc.integer({ min: 0, max: 2 ** inputs - 1 }),
    )
    .map(([rows, mask]) => {
      // Turned over by the parity of some inputs, so that there is something to be found.
      const parity = (row: number) => [...(row & mask).toString(2)].filter((bit) => bit === '1').length % 2;
      return {
        inputs,
        rows: Uint8Array.from(rows, (v, row) => (v === DONT_CARE ? DONT_CARE : v ^ parity(row))),
      };
    }),
);

test('it is the function, and takes no more gates than the smallest sum', () => {
  fc.assert(
    fc.property(wish, (f) => {
      const names = Array.from({ length: f.inputs }, (_, i) => `I${i}`);
      const formula = new Formula('Y', names, f);
      const made: Expression = formula.in('mixed');
      for (const [row, value] of f.rows.entries()) {
        const values = new Map(names.map((n, i) => [n, ((row >> (f.inputs - 1 - i)) & 1) as 0 | 1]));
        if (value !== DONT_CARE) expect([row, evaluate(made, values)]).toEqual([row, value]);
      }
      expect(sizeOf(made).gates).toBeLessThanOrEqual(sizeOf(formula.in('sop')).gates);
    }),
    { numRuns: 400 },
  );
});
