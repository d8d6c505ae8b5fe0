import type { Lesson } from '@/core/circuit/lesson';
import { type Result, refused } from '@/core/values/result';
import { openLesson } from '@/store/lessons';
import { lessonTitles } from '@/store/shelf';

/*
 * Other lessons that are kept in this browser, to be looked into.
 */

/** Names of all lessons but one; none where the browser keeps nothing. */
export async function otherLessons(than: string): Promise<{ id: string; title: string }[]> {
  const all = await lessonTitles().catch(() => []);
  return all.filter(({ id }) => id !== than);
}

/** A lesson as it is kept. */
export async function readLesson(id: string): Promise<Result<Lesson>> {
  return (await openLesson(id)) ?? refused('no-such-lesson', 'it is no longer on the shelf');
}
