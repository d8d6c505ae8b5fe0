import type { Exercise, Work } from '../circuit/exercise';
import { LESSON_VERSION, type Lesson } from '../circuit/lesson';
import type { LessonFile } from '../circuit/lesson-schema';
import { expectDone } from '../values/result';
import { fromTables, isLargeSheet, type SheetTables, toTables } from './sheet-tables';

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

type SheetFile = LessonFile['sheets'][number];
type Contents = Pick<SheetFile, 'parts' | 'wires'>;

/** The text of a large lesson as a browser keeps it: as `lessonToKeep`, with large sheets as lists. */
export function lessonToKeptText(lesson: Lesson): string {
  const { sheets, ...file } = lessonToKeep(lesson);
  const listed = sheets.map(({ parts, wires, ...sheet }) =>
    isLargeSheet({ parts, wires })
      ? { ...sheet, tables: toTables({ parts, wires }) }
      : { ...sheet, parts, wires },
  );
  return JSON.stringify({ ...file, sheets: listed });
}

/** The parts and wires of a sheet, which a text holds as lists if there are many. */
function contentsOf(sheet: SheetFile & { readonly tables?: SheetTables }): Contents {
  return sheet.tables ? (expectDone(fromTables(sheet.tables)) as Contents) : sheet;
}

/** Reads the output of `lessonToKeep`, or the parsed text of `lessonToKeptText`, under the same rules: nothing has to be checked. */
export function lessonFromKept({ id, title, settings, exercise, work, sheets }: LessonFile): Lesson {
  return {
    id,
    title,
    settings,
    exercise: exercise as Exercise | null,
    ...(work ? { work: work as Work } : {}),
    sheets: sheets.map((sheet) => {
      const { tables: _, ...others }: SheetFile & { readonly tables?: SheetTables } = sheet;
      const { parts, wires } = contentsOf(sheet);
      return {
        ...others,
        parts: new Map(parts.map((part) => [part.id, part])),
        wires: new Map(wires.map((wire) => [wire.id, wire])),
      };
    }),
  };
}
