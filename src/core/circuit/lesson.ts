import type { Exercise, Work } from './exercise';
import { DEFAULT_SETTINGS, emptySheet, type Settings, type Sheet } from './sheet';

/** The version of the lesson file that is written; older ones are brought up to it when read. */
export const LESSON_VERSION = 5;

/** The document: immutable, changed only by edits (`edit.ts`). */
export interface Lesson {
  readonly id: string;
  readonly title: string;
  readonly settings: Settings;
  readonly sheets: readonly Sheet[];
  /** The exercise that it answers, in a student's hands. */
  readonly exercise: Exercise | null;
  /** The student's work at it. */
  readonly work?: Work | undefined;
}

/** The sheet with that id, or undefined. */
export function sheetOf(lesson: Lesson, id: string): Sheet | undefined {
  return lesson.sheets.find((s) => s.id === id);
}

export function emptyLesson(id: string, title: string): Lesson {
  return {
    id,
    title,
    settings: DEFAULT_SETTINGS,
    sheets: [emptySheet('sheet1', 'Sheet 1')],
    exercise: null,
  };
}
