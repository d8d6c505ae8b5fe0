import { specColumns, specOf } from '../../testing/specs';
import { sentence } from '../../values/result';
import { Formula } from '../expression/forms';
import { code } from '../expression/notation';
import { functionOfSpec, namesLine } from './spec-edits';
import { columnFromText, specFromFormulas } from './spec-formulas';

const by = (base: ReturnType<typeof specOf> | null, text: string, only?: string) => {
  const made = specFromFormulas(base, text, only);
  return made.ok
    ? `${namesLine(made.value)}: ${made.value.outputs.map((o) => o.rows).join(' ')}`
    : `${made.problem.place?.offset ?? '-'}: ${sentence(made.problem)}`;
};

test('formulas make a table, or go into one', () => {
  expect(by(null, "Drive = Key Bars\nWarn = Key Bars'")).toBe('Key, Bars = Drive, Warn: 0001 0010');
  const base = specOf('Key, Bars = Drive', '00x.');
  expect(by(base, 'Key + Bars')).toBe('Key, Bars = Drive: 0111');
  expect(by(base, 'Warn = Key')).toBe('Key, Bars = Drive, Warn: 00x. 0011');
  // Names match regardless of case; filled-in cells hold for both values of a new input.
  expect(by(base, 'warn = key Clear')).toBe('Key, Bars, Clear = Drive, warn: 0000xx.. 00000101');
  expect(by(null, 'Y = 1')).toBe('A = Y: 11');
  // Letters stand in the order of the alphabet, as in a table by hand.
  expect(by(null, 'Y = C A')).toBe('A, C = Y: 0001');
  expect(by(specOf('C = Y', '01'), 'Z = B A10 A2')).toMatch(/^C, A2, A10, B = Y, Z: /);
  const two = specOf('A = Y, Z', '01', '10');
  expect(by(two, "A'", 'Z')).toBe('A = Y, Z: 01 10');
});

test('outputs may be called as inputs are but for their case, as the segments of a display', () => {
  const digits = specOf('A, B = a, b');
  expect(by(digits, "a = A' + B\nb = A B'")).toBe('A, B = a, b: 1101 0010');
  expect(by(null, "a = A' + B; b = A B'")).toBe('A, B = a, b: 1101 0010');
  expect(by(digits, 'Y = A')).toBe('A, B = a, b, Y: .... .... 0011');
  expect(by(digits, 'Y = A b')).toBe('6: “b” is an output: a formula here reads inputs only.');
});

test('code that was copied goes back into the table that it came from', () => {
  const base = specOf('Bars down, In[1] = Go, Next one', '0110', '1000');
  const functions = base.outputs.map(({ name }, o) => ({
    name,
    expression: new Formula(name, base.inputs, functionOfSpec(base, o)).in('sop'),
  }));
  const blank = specOf('Bars down, In[1] = Go, Next one');
  for (const language of ['verilog', 'c', 'python', 'javascript'] as const) {
    const made = specFromFormulas(blank, code(functions, base.inputs, language));
    expect([language, made.ok ? made.value : made.problem.message]).toEqual([language, base]);
  }
});

test('what cannot be taken says what and at which character', () => {
  const base = specOf('A, B = Y, Z');
  expect(by(base, 'A B')).toBe('0: Say which output it is: Y = …');
  expect(by(base, 'Y = A + (B')).toBe('8: At “(B”: this parenthesis is never closed.');
  expect(by(base, 'Y = A\nZ = A +')).toBe('13: At the end: something is missing at the end.');
  expect(by(base, 'Y = A\nY = B')).toBe('9: “Y” is there twice.');
  expect(by(null, 'Warn = A; warn = B')).toBe('16: “warn” is there twice.');
  expect(by(base, 'A = B')).toBe('3: “A” is an input: it cannot be an output as well.');
  expect(by(base, 'Y = A Z')).toBe('6: “Z” is an output: a formula here reads inputs only.');
  expect(by(base, 'A + B = Y')).toBe('0: At “A + B = Y”: before the = stands the name of one output.');
  expect(by(null, ' ')).toBe('-: Type a formula, such as Drive = Key Bars.');
  expect(by(null, `Y = ${Array.from({ length: 17 }, (_, i) => `N${i}`).join(' ')}`)).toMatch(
    /at most 16 inputs/,
  );
});

test('a column is said by a formula or by its rows', () => {
  const empty = specOf('A, B, C = Y');
  expect(specColumns(columnFromText(empty, 0, "A'B + C"))).toEqual(['01110101']);
  expect(specColumns(columnFromText(empty, 0, '1, 3, 5-7'))).toEqual(['01010111']);
  expect(specColumns(columnFromText(empty, 0, '1 3 d 4-6'))).toEqual(['0101xxx0']);
  expect(specColumns(columnFromText(empty, 0, 'Σm(0,2)'))).toEqual(['10100000']);
  expect(specColumns(columnFromText(empty, 0, '1'))).toEqual(['11111111']);
  expect(specColumns(columnFromText(empty, 0, '3, 9'))).toMatch(
    /“9” is no row of this table: it has rows 0 to 7/,
  );
  expect(specColumns(columnFromText(empty, 0, 'A + Q'))).toMatch(/“Q” is no input of this table: A, B, C/);
  expect(specColumns(columnFromText(empty, 0, 'A + (B'))).toMatch(
    /At “\(B”: this parenthesis is never closed/,
  );
});
