/*
 * Writing CSV (RFC 4180) and cells for the clipboard, for everything that writes them. A text that a spreadsheet would take
 * for a formula gets an apostrophe in front, which spreadsheets do not show; `unguarded` takes it away where such a file is
 * read again. A spreadsheet may drop blanks and invisible characters before it looks, takes full-width signs for plain ones,
 * and may split a field again where its language divides cells by semicolons.
 */

/** What a spreadsheet may divide cells by. */
const DIVIDER = /([;\t\r\n|])/;
/** How a formula may begin: blanks, invisible characters, apostrophes of a guard, then the sign. */
const FORMULA = /^[\s\p{Cf}\p{Cc}\u2800\u3164']*[=+\-@\uff1d\uff0b\uff0d\uff20]/u;
const NUMBER = /^[+-]?\d+(\.\d+)?$/;

/** A text with `change` made to each piece that may become a cell of its own. */
const inPieces = (text: string, change: (piece: string) => string): string =>
  text
    .split(DIVIDER)
    .map((piece, i) => (i % 2 === 0 ? change(piece) : piece))
    .join('');

const guarded = (text: string): string =>
  NUMBER.test(text) ? text : inPieces(text, (piece) => (FORMULA.test(piece) ? `'${piece}` : piece));

/** A field: guarded against formulas, and in quotes where it holds a divider of cells, a quote or a line break. */
export function csvField(value: string | number): string {
  const plain = guarded(String(value));
  return /[",;\t\r\n]/.test(plain) ? `"${plain.replaceAll('"', '""')}"` : plain;
}

/** A line without its end. */
export const csvLine = (values: readonly (string | number)[]): string => values.map(csvField).join(',');

/** A whole file, its lines ended as RFC 4180 has it. */
export const csvFile = (rows: Iterable<readonly (string | number)[]>): string =>
  [...rows].map((row) => `${csvLine(row)}\r\n`).join('');

/** A line of cells for the clipboard: guarded, and without anything that would divide a cell. */
export const tsvLine = (values: readonly (string | number)[]): string =>
  values.map((value) => guarded(String(value).replaceAll(/[\t\r\n]+/g, ' '))).join('\t');

/** The text of a field that was guarded, read again. */
export const unguarded = (text: string): string =>
  inPieces(text, (piece) => (piece[0] === "'" && FORMULA.test(piece) ? piece.slice(1) : piece));
