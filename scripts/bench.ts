import { Bench } from 'tinybench';
import { emptyLesson, type Lesson, type Part, type Sheet, type Wire } from '../src/core/circuit/lesson';
import { readLesson, writeLesson } from '../src/core/formats/lesson-file';
import { truthTable } from '../src/core/logic/truth-table';
import { compile } from '../src/core/netlist/compile';
import { defaultParams, findKind } from '../src/core/parts/catalogue';
import { Run } from '../src/core/simulate/run';
import type { Logic } from '../src/core/values/logic';

/*
 * `npm run bench`: medians, each with its ratio to one reference loop in the same process, so that figures from
 * machines of different speed can be compared.
 */

/** Small and repeatable (Marsaglia, 2003, "Xorshift RNGs"). */
function random(seed: number): () => number {
  let s = seed;
  return () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return (s >>> 0) / 2 ** 32;
  };
}

/** A sheet of two-input gates, each reading two of what stands shortly before it; one lamp. */
function gates(inputs: number, count: number): Sheet {
  const next = random(42);
  const parts = new Map<string, Part>();
  const wires = new Map<string, Wire>();
  const add = (id: string, kind: string) =>
    parts.set(id, {
      id,
      kind,
      at: { x: 10 * (parts.size % 100), y: 8 * Math.floor(parts.size / 100) },
      turn: 0,
      label: '',
      rank: parts.size,
      params: defaultParams(findKind(kind)!),
    });
  const join = (from: string, part: string, port: string) => {
    const id = `w${wires.size + 1}`;
    wires.set(id, { id, from: { part: from, port: 'Y' }, to: { part, port }, course: [] });
  };
  const sources: string[] = [];
  for (let i = 0; i < inputs; i++) {
    add(`s${i}`, 'switch');
    sources.push(`s${i}`);
  }
  const kinds = ['and', 'or', 'nand', 'nor', 'xor', 'xnor'];
  for (let g = 0; g < count; g++) {
    const id = `g${g}`;
    add(id, kinds[Math.floor(next() * kinds.length)]!);
    for (const port of ['A', 'B'])
      join(sources[Math.max(0, sources.length - 1 - Math.floor(next() * (inputs + 20)))]!, id, port);
    sources.push(id);
  }
  add('l', 'lamp');
  join(sources.at(-1)!, 'l', 'A');
  return { id: 'sheet1', name: 'Bench', parts, wires };
}

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
  [12, 800],
  [16, 800],
  [20, 800],
] as const) {
  const netlist = compile(gates(inputs, count));
  bench.add(`truth table, ${inputs} inputs, ${count} gates`, () => void truthTable(netlist));
}
const events: { name: string; made: number; ms: number }[] = [];
for (const count of [1000, 10_000]) {
  const netlist = compile(gates(32, count));
  const name = `timed run of 10 random vectors, ${count} gates`;
  bench.add(name, () => {
    const next = random(7);
    const run = new Run(netlist, { delays: 'parts' });
    for (let v = 0; v < 10; v++) {
      run.set(netlist.inputs.map((t) => [t.nets[0]!, (next() < 0.5 ? 0 : 1) as Logic] as const));
      run.advance(run.time + 1e7);
    }
    events.push({ name, made: run.events, ms: 0 });
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
