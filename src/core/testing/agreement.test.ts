import fc from 'fast-check';
import type { Lesson } from '../circuit/lesson';
import type { Delays } from '../circuit/time-setup';
import { readLesson } from '../formats/lesson-file';
import { readVerilog } from '../formats/verilog/read';
import { writeVerilog } from '../formats/verilog/write';
import { writeLesson } from '../formats/write-lesson';
import { deriveTable } from '../logic/table/derive-table';
import { stateTable } from '../logic/table/state-table';
import { cell, inputAt, truthTable, whyNoTable } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import type { Logic } from '../values/logic';
import { type DesignWishes, randomDesign } from './random-design';
import { Rig } from './rig';

/** Random circuits of each sort. */
const RUNS = Number(process.env.AGREEMENT_RUNS ?? 30);

const rigOf = (lesson: Lesson, delays: Delays = 'zero') =>
  new Rig(lesson.sheets[0]!, { delays }, lesson.sheets);

function throughVerilog(lesson: Lesson): Lesson {
  const text = writeVerilog(lesson, lesson.sheets[0]!);
  const read = readVerilog(text, 'Random', { module: 'top' });
  if (!read.ok) throw new Error(`${read.problem.message}\n${text}`);
  return read.value;
}

function throughFile(lesson: Lesson): Lesson {
  const read = readLesson(writeLesson(lesson));
  if (!read.ok) throw new Error(read.problem.message);
  return read.value;
}

const WISHES: Record<string, DesignWishes> = {
  'combinational, with buses': { storage: false, loops: false, blocks: false },
  'with blocks': { storage: false, loops: false, blocks: true },
  'with storage': { storage: true, loops: false, blocks: true },
  'with loops': { storage: true, loops: true, blocks: true },
};

const step = fc.record({ input: fc.nat(), value: fc.nat(15) });

describe.each(Object.entries(WISHES))('random circuits %s', (_, wishes) => {
  test('answer alike settled, timed at rest, and after a trip through Verilog and the lesson file', () => {
    fc.assert(
      fc.property(randomDesign(wishes), fc.array(step, { minLength: 1, maxLength: 25 }), (lesson, steps) => {
        const settled = rigOf(lesson);
        const others = {
          unit: rigOf(lesson, 'unit'),
          timed: rigOf(lesson, 'parts'),
          verilog: rigOf(throughVerilog(lesson)),
          file: rigOf(throughFile(lesson)),
        };
        const { inputs, outputs } = settled.netlist;
        expect(settled.netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
        for (const { input, value } of steps) {
          const terminal = inputs[input % inputs.length]!;
          const change = { [terminal.name]: value % 2 ** terminal.nets.length };
          settled.set(change);
          const right = outputs.map((o) => settled.word(o.name));
          for (const [name, rig] of Object.entries(others)) {
            rig.set(change);
            rig.run.advance(rig.run.time + 1e9);
            expect([name, ...outputs.map((o) => rig.word(o.name))]).toEqual([name, ...right]);
          }
        }
      }),
      { numRuns: RUNS },
    );
  });
});

test('the tables of random circuits are what the settled engine gives, row by row, in both ways', () => {
  fc.assert(
    fc.property(randomDesign({ storage: false, loops: false, blocks: true }), (lesson) => {
      const netlist = compile(lesson.sheets[0]!, lesson.sheets);
      expect(whyNoTable(netlist)).toBeNull();
      const tables = [truthTable(netlist), deriveTable(netlist, { by: 'wasm' })];
      const count = netlist.inputColumns.length;
      const run = new Run(netlist, { delays: 'zero' });
      for (let row = 0; row < 2 ** count; row += 7) {
        run.set(netlist.inputColumns.map((c, i) => [c.nets[0], inputAt(count, i, row)] as const));
        for (const [o, c] of netlist.outputColumns.entries())
          for (const table of tables) expect(cell(table, o, row)).toBe(run.values[c.nets[0]]);
      }
    }),
    { numRuns: 12 },
  );
});

test('the state table of random circuits is what a clock edge does', () => {
  fc.assert(
    fc.property(randomDesign({ storage: true, loops: false, blocks: false }, 5), fc.nat(), (lesson, seed) => {
      const netlist = compile(lesson.sheets[0]!, lesson.sheets);
      const made = stateTable(netlist);
      if (!made.ok) {
        expect(made.problem.message).toMatch(/give too many rows/);
        return;
      }
      const { inputs, outputs, rows } = made.value;
      const row = seed % rows;
      const run = new Run(netlist, { delays: 'zero' });
      const value = (name: string) => inputAt(inputs.length, inputs.indexOf(name), row) as Logic;
      // Columns are named after the parts; held values go by the storage's own names.
      run.putState(
        new Map(
          [...run.held().keys()].map((key) => {
            const column = key.endsWith('.Q') ? key.slice(0, -2) : key.replace(/\.Q(\d+)$/, '[$1]');
            return [key, value(column)];
          }),
        ),
      );
      const clk = netlist.inputColumns.find((c) => c.name === 'clk')!;
      run.set(
        netlist.inputColumns
          .filter((c) => c !== clk && inputs.includes(c.name))
          .map((c) => [c.nets[0], value(c.name)]),
      );
      for (const c of netlist.outputColumns)
        expect(cell(made.value, outputs.indexOf(c.name), row)).toBe(run.values[c.nets[0]]);
      run.set([[clk.nets[0], 1]]);
      for (const [key, after] of run.held()) {
        const column = key.endsWith('.Q') ? key.slice(0, -2) : key.replace(/\.Q(\d+)$/, '[$1]');
        expect(cell(made.value, outputs.indexOf(`${column}+`), row)).toBe(after);
      }
    }),
    { numRuns: RUNS },
  );
});
