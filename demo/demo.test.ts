import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { begunWork } from '@/core/exercise/begin';
import { check, partsUsed } from '@/core/exercise/check';
import { tableOfSheet } from '@/core/exercise/expected/table/expected-table';
import { TASK_KINDS } from '@/core/exercise/kinds';
import { type Marked, markAll } from '@/core/exercise/marking';
import { readExercise, writeExercise } from '@/core/formats/exercise-file';
import { readHandIn } from '@/core/formats/hand-in-file';
import { readLesson } from '@/core/formats/lesson-file';
import { tableLines } from '@/core/logic/table/table-text';
import { cell, truthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';
import { sourceKey } from '@/core/netlist/netlist';
import { Run } from '@/core/simulate/run';
import { expectTidy } from '@/core/testing/tidy-sheet';
import { expectDone } from '@/core/values/result';
import { readySets } from './sets';

const text = (name: string) => readFileSync(join(__dirname, name), 'utf8');

function sheet(name: string) {
  const read = readLesson(text(`${name}.manege.json`));
  if (!read.ok) throw new Error(read.problem.message);
  return read.value.sheets[0]!;
}

test('Drive interlock: drives only with key, bars and a clear platform; warns with the key and a bar up', () => {
  const n = compile(sheet('drive-interlock'));
  expect(n.diagnostics).toEqual([]);
  expect([...tableLines(truthTable(n), 'csv')]).toEqual([
    'Key,Bars,Clear,Drive,Warn',
    '0,0,0,0,0',
    '0,0,1,0,0',
    '0,1,0,0,0',
    '0,1,1,0,0',
    '1,0,0,0,1',
    '1,0,1,0,1',
    '1,1,0,0,0',
    '1,1,1,1,0',
  ]);
});

test.each(['zero', 'unit', 'parts'] as const)(
  'Lamp chase: one of eight lamps after the other, round and round (%s delays)',
  (delays) => {
    const n = compile(sheet('lamp-chase'));
    expect(n.diagnostics).toEqual([]);
    const run = new Run(n, { delays });
    const lit: string[] = [];
    for (let cycle = 0; cycle < 9; cycle++) {
      run.advance((cycle + 1) * 0.5e12 - 1);
      lit.push(
        n.outputs
          .filter((t) => run.values[t.nets[0]!] === 1)
          .map((t) => t.name)
          .join(),
      );
    }
    expect(lit).toEqual(['L1', 'L2', 'L3', 'L4', 'L5', 'L6', 'L7', 'L0', 'L1']);
  },
);

test('the sample hand-ins: one right, one wrong in a row, one with a forbidden part', () => {
  const exercise = readExercise(text('exercise/warning-lamp.exercise.json'));
  if (!exercise.ok) throw new Error(exercise.problem.message);
  const marks = ['ada', 'ben', 'cleo'].map((name) => {
    const read = readHandIn(text(`exercise/${name}.handin.json`));
    if (!read.ok) throw new Error(read.problem.message);
    const [{ mark }] = markAll(exercise.value, read.value.lesson) as [Marked];
    const { right, complaints } = mark;
    expect(read.value.results.task1).toMatchObject({ right, complaints });
    return [right, complaints];
  });
  expect(marks).toEqual([
    [8, []],
    [7, []],
    [8, ['NOR is not allowed in this task, and 1 of it is used.']],
  ]);
});

/** A lesson's first sheet with all its blocks, compiled. */
function whole(name: string) {
  const read = readLesson(text(`${name}.manege.json`));
  if (!read.ok) throw new Error(read.problem.message);
  const netlist = compile(read.value.sheets[0]!, read.value.sheets);
  expect(netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
  for (const s of read.value.sheets) expectTidy(s);
  return netlist;
}

test('Ticket adder: all 256 sums, on the number and on the lamps', () => {
  const n = whole('ticket-adder');
  const table = truthTable(n);
  expect(table.inputs).toHaveLength(8);
  for (let row = 0; row < 256; row++) {
    const value = (word: number) =>
      [0, 1, 2, 3, 4].reduce((sum, i) => sum * 2 + cell(table, 5 * word + i, row), 0);
    expect(value(0)).toBe((row >> 4) + (row & 15));
    expect(value(1)).toBe((row >> 4) + (row & 15));
  }
});

test('sheets with blocks are handed out, solve themselves, and count what is in their blocks', () => {
  const read = readLesson(text('ticket-adder.manege.json'));
  if (!read.ok) throw new Error(read.problem.message);
  const { sheets } = read.value;
  for (const one of sheets) {
    const made = tableOfSheet(one, sheets);
    if (!made.ok) throw new Error(`${one.name}: ${made.problem.message}`);
    const allowed = new Set(['and', 'or', 'xor', 'label', 'join', 'slice', 'constant', 'number']);
    expect(check(one, made.value, allowed, sheets)).toMatchObject({ solved: true, complaints: [] });
    // Forbidden parts are found inside blocks too.
    const strict = new Set([...allowed].filter((kind) => kind !== 'xor'));
    expect(check(one, made.value, strict, sheets).complaints.join()).toMatch(
      /^XOR is not allowed in this task, and \d+ of it/,
    );
  }
  const full = sheets.find((s) => s.name === 'Full adder')!;
  const gates = partsUsed(full, sheets).filter(({ kind }) => ['and', 'or', 'xor'].includes(kind));
  expect(gates).toEqual([
    { kind: 'and', count: 2 },
    { kind: 'or', count: 1 },
    { kind: 'xor', count: 2 },
  ]);
});

test('Queue selector: four NAND gates hand on the queue whose turn it is', () => {
  const n = whole('queue-selector');
  expect(n.op).toHaveLength(4);
  expect([...tableLines(truthTable(n), 'csv')]).toEqual([
    'North,Turn,South,Platform',
    ...[...Array(8).keys()].map((row) => {
      const [north, turn, south] = [row >> 2, (row >> 1) & 1, row & 1];
      return `${north},${turn},${south},${turn ? south : north}`;
    }),
  ]);
});

test('Organ drum: eight stops, forwards and backwards', () => {
  for (const [forward, order] of [
    [1, [0, 1, 2, 3, 4, 5, 6, 7, 0, 1]],
    [0, [0, 7, 6, 5, 4, 3, 2, 1, 0, 7]],
  ] as const) {
    const n = whole('organ-drum');
    const run = new Run(n, { delays: 'zero', inputs: new Map([[sourceKey(n.inputColumns[0]!), forward]]) });
    const seen: number[] = [];
    for (let cycle = 0; cycle < 10; cycle++) {
      run.advance(Math.max(1, cycle * 1e12 + 0.75e12 - 1e12));
      seen.push(n.outputs[0]!.nets.reduce((sum, net, bit) => sum + run.values[net]! * 2 ** bit, 0));
    }
    expect(seen).toEqual(order);
  }
});

describe('the ready sets', () => {
  const lessonAt = (file: string) => expectDone(readLesson(text(`${file}.manege.json`)));
  const sets = readySets(lessonAt('ticket-adder'), lessonAt('lamp-chase'));

  test('are eight, of all kinds of task, and stand in their files as they are made', () => {
    expect(sets.map(({ exercise }) => exercise.title)).toEqual([
      'First gates',
      'Interlock',
      'Tickets',
      'Find the fault',
      'Lamp chase',
      'Read the diagram',
      'Numbers',
      'On the board',
    ]);
    const kinds = new Set(sets.flatMap(({ exercise }) => exercise.tasks.map(({ kind }) => kind)));
    expect([...kinds].sort()).toEqual(TASK_KINDS.map(({ kind }) => kind as string).sort());
    for (const { file, exercise } of sets) {
      const kept = text(`sets/${file}.exercise.json`);
      expect(kept).toBe(writeExercise(exercise));
      expect(expectDone(readExercise(kept)).tasks).toHaveLength(exercise.tasks.length);
    }
  });

  test.each(sets.map((set) => [set.exercise.title, set] as const))(
    '%s: every task takes its model answer, and none that is empty',
    (_, { exercise, model }) => {
      for (const { task, mark } of markAll(exercise, model))
        expect([task.title, mark.solved, mark.complaints]).toEqual([
          task.title,
          task.kind === 'words' ? null : true,
          [],
        ]);
      for (const { task, mark } of markAll(exercise, begunWork(exercise, 'empty')))
        expect([task.title, mark.solved]).toEqual([task.title, false]);
    },
  );
});
