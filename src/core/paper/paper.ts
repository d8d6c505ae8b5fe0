import type { TaskPicture } from '../circuit/exercise';
import type { Figure } from '../figure/figure';
import type { Expression } from '../logic/expression/expression';

/*
 * A worksheet and its answer sheet as data: what stands on paper, without how a page is laid out.
 */

/** A column of a table on paper. */
export interface PaperColumn {
  readonly name: string;
  /** Empty where something is written by hand. */
  readonly cells: readonly string[];
  /** Whether a student has it given; the others are filled in, by hand or as the answer. */
  readonly isGiven: boolean;
}

/** A thing on paper. `says` stands over it. */
export type PaperItem =
  | { readonly is: 'text'; readonly text: string; readonly isAnswer?: boolean }
  | { readonly is: 'figure'; readonly figure: Figure; readonly says: string }
  | {
      readonly is: 'table';
      readonly says: string;
      readonly columns: readonly PaperColumn[];
      readonly rows: number;
    }
  /** A formula to be written, or written. */
  | { readonly is: 'formula'; readonly name: string; readonly expression: Expression | null }
  /** Lines to write on. */
  | { readonly is: 'lines'; readonly count: number }
  /** Room to draw in, its height in mm. */
  | { readonly is: 'room'; readonly height: number };

export interface PaperTask {
  readonly title: string;
  /** Markdown without HTML. */
  readonly words: string;
  readonly pictures?: readonly TaskPicture[] | undefined;
  /** Null where none are given. */
  readonly points: number | null;
  readonly items: readonly PaperItem[];
}

/** One of the two sheets. */
export interface Paper {
  readonly title: string;
  readonly words: string;
  readonly tasks: readonly PaperTask[];
}

/** A table with columns to be filled in. @param answers their content; null to leave them empty. */
export function tableItem(
  says: string,
  rows: number,
  columns: readonly { readonly name: string; readonly cells: readonly string[] | null }[],
  answers: readonly (readonly string[])[] | null,
): PaperItem {
  let open = 0;
  return {
    is: 'table',
    says,
    rows,
    columns: columns.map(({ name, cells }) => {
      const filled = cells === null ? answers?.[open++] : cells;
      return {
        name,
        isGiven: cells !== null,
        cells: Array.from({ length: rows }, (_, row) => filled?.[row] ?? ''),
      };
    }),
  };
}
