import { expectDone, sentence } from '../values/result';
import { PLACEABLE } from './catalogue';
import { TRADE_NAMES } from './trade-words';
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
  ['counter mod 10', { kind: 'counter', params: { modulo: 10, width: 4 }, labels: [''] }],
  ['mod-6 counter Laps', { kind: 'counter', params: { modulo: 6, width: 3 }, labels: ['Laps'] }],
  ['decade counter Tens', { kind: 'counter', params: { modulo: 10 }, labels: ['Tens'] }],
  ['demux 1:4', { kind: 'demux', params: { select: 2 }, labels: [''] }],
  ['clock 2 hours', { kind: 'clock', params: { hertz: 1 / 7200 }, labels: [''] }],
  ['clock 10 milliseconds Beat', { kind: 'clock', params: { hertz: 100 }, labels: ['Beat'] }],
  ['lamp 2 Seconds', { kind: 'lamp', params: { width: 2 }, labels: ['Seconds'] }],
  ['lamp 2 s', { kind: 'lamp', params: { width: 2 }, labels: ['s'] }],
  ['clock Seconds', { kind: 'clock', params: { hertz: 1 }, labels: ['Seconds'] }],
  ['and3', { kind: 'and', params: { inputs: 3 }, labels: [''] }],
  ['4nand', { kind: 'nand', params: { inputs: 4 }, labels: [''] }],
  ['2 inputs and', { kind: 'and', params: { inputs: 2 }, labels: [''] }],
  ['two switches', { kind: 'switch', params: { width: 1 }, labels: ['', ''] }],
  ['4 lamps A, B, C, D', { kind: 'lamp', params: { width: 1 }, labels: ['A', 'B', 'C', 'D'] }],
  ['three nand gates', { kind: 'nand', params: { inputs: 2 }, labels: ['', '', ''] }],
  ['switch A, switch B', { kind: 'switch', params: {}, labels: ['A', 'B'] }],
  ['light Light left, Light right', { kind: 'lamp', params: {}, labels: ['Light left', 'Light right'] }],
  ['2 flip-flops', { kind: 'dff', params: {}, labels: ['', ''] }],
  ['two inputs', { kind: 'switch', params: {}, labels: ['', ''] }],
  ['bus 4', { kind: 'join', params: { widths: [1, 1, 1, 1] }, labels: [''] }],
  ['4 bus', { kind: 'join', params: { widths: [1, 1, 1, 1] }, labels: [''] }],
  ['sw 8 bit A', { kind: 'switch', params: { width: 8 }, labels: ['A'] }],
  ['red led', { kind: 'lamp', params: { light: 'red' }, labels: [''] }],
  ['green lamp Go', { kind: 'lamp', params: { light: 'green' }, labels: ['Go'] }],
  ['4 to 1 mux', { kind: 'mux', params: { select: 2 }, labels: [''] }],
  ['8 bit 4:1 mux', { kind: 'mux', params: { select: 2, width: 8 }, labels: [''] }],
  ['multiplexer 4 to 1', { kind: 'mux', params: { select: 2 }, labels: [''] }],
  ['3-to-8 decoder', { kind: 'decoder', params: { select: 3 }, labels: [''] }],
  ['8 to 3 encoder', { kind: 'encoder', params: { select: 3 }, labels: [''] }],
  ['rs latch', { kind: 'srlatch', params: { enable: 'no' }, labels: [''] }],
  ['gated sr latch', { kind: 'srlatch', params: { enable: 'yes' }, labels: [''] }],
  ['transparent latch', { kind: 'dlatch', params: {}, labels: [''] }],
  ['two latches', { kind: 'dlatch', params: {}, labels: ['', ''] }],
  ['falling edge jk', { kind: 'jkff', params: { edge: 'falling' }, labels: [''] }],
  ['rising edge triggered t flip flop', { kind: 'tff', params: { edge: 'rising' }, labels: [''] }],
  ['negative-edge-triggered d flip-flop', { kind: 'dff', params: { edge: 'falling' }, labels: [''] }],
  [
    '4-bit register with enable Total',
    { kind: 'register', params: { width: 4, enable: 'yes' }, labels: ['Total'] },
  ],
  ['down counter 4', { kind: 'counter', params: { direction: 'down', width: 4 }, labels: [''] }],
  ['3 bit up/down counter', { kind: 'counter', params: { direction: 'both', width: 3 }, labels: [''] }],
  ['1 Hz clock', { kind: 'clock', params: { hertz: 1 }, labels: [''] }],
  ['1kHz clock Beat', { kind: 'clock', params: { hertz: 1000 }, labels: ['Beat'] }],
  ['clock 1 kHz, 25%', { kind: 'clock', params: { hertz: 1000, duty: 25 }, labels: [''] }],
  ['out Y', { kind: 'port', params: { direction: 'out' }, labels: ['Y'] }],
  ['in A', { kind: 'port', params: { direction: 'in' }, labels: ['A'] }],
  ['pull-down', { kind: 'pull', params: { to: 'down' }, labels: [''] }],
  ['pull-up', { kind: 'pull', params: { to: 'up' }, labels: [''] }],
  ['1', { kind: 'constant', params: { value: 1 }, labels: [''] }],
  ['5V', { kind: 'constant', params: { value: 1 }, labels: [''] }],
  ['rom 4x8', { kind: 'rom', params: { address: 4, width: 8 }, labels: [''] }],
  ['ram 16x4', { kind: 'ram', params: { address: 4, width: 4 }, labels: [''] }],
  ['full adder', { kind: 'adder', params: { width: 1 }, labels: [''] }],
  ['lamp Gate', { kind: 'lamp', params: {}, labels: ['Gate'] }],
  ['switch called Key', { kind: 'switch', params: {}, labels: ['Key'] }],
  ['two switches Key and Bars', { kind: 'switch', params: {}, labels: ['Key', 'Bars'] }],
  ['inputs A, B and C', { kind: 'switch', params: {}, labels: ['A', 'B', 'C'] }],
  ['switches Key Bars Clear', { kind: 'switch', params: {}, labels: ['Key', 'Bars', 'Clear'] }],
  ['a switch', { kind: 'switch', params: {}, labels: [''] }],
  ['an and gate', { kind: 'and', params: { inputs: 2 }, labels: [''] }],
  ['one lamp Go', { kind: 'lamp', params: {}, labels: ['Go'] }],
  ['clock every 2 seconds', { kind: 'clock', params: { hertz: 0.5 }, labels: [''] }],
  ['net label Bus', { kind: 'label', params: {}, labels: ['Bus'] }],
  ['switch Up and away', { kind: 'switch', params: {}, labels: ['Up and away'] }],
  ['clock with a period of 10 ms Beat', { kind: 'clock', params: { hertz: 100 }, labels: ['Beat'] }],
  ['clock of 5 kHz', { kind: 'clock', params: { hertz: 5000 }, labels: [''] }],
  ['register of 8 bits', { kind: 'register', params: { width: 8 }, labels: [''] }],
  ['bus splitter', { kind: 'slice', params: {}, labels: [''] }],
  ['number display 8 bits', { kind: 'number', params: { width: 8 }, labels: [''] }],
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
  ['and 17', 'AND does not understand “17”: inputs from 2 to 16.'],
  ['nand 40bit', 'NAND does not understand “40”: bits from 1 to 32.'],
  ['sw 99', 'Switch does not understand “99”: bits from 1 to 32.'],
  ['sw A[99:0]', 'Switch does not understand “100”: bits from 1 to 32.'],
  ['mux 3', 'Multiplexer does not understand “3”: choices are 2, 4, 8 or 16.'],
  ['join 40', 'Join does not understand “40”: wires from 2 to 32.'],
  ['decoder 6', 'Decoder does not understand “6”: select bits from 1 to 5.'],
  ['counter mod 1', 'Counter does not understand “mod 1”: states from 2 to 2147483648.'],
  ['2 to 5 decoder', 'Decoder does not understand “2 to 5”: 2 bits are for 4 lines.'],
  ['rom 20x4', 'ROM does not understand “20x4”: words are a power of two, 1024 at most.'],
  ['99 lamps', '32 parts are placed at once, not 99.'],
  ['4 lamps A, B', '4 parts are asked for, and 2 named.'],
  [
    'ring counter',
    'No part is called “ring counter”: a shift register whose last bit leads back to its input.',
  ],
  ['twisted counter', 'No part is called “twisted counter”; do you mean Counter?'],
  ['nor latch', 'No part is called “nor latch”: type Q = nor(R, P), then P = nor(S, Q).'],
  ['motor', 'No part is called “motor”: a lamp shows when it would turn.'],
  ['delay', 'No part is called “delay”: each gate has a delay of its own, in its settings.'],
  ['wire', 'No part is called “wire”: a wire is dragged from one pin to another.'],
  ['half adder', 'No part is called “half adder”: type S = A xor B, then C = A and B.'],
  ['clock -3', 'Clock does not understand “-3”.'],
  ['dec 9', 'No part is called “dec 9”; do you mean Decoder?'],
  ['nor purple', 'NOR does not understand “purple”.'],
  ['clock 900 GHz', 'Clock: a clock has at most 1 GHz.'],
  [`sw ${'n'.repeat(41)}`, `The label “${'n'.repeat(20)}…” is longer than 40 letters.`],
])('says what it does not understand: %s', (text, problem) => {
  expect(read(text)).toBe(problem);
});

test('each name of the trade is read, and sets what it says', () => {
  for (const name of TRADE_NAMES) {
    const typed = readTyped(name, all);
    expect([name, typed.ok && typed.value.labels]).toEqual([name, ['']]);
  }
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
