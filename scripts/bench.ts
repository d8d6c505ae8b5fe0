import '../src/core/simulate/with-kernel';
import { Bench } from 'tinybench';
import { emptyLesson, type Lesson } from '../src/core/circuit/lesson';
import type { Sheet } from '../src/core/circuit/sheet';
import { layOut } from '../src/core/drawing/layout/lay-out';
import { readLesson } from '../src/core/formats/lesson-file';
import { readVerilog } from '../src/core/formats/verilog/read';
import { writeVerilog } from '../src/core/formats/verilog/write';
import { writeLesson } from '../src/core/formats/write-lesson';
import { prove } from '../src/core/logic/equivalence/prove-sequences';
import { minimise } from '../src/core/logic/minimise/minimise';
import { countTable, deriveTable, tablePieces } from '../src/core/logic/table/derive-table';
import { compile } from '../src/core/netlist/compile';
import { Run } from '../src/core/simulate/run';
import { counterOf } from '../src/core/synthesis/counter';
import { adder, carrySave, counter, prefixAdder, product } from '../src/core/testing/verilog-circuits';
import type { Logic } from '../src/core/values/logic';
import { gates, multiplier, random } from './bench-circuits';

/*
 * `npm run bench`: medians, each with its ratio to one reference loop in the same process, so that figures from
 * machines of different speed can be compared.
 */

const lessonOf = (sheet: Sheet): Lesson => ({ ...emptyLesson('bench-lesson', 'Bench'), sheets: [sheet] });

const bench = new Bench({ time: 200, iterations: 5, warmupTime: 50, warmupIterations: 1 });
const numbers = Float64Array.from({ length: 1_000_000 }, (_, i) => i);
const REFERENCE = 'reference: sum of a million numbers';
bench.add(REFERENCE, () => {
  let sum = 0;
  for (const n of numbers) sum += n;
  if (sum < 0) throw new Error('impossible');
});

for (const count of [100, 1000, 10_000, 100_000]) {
  const sheet = gates(16, count);
  bench.add(`compile anew, ${count} gates`, () => {
    const parts = new Map([...sheet.parts].map(([id, part]) => [id, { ...part }]));
    compile({ ...sheet, parts });
  });
  bench.add(`compile after an edit, ${count} gates`, () => void compile({ ...sheet }));
}
for (const count of [1000, 10_000]) {
  const lesson = lessonOf(gates(16, count));
  const text = writeLesson(lesson);
  bench.add(`write lesson file, ${count} gates`, () => void writeLesson(lesson));
  bench.add(`read lesson file, ${count} gates`, () => {
    if (!readLesson(text).ok) throw new Error('not read');
  });
}
for (const [inputs, count] of [
  [16, 100],
  [16, 1000],
  [16, 10_000],
  [16, 100_000],
  [20, 800],
  [24, 800],
] as const) {
  const netlist = compile(gates(inputs, count));
  const name = `truth table, ${inputs} inputs, ${count} gates`;
  if (inputs < 24) {
    bench.add(name, () => void deriveTable(netlist));
    continue;
  }
  // Each table of this size has 16 MB of its own, and to let them go takes longer than to derive them.
  bench.add(`${name}, piece by piece`, () => {
    for (const _ of tablePieces(netlist));
  });
}
{
  const read = readVerilog(product(12, 'a'), 'Bench');
  if (!read.ok) throw new Error(read.problem.message);
  const netlist = compile(read.value.sheets[0]!, read.value.sheets);
  bench.add('ones of a 12x12 multiplier, 24 inputs, counted', () => void countTable(netlist));
  bench.add('the same, every row evaluated, piece by piece', () => {
    for (const _ of tablePieces(netlist));
  });
}
for (const count of [1000, 10_000]) {
  const lesson = lessonOf(gates(16, count));
  const text = writeVerilog(lesson, lesson.sheets[0]!);
  bench.add(`write Verilog, ${count} gates`, () => void writeVerilog(lesson, { ...lesson.sheets[0]! }));
  bench.add(`read Verilog, ${count} gates`, () => {
    if (!readVerilog(text, 'Bench').ok) throw new Error('not read');
  });
}
{
  const next = random(11);
  for (const inputs of [6, 8, 10, 12, 16]) {
    const rows = Uint8Array.from({ length: 2 ** inputs }, () => (next() < 0.5 ? 1 : 0));
    bench.add(`smallest sum of products, ${inputs} inputs, random`, () => void minimise({ inputs, rows }));
  }
}
for (const count of [100, 300, 1000, 3000]) {
  const sheet = gates(16, count);
  bench.add(`lay out, ${count} gates`, () => void layOut(sheet));
}
{
  const next = random(3);
  const cycle = Array.from({ length: 256 }, (_, i) => i);
  for (let i = 255; i > 0; i--) {
    const j = Math.floor(next() * (i + 1));
    [cycle[i], cycle[j]] = [cycle[j]!, cycle[i]!];
  }
  for (const kind of ['dff', 'jkff'] as const)
    bench.add(
      `draw a counter of 8 bits in any order, ${kind}`,
      () => void counterOf({ cycle, kind, unused: 'either' }),
    );
}
for (const [name, a, b] of [
  ['16-bit adders, ripple against NAND only', adder(16, 'gates'), adder(16, 'nand')],
  ['32-bit adders, ripple against NAND only', adder(32, 'gates'), adder(32, 'nand')],
  ['16x16 multipliers, plain gates against NAND only', product(16, 'a'), product(16, 'a', 'nand')],
  ['16x16 multipliers, rows one after the other against carries kept', product(16, 'a'), carrySave(16)],
  ['32x32 multipliers, rows one after the other against carries kept', product(32, 'a'), carrySave(32)],
  ['128-bit adders, ripple against prefix', adder(128, 'gates'), prefixAdder(128)],
  ['8x8 multipliers, rows of the one number against rows of the other', product(8, 'a'), product(8, 'b')],
  ['12-bit counters, toggling against adding one', counter(12, 'toggle'), counter(12, 'add')],
] as const) {
  const [first, second] = [a, b].map((text) => {
    const read = readVerilog(text, 'Bench');
    if (!read.ok) throw new Error(read.problem.message);
    return compile(read.value.sheets[0]!, read.value.sheets);
  });
  bench.add(`prove the same: ${name}`, () => {
    const made = prove(first!, second!);
    if (!made.ok || made.value.verdict !== 'equivalent') throw new Error('not proved');
  });
}
const events: { name: string; made: number }[] = [];
const runs: [name: string, sheet: Sheet][] = [
  ['16x16 array multiplier', multiplier(16)],
  ['16x16 array multiplier, no trace kept', multiplier(16)],
  ['100 gates', gates(32, 100)],
  ['1000 gates', gates(32, 1000)],
  ['10000 gates', gates(32, 10_000)],
  ['100000 gates', gates(32, 100_000)],
];
for (const [circuit, sheet] of runs) {
  const netlist = compile(sheet);
  const vectors = circuit.includes('multiplier') ? 200 : circuit.startsWith('100000') ? 2 : 10;
  const name = `timed run of ${vectors} random vectors, ${circuit}`;
  bench.add(name, () => {
    const next = random(7);
    const run = new Run(netlist, {
      delays: 'parts',
      mostChanges: circuit.includes('no trace') ? 0 : undefined,
    });
    for (let v = 0; v < vectors; v++) {
      run.set(netlist.inputs.map((t) => [t.nets[0]!, (next() < 0.5 ? 0 : 1) as Logic] as const));
      run.advance(run.time + 1e7);
    }
    events.push({ name, made: run.events });
  });
}

await bench.run();
const medianOf = (name: string) => {
  const task = bench.tasks.find((t) => t.name === name)!;
  const { result } = task;
  if (!('latency' in result)) throw new Error(`${name} did not run: ${JSON.stringify(result)}`);
  return result.latency.p50;
};
const reference = medianOf(REFERENCE);
console.log('| work | median ms | times the reference |\n|---|--:|--:|');
for (const { name } of bench.tasks) {
  const ms = medianOf(name);
  const made = events.find((e) => e.name === name)?.made;
  const rate = made ? ` (${(made / ms / 1000).toFixed(1)} million events a second)` : '';
  console.log(`| ${name}${rate} | ${ms.toFixed(3)} | ${(ms / reference).toFixed(2)} |`);
}
