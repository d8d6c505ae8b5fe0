import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import { Run } from '../../simulate/run';
import { Sketch } from '../../testing/sketch';
import { counter } from '../../testing/verilog-circuits';
import { expectDone, sentence } from '../../values/result';
import { Stepper, stateTable } from './state-table';
import { cell, inputAt, type TruthTable } from './truth-table';

/** A table's rows as letters: the heading, then the rows. */
function rowsOf(table: TruthTable): string[] {
  const width = table.inputs.length;
  return Array.from({ length: table.rows }, (_, row) => {
    const over = row.toString(2).padStart(width, '0');
    return `${over} ${table.outputs.map((_, o) => '01XZ'[cell(table, o, row)]).join('')}`;
  });
}

/** One flip-flop with a switch at each of its inputs, clocked by a switch, and a lamp. */
function alone(kind: string, inputs: readonly string[], params: Record<string, string> = {}): TruthTable {
  const s = new Sketch();
  s.place(kind, 20, 0, 'Q', params);
  for (const [i, port] of [...inputs, 'C'].entries()) {
    s.place('switch', 0, 6 * i, port);
    s.wire(`switch${i + 1}.Y`, `${kind}1.${port}`);
  }
  s.place('lamp', 40, 0, 'Shown');
  s.wire(`${kind}1.Q`, 'lamp1.A');
  const made = stateTable(compile(s.sheet));
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
}

test.each([
  ['dff', ['D'], ['00 00', '01 10', '10 01', '11 11']],
  ['tff', ['T'], ['00 00', '01 10', '10 11', '11 01']],
  ['jkff', ['J', 'K'], ['000 00', '001 00', '010 10', '011 10', '100 11', '101 01', '110 11', '111 01']],
])(
  'the characteristic table of one %s: state and inputs, next state and what is shown',
  (kind, inputs, rows) => {
    const table = alone(kind, inputs);
    // The flip-flop goes by its place on the sheet here; faces call it by its label.
    expect(table.inputs).toEqual([`${kind}1`, ...inputs]);
    expect(table.outputs).toEqual([`${kind}1+`, 'Shown']);
    expect(rowsOf(table)).toEqual(rows);
    // On the other edge it does the same.
    expect(rowsOf(alone(kind, inputs, { edge: 'falling' }))).toEqual(rows);
  },
);

const verilog = (text: string) => {
  const read = readVerilog(text, 'test');
  if (!read.ok) throw new Error(read.problem.message);
  return compile(read.value.sheets[0]!, read.value.sheets);
};

test('a counter goes on by one where it is enabled, and stays where it is not', () => {
  const made = stateTable(verilog(counter(3, 'toggle')));
  if (!made.ok) throw new Error(made.problem.message);
  const { value: table } = made;
  // The stages stand in the table as they stand on the sheet: the lowest bit first.
  const state = (bit: (stage: number) => number) => bit(0) + 2 * bit(1) + 4 * bit(2);
  for (let row = 0; row < table.rows; row++) {
    const now = state((i) => inputAt(4, i, row));
    const next = state((i) => cell(table, i, row));
    expect([row, next]).toEqual([row, (now + inputAt(4, 3, row)) % 8]);
  }
});

test('several clocks, both edges, and too much to go through are said', () => {
  const problem = (text: string) => {
    const made = stateTable(verilog(text));
    return made.ok ? 'made' : sentence(made.problem);
  };
  const two = (first: string, second: string) =>
    `module m(input c, d, x, output reg p, q); always @(${first}) p <= x; always @(${second}) q <= x; endmodule`;
  expect(problem(two('posedge c', 'posedge d'))).toMatch(/several clocks/);
  expect(problem(two('posedge c', 'negedge c'))).toMatch(/rising edge and some on the falling edge/);
  expect(problem(counter(17, 'toggle'))).toBe(
    '17 bits of state and 1 inputs give too many rows: 16 together are the most.',
  );
});

test('a step leaves nothing behind for the next one', () => {
  const made = Stepper.of(verilog(counter(2, 'add')));
  if (!made.ok) throw new Error(made.problem.message);
  const stepper = made.value;
  expect(stepper.powerUp()).toEqual([0, 0]);
  const first = stepper.step([0, 1], [1]);
  stepper.step([1, 1], [1]);
  stepper.step([1, 0], [0]);
  expect(stepper.step([0, 1], [1])).toEqual(first);
  // From 2, lowest bit first, to 3.
  expect(first.next).toEqual([1, 1]);
});

test('a clock input that is open has no edges: there is no table that says 0 to 0', () => {
  const s = new Sketch();
  s.place('jkff', 0, 0, 'Q');
  s.place('switch', -20, 0, 'J');
  s.place('lamp', 20, 0, 'L');
  s.wire('switch1.Y', 'jkff1.J');
  s.wire('jkff1.Q', 'lamp1.A');
  const open = compile(s.sheet);
  expect(stateTable(open)).toMatchObject({ ok: false, problem: { code: 'open-clock' } });
  // Nor does the run invent one when an input is looked at.
  const run = new Run(open, { delays: 'zero' });
  run.set([[open.inputColumns[0]!.nets[0], 1]]);
  expect(run.values[open.outputColumns[0]!.nets[0]]).toBe(0);
  // With a clock and K open the next state is unknown.
  s.place('switch', -20, 10, 'Clk');
  s.wire('switch2.Y', 'jkff1.C');
  const table = expectDone(stateTable(compile(s.sheet)));
  const unknown = table.unknown[table.outputs.indexOf('jkff1+')]!;
  expect(unknown[0]! & 0b1100).toBe(0b1100);
});

test('putting a row of a ripple counter is no edge for its later stages', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Clk');
  for (const [i, label] of ['Q0', 'Q1'].entries()) {
    s.place('tff', 20 + 20 * i, 0, label);
    s.place('constant', 0, 10 + 10 * i, '', { value: 1 });
    s.wire(`constant${i + 1}.Y`, `tff${i + 1}.T`);
  }
  s.wire('switch1.Y', 'tff1.C');
  s.wire("tff1.Q'", 'tff2.C');
  // Columns in the order of the parts: Q0, then Q1.
  expect(rowsOf(expectDone(stateTable(compile(s.sheet))))).toEqual(['00 10', '01 11', '10 01', '11 00']);
});

test('a state that a clear does not let stand goes on at once, whatever the kind of flip-flop', () => {
  for (const kind of ['dff', 'tff']) {
    const [data] = kind === 'dff' ? ['D'] : ['T'];
    expect(rowsOf(alone(kind, [data!, 'CLR'], { clear: 'high' })).slice(4)).toEqual(
      kind === 'dff' ? ['100 01', '101 00', '110 11', '111 00'] : ['100 11', '101 00', '110 01', '111 00'],
    );
  }
});
