import type { Lesson } from '@/core/circuit/lesson';
import { isGzipName } from '@/core/formats/gzip';
import { writeLesson } from '@/core/formats/write-lesson';
import { packed } from '@/ui/controls/gzip';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { ENDING, LARGE_ENDING } from './lesson-endings';

/**
 * Hands a large lesson to the browser as a packed file, or as text if the browser cannot pack.
 * @returns its name.
 */
export async function saveLarge(lesson: Lesson): Promise<string> {
  const text = writeLesson(lesson);
  const file = await packed(text).catch(() => null);
  const name = fileName(lesson.title, file ? LARGE_ENDING : ENDING);
  saveFile(name, file ?? text, file?.type);
  return name;
}

/** A lesson as the content of a file of that name. */
export const contentFor = async (lesson: Lesson, name: string): Promise<string | Blob> =>
  isGzipName(name) ? packed(writeLesson(lesson)) : writeLesson(lesson);
