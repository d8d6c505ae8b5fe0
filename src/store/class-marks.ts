import { liveQuery } from 'dexie';
import { ClassMarks, merged, NO_MARKS } from '@/core/exercise/teacher-marks';
import { database, type GivenRecord, noteWork } from './database';
import { writeAtOnce } from './write-at-once';

/** Marks as they are kept; nothing where they cannot be read. */
function readMarks(marks: unknown): ClassMarks {
  const read = ClassMarks.safeParse(marks);
  return read.success ? read.data : NO_MARKS;
}

const withGiven = (record: unknown, given: readonly GivenRecord[]): ClassMarks =>
  given.reduce((kept, { base, marks }) => merged(readMarks(base), readMarks(marks), kept), readMarks(record));

/** What was given for the hand-ins of an exercise; nothing where none was, or where it cannot be read. */
export async function keptMarks(exercise: string): Promise<ClassMarks> {
  const [record, given] = await Promise.all([
    database.classMarks.get(exercise),
    database.given.where({ exercise }).sortBy('seq'),
  ]);
  return withGiven(record?.marks, given);
}

/** The marks of all exercises, by exercise id; those that cannot be read are left out. */
export async function allMarks(): Promise<[exercise: string, marks: ClassMarks][]> {
  const kept = await database.classMarks.toCollection().primaryKeys();
  const given = (await database.given.orderBy('exercise').uniqueKeys()) as string[];
  const ids = [...new Set([...kept, ...given])];
  const all = await Promise.all(
    ids.map(async (id): Promise<[string, ClassMarks]> => [id, await keptMarks(id)]),
  );
  return all.filter(([, marks]) => marks !== NO_MARKS);
}

/** Changes what was given, whatever another tab made of it meanwhile. @returns what is kept now. */
export function changeMarks(exercise: string, change: (kept: ClassMarks) => ClassMarks): Promise<ClassMarks> {
  const { classMarks, given } = database;
  return database.transaction('rw', classMarks, given, async () => {
    const marks = change(await keptMarks(exercise));
    await classMarks.put({ exercise, marks });
    await given.where({ exercise }).delete();
    return marks;
  });
}

/** The entries of `all` that are other objects than in `than`. */
const others = <T>(all: Readonly<Record<string, T>>, than: Readonly<Record<string, T>>): Record<string, T> =>
  Object.fromEntries(Object.entries(all).filter(([key, value]) => value !== than[key]));

/** Marks without the entries that are the same objects in other marks. */
const apart = (marks: ClassMarks, than: ClassMarks): ClassMarks => ({
  ...marks,
  handIns: others(marks.handIns, than.handIns),
  alike: others(marks.alike, than.alike),
});

/**
 * Keeps the marks of this page at once (see `writeAtOnce`), and merges them with those of other tabs.
 * @param base what both began with.
 * @returns both together, as it is kept now.
 */
export async function saveMarks(
  exercise: string,
  marks: ClassMarks,
  base: ClassMarks = NO_MARKS,
): Promise<ClassMarks> {
  const given = { exercise, base: apart(base, marks), marks: apart(marks, base) };
  await writeAtOnce(['given'], (store) => store('given').add(given), {
    table: 'given',
    index: 'exercise',
    key: exercise,
  });
  noteWork();
  return changeMarks(exercise, (kept) => kept);
}

/** Tells what is kept, now and whenever a tab changes it. @returns what ends it. */
export function watchMarks(exercise: string, tell: (marks: ClassMarks) => void): () => void {
  const watch = liveQuery(() => keptMarks(exercise)).subscribe({ next: tell, error: () => {} });
  return () => watch.unsubscribe();
}
