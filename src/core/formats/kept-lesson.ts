import type { Exercise, Work } from '../circuit/exercise';
import { LESSON_VERSION, type Lesson } from '../circuit/lesson';
import type { LessonFile } from '../circuit/lesson-schema';

/** The lesson as a browser keeps it: as its file, but with every parameter, so that nothing is filled in later. */
export function lessonToKeep({ id, title, settings, exercise, work, sheets }: Lesson): LessonFile {
  return {
    format: 'manege-lesson',
    version: LESSON_VERSION,
    id,
    title,
    settings,
    sheets: sheets.map((s) => ({
      ...s,
      // Read-only here, and the schema's types are not.
      ...({ parts: [...s.parts.values()], wires: [...s.wires.values()] } as unknown as Contents),
    })),
    exercise,
    ...(work ? { work } : {}),
  };
}

type Contents = Pick<LessonFile['sheets'][number], 'parts' | 'wires'>;

/** Reads the output of `lessonToKeep` under the same rules: nothing has to be checked. */
export function lessonFromKept({ id, title, settings, exercise, work, sheets }: LessonFile): Lesson {
  return {
    id,
    title,
    settings,
    exercise: exercise as Exercise | null,
    ...(work ? { work: work as Work } : {}),
    sheets: sheets.map((sheet) => ({
      ...sheet,
      parts: new Map(sheet.parts.map((part) => [part.id, part])),
      wires: new Map(sheet.wires.map((wire) => [wire.id, wire])),
    })),
  };
}
