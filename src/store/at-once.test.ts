import 'fake-indexeddb/auto';
import { type ClassMarks, NO_MARKS } from '@/core/exercise/teacher-marks';
import { buildTask, exerciseOf } from '@/core/testing/exercises';
import { keptClassList, saveClassList } from './class-list';
import { allMarks, changeMarks, keptMarks, saveMarks } from './class-marks';
import { database } from './database';
import {
  exerciseFiles,
  handOut,
  isExerciseKept,
  keepExercise,
  keptExercise,
  keptExercises,
  removeExercise,
  saveExercise,
} from './exercises';
import { storeOf } from './testing/failing-store';
import { putAtOnce } from './write-at-once';

const expected = { kind: 'table', inputs: ['A'], outputs: [{ name: 'Y', rows: '01' }] };
const exercise = exerciseOf([buildTask(expected, [])], { id: 'exercise-1', title: 'Interlock' });
const titled = (title: string) => ({ ...exercise, title });

/** How many transactions the browser has been handed whole by the time a call returns. */
function handedOver(call: () => unknown): number {
  const commit = jest.spyOn(IDBTransaction.prototype, 'commit');
  call();
  const times = commit.mock.calls.length;
  commit.mockRestore();
  return times;
}

const given = (points: number): ClassMarks => ({
  ...NO_MARKS,
  handIns: { h1: { t1: { points, remarks: [], without: [] } } },
});

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
});

describe('what is changed has left the page when the call returns:', () => {
  test.each<[string, () => Promise<unknown>]>([
    ['an exercise', () => saveExercise(exercise)],
    ['what a teacher gave', () => saveMarks('exercise-1', given(1))],
    ['a class list', () => saveClassList({ students: [], joined: {} })],
    ['that there is no class list', () => saveClassList(null)],
  ])('%s', async (_, write) => {
    await database.open();
    let written: Promise<unknown> | undefined;
    expect(
      handedOver(() => {
        written = write();
      }),
    ).toBe(1);
    await written;
  });

  test('switches and tried rows', async () => {
    const store = await storeOf('lesson-1');
    const moment = { lesson: 'lesson-1', sheet: 's', inputs: { key: 1 as const }, tried: [], seconds: 3 };
    let written: Promise<unknown> | undefined;
    expect(
      handedOver(() => {
        written = store.saveMoment(moment);
      }),
    ).toBe(1);
    await written;
    expect(await database.moments.get('lesson-1')).toEqual(moment);
  });

  test('the last of many that follow one another stands', async () => {
    await saveExercise(exercise);
    await Promise.all(['a', 'b', 'c'].map((title) => saveExercise(titled(title))));
    expect((await keptExercise('exercise-1'))?.exercise.title).toBe('c');
    await Promise.all([saveClassList({ students: [], joined: { a: 'b' } }), saveClassList(null)]);
    expect(await keptClassList()).toBeNull();
  });

  test('a write that the browser refuses says so', async () => {
    await expect(putAtOnce('exerciseDrafts', 'exercise-1', { file: {} })).rejects.toMatchObject({
      name: 'DataError',
    });
    expect(await keptExercise('exercise-1')).toBeNull();
  });
});

describe('an exercise that is changed', () => {
  test('keeps the edition that was handed out, until it is handed out again', async () => {
    await saveExercise(exercise);
    const first = await handOut(exercise);
    await saveExercise({ ...first, title: 'Second' });
    const kept = (await keptExercise('exercise-1'))!;
    expect([kept.exercise.title, kept.editions.map(({ title }) => title)]).toEqual(['Second', ['Interlock']]);
    expect(kept.handedOut).toBeGreaterThan(0);
    const second = await handOut(kept.exercise);
    expect([second.title, second.edition]).toEqual(['Second', first.edition + 1]);
    expect((await keptExercise('exercise-1'))!.editions.map(({ title }) => title)).toEqual([
      'Interlock',
      'Second',
    ]);
  });

  test('was handed out as its record says, where that is older than the list of editions', async () => {
    await keepExercise(exercise);
    await database.exercises.update('exercise-1', { editions: undefined });
    await saveExercise(titled('Changed'));
    const kept = (await keptExercise('exercise-1'))!;
    expect([kept.exercise.title, kept.editions.map(({ title }) => title)]).toEqual([
      'Changed',
      ['Interlock'],
    ]);
  });

  test('goes whole, and comes back as it was', async () => {
    await saveExercise(exercise);
    await handOut(exercise);
    await saveExercise(titled('Changed'));
    const back = await removeExercise('exercise-1');
    expect([await isExerciseKept('exercise-1'), await keptExercises()]).toEqual([false, []]);
    await back();
    const [kept] = await keptExercises();
    expect([kept!.exercise.title, kept!.editions.length]).toEqual(['Changed', 1]);
  });

  test('stands once in the list, and in the archive as it is now', async () => {
    await saveExercise(exercise);
    await handOut(exercise);
    await saveExercise(titled('Changed'));
    await saveExercise({ ...exercise, id: 'exercise-2', title: 'New' });
    expect((await keptExercises()).map((one) => one.exercise.title)).toEqual(['Changed', 'New']);
    expect((await exerciseFiles()).map(({ file }) => (file as { title: string }).title)).toEqual([
      'Changed',
      'New',
    ]);
  });

  test('stays as it was changed when a known edition comes in as a file', async () => {
    const sealed = {
      ...exercise,
      tasks: exercise.tasks.map((task) => ({ ...task, key: null, sealed: { to: 'k', box: 'b' } })),
    };
    await keepExercise(exercise);
    await saveExercise(titled('Changed'));
    await keepExercise(sealed);
    expect((await keptExercise('exercise-1'))!.editions[0]!.tasks[0]!.key).toEqual(exercise.tasks[0]!.key);
    expect((await keptExercise('exercise-1'))!.exercise.title).toBe('Changed');
  });
});

describe('what a teacher gave', () => {
  /** The page ends before it is taken into the record of the exercise. */
  const lastWords = (marks: ClassMarks, base: ClassMarks) =>
    database.given.add({ exercise: 'exercise-1', base, marks } as never);

  test('in the last moment of a page is there in the next', async () => {
    await saveMarks('exercise-1', given(1));
    await lastWords(given(2), given(1));
    expect((await keptMarks('exercise-1')).handIns.h1?.t1?.points).toBe(2);
    expect((await allMarks()).map(([id, marks]) => [id, marks.handIns.h1?.t1?.points])).toEqual([
      ['exercise-1', 2],
    ]);
    // It is taken in by the next change, once.
    await saveMarks('exercise-1', given(3), given(2));
    expect([(await keptMarks('exercise-1')).handIns.h1?.t1?.points, await database.given.count()]).toEqual([
      3, 0,
    ]);
  });

  test('for an exercise of which nothing else was written is there too', async () => {
    await lastWords(given(2), NO_MARKS);
    expect((await allMarks()).map(([id]) => id)).toEqual(['exercise-1']);
  });

  test('and cannot be read is left out of the list, and stays where it is', async () => {
    await database.classMarks.put({ exercise: 'exercise-1', marks: { rules: 'none' } });
    expect(await allMarks()).toEqual([]);
    expect(await database.classMarks.count()).toBe(1);
  });

  test('is changed beside what was given and not taken in yet', async () => {
    await lastWords(given(2), NO_MARKS);
    const kept = await changeMarks('exercise-1', (marks) => ({ ...marks, due: '2026-12-01T10:00:00Z' }));
    expect([kept.due, kept.handIns.h1?.t1?.points]).toEqual(['2026-12-01T10:00:00Z', 2]);
  });

  test('and taken away again is gone, and what others gave stays', async () => {
    const both: ClassMarks = { ...given(1), handIns: { ...given(1).handIns, h2: given(4).handIns.h1! } };
    const base = await saveMarks('exercise-1', both);
    const less = { ...base, handIns: { h2: base.handIns.h2! } };
    expect(Object.keys((await saveMarks('exercise-1', less, base)).handIns)).toEqual(['h2']);
  });
});
