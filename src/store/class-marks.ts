import { liveQuery } from 'dexie';
import { ClassMarks, merged, NO_MARKS } from '@/core/exercise/teacher-marks';
import { database } from './database';

/** What was given for the hand-ins of an exercise; nothing where none was, or where it cannot be read. */
export async function keptMarks(exercise: string): Promise<ClassMarks> {
  const record = await database.classMarks.get(exercise);
  const read = ClassMarks.safeParse(record?.marks);
  return read.success ? read.data : NO_MARKS;
}

/** Changes what was given, whatever another tab made of it meanwhile. @returns what is kept now. */
export function changeMarks(exercise: string, change: (kept: ClassMarks) => ClassMarks): Promise<ClassMarks> {
  const { classMarks } = database;
  return database.transaction('rw', classMarks, async () => {
    const marks = change(await keptMarks(exercise));
    await classMarks.put({ exercise, marks });
    return marks;
  });
}

/**
 * Keeps what was given here, with what was given in another tab.
 * @param base what both began with.
 * @returns both together, as it is kept now.
 */
export const saveMarks = (
  exercise: string,
  marks: ClassMarks,
  base: ClassMarks = NO_MARKS,
): Promise<ClassMarks> => changeMarks(exercise, (kept) => merged(base, marks, kept));

/** Tells what is kept, now and whenever a tab changes it. @returns what ends it. */
export function watchMarks(exercise: string, tell: (marks: ClassMarks) => void): () => void {
  const watch = liveQuery(() => keptMarks(exercise)).subscribe({ next: tell, error: () => {} });
  return () => watch.unsubscribe();
}
