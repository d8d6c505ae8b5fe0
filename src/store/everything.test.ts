import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { begunWork } from '@/core/exercise/begin';
import { type Answered, NO_MARKS, withPoints } from '@/core/exercise/teacher-marks';
import { readExercise } from '@/core/formats/exercise-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { changeMarks, keptMarks } from './class-marks';
import { database } from './database';
import { bringBack, everything, isEverything, sweep } from './everything';
import { keepExercise } from './exercises';
import { keepHandIns } from './hand-ins';
import { takeLease } from './lease';
import { openLesson, saveSnapshot } from './lessons';
import { keepReturned, keptReturned } from './returned';
import { deleteLesson } from './shelf';

const { lesson } = interlock();
const given = (points: number) =>
  withPoints(NO_MARKS, { handIn: 'ada', task: { id: 'task1' } } as Answered, points);
const demo = (name: string) => readFileSync(`demo/exercise/${name}`, 'utf8');

beforeEach(async () => {
  await Promise.all(database.tables.map((table) => table.clear()));
  await saveSnapshot(lesson);
  const exercise = expectDone(readExercise(demo('warning-lamp.exercise.json')));
  await keepExercise(exercise);
  await keepHandIns(exercise.id, [{ file: 'ada', text: demo('ada.handin.json') }]);
  await changeMarks(exercise.id, () => given(1));
  await keepReturned({
    name: 'Ada Sample',
    handedIn: '2026-09-02T08:00:00.000Z',
    returned: '2026-09-03T08:00:00.000Z',
    tasks: {},
    lesson: begunWork(exercise, 'work'),
  });
});

test('everything that is saved comes back in another browser', async () => {
  const files = await everything();
  expect(isEverything(files)).toBe(true);
  await Promise.all(database.tables.map((table) => table.clear()));
  expect(await bringBack(files)).toEqual({
    lessons: 1,
    exercises: 1,
    handIns: 1,
    markings: 1,
    returned: 1,
    known: 0,
    problems: [],
  });
  expect(writeLesson(expectDone((await openLesson(lesson.id))!))).toBe(writeLesson(lesson));
  expect(await database.handIns.count()).toBe(1);
  const { id } = (await database.exercises.toArray())[0]!;
  expect(await keptMarks(id)).toEqual(given(1));
  expect((await keptReturned(id))?.name).toBe('Ada Sample');
});

test('points that were given here stand against those of an archive, and remarks come together', async () => {
  const files = await everything();
  const { id } = (await database.exercises.toArray())[0]!;
  await changeMarks(id, () => given(2));
  await bringBack(files);
  expect(await keptMarks(id)).toEqual(given(2));
  await changeMarks(id, () => NO_MARKS);
  expect(await bringBack(files)).toMatchObject({ markings: 1 });
  expect(await keptMarks(id)).toEqual(given(1));
});

test('nothing that is here is replaced: what is the same is counted, what differs stands beside', async () => {
  const files = await everything();
  expect(await bringBack(files)).toEqual({
    lessons: 0,
    exercises: 0,
    handIns: 0,
    markings: 0,
    returned: 0,
    known: 5,
    problems: [],
  });
  await saveSnapshot({ ...lesson, title: 'Went on since' });
  expect(await bringBack(files)).toMatchObject({ lessons: 1, known: 4 });
  expect((await database.lessons.toArray()).map(({ title }) => title).sort()).toEqual(
    [lesson.title, 'Went on since'].sort(),
  );
});

test('a lesson that cannot be read is saved as it is kept, and what is damaged is named', async () => {
  await database.lessons.update(lesson.id, { file: { broken: true } as never, rules: 'other' });
  const files = await everything();
  expect(files.find(({ name }) => name === `damaged/${lesson.id}.json`)!.text).toContain('"broken":true');
  const { problems } = await bringBack([
    ...files,
    { name: 'lessons/x.manege.json', text: '{"format":"manege-lesson"}' },
  ]);
  expect(problems).toEqual([
    expect.stringMatching(/^damaged\/.*: it is none of our files/),
    expect.stringMatching(/^lessons\/x\.manege\.json: it has no version number/),
  ]);
});

test('what a deleted lesson has left behind is swept away after a day, and no sooner', async () => {
  const now = Date.now();
  await takeLease(lesson.id, 'page', 0, now);
  await database.moments.put({ lesson: 'gone', sheet: 's', inputs: {}, tried: [], seconds: 0 });
  await database.journal.add({ lesson: 'gone', edit: { type: 'group', edits: [] } } as never);
  await sweep(now);
  expect([await database.moments.count(), await database.journal.count()]).toEqual([0, 0]);
  await deleteLesson(lesson.id);
  await sweep(now + 3600_000);
  expect(await database.leases.count()).toBe(1);
  await sweep(now + 2 * 86_400_000);
  expect(await database.leases.count()).toBe(0);
});
