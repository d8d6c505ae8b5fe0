import type { Lesson } from '@/core/circuit/lesson';
import { isGzipName } from '@/core/formats/gzip';
import { writeLesson } from '@/core/formats/write-lesson';
import { packed } from '@/ui/controls/gzip';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { ENDING, LARGE_ENDING } from './lesson-endings';

/** Hands a large lesson to the browser as a packed file, or as text if the browser cannot pack. */
export async function saveLarge(lesson: Lesson): Promise<void> {
  const text = writeLesson(lesson);
  const file = await packed(text).catch(() => null);
  if (file) saveFile(fileName(lesson.title, LARGE_ENDING), file, file.type);
  else saveFile(fileName(lesson.title, ENDING), text);
}

/** A lesson as the content of a file of that name. */
export const contentFor = async (lesson: Lesson, name: string): Promise<string | Blob> =>
  isGzipName(name) ? packed(writeLesson(lesson)) : writeLesson(lesson);
