import type { Lesson } from '@/core/circuit/lesson';
import { lessonToKeep } from '@/core/formats/kept-lesson';
import { load } from '@/loading/load';
import { fileName, saveFile } from '@/ui/controls/save-file';
import { ENDING } from './lesson-endings';

/** Parts and wires of a lesson together from which its file is packed. */
const MANY = 20_000;

export const isLargeLesson = ({ sheets }: Lesson): boolean =>
  sheets.reduce((sum, { parts, wires }) => sum + parts.size + wires.size, 0) > MANY;

export const largeFiles = () => load('the writer of large files', () => import('./large-lesson'));

/**
 * Hands a lesson to the browser as a file, with nothing that would have to be fetched first, unless it is a large one: it is
 * offered where something has failed.
 */
export function saveLesson(lesson: Lesson): void {
  if (isLargeLesson(lesson)) void largeFiles().then(({ saveLarge }) => saveLarge(lesson));
  else saveFile(fileName(lesson.title, ENDING), lessonText(lesson));
}

/** A lesson as the text of its file. */
export const lessonText = (lesson: Lesson): string => `${JSON.stringify(lessonToKeep(lesson), null, 1)}\n`;
