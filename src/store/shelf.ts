import type { Lesson } from '@/core/circuit/lesson';
import { mapped, type Result } from '@/core/values/result';
import { database, type LessonRecord, randomId } from './database';
import { endLease, isHeld, LessonInUse, markGone } from './lease';
import { keepAtHand, openKept, openLesson, putSnapshot, readKept, saveSnapshot, setAsideOf } from './lessons';

/*
 * The shelf: all lessons of this browser, and operations on a lesson that no page has open.
 */

/** Names of all lessons, last changed first. */
export async function lessonTitles(): Promise<{ id: string; title: string }[]> {
  const records = await database.lessons.orderBy('changed').reverse().toArray();
  return records.map(({ id, title }) => ({ id, title }));
}

/** All lessons in their present state, last changed first. A lesson that cannot be read is refused with the reason. */
export async function shelf(): Promise<{ record: LessonRecord; lesson: Result<Lesson> }[]> {
  const records = await database.lessons.orderBy('changed').reverse().toArray();
  const items = await Promise.all(
    records.map(async (record) => {
      const read = await readKept(record.id);
      if (read?.ok) keepAtHand(record.id, read.value, record.changed);
      return read && { record, lesson: mapped(read, (kept) => kept.lesson) };
    }),
  );
  return items.filter((item) => item !== null);
}

/** Puts a lesson on the shelf; where its id is taken by another lesson it gets one of its own. */
export async function addLesson(lesson: Lesson): Promise<Lesson> {
  const taken = await database.lessons.get(lesson.id);
  const added = taken ? { ...lesson, id: randomId() } : lesson;
  await saveSnapshot(added);
  return added;
}

/**
 * Gives a lesson another title.
 * @throws LessonInUse where a tab edits it: that tab would go on with the old one.
 */
export async function renameLesson(id: string, title: string): Promise<void> {
  const read = await openKept(id);
  if (!read?.ok) return;
  const { lesson, aside } = read.value;
  const { lessons, journal, setAside, leases, fences } = database;
  await database.transaction('rw', [lessons, journal, setAside, leases, fences], async () => {
    const lease = await leases.get(id);
    if (isHeld(lease, Date.now())) throw new LessonInUse('a tab edits this lesson');
    if (lease) await endLease(lease);
    await setAside.bulkPut([...aside]);
    await putSnapshot({ ...lesson, title }, Number.POSITIVE_INFINITY);
  });
}

export async function duplicateLesson(id: string): Promise<void> {
  const read = await openLesson(id);
  if (read?.ok)
    await saveSnapshot({ ...read.value, id: randomId(), title: `${read.value.title} copy`.slice(0, 120) });
}

/** Removes a lesson from the shelf; the returned function puts all of it back. */
export async function deleteLesson(id: string): Promise<() => Promise<void>> {
  const { lessons, journal, setAside, moments, leases, fences } = database;
  const all = [lessons, journal, setAside, moments, leases, fences];
  return database.transaction('rw', all, async () => {
    const record = await lessons.get(id);
    const edits = await journal.where('lesson').equals(id).toArray();
    const aside = await setAsideOf(id);
    const moment = await moments.get(id);
    await lessons.delete(id);
    await journal.where('lesson').equals(id).delete();
    await setAside.where('lesson').equals(id).delete();
    await moments.delete(id);
    await markGone(id, true);
    return async () => {
      await database.transaction('rw', all, async () => {
        await markGone(id, false);
        if (record) await lessons.put(record);
        await journal.bulkPut(edits);
        await setAside.bulkPut(aside);
        if (moment) await moments.put(moment);
      });
    };
  });
}

/** A lesson as the browser holds it, unread: for one that cannot be opened. */
export async function rawLesson(id: string): Promise<unknown> {
  const [record, journal, setAside] = await Promise.all([
    database.lessons.get(id),
    database.journal.where('lesson').equals(id).sortBy('seq'),
    setAsideOf(id),
  ]);
  return { record, journal, setAside };
}

export async function discardSetAside(lesson: string): Promise<void> {
  await database.setAside.where('lesson').equals(lesson).delete();
}
