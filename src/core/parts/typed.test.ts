import { expectDone, sentence } from '../values/result';
import { PLACEABLE } from './catalogue';
import { readTyped, suggestions } from './typed';

const all = PLACEABLE;
const onlyNand = PLACEABLE.filter((k) => k.kind === 'nand');
const read = (text: string) => {
  const typed = readTyped(text, all);
  if (!typed.ok) return sentence(typed.problem);
  const { kind, params, labels } = typed.value;
  return { kind: kind.kind, params, labels };
};

test.each([
  ['and', { kind: 'and', params: { inputs: 2 }, labels: [''] }],
  ['NAND 3', { kind: 'nand', params: { inputs: 3 }, labels: [''] }],
  ['sw A, B, C', { kind: 'switch', params: {}, labels: ['A', 'B', 'C'] }],
  ['switch Bars down', { kind: 'switch', params: {}, labels: ['Bars down'] }],
  ['2 input and', { kind: 'and', params: { inputs: 2 }, labels: [''] }],
  ['3-input NAND', { kind: 'nand', params: { inputs: 3 }, labels: [''] }],
  ['clock .5 kHz', { kind: 'clock', params: { hertz: 500 }, labels: [''] }],
  ['clock 20 ms Beat', { kind: 'clock', params: { hertz: 50 }, labels: ['Beat'] }],
  ['clock 4Hz', { kind: 'clock', params: { hertz: 4, duty: 50 }, labels: [''] }],
  ['clock 2.5 kHz Beat', { kind: 'clock', params: { hertz: 2500, duty: 50 }, labels: ['Beat'] }],
  ['d fall', { kind: 'dff', params: { edge: 'falling' }, labels: [''] }],
  ['d flip-flop', { kind: 'dff', params: { edge: 'rising' }, labels: [''] }],
  ['const 0', { kind: 'constant', params: { value: 0 }, labels: [''] }],
  ['and gate', { kind: 'and', params: { inputs: 2 }, labels: [''] }],
  ['NAND gates 3', { kind: 'nand', params: { inputs: 3 }, labels: [''] }],
  ['three-input nor gate', { kind: 'nor', params: { inputs: 3 }, labels: [''] }],
  ['or with 4 inputs', { kind: 'or', params: { inputs: 4 }, labels: [''] }],
  ['exclusive or', { kind: 'xor', params: { inputs: 2 }, labels: [''] }],
  ['jk flip flop', { kind: 'jkff', params: {}, labels: [''] }],
  ['jk flip-flops', { kind: 'jkff', params: {}, labels: [''] }],
  ['flip-flop', { kind: 'dff', params: {}, labels: [''] }],
  ['flip flop Bell', { kind: 'dff', params: {}, labels: ['Bell'] }],
  ['seven segment', { kind: 'segments', params: {}, labels: [''] }],
  ['display', { kind: 'digit', params: {}, labels: [''] }],
  ['vcc', { kind: 'constant', params: { value: 1 }, labels: [''] }],
  ['high', { kind: 'constant', params: { value: 1 }, labels: [''] }],
  ['ground', { kind: 'constant', params: { value: 0 }, labels: [''] }],
  ['toggle', { kind: 'switch', params: {}, labels: [''] }],
  ['toggle switch Key', { kind: 'switch', params: {}, labels: ['Key'] }],
  ['sw A[7:0]', { kind: 'switch', params: { width: 8 }, labels: ['A'] }],
  ['sw A[3:0], B[3:0]', { kind: 'switch', params: { width: 4 }, labels: ['A', 'B'] }],
  ['8 bit register', { kind: 'register', params: { width: 8 }, labels: [''] }],
  ['4-bit adder', { kind: 'adder', params: { width: 4 }, labels: [''] }],
  ['full adder', { kind: 'adder', params: { width: 1 }, labels: [''] }],
  ['lamp Gate', { kind: 'lamp', params: {}, labels: ['Gate'] }],
  ['lam', { kind: 'lamp', params: {}, labels: [''] }],
])('%s', (text, expected) => {
  expect(read(text)).toMatchObject(expected);
});

test.each([
  ['nadn', 'No part is called “nadn”; do you mean NAND?'],
  ['sw A[7:0], B', 'Labels with brackets are all of one width: place the others by themselves.'],
  ['constructor', 'No part is called “constructor”.'],
  ['frobnicator', 'No part is called “frobnicator”.'],
  ['7499', 'The catalogue has no 7499; the nearest are 7493 and 74107.'],
  ['4002.b', 'The catalogue has no 4002; the nearest are 4001 and 4011.'],
  ['', 'Type the name of a part.'],
  ['and 17', 'AND does not understand “17”.'],
  ['nor purple', 'NOR does not understand “purple”.'],
  ['clock 900 GHz', 'Clock: a clock has at most 1 GHz.'],
  [`sw ${'n'.repeat(41)}`, `The label “${'n'.repeat(20)}…” is longer than 40 letters.`],
])('says what it does not understand: %s', (text, problem) => {
  expect(read(text)).toBe(problem);
});

test('suggests what begins so, an exact name first, and only what is allowed', () => {
  expect(suggestions('n', all).map((k) => k.kind)).toEqual(['not', 'nand', 'nor', 'number', 'label', 'note']);
  expect(suggestions('or', all)[0]!.kind).toBe('or');
  expect(suggestions('', onlyNand).map((k) => k.kind)).toEqual(['nand']);
  expect(readTyped('nor', onlyNand)).toMatchObject({
    problem: { message: 'no part is called “nor”' },
  });
});

test('any part is named while it is typed, several at once', () => {
  const typed = (text: string) => expectDone(readTyped(text, PLACEABLE));
  expect(typed('not An, Bn')).toMatchObject({ kind: { kind: 'not' }, labels: ['An', 'Bn'] });
  expect(typed('adder 16 Add')).toMatchObject({ params: { width: 16 }, labels: ['Add'] });
  expect(typed('nand 3 G1')).toMatchObject({ params: { inputs: 3 }, labels: ['G1'] });
  expect(readTyped('nor purple', PLACEABLE).ok).toBe(false);
});
