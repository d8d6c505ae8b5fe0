import type { Check } from '../exercise/check';
import { csvField } from '../logic/table/table-text';
import { findKind } from '../parts/catalogue';
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

/** Text from others must not be taken for a formula by a spreadsheet. */
const plainField = (text: string) => csvField(/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** The marks as CSV (RFC 4180), a line a hand-in. */
export function markingCsv(rows: readonly MarkedRow[]): string {
  const lines = rows.map(({ handIn, check }) =>
    [
      plainField(handIn.name),
      check.right,
      check.rows,
      plainField(partsText(check)),
      plainField(check.complaints.join(' ')),
      handIn.handedIn,
      Math.round(handIn.seconds / 60),
    ].join(','),
  );
  const head = 'name,rows right,rows,parts used,complaints,handed in,minutes';
  return `${[head, ...lines].join('\r\n')}\r\n`;
}
