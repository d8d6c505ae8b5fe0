import type { Task } from '../circuit/exercise';
import { emptyLesson, type Lesson } from '../circuit/lesson';
import { readExercise, writeExercise } from '../formats/exercise-file';
import { readLesson } from '../formats/lesson-file';
import { writeLesson } from '../formats/write-lesson';
import { buildTask, exerciseOf } from '../testing/exercises';
import { interlock, Sketch } from '../testing/sketch';
import { expectDone } from '../values/result';
import { begunWork, excerptFor, idsBegun, renewedWork, standInSheets } from './begin';
import { tableOfSheet } from './expected/table/expected-table';
import type { Limits } from './kinds/build/limits';
import { markAll, markTask, pointsOf, rulesOn, taskOnSheet } from './marking';

const { sheet: drawn, lesson: source } = interlock();
const key = expectDone(tableOfSheet(drawn));
const given = excerptFor(drawn, source.sheets, source.settings);
const built = (limits: Limits, more: Partial<Task> = {}) =>
  buildTask(key, ['and', 'not'], {
    asked: { parts: ['and', 'not'], drawing: 'free', blocks: [], limits, standIn: null },
    ...more,
  });
const words: Task = {
  ...buildTask(key, []),
  id: 'task2',
  kind: 'words',
  title: 'Why',
  asked: {},
  key: { model: '' },
  given,
  tells: 'nothing',
};

/** The work of a student who drew the interlock for its task. */
function solved(task: Task): Lesson {
  const work = begunWork(exerciseOf([task]), 'work');
  return {
    ...work,
    sheets: work.sheets.map((s) => (s.id === task.id ? { ...drawn, id: s.id, name: s.name } : s)),
  };
}

describe('the work at an exercise', () => {
  test('begins with a sheet for each task, and the given circuit on it', () => {
    const work = begunWork(exerciseOf([built({}), words]), 'work');
    expect(work.sheets.map(({ id, parts }) => [id, parts.size])).toEqual([
      ['task1', 0],
      ['task2', drawn.parts.size],
    ]);
    expect(taskOnSheet(work, 'task2')).toMatchObject({ title: 'Why' });
    expect(work.work).toEqual({
      tasks: { task1: { sheet: 'task1', answer: null }, task2: { sheet: 'task2', answer: null } },
      checks: {},
    });
    expect(expectDone(readLesson(writeLesson(work)))).toEqual(work);
  });

  test('goes on in a newer edition: what was done stays, new tasks begin, words are the new ones', () => {
    const before = solved(built({}));
    const newer = exerciseOf([built({}, { words: 'Mended.' }), words], { edition: 2 });
    const after = renewedWork(before, newer);
    expect(after.exercise).toBe(newer);
    expect(after.sheets[0]).toBe(before.sheets[0]);
    expect(after.sheets.map(({ id }) => id)).toEqual(['task1', 'task2']);
    expect(markAll(newer, after)[0]!.mark.solved).toBe(true);
  });

  test('two tasks of one title have sheets of two names', () => {
    const work = begunWork(exerciseOf([built({}), built({}, { id: 'task2' })]), 'work');
    expect(work.sheets.map(({ name }) => name)).toEqual(['T', 'T 2']);
  });
});

describe('what may be done', () => {
  const work = begunWork(exerciseOf([built({}), words]), 'work');
  test('goes by the task whose sheet it is; a sheet of one’s own serves all', () => {
    expect(rulesOn(work, { id: 'task1' }).parts).toEqual(new Set(['and', 'not']));
    expect(rulesOn(work, { id: 'own' }).parts).toBeNull();
    const strict = begunWork(exerciseOf([built({}), built({}, { id: 'task2' })]), 'work');
    expect(rulesOn(strict, { id: 'own' }).parts).toEqual(new Set(['and', 'not']));
    expect(rulesOn(emptyLesson('free', 'Free'), { id: 'sheet1' }).parts).toBeNull();
  });
});

describe('limits', () => {
  test.each<[Limits, string[]]>([
    [{ gates: 3 }, []],
    [{ gates: 2 }, ['It has 3 gates, and 2 are allowed.']],
    [{ gateInputs: 2 }, ['It has a gate with 3 inputs, and 2 are allowed.']],
    [{ levels: 2 }, []],
    [{ levels: 1 }, ['It has 2 levels of gates, and 1 is allowed.']],
    [{ storage: 0 }, []],
    [{ packages: 3 }, []],
    [{ packages: 2 }, ['It has 3 packages, and 2 are allowed.']],
    [{ delay: 1 }, [expect.stringMatching(/^Its longest delay is \d+ ns, and 1 ps are allowed\.$/)]],
  ])('%j: %j', (limits, complaints) => {
    const task = built(limits);
    const mark = markTask(task, solved(task));
    expect([mark.complaints, mark.solved]).toEqual([complaints, complaints.length === 0]);
    expect(mark.right).toBe(8);
    expect(pointsOf({ task, mark })).toBe(complaints.length === 0 ? 1 : 0);
  });
});

describe('a ladder', () => {
  const table = (input: string, output: string, rows: string) => ({
    kind: 'table',
    inputs: [input],
    outputs: [{ name: output, rows }],
  });
  const one = buildTask(table('In', 'Out', '10'), ['not'], { title: 'Inverter' });
  /** A lamp behind an inverter, which is a block of the task before. */
  const two = (blocks: readonly string[], limits: Limits = {}): Task => ({
    ...buildTask(table('A', 'Y', '10'), []),
    id: 'task2',
    title: 'Lamp',
    asked: { parts: [], drawing: 'free', blocks, limits, standIn: null },
  });
  function work(tasks: readonly Task[]): Lesson {
    const inner = new Sketch();
    inner.place('port', 0, 0, 'In', { direction: 'in' });
    inner.place('not', 8, 0);
    inner.place('port', 16, 0, 'Out', { direction: 'out' });
    inner.wire('port1.Y', 'not1.A');
    inner.wire('not1.Y', 'port2.A');
    const outer = new Sketch();
    outer.place('switch', 0, 0, 'A');
    outer.place('block', 12, 0, '', { sheet: 'task1', title: 'Inverter', inputs: 'In', outputs: 'Out' });
    outer.place('lamp', 24, 0, 'Y');
    outer.wire('switch1.Y', 'block1.In');
    outer.wire('block1.Out', 'lamp1.A');
    const begun = begunWork(exerciseOf(tasks), 'work');
    const sheets = [
      { ...inner.sheet, id: 'task1', name: 'Inverter' },
      { ...outer.sheet, id: 'task2', name: 'Lamp' },
    ];
    return { ...begun, sheets };
  }

  test('what was built in an earlier task is one part where that is allowed, else its content counts', () => {
    const tasks = [one, two(['task1'], { gates: 0 })];
    expect(markAll(exerciseOf(tasks), work(tasks)).map(({ mark }) => [mark.solved, mark.complaints])).toEqual(
      [
        [true, []],
        [true, []],
      ],
    );
    const strict = [one, two([], { gates: 0 })];
    expect(markAll(exerciseOf(strict), work(strict))[1]!.mark.complaints).toEqual([
      'NOT is not allowed in this task, and 1 of it is used.',
      'It has 1 gate, and 0 are allowed.',
    ]);
  });

  test('a circuit that stands in has an id and a name of its own, and counts as what was built', () => {
    expect(standInSheets(one, given).map(({ id, name }) => [id, name])).toEqual([
      ['task1-given', 'Given Inverter'],
    ]);
    // A block of the circuit that a task begins with is another than that of the circuit which stands in.
    const held = { ...given, sheets: [...given.sheets, { ...given.sheets[0]!, id: 'inner' }] };
    expect(idsBegun({ ...one, given: held }, held)).toEqual([
      'task1',
      'task1-inner',
      'task1-given',
      'task1-given-inner',
    ]);
    const long = { ...held, sheets: held.sheets.map((s, i) => (i > 0 ? { ...s, id: 'x'.repeat(60) } : s)) };
    expect(idsBegun({ ...one, given: long }, null)).toEqual(['task1', 'task1-1']);
    const tasks = [one, two(['task1'])];
    const own = work(tasks);
    const [inner, outer] = own.sheets;
    const block = outer!.parts.get('block1')!;
    const led = { ...block, params: { ...block.params, sheet: 'task1-given' } };
    const sheets = [
      { ...inner!, parts: new Map(), wires: new Map() },
      { ...outer!, parts: new Map(outer!.parts).set('block1', led) },
      { ...inner!, id: 'task1-given' },
    ];
    expect(markAll(exerciseOf(tasks), { ...own, sheets }).map(({ mark }) => mark.solved)).toEqual([
      false,
      true,
    ]);
  });
});

describe('files', () => {
  test('pictures in the words come back with their circuits, and a damaged one is named', () => {
    const pictures = [{ name: 'Interlock', circuit: given }];
    const shown = exerciseOf([built({}, { pictures, words: '![Interlock](picture)' })]);
    expect(expectDone(readExercise(writeExercise(shown)))).toEqual(shown);
    const bad = writeExercise(shown).replace('"kind": "not"', '"kind": "warp"');
    const read = readExercise(bad);
    expect(read.ok ? '' : read.problem.message).toContain('the picture “Interlock” of “T”');
  });

  const exercise = exerciseOf([built({ gates: 5 }), words], { words: 'All of it.', order: 'in order' });
  test('come back as they were, given circuits and limits with them', () => {
    expect(expectDone(readExercise(writeExercise(exercise)))).toEqual(exercise);
  });

  interface Draft {
    order: string;
    tasks: {
      kind: string;
      points: number;
      id?: string;
      given: { sheets: { id?: string; wires: object[]; parts: object[] }[] };
    }[];
  }
  const bent = (change: (file: Draft) => void) => {
    const file: Draft = JSON.parse(writeExercise(exercise));
    change(file);
    const read = readExercise(JSON.stringify(file));
    return read.ok ? '' : read.problem.message;
  };
  const inside = (file: Draft) => file.tasks[1]!.given.sheets[0]!;
  test.each<[string, (file: Draft) => void, RegExp]>([
    ['no task', (f) => f.tasks.splice(0), /at least one task/],
    [
      'a strange kind',
      (f) => Object.assign(f.tasks[0]!, { kind: 'riddle' }),
      /tasks › 1 › kind: this kind is not known here/,
    ],
    ['too many tasks', (f) => f.tasks.push(...Array(60).fill(f.tasks[1])), /at most 60/],
    [
      'a wire to nowhere',
      (f) => Object.assign(inside(f).wires[0]!, { to: { part: 'gone', port: 'A' } }),
      /the circuit that “Why” gives: on sheet .*gone\.A, which is not there/,
    ],
    ['a part of no kind', (f) => Object.assign(inside(f).parts[0]!, { kind: 'warp' }), /warp/],
    [
      'two tasks of one id',
      (f) => Object.assign(f.tasks[1]!, { id: 'task1' }),
      /two tasks have the id task1/,
    ],
    [
      'an id that all objects have',
      (f) => Object.assign(f.tasks[0]!, { id: 'constructor' }),
      /tasks › 1 › id: this word cannot be an id/,
    ],
    [
      'a sheet that would have the id of another task',
      (f) => {
        Object.assign(f.tasks[0]!, { id: 'task2-inner' });
        f.tasks[1]!.given.sheets.push({ ...inside(f), id: 'inner' });
      },
      /a sheet of “T” and one of “Why” would both have the id task2-inner/,
    ],
    [
      'a sheet inside itself',
      (f) => {
        const block = { sheet: 'inner', title: 'Inner', inputs: '', outputs: '' };
        const holds = (id: string, sheet: string) => ({
          ...inside(f),
          id,
          name: id,
          parts: [{ id: 'block1', kind: 'block', at: { x: 0, y: 0 }, params: { ...block, sheet } }],
          wires: [],
        });
        f.tasks[1]!.given.sheets.push(holds('outer', 'inner'), holds('inner', 'outer'));
      },
      /the circuit that “Why” gives: a sheet cannot hold itself: “outer” holds “inner” holds “outer”/,
    ],
    [
      'more sheets together than a lesson has',
      (f) => {
        const many = (n: number) => Array.from({ length: n }, (_, i) => ({ ...inside(f), id: `s${i}` }));
        f.tasks[1]!.given.sheets = many(300);
        f.tasks.push({ ...f.tasks[1]!, id: 'task3' });
      },
      /its tasks begin with 601 sheets together, and a lesson has 500 at most/,
    ],
    ['negative points', (f) => Object.assign(f.tasks[0]!, { points: -1 }), /tasks › 1 › points/],
    ['an order of its own', (f) => Object.assign(f, { order: 'backwards' }), /order: one of free, in order/],
  ])('%s is refused whole, in one sentence', (_, change, why) => {
    expect(bent(change)).toMatch(why);
  });
});
