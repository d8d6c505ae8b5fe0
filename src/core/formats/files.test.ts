import fc from 'fast-check';
import { DEFAULT_WAVE } from '../circuit/default-wave';
import { apply, type Edit } from '../circuit/edit';
import type { Task } from '../circuit/exercise';
import type { Part } from '../circuit/sheet';
import { tableOfSheet } from '../exercise/expected/table/expected-table';
import { handInOf } from '../exercise/hand-in';
import { markAll } from '../exercise/marking';
import { buildTask, exerciseOf } from '../testing/exercises';
import { lessonOf, randomSheet } from '../testing/random-circuit';
import { interlock } from '../testing/sketch';
import { expectDone, type Result } from '../values/result';
import { exerciseFromFragment, exerciseToFragment, readExercise, writeExercise } from './exercise-file';
import type { ReadPlace } from './format';
import { handInsInText, handInToText, readAnyHandIn, readHandIn, writeHandIn } from './hand-in-file';
import { lessonFromKept, lessonToKeep } from './kept-lesson';
import { readLesson } from './lesson-file';
import { markingCsv } from './marking-csv';
import { identify, readKnown } from './read-content';
import { writeLesson } from './write-lesson';

const { lesson } = interlock();
const expected = tableOfSheet(lesson.sheets[0]!);
if (!expected.ok) throw new Error(expected.problem.message);
const task = buildTask(expected.value, ['and', 'not'], { title: 'Interlock', words: 'Build *it*.' });
const exercise = exerciseOf([task], { title: 'Interlock' });
const worked = {
  ...lesson,
  work: { tasks: { task1: { sheet: lesson.sheets[0]!.id, answer: null } }, checks: {} },
};
const handIn = handInOf(exercise, worked, 'Ada Sample', 300, new Date('2026-09-02T08:00:00.000Z'));

/** Reads a file that was dropped on a page. */
async function dropped(text: string, file = 'file.json', place: ReadPlace = 'shelf') {
  const known = identify(file, text, place);
  return known.ok ? readKnown(known.value, { title: 'file', laidOut: false }) : known;
}

const problemOf = (read: Result<unknown>) => (read.ok ? 'it was read' : read.problem.message);
/** The lesson's file with something in it changed. */
function bent(change: (file: Record<string, never>) => void): string {
  const file = JSON.parse(writeLesson(lesson));
  change(file);
  return JSON.stringify(file);
}

describe('lesson files', () => {
  test('what is written is read as the same lesson', () => {
    const text = writeLesson(lesson);
    const read = readLesson(text);
    expect(read.ok && writeLesson(read.value)).toBe(text);
    expect(read.ok && read.value.sheets[0]!.parts.get('and1')).toEqual(lesson.sheets[0]!.parts.get('and1'));
  });

  test('equal lessons give equal files, whatever edits led to them', () => {
    const change = (change: Partial<Part>): Edit => ({
      type: 'changePart',
      sheet: 'sheet1',
      id: 'and1',
      change,
    });
    const [mirrored, inverted] = [
      change({ mirrored: true }),
      change({ params: { inverted: [0], inputs: 3 } }),
    ];
    const made = (...edits: Edit[]) => writeLesson(expectDone(apply(lesson, { type: 'group', edits })));
    const text = made(mirrored, inverted);
    expect(made(change({ params: { inputs: 3, inverted: [0] } }), mirrored)).toBe(text);
    expect(writeLesson(expectDone(readLesson(text)))).toBe(text);
  });

  test('random lessons are read as the same as well', () => {
    fc.assert(
      fc.property(randomSheet({ inputs: 4, gates: 12 }), (sheet) => {
        const text = writeLesson(lessonOf(sheet));
        const read = readLesson(text);
        expect(read.ok && writeLesson(read.value)).toBe(text);
      }),
      { numRuns: 50 },
    );
  });

  test.each<[string, string, RegExp]>([
    ['empty', '', /it is empty/],
    ['not JSON', 'Key,Bars\n0,1', /not JSON/],
    ['cut short', writeLesson(lesson).slice(0, 400), /not JSON, or was cut short/],
    ['a list', '[1, 2]', /not a lesson of Manege/],
    ['something else', '{"format":"other","version":1}', /not a lesson of Manege/],
    ['an exercise', writeExercise(exercise), /it is an exercise, and a lesson is needed/],
    ['of a later version', bent((f) => Object.assign(f, { version: 7 })), /version 7.*up to version 5/],
    ['without a version', bent((f) => Object.assign(f, { version: 'one' })), /no version number/],
    ['nested too deep', `${'['.repeat(60)}${']'.repeat(60)}`, /nested deeper than 40/],
    ['of too many bytes', ' '.repeat(21 * 1024 * 1024), /21\.0 MB; files up to 20\.0 MB/],
    [
      'with an unknown part',
      writeLesson(lesson).replace('"kind":"not"', '"kind":"warp"'),
      /not1 is a “warp”/,
    ],
    ['with a strange parameter', writeLesson(lesson).replace('"inputs":3', '"inputs":99'), /and1: at inputs/],
    ['with a wire to nowhere', writeLesson(lesson).replace('"part":"not1"', '"part":"not9"'), /ends on not9/],
    [
      'with a port that is not there',
      writeLesson(lesson).replace('"port":"C"', '"port":"Q"'),
      /and1\.Q, which is not there/,
    ],
    [
      'with a double id',
      writeLesson(lesson).replace('"id":"not1"', '"id":"and1"'),
      /two parts have the id and1/,
    ],
    [
      'with a coordinate far off',
      writeLesson(lesson).replace('"x":16', '"x":9e9'),
      /at sheets › 1 › parts › 1 › at › x/,
    ],
  ])('a file is refused in one sentence: %s', (_, text, expected) => {
    const problem = problemOf(readLesson(text));
    expect(problem).toMatch(expected);
    expect(problem.split('\n')).toHaveLength(1);
  });

  test('a wire that hangs on itself by way of others is refused', () => {
    const text = bent((file) => {
      const [sheet] = file.sheets as unknown as { wires: object[] }[];
      const on = (wire: string) => ({ wire, at: { x: 0, y: 0 } });
      sheet!.wires.push({ id: 'a', from: on('b'), to: on('b') }, { id: 'b', from: on('a'), to: on('a') });
    });
    expect(problemOf(readLesson(text))).toMatch(/on itself/);
  });

  test('no prototype is touched and no mutated file throws', async () => {
    const text = writeLesson(lesson);
    const poisoned = text.replace('"params":{"inputs":3}', '"params":{"inputs":3,"__proto__":{"bad":true}}');
    readLesson(poisoned);
    expect(({} as { bad?: boolean }).bad).toBeUndefined();
    await fc.assert(
      fc.asyncProperty(
        fc.nat({ max: text.length - 1 }),
        fc.nat({ max: 60 }),
        fc.string({ maxLength: 12 }),
        async (at, cut, put) => {
          const read = await dropped(text.slice(0, at) + put + text.slice(at + cut));
          if (!read.ok) expect(read.problem.message).not.toBe('');
        },
      ),
      { numRuns: 2000 },
    );
  });
});

describe('exercise files and links', () => {
  test('come back as they were, by file and by fragment', () => {
    expect(readExercise(writeExercise(exercise))).toEqual({ ok: true, value: exercise });
    expect(exerciseFromFragment(exerciseToFragment(exercise))).toEqual({ ok: true, value: exercise });
    expect(exerciseToFragment(exercise)).toMatch(/^[A-Za-z0-9_-]+$/);
  });

  test('of a run come back as they were, and say where they do not fit', () => {
    const wave = { ...DEFAULT_WAVE, pattern: 'periodic' as const };
    const expected = {
      kind: 'run' as const,
      inputs: [{ name: 'Clock', width: 1, wave }],
      outputs: [{ name: 'Stop', width: 2, values: ['00', '0x'] }],
      readings: [4999, 14_999],
      delays: 'parts' as const,
      powerUp: '0' as const,
    };
    const run = exerciseOf([buildTask(expected, [])]);
    expect(readExercise(writeExercise(run))).toEqual({ ok: true, value: run });
    expect(exerciseFromFragment(exerciseToFragment(run))).toEqual({ ok: true, value: run });
    const problem = (change: object) =>
      problemOf(readExercise(writeExercise(exerciseOf([buildTask({ ...expected, ...change }, [])]))));
    expect(problem({ readings: [14_999, 4999] })).toBe(
      'at tasks › 1 › key › readings › 2: readings stand in the order of time, each once',
    );
    expect(problem({ kind: 'walk' })).toBe('at tasks › 1 › key › kind: this kind is not known here');
    expect(problem({ inputs: [{ name: 'Clock', width: 1, wave: { ...wave, pattern: 'zigzag' } }] })).toMatch(
      /^at tasks › 1 › key › inputs › 1 › wave › pattern: one of levels, periodic/,
    );
    expect(problem({ outputs: [] })).toBe('at tasks › 1 › key › outputs: at least one output is needed');
  });

  test.each([
    ['cut short', exerciseToFragment(exercise).slice(0, 50), /damaged or was cut short/],
    ['nonsense', '%%%', /damaged or was cut short/],
    ['endless', 'A'.repeat(300_000), /far longer/],
  ])('a link that is %s is refused', (_, fragment, expected) => {
    expect(problemOf(exerciseFromFragment(fragment))).toMatch(expected);
  });

  test('an expected table that does not fit its inputs is refused with the place', () => {
    const short = {
      kind: 'table',
      inputs: ['Key', 'Bars', 'Clear'],
      outputs: [{ name: 'Drive', rows: '01' }],
    };
    const withTask = (one: Task) => problemOf(readExercise(writeExercise(exerciseOf([one]))));
    expect(withTask(buildTask(short, []))).toMatch(/outputs › 1 › rows: Drive has 2 rows where 8 are needed/);
    expect(withTask(buildTask(expected.value, ['warp']))).toMatch(/in “T”: it allows a part “warp”/);
    expect(problemOf(readExercise(writeExercise(exerciseOf([task, task]))))).toMatch(
      /two tasks have the id task1/,
    );
    expect(problemOf(readExercise(writeExercise({ ...exercise, title: ' ' })))).toMatch(/no title/);
  });
});

describe('hand-ins', () => {
  test('come back as they were, the circuit with them', () => {
    const read = readHandIn(writeHandIn(handIn));
    expect(read.ok && { ...read.value, lesson: null }).toEqual({ ...handIn, lesson: null });
    expect(read.ok && writeLesson(read.value.lesson)).toBe(writeLesson(worked));
  });

  test('stand among other words as text, and a word that was cut short is told', () => {
    const text = handInToText(handIn);
    const [read, cut] = handInsInText(`Dear teacher,\n${text}\n${text.slice(0, 90)} Ada`);
    expect(read).toEqual({ ok: true, value: expectDone(readHandIn(writeHandIn(handIn))) });
    expect(cut).toMatchObject({ problem: { code: 'damaged-text' } });
    expect(handInsInText('nothing of ours')).toEqual([]);
  });

  test('a saved lesson will do in their place, under the name of its file', () => {
    const text = writeLesson({ ...worked, exercise });
    const at = new Date('2026-09-03T08:00:00.000Z');
    const read = expectDone(readAnyHandIn(text, 'ada', at));
    expect(read).toMatchObject({ name: 'ada', handedIn: at.toISOString(), exercise: { id: exercise.id } });
    expect(markAll(exercise, read.lesson)[0]!.mark.solved).toBe(true);
    expect(problemOf(readAnyHandIn(writeLesson(lesson), 'ada', at))).toBe(
      'it is a lesson that answers no exercise',
    );
    expect(expectDone(readAnyHandIn(writeHandIn(handIn), 'x', at)).name).toBe('Ada Sample');
  });

  test('are refused with the reason', () => {
    expect(problemOf(readHandIn(writeHandIn({ ...handIn, name: '  ' })))).toMatch(/the name is empty/);
    const bad = writeHandIn(handIn).replace('"manege-lesson"', '"something"');
    expect(problemOf(readHandIn(bad))).toMatch(/its circuit: it is not a lesson/);
  });

  test('any of our files is told apart by its heading, whatever it is called', async () => {
    for (const name of ['homework (2).json', 'interlock.exercise.json', 'no ending']) {
      const kinds = await Promise.all([
        dropped(writeLesson(lesson), name),
        dropped(writeExercise(exercise), name),
        dropped(writeHandIn(handIn), name, 'marking'),
      ]);
      expect(kinds.map((read) => read.ok && read.value.is)).toEqual(['lesson', 'exercise', 'hand-in']);
    }
    expect(await dropped(writeHandIn(handIn))).toMatchObject({ value: { is: 'hand-in' } });
    expect(problemOf(await dropped(writeExercise(exercise), 'a.json', 'command line'))).toBe(
      'it is an exercise, and a lesson, Verilog or a netlist is needed here',
    );
    expect(problemOf(await dropped(writeLesson(lesson), 'a.json', 'exercise page'))).toBe(
      'it is a lesson, and an exercise, a hand-in or marked work is needed here',
    );
    expect(problemOf(await dropped('{"format":"?"}'))).toBe('it is not a file of Manege');
    expect(problemOf(await dropped('null'))).toBe('it is not a file of Manege');
    expect(problemOf(await dropped('<svg/>', 'a.svg'))).toBe(
      'it is a picture (SVG), and a lesson, an exercise, a hand-in, marked work, Verilog or a netlist is needed here',
    );
  });
});

test('marks become CSV that no spreadsheet takes for a formula', () => {
  const marks = markAll(exercise, worked);
  const csv = markingCsv(exercise, [{ handIn: { ...handIn, name: '=HYPERLINK("x")' }, marks }]);
  expect(csv.split('\r\n')).toEqual([
    'name,right,of,parts used,points,points to give,complaints,remarks,handed in,minutes,wrong',
    `"'=HYPERLINK(""x"")",8,8,"2 AND, 1 NOT",1,0,,,2026-09-02T08:00:00.000Z,5,`,
    '',
  ]);
  const few = markingCsv(exercise, [{ handIn, marks }], undefined, ['points', 'remarks']);
  expect(few.split('\r\n')[0]).toBe('name,points,points to give,remarks');
});

test('a lesson that is known to be sound is read without checks to the same', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), (sheet) => {
      const random = { ...lessonOf(sheet), exercise, work: worked.work };
      const kept = structuredClone(lessonToKeep(random));
      expect({ ok: true, value: lessonFromKept(kept) }).toEqual(readLesson(writeLesson(random)));
    }),
  );
});
