import type { Lesson } from '@/core/circuit/lesson';
import { writeLesson } from '@/core/formats/write-lesson';
import { fileName, saveFile } from '@/ui/controls/files';

/** Hands a lesson to the browser as a file. */
export function saveLesson(lesson: Lesson): void {
  saveFile(fileName(lesson.title, '.manege.json'), writeLesson(lesson));
}
