import fc from 'fast-check';
import { compile } from '../../netlist/compile';
import { Run } from '../../simulate/run';
import { randomSheet } from '../../testing/random-circuit';
import { interlock, Sketch } from '../../testing/sketch';
import type { Logic } from '../../values/logic';
import { tableLines } from './table-text';
import { cell, countOnes, inputAt, rowOf, truthTable, whyNoTable } from './truth-table';

test('the interlock has the table that its rules say', () => {
  const table = truthTable(compile(interlock().sheet));
  for (let row = 0; row < 8; row++) {
    const [key, bars, clear] = [0, 1, 2].map((i) => inputAt(3, i, row));
    expect(cell(table, 0, row)).toBe(key! & bars! & clear!);
    expect(cell(table, 1, row)).toBe(key! & (1 - bars!));
  }
  expect(table.ones.map(countOnes)).toEqual([1, 2]);
});

test('the bit-parallel table and the engine agree row by row, loose inputs and constants too', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 7, gates: 30 }), fc.nat(), (sheet, cut) => {
      const wires = new Map(sheet.wires);
      wires.delete(`w${1 + (cut % (sheet.wires.size + 5))}`);
      const n = compile({ ...sheet, wires });
      const table = truthTable(n);
      const run = new Run(n, { delays: 'zero' });
      for (let row = 0; row < table.rows; row++) {
        run.set(n.inputs.map((t, i) => [t.nets[0]!, inputAt(n.inputs.length, i, row)] as const));
        for (const [o, t] of n.outputs.entries()) {
          const value = run.values[t.nets[0]!] as Logic;
          expect(cell(table, o, row)).toBe(value);
        }
      }
    }),
    { numRuns: 120 },
  );
});

test('a row number reads the first input as the highest bit', () => {
  expect(rowOf([1, 0, 1])).toBe(5);
  expect([0, 1, 2].map((i) => inputAt(3, i, 5))).toEqual([1, 0, 1]);
});

test('many rows: parity of 14 inputs', () => {
  const s = new Sketch();
  for (let i = 1; i <= 14; i++) s.place('switch', 0, 6 * i);
  s.place('xor', 30, 40, '', { inputs: 14 });
  s.place('lamp', 50, 40);
  for (let i = 1; i <= 14; i++) s.wire(`switch${i}.Y`, `xor1.${String.fromCharCode(64 + i)}`);
  s.wire('xor1.Y', 'lamp1.A');
  const table = truthTable(compile(s.sheet));
  expect(countOnes(table.ones[0]!)).toBe(2 ** 13);
  expect(cell(table, 0, 0b10110000000001)).toBe(0);
});

test('the work can be watched and stopped', () => {
  const n = compile(interlock().sheet);
  expect(() =>
    truthTable(n, () => {
      throw new Error('stopped');
    }),
  ).toThrow('stopped');
});

test('says why there is no table', () => {
  const s = new Sketch();
  expect(whyNoTable(compile(s.sheet))?.code).toBe('no-input');
  s.place('switch', 0, 0);
  expect(whyNoTable(compile(s.sheet))?.code).toBe('no-output');
  s.place('lamp', 20, 0);
  expect(whyNoTable(compile(s.sheet))).toBeNull();
  s.place('dff', 40, 0);
  expect(whyNoTable(compile(s.sheet))?.code).toBe('remembers');
});

test('is written as CSV, Markdown and JSON', () => {
  const table = { ...truthTable(compile(interlock().sheet)), inputs: ['Key, old', 'B|ars', 'Clear'] };
  expect([...tableLines(table, 'csv')].slice(0, 2)).toEqual([
    '"Key, old",B|ars,Clear,Drive,Warn',
    '0,0,0,0,0',
  ]);
  expect([...tableLines(table, 'md')].slice(0, 3)).toEqual([
    '| Key, old | B\\|ars | Clear | Drive | Warn |',
    '| :-: | :-: | :-: | :-: | :-: |',
    '| 0 | 0 | 0 | 0 | 0 |',
  ]);
  expect(JSON.parse([...tableLines(table, 'json')].join('\n')).rows[5]).toBe('10101');
});
