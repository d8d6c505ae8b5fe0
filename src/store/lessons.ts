import { apply, type Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import type { LessonFile } from '@/core/circuit/lesson-schema';
import { lessonFromKept, lessonToKeep, lessonToKeptText } from '@/core/formats/kept-lesson';
import { done, mapped, problemOf, type Result, refused } from '@/core/values/result';
import { load } from '@/loading/load';
import {
  database,
  type JournalPlace,
  type JournalRecord,
  type LessonRecord,
  type MomentRecord,
  type SetAsideRecord,
} from './database';
import { endLease } from './lease';

let last = 0;
/** The present in ms, and never the same twice, so that the latest record comes first. */
function nextMoment(): number {
  last = Math.max(last + 1, Date.now());
  return last;
}

/** The rules of this build, or none if it was not built. */
const RULES = process.env.RULES;

/** Parts and wires from which a lesson is kept as text. */
const KEPT_AS_TEXT = 4000;

function fileFor(lesson: Lesson): LessonRecord['file'] {
  const size = lesson.sheets.reduce((sum, { parts, wires }) => sum + parts.size + wires.size, 0);
  return size > KEPT_AS_TEXT ? lessonToKeptText(lesson) : lessonToKeep(lesson);
}

/** The file of a record, whichever way it was kept. @throws Error where its text is damaged */
const fileOf = ({ file }: LessonRecord): LessonFile => (typeof file === 'string' ? JSON.parse(file) : file);

const recordOf = (lesson: Lesson): LessonRecord => ({
  id: lesson.id,
  title: lesson.title,
  file: fileFor(lesson),
  exerciseId: lesson.exercise?.id ?? '',
  changed: nextMoment(),
  rules: RULES,
});

/** Whether the demo lessons were never put on the shelf of this browser. */
export const isShelfNew = async (): Promise<boolean> => !(await database.marks.get('seeded'));

/** A lesson as this page read it, with the stamps that show whether it was kept again or edited since. */
interface AtHand {
  readonly kept: Kept;
  readonly changed: number;
}

/** The lessons that the shelf has read: opening one of these needs no reading and no checking. */
const atHand = new Map<string, AtHand>();

/** Keeps a lesson that the shelf has read for whoever opens it next. */
export const keepAtHand = (id: string, kept: Kept, changed: number): void =>
  void atHand.set(id, { kept, changed });

/** The lesson in memory if the kept one is still the same; it is given away only once. */
async function takeFromHand(id: string): Promise<Kept | null> {
  const held = atHand.get(id);
  atHand.delete(id);
  if (!held) return null;
  const [ids, edits] = await database.transaction('r', database.lessons, database.journal, () =>
    Promise.all([
      database.lessons.where('changed').equals(held.changed).primaryKeys(),
      database.journal.where('lesson').equals(id).count(),
    ]),
  );
  return ids.includes(id) && edits === held.kept.edits ? held.kept : null;
}

/** A lesson as it is kept, with the edits of its journal that no longer apply. */
export interface Kept {
  readonly lesson: Lesson;
  /** Edits that could not be made again; those after them were. */
  readonly aside: readonly SetAsideRecord[];
  /** Edits in the journal. */
  readonly edits: number;
}

/** A lesson from its snapshot and the journal since; null if there is none of that id. */
export async function openLesson(id: string): Promise<Result<Lesson> | null> {
  const read = await openKept(id);
  return read && mapped(read, (kept) => kept.lesson);
}

/** As `openLesson`, with the edits that could not be made again. */
export async function openKept(id: string): Promise<Result<Kept> | null> {
  const held = await takeFromHand(id);
  return held ? done(held) : readKept(id);
}

/** As `openKept`, from the store alone. */
export async function readKept(id: string): Promise<Result<Kept> | null> {
  const [record, journal] = await database.transaction('r', database.lessons, database.journal, () =>
    Promise.all([database.lessons.get(id), database.journal.where('lesson').equals(id).sortBy('seq')]),
  );
  return record ? keptFrom(record, journal) : null;
}

/** Reads a lesson that another build of Manege wrote, or that an edit of one has led to. */
const checked = async (file: unknown): Promise<Result<Lesson>> =>
  (await load('the reader of lessons', () => import('@/core/formats/lesson-file'))).lessonFromJson(file);

async function keptFrom(record: LessonRecord, journal: readonly JournalRecord[]): Promise<Result<Kept>> {
  const isOurs = RULES !== undefined && record.rules === RULES;
  const read = isOurs ? done(lessonFromKept(fileOf(record))) : await checked(fileOf(record));
  if (!read.ok) return read;
  const replayed = await replay(read.value, record.next, journal, async (lesson) => done(lesson));
  if (isOurs || journal.length === 0) return done(replayed);
  // Edits of another build may hold content that this one would not make: unknown fields, unknown kinds.
  const whole = await checked(lessonToKeep(replayed.lesson));
  if (whole.ok) return done({ ...replayed, lesson: whole.value });
  return done(await replay(read.value, record.next, journal, (lesson) => checked(lessonToKeep(lesson))));
}

/**
 * Makes the edits of a journal again, each that the lesson and `check` take; the others are set aside, and all that a page
 * made after one that was refused.
 */
async function replay(
  from: Lesson,
  begun: JournalPlace | undefined,
  journal: readonly JournalRecord[],
  check: (lesson: Lesson) => Promise<Result<Lesson>>,
): Promise<Kept> {
  let lesson = from;
  const aside: SetAsideRecord[] = [];
  let next = begun;
  for (const entry of journal) {
    const { place } = entry;
    if (place && place.edits !== (place.token === next?.token ? next.edits : 0)) {
      aside.push({ ...entry, reason: 'an edit before it could not be kept' });
      continue;
    }
    if (place) next = { token: place.token, edits: place.edits + 1 };
    const applied = applyKept(lesson, entry.edit);
    const made = applied.ok ? await check(applied.value) : applied;
    if (made.ok) lesson = made.value;
    else aside.push({ ...entry, reason: made.problem.message });
  }
  return { lesson, aside, edits: journal.length };
}

/** Makes an edit that was kept, whatever it has become in the meantime. */
function applyKept(lesson: Lesson, edit: Edit): Result<Lesson> {
  try {
    return apply(lesson, edit);
  } catch (error) {
    return refused('damaged-edit', `it is damaged (${problemOf(error).message})`);
  }
}

/** Puts a lesson on the shelf: writes it whole and clears its journal, in one transaction. */
export async function saveSnapshot(lesson: Lesson): Promise<void> {
  const { lessons, journal, leases, fences } = database;
  await database.transaction('rw', [lessons, journal, leases, fences], async () => {
    // One of its id may have been deleted before: a page that still shows that one has another lesson.
    const lease = await leases.get(lesson.id);
    if (lease) await endLease({ ...lease, isGone: false });
    await putSnapshot(lesson, Number.POSITIVE_INFINITY);
  });
}

/**
 * To be called in a transaction with lessons and journal in it.
 * @param next where the next edit of the page that writes it will belong.
 */
export async function putSnapshot(lesson: Lesson, upTo: number, next?: JournalPlace): Promise<void> {
  await database.lessons.put({ ...recordOf(lesson), ...(next && { next }) });
  await database.journal
    .where('lesson')
    .equals(lesson.id)
    .and((entry) => entry.seq <= upTo)
    .delete();
}

/** Edits of a lesson that were set aside, in the order in which they were made. */
export async function setAsideOf(lesson: string): Promise<SetAsideRecord[]> {
  return database.setAside.where('lesson').equals(lesson).sortBy('seq');
}

export const isOnShelf = async (id: string): Promise<boolean> =>
  (await database.lessons.where('id').equals(id).count()) > 0;

/** How a kept lesson stands: its last snapshot, and how many edits its journal holds; null where it is gone. */
export type Stamp = { readonly changed: number; readonly last: number } | null;

/** To be watched: it is another one after each edit that is kept. */
export async function stampOf(id: string): Promise<Stamp> {
  const { lessons, journal } = database;
  return database.transaction('r', lessons, journal, async () => {
    const record = await lessons.get(id);
    const last = await journal.where('lesson').equals(id).last();
    return record ? { changed: record.changed, last: last?.seq ?? 0 } : null;
  });
}

export async function momentOf(lesson: string): Promise<MomentRecord | undefined> {
  return database.moments.get(lesson);
}
