import { apply, type Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import { lessonFromChecked, lessonToFile } from '@/core/formats/write-lesson';
import type { Result } from '@/core/values/result';
import { database, type JournalRecord, type LessonRecord, type MomentRecord, randomId } from './database';

let last = 0;
/** The present in ms, and never the same twice, so that what was kept last stands first. */
function nextMoment(): number {
  last = Math.max(last + 1, Date.now());
  return last;
}

/** The rules of this build, or none where it was not built. */
const RULES = process.env.RULES;

const recordOf = (lesson: Lesson): LessonRecord => ({
  id: lesson.id,
  title: lesson.title,
  file: lessonToFile(lesson),
  exerciseId: lesson.exercise?.id ?? '',
  changed: nextMoment(),
  rules: RULES,
});

/** A lesson as this page read it, with what tells whether it was kept anew or edited since. */
interface AtHand {
  readonly lesson: Lesson;
  readonly changed: number;
  readonly edits: number;
}

/** What the shelf has read: opening one of these again takes neither reading nor checking. */
const atHand = new Map<string, AtHand>();

/** The lesson at hand if what is kept is still the same; it is given away only once. */
async function takeFromHand(id: string): Promise<Lesson | null> {
  const held = atHand.get(id);
  atHand.delete(id);
  if (!held) return null;
  const [ids, edits] = await database.transaction('r', database.lessons, database.journal, () =>
    Promise.all([
      database.lessons.where('changed').equals(held.changed).primaryKeys(),
      database.journal.where('lesson').equals(id).count(),
    ]),
  );
  return ids.includes(id) && edits === held.edits ? held.lesson : null;
}

/** A lesson from its snapshot and the journal since, or a sentence that says what is wrong with it. */
export async function openLesson(id: string): Promise<Result<Lesson> | null> {
  const held = await takeFromHand(id);
  if (held) return { ok: true, value: held };
  return (await readKept(id)).lesson;
}

async function readKept(id: string): Promise<{ lesson: Result<Lesson> | null; edits: number }> {
  const [record, journal] = await database.transaction('r', database.lessons, database.journal, () =>
    Promise.all([database.lessons.get(id), database.journal.where('lesson').equals(id).sortBy('seq')]),
  );
  return { lesson: record ? await lessonOf(record, journal) : null, edits: journal.length };
}

async function lessonOf(record: LessonRecord, journal: readonly JournalRecord[]): Promise<Result<Lesson>> {
  const isChecked = RULES !== undefined && record.rules === RULES;
  const read: Result<Lesson> = isChecked
    ? { ok: true, value: lessonFromChecked(record.file) }
    : (await import('@/core/formats/lesson-file')).lessonFromJson(record.file);
  if (!read.ok) return read;
  let lesson = read.value;
  for (const { edit } of journal) {
    const applied = apply(lesson, edit);
    if (!applied.ok) break;
    lesson = applied.value;
  }
  return { ok: true, value: lesson };
}

/** Writes a lesson whole and clears its journal up to the entry that it holds already, in one transaction. */
export async function saveSnapshot(lesson: Lesson, upTo = Number.POSITIVE_INFINITY): Promise<void> {
  await database.transaction('rw', database.lessons, database.journal, async () => {
    await database.lessons.put(recordOf(lesson));
    await database.journal
      .where('lesson')
      .equals(lesson.id)
      .and((entry) => entry.seq <= upTo)
      .delete();
  });
}

/** Whether a lesson's journal holds edits that its snapshot does not. */
export async function isJournaled(lesson: string): Promise<boolean> {
  return (await database.journal.where('lesson').equals(lesson).count()) > 0;
}

/** Adds an edit to the journal; resolves with its number when the browser has it. */
export async function journalEdit(lesson: string, edit: Edit): Promise<number> {
  return database.journal.add({ lesson, edit } as never);
}

export async function momentOf(lesson: string): Promise<MomentRecord | undefined> {
  return database.moments.get(lesson);
}

export async function saveMoment(moment: MomentRecord): Promise<void> {
  await database.moments.put(moment);
}

/** Names of all lessons, last changed first. */
export async function lessonTitles(): Promise<{ id: string; title: string }[]> {
  const records = await database.lessons.orderBy('changed').reverse().toArray();
  return records.map(({ id, title }) => ({ id, title }));
}

/** All lessons, last changed first, each as it is now; those that cannot be read carry the reason. */
export async function shelf(): Promise<{ record: LessonRecord; lesson: Result<Lesson> }[]> {
  const records = await database.lessons.orderBy('changed').reverse().toArray();
  const items = await Promise.all(
    records.map(async (record) => {
      const { lesson, edits } = await readKept(record.id);
      if (lesson?.ok) atHand.set(record.id, { lesson: lesson.value, changed: record.changed, edits });
      return lesson && { record, lesson };
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

export async function renameLesson(id: string, title: string): Promise<void> {
  const read = await openLesson(id);
  if (read?.ok) await saveSnapshot({ ...read.value, title });
}

export async function duplicateLesson(id: string): Promise<void> {
  const read = await openLesson(id);
  if (read?.ok)
    await saveSnapshot({ ...read.value, id: randomId(), title: `${read.value.title} copy`.slice(0, 120) });
}

/** Takes a lesson off the shelf; calling what it gives puts everything of it back. */
export async function deleteLesson(id: string): Promise<() => Promise<void>> {
  const { lessons, journal, moments } = database;
  return database.transaction('rw', lessons, journal, moments, async () => {
    const record = await lessons.get(id);
    const edits = await journal.where('lesson').equals(id).toArray();
    const moment = await moments.get(id);
    await lessons.delete(id);
    await journal.where('lesson').equals(id).delete();
    await moments.delete(id);
    return async () => {
      await database.transaction('rw', lessons, journal, moments, async () => {
        if (record) await lessons.put(record);
        await journal.bulkPut(edits);
        if (moment) await moments.put(moment);
      });
    };
  });
}
