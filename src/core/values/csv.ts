/*
 * Writing CSV (RFC 4180), for everything that writes it. A text that a spreadsheet would take for a formula gets an
 * apostrophe in front, which spreadsheets do not show; `unguarded` takes it away where such a file is read again.
 */

const FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^[+-]?\d+(\.\d+)?$/;

/** A field: guarded against formulas, and in quotes where it holds a comma, a quote or a line break. */
export function csvField(value: string | number): string {
  const text = String(value);
  const plain = FORMULA.test(text) && !NUMBER.test(text) ? `'${text}` : text;
  return /[",\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

/** A line without its end. */
export const csvLine = (values: readonly (string | number)[]): string => values.map(csvField).join(',');

/** A whole file, its lines ended as RFC 4180 has it. */
export const csvFile = (rows: Iterable<readonly (string | number)[]>): string =>
  [...rows].map((row) => `${csvLine(row)}\r\n`).join('');

/** The text of a field that `csvField` wrote, read again. */
export const unguarded = (text: string): string => (/^'[=+\-@\t\r]/.test(text) ? text.slice(1) : text);
