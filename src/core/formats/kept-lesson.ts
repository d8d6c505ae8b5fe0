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
      id: s.id,
      name: s.name,
      // Read-only here, and the schema's types are not.
      ...({ parts: [...s.parts.values()], wires: [...s.wires.values()] } as unknown as Contents),
      ...(s.plan ? { plan: s.plan } : {}),
      ...(s.time ? { time: s.time } : {}),
      ...(s.chips ? { chips: s.chips } : {}),
      ...(s.board ? { board: s.board } : {}),
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
      id: sheet.id,
      name: sheet.name,
      parts: new Map(sheet.parts.map((part) => [part.id, part])),
      wires: new Map(sheet.wires.map((wire) => [wire.id, wire])),
      ...(sheet.plan ? { plan: sheet.plan } : {}),
      ...(sheet.time ? { time: sheet.time } : {}),
      ...(sheet.chips ? { chips: sheet.chips } : {}),
      ...(sheet.board ? { board: sheet.board } : {}),
    })),
  };
}
