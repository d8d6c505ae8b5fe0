import type { Exercise } from '../circuit/exercise';
import { readExercise, writeExercise } from '../formats/exercise-file';
import { readKeys, writeKeys } from '../formats/key-file';
import { newKeyPair } from '../sealing/seal';
import { buildTask, exerciseOf } from '../testing/exercises';
import { interlock } from '../testing/sketch';
import { expectDone } from '../values/result';
import { begunWork } from './begin';
import { tableOfSheet } from './expected/table/expected-table';
import { markAll } from './marking';
import { sealedExercise, unsealedExercise } from './sealing';
import { verdictsOn } from './verdicts';

const keys = newKeyPair();
const { sheet } = interlock();
const wanted = expectDone(tableOfSheet(sheet));
const circuit = buildTask(wanted, ['and', 'not'], { tells: 'nothing' });
const number = {
  ...circuit,
  id: 'task2',
  kind: 'number',
  asked: { quantity: 'number', bits: null },
  key: { value: '4711', tolerance: 0 },
} as const;
const open = { ...number, id: 'task3', tells: 'count' } as const;
const map = {
  ...circuit,
  id: 'task4',
  kind: 'map',
  asked: { function: { inputs: ['A', 'B'], output: 'Y', rows: '0111' } },
  key: {},
} as const;
const exercise = exerciseOf([circuit, number, open, map]);
let sealed: Exercise;
beforeAll(async () => {
  sealed = await sealedExercise(exercise, keys.publicKey);
});

test('answers are sealed where a check tells nothing, and where something would be hidden', () => {
  expect(sealed.tasks.map(({ key }) => key === null)).toEqual([true, true, false, false]);
  const [first, second] = sealed.tasks.map((task) => JSON.stringify(task));
  expect(first).not.toContain('00000001');
  expect(second).not.toContain('4711');
});

test('a sealed file is read, worked at and handed in; only the key tells whether it is right', () => {
  const read = expectDone(readExercise(writeExercise(sealed)));
  const work = begunWork(read, 'work');
  const drawn = {
    ...work,
    sheets: work.sheets.map((s) => (s.id === 'task1' ? { ...sheet, id: 'task1', name: s.name } : s)),
  };
  expect(
    markAll(read, drawn)
      .slice(0, 2)
      .map(({ mark }) => mark.solved),
  ).toEqual([null, null]);
  const opened = expectDone(unsealedExercise(read, keys));
  expect(markAll(opened, drawn)[0]!.mark).toMatchObject({ solved: true, right: 8 });
  expect(opened.tasks.map(({ key }) => key)).toEqual(exercise.tasks.map(({ key }) => key));
  expect(unsealedExercise(read, newKeyPair())).toMatchObject({ problem: { code: 'other-key' } });
});

test('two files of different answers differ in their boxes alone', async () => {
  const other = { ...number, key: { value: '1', tolerance: 0.5 } };
  const [a, b] = await Promise.all(
    [number, other].map(async (task) => (await sealedExercise(exerciseOf([task]), keys.publicKey)).tasks[0]!),
  );
  expect({ ...a, sealed: null }).toEqual({ ...b, sealed: null });
  expect(a!.sealed!.box).toHaveLength(b!.sealed!.box.length);
});

test('a task whose answer is missing, or there twice, is refused', () => {
  const problem = (change: object) => {
    const read = readExercise(writeExercise(exerciseOf([{ ...number, ...change }])));
    return read.ok ? '' : read.problem.message;
  };
  expect(problem({ key: null })).toContain('its wanted answer is missing');
  expect(problem({ sealed: { to: 'AAAA', box: 'AAAA' } })).toContain('sealed and open');
});

test('a key file gives the keys back, and says what it is where something else is asked for', () => {
  const file = writeKeys(keys, 'correct carousel');
  expect(expectDone(readKeys(file, 'correct carousel'))).toEqual(keys);
  expect(readKeys(file, 'other carousel')).toMatchObject({ problem: { code: 'wrong-passphrase' } });
  expect(readExercise(file)).toMatchObject({
    problem: { message: 'it is a key, and an exercise is needed here' },
  });
});

test('“right or not yet” is told by a hash: no bit of the answer stands in the file, and only the right one is right', async () => {
  const [built, value] = exerciseOf([
    { ...circuit, tells: 'verdict' },
    { ...number, tells: 'verdict' },
  ]).tasks;
  const out = await sealedExercise(exerciseOf([built!, value!]), keys.publicKey);
  expect(JSON.stringify(out)).not.toMatch(/00000001|4711/);
  const read = expectDone(readExercise(writeExercise(out)));
  const work = begunWork(read, 'work');
  const answered = (drawn: typeof sheet, text: string) => ({
    ...work,
    sheets: work.sheets.map((s) => (s.id === 'task1' ? { ...drawn, id: 'task1', name: s.name } : s)),
    work: {
      ...work.work!,
      tasks: { ...work.work!.tasks, task2: { sheet: 'task2', answer: { kind: 'number', text } } },
    },
  });
  const solved = async (lesson: typeof work) =>
    markAll(read, lesson, await verdictsOn(read.tasks, lesson)).map(({ mark }) => mark.solved);
  expect(await solved(answered(sheet, '0x1267'))).toEqual([true, true]);
  expect(await solved(answered({ ...sheet, parts: new Map(), wires: new Map() }, '4712'))).toEqual([
    false,
    false,
  ]);
  // Without the hash nothing is said, and with the key everything.
  expect(markAll(read, answered(sheet, '1')).map(({ mark }) => mark.solved)).toEqual([null, null]);
  const opened = expectDone(unsealedExercise(read, keys));
  expect(opened.tasks.map(({ key, digest }) => [key, digest])).toEqual([
    [built!.key, undefined],
    [value!.key, undefined],
  ]);
});
