import fc from 'fast-check';
import { inputAt } from '../logic/table/truth-table';
import { Sketch } from '../testing/sketch';
import { check } from './check';
import { mistakeInWords, whereInWords, wrongInWords } from './wrong-in-words';

const NAMES = ['A', 'B', 'C', 'D'];

/** Whether a row is meant by a clause, read as a person would. */
function isMeant(clause: string, inputs: readonly string[], row: number): boolean {
  const value = (name: string) => inputAt(inputs.length, inputs.indexOf(name), row);
  const ones = inputs.filter((name) => value(name) === 1).length;
  if (clause === 'in every row') return true;
  if (clause === 'where only one input is 1') return ones === 1;
  if (clause === 'where only one input is 0') return ones === inputs.length - 1;
  const just = /^where just (\w+) inputs are 1$/.exec(clause);
  if (just) return ones === ['no', 'one', 'two', 'three', 'four'].indexOf(just[1]!);
  const pair = /^where (\w) and (\w) (differ|are equal)$/.exec(clause);
  if (pair) return (value(pair[1]!) !== value(pair[2]!)) === (pair[3] === 'differ');
  return [...clause.matchAll(/(\w) is ([01])/g)].every(([, name, bit]) => value(name!) === Number(bit));
}

test('a clause is said of just the rows that are meant', () => {
  let said = 0;
  fc.assert(
    fc.property(
      fc
        .integer({ min: 1, max: 3 })
        .chain((n) =>
          fc.tuple(
            fc.constant(NAMES.slice(0, n)),
            fc.array(fc.boolean(), { minLength: 2 ** n, maxLength: 2 ** n }),
            fc.array(fc.boolean(), { minLength: 2 ** n, maxLength: 2 ** n }),
          ),
        ),
      ([inputs, rows, counts]) => {
        const clause = whereInWords(inputs, rows, counts);
        if (clause === null) return;
        said++;
        for (const [row, isRow] of rows.entries())
          if (counts[row]) expect([clause, row, isMeant(clause, inputs, row)]).toEqual([clause, row, isRow]);
      },
    ),
    { numRuns: 500 },
  );
  expect(said).toBeGreaterThan(100);
});

test.each([
  [['A', 'B'], '0110', 'where only one input is 1'],
  [['A', 'B'], '1000', 'while A is 0 and B is 0'],
  [['A', 'B', 'C'], '00001100', 'while A is 1 and B is 0'],
  [['A', 'B', 'C'], '00010110', 'where only one input is 0'],
  [['A', 'B', 'C', 'D'], '0001011001101000', 'where just two inputs are 1'],
  [['A', 'B', 'C'], '00111100', 'where A and B differ'],
  [['A', 'B', 'C'], '10100101', 'where A and C are equal'],
  [['A', 'B', 'C'], '01111110', null],
  [['A', 'B'], '0000', null],
])('%j %s: %s', (inputs, rows, clause) => {
  expect(
    whereInWords(
      inputs,
      [...rows].map((row) => row === '1'),
    ),
  ).toBe(clause);
});

test('an OR in place of the AND is told by the rows in which it is wrong', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 10, 'B');
  s.place('or', 12, 4);
  s.place('lamp', 24, 4, 'Carry');
  for (const [from, to] of [
    ['switch1.Y', 'or1.A'],
    ['switch2.Y', 'or1.B'],
    ['or1.Y', 'lamp1.A'],
  ])
    s.wire(from!, to!);
  const wanted = (rows: string) => ({
    kind: 'table' as const,
    inputs: ['A', 'B'],
    outputs: [{ name: 'Carry', rows }],
  });
  const told = (rows: string) => wrongInWords(wanted(rows), check(s.sheet, wanted(rows), new Set(['or'])));
  expect(told('0001')).toEqual(['Your Carry is 1 where only one input is 1.']);
  expect(told('1000')).toEqual(['Your Carry is the OR of A and B.']);
  expect(told('1111')).toEqual(['Your Carry is 0 while A is 0 and B is 0.']);
  expect(told('1101')).toEqual(['Your Carry is the OR of A and B.']);
  expect(told('x111')).toEqual([]);
  expect(wrongInWords(wanted('0001'), check(new Sketch().sheet, wanted('0001'), new Set()))).toEqual([]);
});

test('a mistake is named for a teacher: the gate that stands for another, or where it is wrong', () => {
  const s = new Sketch();
  for (const [i, name] of ['A', 'B'].entries()) s.place('switch', 0, 10 * i, name);
  s.place('or', 12, 4);
  s.place('lamp', 24, 0, 'Carry');
  s.place('lamp', 24, 10, 'Sum');
  for (const [from, to] of [
    ['switch1.Y', 'or1.A'],
    ['switch2.Y', 'or1.B'],
    ['or1.Y', 'lamp1.A'],
    ['switch1.Y', 'lamp2.A'],
  ])
    s.wire(from!, to!);
  const expected = (carry: string, sum: string) => ({
    kind: 'table' as const,
    inputs: ['A', 'B'],
    outputs: [
      { name: 'Carry', rows: carry },
      { name: 'Sum', rows: sum },
    ],
  });
  const told = (carry: string, sum: string) =>
    mistakeInWords(expected(carry, sum), check(s.sheet, expected(carry, sum), new Set(['or'])));
  expect(told('0001', '0011')).toBe('OR for AND in Carry');
  expect(told('0001', '0110')).toBe('OR for AND in Carry and A for XOR in Sum');
  expect(told('0111', '1011')).toBe('A in Sum');
  expect(told('0111', '0011')).toBeNull();
  const less = new Sketch();
  less.place('switch', 0, 0, 'A');
  expect(
    mistakeInWords(expected('0001', '0110'), check(less.sheet, expected('0001', '0110'), new Set())),
  ).toBe('no Carry and no Sum');
});

test('what an output is, or where it is the opposite, is said where its wrong rows have no name', () => {
  const found = (given: string, wanted: string) => {
    const rowIsRight = [...given].map((letter, row) => wanted[row] === 'x' || wanted[row] === letter);
    const expected = {
      kind: 'table' as const,
      inputs: ['Key', 'Bars', 'Clear'],
      outputs: [{ name: 'Drive', rows: wanted }],
    };
    return wrongInWords(expected, { given: [given], rowIsRight } as never);
  };
  expect(found('01111111', '00000001')).toEqual(['Your Drive is the OR of Key, Bars and Clear.']);
  expect(found('00000000', '01101001')).toEqual(['Your Drive is always 0.']);
  expect(found('00001111', '01101001')).toEqual(['Your Drive is just Key.']);
  expect(found('01100110', '10011001')).toEqual([
    'Your Drive is the opposite of what it should be in every row.',
  ]);
});

test('for a teacher it is said how an output comes of the wanted one', () => {
  const inputs = ['A', 'B', 'S'];
  const found = (given: string, wanted: string) => {
    const rowIsRight = [...given].map((letter, row) => wanted[row] === 'x' || wanted[row] === letter);
    const expected = { kind: 'table' as const, inputs, outputs: [{ name: 'Y', rows: wanted }] };
    return mistakeInWords(expected, { given: [given], rowIsRight } as never);
  };
  // A where S is 0, B where it is 1.
  const selector = '00011011';
  expect(found('00100111', selector)).toBe('A and B exchanged in Y');
  expect(found('11100100', selector)).toBe('all of it inverted in Y');
  expect(found('10110001', selector)).toBe('A inverted in Y');
  expect(found('00000011', selector)).toBe('AND of A and B only in Y');
  expect(found('0010x111'.replace('x', '0'), 'x0011011')).toBe('A and B exchanged in Y');
});

test('a circuit that gives no values says why, and a missing output that it is missing', () => {
  const expected = { kind: 'table' as const, inputs: ['A'], outputs: [{ name: 'Y', rows: '01' }] };
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('lamp', 30, 0, 'Y');
  s.place('nor', 10, 0);
  s.place('nor', 10, 12);
  s.wire('switch1.Y', 'nor1.A');
  s.wire('nor2.Y', 'nor1.B');
  s.wire('nor1.Y', 'nor2.A');
  s.wire('switch1.Y', 'nor2.B');
  s.wire('nor1.Y', 'lamp1.A');
  const told = (sketch: Sketch) => mistakeInWords(expected, check(sketch.sheet, expected, new Set(['nor'])));
  expect(told(s)).toBe('a signal runs in a loop here');
  const less = new Sketch();
  less.place('switch', 0, 0, 'A');
  expect(told(less)).toBe('no Y');
});
