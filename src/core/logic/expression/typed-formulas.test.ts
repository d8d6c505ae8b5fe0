import { written } from './notation';
import { readFormulas } from './typed-formulas';

/** Each formula as its name and expression, or the error and its place. */
function said(text: string, inputs: string[] = [], outputs: string[] = []): string[] | string {
  const read = readFormulas(text, inputs, outputs);
  if (!read.ok) return `${read.problem.place.offset}: ${read.problem.message}`;
  return read.value.map((f) => `${f.name ?? '?'} = ${written(f.expression, 'words')}`);
}

test('formulas stand on lines of their own, or with semicolons between; comments are passed over', () => {
  expect(said("Drive = Key Bars; Warn = Key Bars'\n\n# the horn\nHorn = Stop // always")).toEqual([
    'Drive = Key and Bars',
    'Warn = Key and not Bars',
    'Horn = Stop',
  ]);
  expect(said('/* nothing\n here */ A B')).toEqual(['? = A and B']);
  expect(said('A\\;B\\,C; D')).toEqual(['? = A and B and C', '? = D']);
  expect(said('')).toEqual([]);
});

test('comparisons are no names before a formula', () => {
  expect(said('(A != B) C')).toEqual(['? = (A xor B) and C']);
  expect(said('Y = (A == B)')).toEqual(['Y = not (A xor B)']);
});

test('functions of four languages are read as what they give', () => {
  const both = ['Y = A and not B'];
  expect(said('bool Y(bool A, bool B) {\n  return A && !B;\n}')).toEqual(both);
  expect(said('#include <stdbool.h>\n\nbool Y(bool A, bool B) {\n  return A && !B;\n}\n// A B | Y')).toEqual(
    both,
  );
  expect(said('def Y(A, B):\n    return A and not B\n\n# A B | Y')).toEqual(both);
  expect(said('const Y = (A, B) => A && !B;')).toEqual(both);
  expect(said('module formula(input A, input B, output Y);\n  assign Y = A & ~B;\nendmodule')).toEqual(both);
});

test('names are those that are known: whatever their case, with signs of their own, or as code has them', () => {
  const inputs = ['Bars down', 'Key'];
  expect(said('next floor = Bars down key', inputs, ['Next floor'])).toEqual([
    'Next floor = Bars down and Key',
  ]);
  expect(said('Next_floor = Bars_down & ~Key', inputs, ['Next floor'])).toEqual([
    'Next floor = Bars down and not Key',
  ]);
  expect(said('Out[2] = Key')).toEqual(['Out[2] = Key']);
});

test('what is wrong is said with its place in the whole text', () => {
  expect(said('Drive = Key\nWarn = Key (')).toBe('24: something is missing at the end');
  expect(said('Drive = Key; Warn = ? Key')).toBe('20: a name is missing before this');
  expect(said('  A + B = C')).toBe('2: before the = stands the name of one output');
  expect(said('Y = A and\n')).toBe('9: something is missing at the end');
});
