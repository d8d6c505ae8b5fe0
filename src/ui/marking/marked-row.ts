import type { Exercise } from '@/core/circuit/exercise';
import { check } from '@/core/exercise/check';
import { exerciseKindOf } from '@/core/exercise/kinds';
import type { HandIn } from '@/core/formats/hand-in-file';
import type { MarkedRow } from '@/core/formats/marking-csv';

/** A hand-in with its marks. */
export interface Row extends MarkedRow {
  readonly key: number;
  readonly file: string;
  /** What the same student handed in before, the latest first. */
  readonly earlier: readonly Row[];
}

/** The latest hand-in of each student, with the earlier ones; students in the order of their names. */
export function byStudent(rows: readonly Row[]): Row[] {
  const students = new Map<string, Row[]>();
  for (const row of rows) {
    const name = row.handIn.name.trim().toLowerCase();
    students.set(name, [...(students.get(name) ?? []), row]);
  }
  return [...students.values()]
    .map((all) => {
      const [latest, ...earlier] = all.sort(
        (a, b) => Date.parse(b.handIn.handedIn) - Date.parse(a.handIn.handedIn) || b.key - a.key,
      );
      return { ...latest!, earlier };
    })
    .sort((a, b) => a.handIn.name.localeCompare(b.handIn.name));
}

/** The unit in which an exercise counts. */
export type RowWord = 'row' | 'reading';

/** The word for one unit of an exercise: a row, or a reading. */
export const wordOf = ({ expected }: Exercise): RowWord => exerciseKindOf(expected).rows(expected).word;

/** Checks a hand-in against its exercise. */
export function mark(key: number, file: string, handIn: HandIn, exercise: Exercise): Row {
  return {
    key,
    file,
    handIn,
    earlier: [],
    check: check(handIn.lesson.sheets[0]!, exercise, handIn.lesson.sheets),
  };
}
