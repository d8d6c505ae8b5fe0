import type { Lesson } from '@/core/circuit/lesson';
import { lessonTitles, openLesson } from '@/store/lessons';

/*
 * Other lessons that are kept in this browser, to be looked into.
 */

/** Names of all lessons but one; none where the browser keeps nothing. */
export async function otherLessons(than: string): Promise<{ id: string; title: string }[]> {
  const all = await lessonTitles().catch(() => []);
  return all.filter(({ id }) => id !== than);
}

/** A lesson as it is kept, or a sentence that says why it cannot be read. */
export async function readLesson(id: string): Promise<Lesson | string> {
  const read = await openLesson(id);
  if (!read) return 'It is no longer on the shelf.';
  return read.ok ? read.value : read.problem;
}
