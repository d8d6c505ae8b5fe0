import fc from 'fast-check';
import { emptyLesson, type Lesson } from '../../circuit/lesson';
import { prove } from '../../logic/equivalence/prove-sequences';
import { deriveTable } from '../../logic/table/derive-table';
import { compile } from '../../netlist/compile';
import { machineOf } from '../../states/machine';
import { randomSheet } from '../../testing/random-circuit';
import { counter, product } from '../../testing/verilog-circuits';
import type { Result } from '../../values/result';
import { readVerilog } from '../verilog/read';
import { readAiger, writeAiger } from './aiger';
import { readBlif, writeBlif } from './blif';
import { readKiss, writeKiss } from './kiss';
import { readPla, writePla } from './pla';

const RUNS = Number(process.env.ROUND_TRIPS ?? 60);

const netlistOf = ({ sheets }: Lesson) => compile(sheets[0]!, sheets);
const must = <T>(made: Result<T>): T => {
  if (!made.ok) throw new Error(made.problem.message);
  return made.value;
};
const text = (lines: Result<string[]>) => `${must(lines).join('\n')}\n`;

/** Each format that holds a circuit without storage, as text and back. */
const COMBINATIONAL: Readonly<Record<string, (lesson: Lesson) => Lesson>> = {
  BLIF: (lesson) => must(readBlif(text(writeBlif(netlistOf(lesson), 'random', 0)), 'B', false)),
  AIGER: (lesson) => must(readAiger(text(writeAiger(netlistOf(lesson), false, 0)), 'A', false)),
  'binary AIGER': (lesson) => must(readAiger(text(writeAiger(netlistOf(lesson), true, 0)), 'A', false)),
  PLA: (lesson) => must(readPla(text(writePla(deriveTable(netlistOf(lesson)))), 'P', false)),
};

const same = (a: Lesson, b: Lesson) =>
  expect(must(prove(netlistOf(a), netlistOf(b)))).toMatchObject({ verdict: 'equivalent' });

test.each(Object.entries(COMBINATIONAL))('%s holds what gates do, whatever they are', (_, through) => {
  fc.assert(
    fc.property(randomSheet({ inputs: 5, gates: 14 }), (sheet) => {
      const lesson = { ...emptyLesson('random', 'Random'), sheets: [sheet] };
      same(lesson, through(lesson));
    }),
    { numRuns: RUNS },
  );
});

test('storage with its clock and its first values goes through BLIF and AIGER', () => {
  const lesson = must(readVerilog(counter(4, 'add'), 'Counter'));
  same(lesson, must(readBlif(text(writeBlif(netlistOf(lesson), 'counter', 0)), 'B', false)));
  for (const isBinary of [false, true]) {
    const back = must(readAiger(text(writeAiger(netlistOf(lesson), isBinary, 0)), 'A', false));
    expect(netlistOf(back).storage).toHaveLength(4);
    const again = text(writeAiger(netlistOf(back), isBinary, 0));
    same(back, must(readAiger(again, 'A', false)));
  }
});

test('large circuits are written in one format, read in another, and proved the same', () => {
  const lesson = must(readVerilog(product(8, 'a'), 'Product'));
  const blif = must(readBlif(text(writeBlif(netlistOf(lesson), 'product', 0)), 'B', false));
  same(blif, must(readAiger(text(writeAiger(netlistOf(lesson), true, 0)), 'A', false)));
});

test('a state table keeps its states and what they give', () => {
  const detector = `.i 1
.o 1
.r idle
0 idle idle 0
1 idle one  0
0 one  two  0
1 one  one  0
0 two  idle 0
1 two  one  1
.e
`;
  const lesson = must(readKiss(detector, 'Detector', false));
  const machine = must(machineOf(netlistOf(lesson)));
  expect([machine.states.filter((s) => s.reachable).length, machine.isMoore]).toEqual([3, false]);
  const again = must(readKiss(text(writeKiss(machine)), 'Again', false));
  const second = must(machineOf(netlistOf(again)));
  expect(second.transitions.map((t) => t.outputs)).toEqual(machine.transitions.map((t) => t.outputs));
});

test('models inside of models, tables of zeros, lines that go on', () => {
  const blif = `.model top
.inputs a b \\
  c
.outputs y z
.subckt inner p=a q=b r=t
.names t c y
11 1
.names a b c z
111 0
000 0
.end
.model inner
.inputs p q
.outputs r
.names p q r
10 1
01 1
.end
`;
  const lesson = must(readBlif(blif, 'Top'));
  expect(lesson.sheets.map((s) => s.name)).toEqual(['top', 'inner']);
  const table = deriveTable(netlistOf(lesson));
  expect(table.ones.map((ones) => ones[0]! & 255)).toEqual([0b00101000, 0b01111110]);
});

test.each<[string, () => Result<unknown>, RegExp]>([
  [
    'a row of another width',
    () => readBlif('.model m\n.inputs a b\n.outputs y\n.names a b y\n1 1\n.end', 'm'),
    /line 5: a row of 2 signs/,
  ],
  [
    'a model that is not there',
    () => readBlif('.model m\n.inputs a\n.outputs y\n.subckt k x=a\n.end', 'm'),
    /line 4: there is no model k/,
  ],
  ['a library gate', () => readBlif('.model m\n.gate nand2 A=a', 'm'), /line 2: .gate needs a library/],
  [
    'a latch of a level',
    () => readBlif('.model m\n.inputs d g\n.outputs q\n.latch d q ah g 0\n.end', 'm'),
    /line 4: a latch of type ah/,
  ],
  ['no graph', () => readAiger('module', 'm'), /line 1: aag or aig and five numbers/],
  ['a graph cut short', () => readAiger('aig 3 2 0 1 1\n6\n', 'm'), /the file ends within its ANDs/],
  [
    'a literal outside',
    () => readAiger('aag 1 1 0 1 0\n2\n9\n', 'm'),
    /the literal 9 lies outside of 0 to 3/,
  ],
  ['rows before their widths', () => readPla('01 1\n', 'm'), /line 1: .i and .o are expected before/],
  [
    'states that are missing',
    () => readKiss('.i 1\n.o 1\n0 a 1\n', 'm'),
    /line 3: 1 signs 0, 1 or -, two states/,
  ],
])('%s is told with its place', (_, read, reason) => {
  const made = read();
  expect(made.ok ? '' : made.problem.message).toMatch(reason);
});

test('what a format cannot hold is refused by name', () => {
  const tri = must(readVerilog('module t(input a, e, output y); bufif1(y, a, e); endmodule', 'Tri'));
  expect(writeBlif(netlistOf(tri), 't', 0)).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('three-state buffers') },
  });
  const latch = must(
    readVerilog('module l(input g, d, output reg q); always @* if (g) q = d; endmodule', 'Latch'),
  );
  expect(writeAiger(netlistOf(latch), false, 0)).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('latches') },
  });
});
