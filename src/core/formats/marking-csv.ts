import type { Check } from '../exercise/check';
import { findKind } from '../parts/catalogue';
import { csvFile } from '../values/csv';
import type { HandIn } from './hand-in-file';

export interface MarkedRow {
  readonly handIn: HandIn;
  readonly check: Check;
}

/** `2 AND, 1 NOT`, without the switches and lamps that are in each of them, and without notes. */
export function partsText(check: Check): string {
  return check.parts
    .filter(({ kind }) => !findKind(kind)?.role && !findKind(kind)?.isNote)
    .map(({ kind, count }) => `${count} ${findKind(kind)?.name ?? kind}`)
    .join(', ');
}

const HEADS = ['name', 'rows right', 'rows', 'parts used', 'complaints', 'handed in', 'minutes'];

/** The marks as CSV, a line a hand-in. */
export const markingCsv = (rows: readonly MarkedRow[]): string =>
  csvFile([
    HEADS,
    ...rows.map(({ handIn, check }) => [
      handIn.name,
      check.right,
      check.rows,
      partsText(check),
      check.complaints.join(' '),
      handIn.handedIn,
      Math.round(handIn.seconds / 60),
    ]),
  ]);
