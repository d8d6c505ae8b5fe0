import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { check } from '@/core/exercise/check';
import { readExercise } from '@/core/formats/exercise-file';
import { readHandIn } from '@/core/formats/hand-in-file';
import { readLesson } from '@/core/formats/lesson-file';
import { tableLines } from '@/core/logic/table-text';
import { truthTable } from '@/core/logic/truth-table';
import { compile } from '@/core/netlist/compile';
import { Run } from '@/core/simulate/run';

const text = (name: string) => readFileSync(join(__dirname, name), 'utf8');

function sheet(name: string) {
  const read = readLesson(text(`${name}.manege.json`));
  if (!read.ok) throw new Error(read.problem);
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
  if (!exercise.ok) throw new Error(exercise.problem);
  const marks = ['ada', 'ben', 'cleo'].map((name) => {
    const read = readHandIn(text(`exercise/${name}.handin.json`));
    if (!read.ok) throw new Error(read.problem);
    const { right, complaints } = check(read.value.lesson.sheets[0]!, exercise.value);
    expect(read.value.result).toMatchObject({ right, complaints });
    return [right, complaints];
  });
  expect(marks).toEqual([
    [8, []],
    [7, []],
    [8, ['NOR is not allowed in this task, and 1 of it is used.']],
  ]);
});
