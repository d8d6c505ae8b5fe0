import type { Exercise } from '@/core/circuit/exercise';
import { check } from '@/core/exercise/check';
import { exerciseKindOf } from '@/core/exercise/kinds';
import type { HandIn } from '@/core/formats/hand-in-file';
import type { MarkedRow } from '@/core/formats/marking-csv';

/** A hand-in with its marks. */
export interface Row extends MarkedRow {
  readonly key: number;
  readonly file: string;
}

/** The unit in which an exercise counts. */
export type RowWord = 'row' | 'reading';

/** The word for one unit of an exercise: a row, or a reading. */
export const wordOf = ({ expected }: Exercise): RowWord => exerciseKindOf(expected).rows(expected).word;

/** Checks a hand-in against its exercise. */
export function mark(key: number, file: string, handIn: HandIn, exercise: Exercise): Row {
  return { key, file, handIn, check: check(handIn.lesson.sheets[0]!, exercise, handIn.lesson.sheets) };
}
