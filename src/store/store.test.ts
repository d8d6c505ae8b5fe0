import { expectDone } from '@/core/values/result';
import 'fake-indexeddb/auto';
import type { Edit } from '@/core/circuit/edit';
import type { LessonFile } from '@/core/circuit/lesson-schema';
import type { Params } from '@/core/circuit/sheet';
import { type ClassMarks, NO_MARKS } from '@/core/exercise/teacher-marks';
import { writeLesson } from '@/core/formats/write-lesson';
import { buildTask, exerciseOf } from '@/core/testing/exercises';
import { interlock } from '@/core/testing/sketch';
import { saveMarks } from './class-marks';
import { database } from './database';
import { keepExercise, keptExercises, workAt } from './exercises';
import { dropHandIns, foundBefore, handInTexts, keepFound, keepHandIns, keptHandIns } from './hand-ins';
import { isHeld, LEASE_MS, LeaseLost, LessonGone, leaseOf, setLeaseEnd, takeLease } from './lease';
import { openKept, openLesson, saveSnapshot, setAsideOf } from './lessons';
import { seedShelf } from './seed';
import {
  addLesson,
  deleteLesson,
  discardSetAside,
  duplicateLesson,
  rawLesson,
  renameLesson,
  shelf,
} from './shelf';
import { storeOf } from './testing/failing-store';

const { lesson } = interlock();
const label = (text: string): Edit => ({
  type: 'changePart',
  sheet: 'sheet1',
  id: 'and1',
  change: { label: text },
});
const journalEdits = async (id: string, edits: readonly Edit[]) => (await storeOf(id)).journalEdits(edits);
const labelOf = async () => {
  const read = await openLesson(lesson.id);
  return read?.ok && read.value.sheets[0]!.parts.get('and1')!.label;
};

beforeEach(async () => {
  await Promise.all(database.tables.map((t) => t.clear()));
});

test('a lesson is its snapshot and the journal since', async () => {
  await saveSnapshot(lesson);
  await journalEdits(lesson.id, [label('one')]);
  await journalEdits(lesson.id, [label('two')]);
  expect(await labelOf()).toBe('two');
  const read = await openLesson(lesson.id);
  if (!read?.ok) throw new Error('not read');
  await saveSnapshot(read.value);
  expect(await database.journal.count()).toBe(0);
  expect(await labelOf()).toBe('two');
});

test('a snapshot clears the journal only up to what it holds', async () => {
  await saveSnapshot(lesson);
  const first = await journalEdits(lesson.id, [label('one')]);
  await journalEdits(lesson.id, [label('two')]);
  await (await storeOf(lesson.id)).saveSnapshot(lesson, first);
  expect(await database.journal.count()).toBe(1);
  expect(await labelOf()).toBe('two');
});

test('what the shelf has read is opened as it is, and read anew once anything of it was kept since', async () => {
  await saveSnapshot(lesson);
  const shown = async () => {
    const [item] = await shelf();
    return item!.lesson.ok && item!.lesson.value;
  };
  const opened = async () => {
    const read = await openLesson(lesson.id);
    return read?.ok && read.value;
  };
  expect(await opened()).not.toBe(await shown());
  const atHand = await shown();
  expect(await opened()).toBe(atHand);
  // It is given away once: a second opening reads the kept one.
  expect(await opened()).not.toBe(atHand);
  await shown();
  await journalEdits(lesson.id, [label('one')]);
  expect(await labelOf()).toBe('one');
  const edited = await shown();
  if (!edited) throw new Error('not read');
  await saveSnapshot({ ...edited, title: 'Another title' });
  expect(await opened()).toMatchObject({ title: 'Another title' });
});

test('a stored lesson that is damaged is refused with a reason and stays where it is', async () => {
  await saveSnapshot(lesson);
  const record = (await database.lessons.get(lesson.id))!;
  await database.lessons.put({
    ...record,
    file: { ...(record.file as LessonFile), version: 9 as LessonFile['version'] },
  });
  expect(await openLesson(lesson.id)).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('version 9') },
  });
  expect((await shelf()).map((i) => i.lesson.ok)).toEqual([false]);
  expect(await openLesson('nowhere')).toBeNull();
});

test('what no longer applies is set aside when the journal is settled, and goes when it is discarded', async () => {
  await saveSnapshot(lesson);
  await journalEdits(lesson.id, [
    label('one'),
    { type: 'removePart', sheet: 'sheet1', id: 'gone' },
    label('two'),
  ]);
  await (await storeOf(lesson.id)).settleJournal(expectDone((await openKept(lesson.id))!));
  expect(await database.journal.count()).toBe(0);
  expect(await labelOf()).toBe('two');
  expect((await setAsideOf(lesson.id)).map((a) => a.reason)).toEqual(['there is no part gone on this sheet']);
  expect(await rawLesson(lesson.id)).toMatchObject({ setAside: [{ edit: { id: 'gone' } }] });
  await discardSetAside(lesson.id);
  expect(await setAsideOf(lesson.id)).toEqual([]);
});

test('edits of another build get what they lack, and are set aside where this build would not make them', async () => {
  await saveSnapshot(lesson);
  const params = (set: Params): Edit => ({
    type: 'changePart',
    sheet: 'sheet1',
    id: 'and1',
    change: { params: set },
  });
  await journalEdits(lesson.id, [params({ inputs: 3 })]);
  expect(expectDone((await openLesson(lesson.id))!).sheets[0]!.parts.get('and1')!.params).toMatchObject({
    inputs: 3,
    inverted: [],
    width: 1,
  });
  await journalEdits(lesson.id, [params({ inputs: 99 }), label('two')]);
  const { aside } = expectDone((await openKept(lesson.id))!);
  expect(aside.map((a) => a.reason)).toEqual([expect.stringContaining('part and1')]);
  expect(await labelOf()).toBe('two');
});

test('renaming on the shelf keeps what no longer applies as well', async () => {
  await saveSnapshot(lesson);
  await journalEdits(lesson.id, [{ type: 'removePart', sheet: 'sheet1', id: 'gone' }, label('two')]);
  await renameLesson(lesson.id, 'Renamed');
  expect(await labelOf()).toBe('two');
  expect(await setAsideOf(lesson.id)).toHaveLength(1);
});

test('deleting takes everything away, and undoing puts everything back', async () => {
  await saveSnapshot(lesson);
  await journalEdits(lesson.id, [label('kept')]);
  const putBack = await deleteLesson(lesson.id);
  expect(await openLesson(lesson.id)).toBeNull();
  expect(await database.journal.count()).toBe(0);
  await putBack();
  expect(await labelOf()).toBe('kept');
});

test('renaming, duplicating and importing an id that is taken', async () => {
  await saveSnapshot(lesson);
  await renameLesson(lesson.id, 'Renamed');
  await duplicateLesson(lesson.id);
  const again = await addLesson(lesson);
  expect(again.id).not.toBe(lesson.id);
  const titles = (await shelf()).map((i) => i.lesson.ok && i.lesson.value.title);
  expect(titles).toEqual(['Test', 'Renamed copy', 'Renamed']);
});

test('the demos are put on the shelf once', async () => {
  await seedShelf([writeLesson(lesson)]);
  await deleteLesson(lesson.id);
  await seedShelf([writeLesson(lesson)]);
  expect(await shelf()).toEqual([]);
});

test('work at an exercise is begun once and found again', async () => {
  const expected = { kind: 'table', inputs: ['A'], outputs: [{ name: 'Y', rows: '01' }] };
  const exercise = exerciseOf([buildTask(expected, [])], { id: 'exercise-9', title: 'Warn' });
  const first = await workAt(exercise);
  const second = await workAt(exercise);
  expect(first.ok && second.ok && first.value.id === second.value.id).toBe(true);
  expect(first.ok && first.value.exercise).toEqual(exercise);
  await keepExercise(exercise);
  expect((await keptExercises()).map((e) => e.exercise.title)).toEqual(['Warn']);
});

const textsOf = async (exercise: string) =>
  (await handInTexts((await keptHandIns(exercise)).map(({ key }) => key))).map(({ text }) => text);

test('hand-ins are kept by exercise, and come back after they were removed', async () => {
  await keepHandIns('e1', [
    { file: 'a.json', text: 'A' },
    { file: 'b.json', text: 'B' },
  ]);
  await keepHandIns('e2', [{ file: 'c.json', text: 'C' }]);
  expect(await textsOf('e1')).toEqual(['A', 'B']);
  const putBack = await dropHandIns([(await keptHandIns('e1'))[0]!.key]);
  expect(await textsOf('e1')).toEqual(['B']);
  await putBack();
  expect(await textsOf('e1')).toEqual(['A', 'B']);
});

test('the same hand-in is kept once, however often it is dropped', async () => {
  const files = [
    { file: 'a.json', text: 'A' },
    { file: 'a (1).json', text: 'A' },
  ];
  expect(await keepHandIns('twice', files)).toBe(1);
  expect(await keepHandIns('twice', [...files, { file: 'b.json', text: 'B' }])).toBe(1);
  expect(await textsOf('twice')).toEqual(['A', 'B']);
});

test('what was found of a hand-in holds for the tasks by which it was marked, and goes with it', async () => {
  await keepHandIns('found', [{ file: 'a.json', text: 'F' }]);
  const [{ key, hash }] = (await keptHandIns('found')) as [{ key: number; hash: string }];
  const handIn = {
    exercise: { id: 'found', title: '', edition: 1 },
    name: 'Ada Sample',
    results: {},
    checks: {},
  };
  const one = { id: hash, handIn: { ...handIn, handedIn: '', seconds: 0 }, answers: [] };
  await keepFound('first tasks', [one]);
  expect((await foundBefore('first tasks', [hash])).get(hash)).toEqual(one);
  expect((await foundBefore('other tasks', [hash])).size).toBe(0);
  await keepFound('other tasks', [one]);
  expect((await foundBefore('first tasks', [hash])).size).toBe(0);
  await dropHandIns([key]);
  expect((await foundBefore('other tasks', [hash])).size).toBe(0);
});

test('what two tabs give at once stands together', async () => {
  const remark = (text: string) => ({ id: text, text, points: 0, at: null });
  const given = (handIn: string, text: string): ClassMarks => ({
    ...NO_MARKS,
    handIns: { [handIn]: { t1: { points: null, remarks: [remark(text)], without: [] } } },
  });
  await saveMarks('two tabs', given('h1', 'good'));
  const kept = await saveMarks('two tabs', given('h2', 'late'));
  expect(Object.keys(kept.handIns)).toEqual(['h2', 'h1']);
  // What was taken away here is gone, and what was given there stays.
  const less = await saveMarks('two tabs', given('h1', 'good'), kept);
  expect(less.handIns).toEqual(given('h1', 'good').handIns);
});

describe('the lease of a lesson', () => {
  test('is taken by one of two that saw the same', async () => {
    const taken = await Promise.all(['a', 'b'].map((holder) => takeLease(lesson.id, holder, 0, 1000)));
    expect(taken.filter((token) => token === 1)).toHaveLength(1);
    expect(taken.filter((token) => token === null)).toHaveLength(1);
  });

  test('holds until it runs out, and never longer than a lease can, wherever the clock stands', async () => {
    const token = (await takeLease(lesson.id, 'a', 0, 1_000_000))!;
    const lease = (await leaseOf(lesson.id))!;
    expect(isHeld(lease, 1_000_000)).toBe(true);
    expect(isHeld(lease, 1_000_000 + LEASE_MS)).toBe(false);
    // The clock was set back by an hour.
    expect(isHeld(lease, 1_000_000 - 3_600_000)).toBe(false);
    expect(isHeld(undefined, 0)).toBe(false);
    expect(await setLeaseEnd(lesson.id, token, 0)).toBe(true);
    expect(isHeld(await leaseOf(lesson.id), 1)).toBe(false);
    expect(await setLeaseEnd(lesson.id, token + 1, 99)).toBe(false);
  });

  test('is asked for in each write: who has lost it writes nothing', async () => {
    await saveSnapshot(lesson);
    const first = await storeOf(lesson.id, 'first');
    await first.journalEdits([label('one')]);
    const second = await storeOf(lesson.id, 'second');
    const moment = { lesson: lesson.id, sheet: 'sheet1', inputs: {}, tried: [], seconds: 0 };
    for (const write of [
      () => first.journalEdits([label('lost')]),
      () => first.saveSnapshot({ ...lesson, title: 'Lost' }),
      () => first.saveMoment(moment),
      () => first.bringBack({ ...lesson, title: 'Lost' }),
      () => first.settleJournal({ lesson: { ...lesson, title: 'Lost' }, aside: [], edits: 1 }),
    ])
      await expect(write()).rejects.toThrow(LeaseLost);
    expect(await labelOf()).toBe('one');
    await second.journalEdits([label('two')]);
    expect(await labelOf()).toBe('two');
  });

  test('of a deleted lesson writes nothing either, until the lesson is brought back', async () => {
    await saveSnapshot(lesson);
    const store = await storeOf(lesson.id);
    await deleteLesson(lesson.id);
    await expect(store.journalEdits([label('lost')])).rejects.toThrow(LessonGone);
    await expect(store.saveSnapshot(lesson)).rejects.toThrow(LessonGone);
    expect(await openLesson(lesson.id)).toBeNull();
    await store.bringBack(lesson);
    await store.journalEdits([label('back')]);
    expect(await labelOf()).toBe('back');
  });

  test('keeps nothing that was made after an edit that was refused, and tells it', async () => {
    await saveSnapshot(lesson);
    const store = await storeOf(lesson.id);
    await store.journalEdits([label('one')]);
    // Refused by the store: this cannot be written.
    const impossible = { ...label('two'), change: { label: () => 0 } } as unknown as Edit;
    const writes = [store.journalEdits([impossible]), store.journalEdits([label('three')])];
    await expect(writes[0]).rejects.toThrow('could not be cloned');
    await writes[1];
    expect(expectDone((await openKept(lesson.id))!).aside).toEqual([
      expect.objectContaining({ edit: label('three'), reason: 'an edit before it could not be kept' }),
    ]);
    expect(await labelOf()).toBe('one');
    // The lesson written whole takes the place of both.
    await store.saveSnapshot(lesson);
    await store.journalEdits([label('four')]);
    expect(await labelOf()).toBe('four');
  });

  test('of a lesson that was deleted and imported again is another one', async () => {
    await saveSnapshot(lesson);
    const before = await storeOf(lesson.id);
    await deleteLesson(lesson.id);
    expect((await addLesson(lesson)).id).toBe(lesson.id);
    await expect(before.journalEdits([label('lost')])).rejects.toThrow(LeaseLost);
    await (await storeOf(lesson.id)).journalEdits([label('again')]);
    expect(await labelOf()).toBe('again');
  });

  test('keeps the title of a lesson that a tab edits as that tab has it', async () => {
    await saveSnapshot(lesson);
    const held = (await takeLease(lesson.id, 'tab', 0, Date.now()))!;
    await expect(renameLesson(lesson.id, 'Other')).rejects.toThrow('a tab edits this lesson');
    await setLeaseEnd(lesson.id, held, 0);
    await renameLesson(lesson.id, 'Other');
    expect((await shelf())[0]!.record.title).toBe('Other');
  });
});

test.each([
  ['text', 5000, '"parts":[{'],
  ['lists', 11_000, '"tables":{'],
])(
  'a large lesson is kept as %s, and comes back as it was, by this build and by another',
  async (_, count, form) => {
    const { lesson: small } = interlock();
    const [sheet] = small.sheets;
    const [first] = sheet!.parts.values();
    const parts = new Map(
      Array.from({ length: count }, (_, i) => [`p${i}`, { ...first!, id: `p${i}`, rank: i % 3 }]),
    );
    const large = { ...small, id: 'large-lesson', sheets: [{ ...sheet!, parts, wires: new Map() }, sheet!] };
    const kept = { ...large, sheets: [large.sheets[0]!, { ...sheet!, id: 'small' }] };
    await saveSnapshot(kept);
    const record = (await database.lessons.get('large-lesson'))!;
    expect(record.file).toContain(form);
    expect(expectDone((await openLesson('large-lesson'))!)).toEqual(kept);
    await database.lessons.put({ ...record, rules: 'of another build' });
    expect(expectDone((await openLesson('large-lesson'))!)).toEqual(kept);
  },
);

test('lists of a large lesson that are damaged are told, and the lesson stays where it is', async () => {
  const { lesson: small } = interlock();
  const [sheet] = small.sheets;
  const [first] = sheet!.parts.values();
  const parts = new Map(Array.from({ length: 11_000 }, (_, i) => [`p${i}`, { ...first!, id: `p${i}` }]));
  await saveSnapshot({ ...small, id: 'large-lesson', sheets: [{ ...sheet!, parts, wires: new Map() }] });
  const record = (await database.lessons.get('large-lesson'))!;
  const file = (record.file as string).replace('"ids":"p0 ', '"ids":"');
  for (const rules of [record.rules, 'of another build']) {
    await database.lessons.put({ ...record, file, rules });
    const [item] = await shelf();
    expect(item!.lesson).toMatchObject({
      ok: false,
      problem: { message: expect.stringContaining('does not fit') },
    });
    expect((await database.lessons.get('large-lesson'))!.file).toBe(file);
  }
});
