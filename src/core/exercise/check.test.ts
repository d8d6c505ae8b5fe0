import fc from 'fast-check';
import { remove } from '../drawing/editing/gestures';
import { randomSheet } from '../testing/random-circuit';
import { interlock, Sketch } from '../testing/sketch';
import { check, wrongRowsText } from './check';
import { table } from './expected/table';
import {
  cellTurned,
  type ExpectedTable,
  namesIn,
  tableOfFormulas,
  tableOfNames,
  tableOfSheet,
} from './expected/table/expected-table';

const expected: ExpectedTable = {
  kind: 'table',
  inputs: ['Key', 'Bars', 'Clear'],
  outputs: [
    { name: 'Drive', rows: '00000001' },
    { name: 'Warn', rows: '00001100' },
  ],
};
const allowed = new Set(['and', 'not']);

test('the right circuit is right in every row', () => {
  expect(check(interlock().sheet, expected, allowed)).toMatchObject({
    right: 8,
    rows: 8,
    complaints: [],
    solved: true,
  });
});

test('names are matched whatever the order, the case and blanks around them', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'bars ');
  s.place('switch', 0, 8, 'KEY');
  s.place('lamp', 20, 0, 'y');
  s.wire('switch2.Y', 'lamp1.A');
  const other: ExpectedTable = {
    kind: 'table',
    inputs: ['Key', 'Bars'],
    outputs: [{ name: 'Y', rows: '0011' }],
  };
  expect(check(s.sheet, other, allowed)).toMatchObject({ right: 4, given: ['0011'], complaints: [] });
});

test('a wrong row is told from the right ones, and x takes either', () => {
  const wrong = { ...expected, outputs: [{ name: 'Drive', rows: '0000001x' }, expected.outputs[1]!] };
  const result = check(interlock().sheet, wrong, allowed);
  expect(wrongRowsText(result, 'row')).toBe('row 6 (Drive)');
  expect(result.right).toBe(7);
  expect(result.rowIsRight.indexOf(false)).toBe(6);
  expect(result.solved).toBe(false);
});

test('a forbidden part, a missing input, an unknown name and a loose pin are complained about', () => {
  const s = interlock();
  expect(check(s.sheet, expected, new Set(['and'])).complaints).toEqual([
    'NOT is not allowed in this task, and 1 of it is used.',
  ]);
  s.make(remove(s.sheet, new Set(['switch3']), new Set()));
  const result = check(s.sheet, expected, allowed);
  expect(result.complaints).toContain('The input “Clear” is missing.');
  expect(result.complaints.join()).toContain('Input C of AND 1 is open');
  expect(result.right).toBe(0);
  s.place('switch', 60, 60, 'Extra');
  expect(check(s.sheet, expected, allowed).complaints).toContain('The task has no input called “Extra”.');
});

test('a lamp that shows something on the way is no complaint', () => {
  const s = interlock();
  s.place('lamp', 60, 60, 'Extra');
  s.wire('and1.Y', 'lamp3.A');
  expect(check(s.sheet, expected, allowed)).toMatchObject({ solved: true, complaints: [] });
});

test('an empty sheet has no right row, and says what is missing', () => {
  const result = check(new Sketch().sheet, expected, allowed);
  expect(result.right).toBe(0);
  expect(result.complaints).toHaveLength(5);
  expect(result.given).toEqual(['--------', '--------']);
});

test('a circuit with storage or with a loop is not held to be right', () => {
  const s = interlock();
  s.place('dff', 60, 0);
  expect(check(s.sheet, expected, allowed)).toMatchObject({ right: 0, solved: false });
});

test('every sheet solves the exercise that is made of it', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 15 }), (sheet) => {
      const made = tableOfSheet(sheet);
      if (!made.ok) throw new Error(made.problem.message);
      const result = check(sheet, made.value, new Set());
      expect(result.right).toBe(result.rows);
    }),
    { numRuns: 80 },
  );
});

describe('a function that is typed in', () => {
  test('starts at 0 and its cells turn 0, 1, x', () => {
    const made = tableOfNames(['A', 'B'], ['Y']);
    if (!made.ok) throw new Error(made.problem.message);
    let w = made.value;
    const seen = [1, 2, 3].map(() => {
      w = cellTurned(w, 0, 2);
      return w.outputs[0]!.rows;
    });
    expect(seen).toEqual(['0010', '00x0', '0000']);
  });

  test('keeps what was filled in when an input or an output is added or goes', () => {
    const old: ExpectedTable = { kind: 'table', inputs: ['A', 'B'], outputs: [{ name: 'Y', rows: '0110' }] };
    const more = tableOfNames(['A', 'B', 'C'], ['Y', 'Z'], old);
    expect(more).toEqual({
      ok: true,
      value: {
        kind: 'table',
        inputs: ['A', 'B', 'C'],
        outputs: [
          { name: 'Y', rows: '00111100' },
          { name: 'Z', rows: '00000000' },
        ],
      },
    });
    const back = more.ok && tableOfNames(['A', 'B'], ['Y'], more.value);
    expect(back).toEqual({ ok: true, value: old });
  });

  test.each([
    [['A', 'A'], ['Y'], 'the name A stands twice'],
    [['A'], ['A'], 'the name A stands twice'],
    [[], ['Y'], 'at least one input is needed'],
    [['A'], [], 'at least one output is needed'],
    [Array.from({ length: 13 }, (_, i) => `I${i}`), ['Y'], 'an expected table has at most 12 inputs'],
    [['n'.repeat(41)], ['Y'], 'a name is longer than 40 letters'],
  ])('is refused in words: %j', (inputs, outputs, problem) => {
    expect(tableOfNames(inputs, outputs)).toMatchObject({ ok: false, problem: { message: problem } });
  });

  test('names come from one line with commas', () => {
    expect(namesIn(' Key, Bars ,,Clear,')).toEqual(['Key', 'Bars', 'Clear']);
  });
});

test('a sheet without outputs, or with storage, gives no expected table but a reason', () => {
  const s = new Sketch();
  s.place('switch', 0, 0);
  expect(tableOfSheet(s.sheet)).toMatchObject({
    ok: false,
    problem: { message: 'there is no output yet: place a lamp' },
  });
});

test('typed formulas say a table, and are refused with what is missing in them', () => {
  const made = tableOfFormulas('Sum = A ⊕ B\nCarry = A B');
  expect(made).toMatchObject({
    value: {
      inputs: ['A', 'B'],
      outputs: [
        { name: 'Sum', rows: '0110' },
        { name: 'Carry', rows: '0001' },
      ],
    },
  });
  expect(tableOfFormulas('Key ∧ Bars')).toMatchObject({ value: { outputs: [{ name: 'Y', rows: '0001' }] } });
  const problem = (text: string) => {
    const read = tableOfFormulas(text);
    return read.ok ? null : read.problem.message;
  };
  expect(problem('')).toContain('write a formula');
  expect(problem('Y = 1')).toContain('the name of an input');
  expect(problem('A B\nA + B')).toContain('each needs a name');
  expect(problem('Sum = A B\nCarry = Sum A')).toContain('Sum is an output');
  expect(problem('Sum = A (B')).not.toBeNull();
});

test('bits that stand one after another down to bit 0 are placed as one bus', () => {
  const rows = '0'.repeat(2 ** 6);
  const inputs = ['Key', 'A[2]', 'A[1]', 'A[0]', 'B[1]', 'C[0]'];
  const outputs = ['Y[1]', 'Y[0]', 'Z[0]', 'Q'].map((name) => ({ name, rows }));
  const { inputs: placed, outputs: shown } = table.signals({ kind: 'table', inputs, outputs });
  expect(placed.map(({ name, width }) => [name, width])).toEqual([
    ['Key', 1],
    ['A', 3],
    ['B[1]', 1],
    ['C[0]', 1],
  ]);
  expect(shown.map(({ name, width }) => [name, width])).toEqual([
    ['Y', 2],
    ['Z[0]', 1],
    ['Q', 1],
  ]);
});
