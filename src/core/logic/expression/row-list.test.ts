import fc from 'fast-check';
import { evaluate } from './expression';
import { rowList } from './forms';
import { readRowList } from './row-list';

const NAMES = ['A', 'B', 'C', 'D'];

test('a list of rows that was written is read as the same function, of its ones and of its zeros', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 4 }), fc.nat(), (inputs, seed) => {
      const names = NAMES.slice(0, inputs);
      const rows = Uint8Array.from({ length: 2 ** inputs }, (_, row) => (seed >> row) & 1);
      for (const side of ['ones', 'zeros'] as const) {
        const read = readRowList(rowList({ inputs, rows }, side)!, names);
        if (!read?.ok) throw new Error(read?.problem.message ?? 'it was taken for no list');
        for (const [row, wanted] of rows.entries()) {
          const bits = names.map((name, i) => [name, ((row >> (inputs - 1 - i)) & 1) as 0 | 1] as const);
          expect(evaluate(read.value, new Map(bits))).toBe(wanted);
        }
      }
    }),
  );
});

test.each(['Σm(1, 2)', 'Σ(1,2)', '∑ m (1 2)', 'sum(1, 2)', 'Sum m(2, 1)', 'Σ_m(1,2,2)', 'm(1, 2)'])(
  '%s',
  (text) => {
    expect(readRowList(text, ['A', 'B'])).toEqual(readRowList('Σm(1, 2)', ['A', 'B']));
    expect(readRowList(text, ['A', 'B'])?.ok).toBe(true);
  },
);

test.each(['ΠM(0, 3)', '∏(0 3)', 'prod M(3, 0)', 'M(0,3)'])('%s', (text) => {
  expect(readRowList(text, ['A', 'B'])?.ok).toBe(true);
  expect(readRowList(text, ['A', 'B'])).toEqual(readRowList('ΠM(0, 3)', ['A', 'B']));
});

test.each([
  ['Σm(1, 4)', ['A', 'B'], 'there is no row 4: those of 2 inputs go from 0 to 3', 6],
  ['Σm(1)', [], 'say in which order the inputs are counted: F(A, B, C) = Σm(1, 2)', 0],
  ['ΠM(0) d(1)', ['A', 'B'], 'a formula has no rows that do not matter: fill in a table, with - for them', 6],
  ['Σm(1)', [...'ABCDEFGHI'], 'rows are listed of 8 inputs at most, not of 9', 0],
])('what is wrong with %s', (text, inputs, message, offset) => {
  expect(readRowList(text, inputs)).toMatchObject({ problem: { message, place: { offset } } });
});

test('what is no list of rows is left to others', () => {
  for (const text of ['A + B', 'sum', 'Σm', 'sum(A, B)', 'A Σm(1)', ''])
    expect(readRowList(text, ['A'])).toBeNull();
});
