import type { Lesson } from '@/core/circuit/lesson';
import { GZIP_ENDING, isGzipName } from '@/core/formats/gzip';
import { writeLesson } from '@/core/formats/write-lesson';
import { fileName, saveFile } from '@/ui/controls/files';
import { packed } from '@/ui/controls/gzip';

/** Hands a large lesson to the browser as a packed file. */
export async function saveLarge(lesson: Lesson): Promise<void> {
  const file = await packed(writeLesson(lesson));
  saveFile(fileName(lesson.title, LARGE_ENDING), file, file.type);
}

export const LARGE_ENDING = `.manege.json${GZIP_ENDING}`;

/** A lesson as the content of a file of that name. */
export const contentFor = async (lesson: Lesson, name: string): Promise<string | Blob> =>
  isGzipName(name) ? packed(writeLesson(lesson)) : writeLesson(lesson);
