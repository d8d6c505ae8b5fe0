import { readLesson } from '@/core/formats/lesson-file';
import { database } from './database';
import { isShelfNew, saveSnapshot } from './lessons';

/** Puts the demo lessons on the shelf at the first visit, all at once, and never again once they were there. */
export async function seedShelf(demos: readonly string[]): Promise<void> {
  if (!(await isShelfNew())) return;
  // The shelf shows the last changed first.
  const lessons = [...demos].reverse().map((text) => {
    const read = readLesson(text);
    if (!read.ok) throw new Error(`demo lesson: ${read.problem.message}`);
    return read.value;
  });
  await database.transaction(
    'rw',
    [database.lessons, database.journal, database.leases, database.fences, database.marks],
    async () => {
      await Promise.all(lessons.map((lesson) => saveSnapshot(lesson)));
      await database.marks.put({ name: 'seeded', value: true });
    },
  );
}
