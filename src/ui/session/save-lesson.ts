import type { Lesson } from '@/core/circuit/lesson';
import { lessonToKeep } from '@/core/formats/kept-lesson';
import { fileName, saveFile } from '@/ui/controls/files';

/**
 * Hands a lesson to the browser as a file, with nothing that would have to be fetched first: it is offered where
 * something has failed.
 */
export function saveLesson(lesson: Lesson): void {
  saveFile(fileName(lesson.title, '.manege.json'), lessonText(lesson));
}

/** A lesson as the text of its file. */
export const lessonText = (lesson: Lesson): string => `${JSON.stringify(lessonToKeep(lesson), null, 1)}\n`;
