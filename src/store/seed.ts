import { readLesson } from '@/core/formats/lesson-file';
import { database } from './database';
import { saveSnapshot } from './lessons';

/** Puts the demo lessons on the shelf at the first visit, and never again once they were there. */
export async function seedShelf(demos: readonly string[]): Promise<void> {
  if (await database.marks.get('seeded')) return;
  // The shelf shows the last changed first.
  for (const text of [...demos].reverse()) {
    const read = readLesson(text);
    if (!read.ok) throw new Error(`demo lesson: ${read.problem}`);
    await saveSnapshot(read.value);
  }
  await database.marks.put({ name: 'seeded', value: true });
}
