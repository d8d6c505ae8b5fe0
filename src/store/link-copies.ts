import type { Lesson } from '@/core/circuit/lesson';
import { lessonToFile } from '@/core/formats/write-lesson';
import { database, type MomentRecord } from './database';
import { openLesson, saveSnapshot } from './lessons';

/**
 * The copy of a link's lesson that this browser has, if any.
 * @param copy as the link would make it now.
 */
export async function copyOfLink(copy: Lesson): Promise<{ readonly isAsItCame: boolean } | null> {
  const kept = await openLesson(copy.id);
  if (kept === null) return null;
  // What cannot be read is the person's as well: it is not written over.
  return {
    isAsItCame: kept.ok && JSON.stringify(lessonToFile(kept.value)) === JSON.stringify(lessonToFile(copy)),
  };
}

/** Puts a copy on the shelf, with switches and run as the link has them. */
export async function keepCopy(lesson: Lesson, moment: MomentRecord): Promise<void> {
  await saveSnapshot(lesson);
  await database.moments.put(moment);
}
