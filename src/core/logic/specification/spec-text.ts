import Papa from 'papaparse';
import { MOST_SPEC_INPUTS, MOST_SPEC_OUTPUTS, OPEN_CELL, type SpecTable } from '../../circuit/spec-table';
import { unguarded } from '../../values/csv';
import { done, type Result, refused } from '../../values/result';
import { linesOf, type TextFormat } from '../table/table-text';
import { inputAt } from '../table/truth-table';
import { specWithNames, withLetters } from './spec-edits';

/*
 * A table that is filled in as text: from a spreadsheet, as CSV, as Markdown, and back.
 */

const LETTERS: ReadonlyMap<string, string> = new Map(
  Object.entries({
    '0': '0',
    '1': '1',
    x: 'x',
    X: 'x',
    '-': 'x',
    '–': 'x',
    '*': 'x',
    d: 'x',
    '': OPEN_CELL,
    '.': OPEN_CELL,
    '?': OPEN_CELL,
  }),
);

const MOST_ROWS = 2 ** MOST_SPEC_INPUTS;

const short = (cell: string) => `“${cell.slice(0, 20)}”`;

/** The table with a block of cells, as a spreadsheet gives it, put in from a cell on. */
export function withCells(plan: SpecTable, output: number, row: number, text: string): Result<SpecTable> {
  const found = cellsOf(text);
  if (!found.ok) return found;
  const cells = found.value;
  const wide = Math.max(0, ...cells.map((c) => c.length));
  const [rowsLeft, columnsLeft] = [2 ** plan.inputs.length - row, plan.outputs.length - output];
  const withInputs = plan.inputs.length + plan.outputs.length;
  // All columns, only without their heading.
  if (wide === withInputs && wide > columnsLeft)
    return tableOf([...plan.inputs, '=', ...plan.outputs.map((o) => o.name)], cells.map(bordered(plan)));
  if (cells.length > rowsLeft || wide > columnsLeft)
    return refused(
      'too-many-cells',
      `what was pasted has ${cells.length} rows and ${wide} columns; from here on there are ${rowsLeft} and ${columnsLeft}`,
    );
  let made = plan;
  for (let c = 0; c < wide; c++) {
    const letters = new Map<number, string>();
    for (const [r, line] of cells.entries()) {
      const said = line[c];
      if (said === undefined) continue;
      const letter = LETTERS.get(said);
      if (letter === undefined)
        return refused('bad-cell', `${short(said)} in row ${r + 1} of what was pasted is not 0, 1 or x`);
      letters.set(row + r, letter);
    }
    made = withLetters(made, output + c, letters);
  }
  return done(made);
}

const bordered =
  ({ inputs }: SpecTable) =>
  (cells: readonly string[]) => [...cells.slice(0, inputs.length), '', ...cells.slice(inputs.length)];

/**
 * A whole table as it comes from a spreadsheet, as CSV (RFC 4180) or as Markdown: a heading, then the rows. A column
 * headed `=` stands between inputs and outputs; without one, the inputs are the first columns, as many as the rows
 * need. Rows may come in any order; those that are missing stay open. A blank cell may be either.
 */
export function specFromText(text: string): Result<SpecTable> {
  const found = cellsOf(text);
  if (!found.ok) return found;
  const cells = found.value;
  const [heading, ...rows] = cells.filter((line) => line.some((cell) => cell !== ''));
  if (!heading || rows.length === 0)
    return refused('no-table', 'a table has a line of names, and rows of 0, 1 and x below it');
  return tableOf(heading, rows);
}

function tableOf(heading: readonly string[], rows: readonly (readonly string[])[]): Result<SpecTable> {
  const ragged = rows.findIndex((r) => r.length !== heading.length);
  if (ragged !== -1)
    return refused(
      'uneven-rows',
      `row ${ragged + 1} has ${rows[ragged]!.length} cells where there are ${heading.length} names`,
    );
  const border = heading.indexOf('=');
  const inputs = border === -1 ? Math.ceil(Math.log2(Math.max(2, rows.length))) : border;
  const from = border === -1 ? inputs : border + 1;
  if (inputs < 1 || from >= heading.length)
    return refused('too-few-columns', `${rows.length} rows need ${inputs} inputs and at least one output`);
  const empty = specWithNames(heading.slice(0, inputs), heading.slice(from));
  if (!empty.ok) return empty;
  const columns = empty.value.outputs.map(() => new Map<number, string>());
  const taken = new Set<number>();
  for (const [r, cells] of rows.entries()) {
    let at = 0;
    for (let i = 0; i < inputs; i++) {
      if (cells[i] !== '0' && cells[i] !== '1')
        return refused('bad-cell', `row ${r + 1}, ${heading[i]}: ${short(cells[i]!)} is not 0 or 1`);
      at = at * 2 + Number(cells[i]);
    }
    if (taken.has(at))
      return refused(
        'twice',
        border === -1
          ? `row ${r + 1} repeats the inputs of a row above it, if ${inputs === 1 ? 'the first column is the input' : `the first ${inputs} columns are the inputs`}, as ${rows.length} rows suggest; put a column headed = between inputs and outputs to say where the inputs end`
          : `row ${r + 1} repeats the inputs of a row above it`,
      );
    taken.add(at);
    for (const [o, column] of columns.entries()) {
      const said = cells[from + o]!;
      const letter = LETTERS.get(said);
      if (letter === undefined)
        return refused('bad-cell', `row ${r + 1}, ${heading[from + o]}: ${short(said)} is not 0, 1 or x`);
      column.set(at, said === '' ? 'x' : letter);
    }
  }
  return done(columns.reduce((plan, column, o) => withLetters(plan, o, column), empty.value));
}

const RULE = /^\|?[\s:|-]*-[\s:|-]*\|?$/;

/** The cells of a text line by line, or the error in it. */
function cellsOf(text: string): Result<string[][]> {
  const lines = text.replace(/^\uFEFF/, '').replace(/\s*$/, '');
  const first = lines.trimStart().split(/\r?\n/, 1)[0]!;
  if (lines.length > MOST_ROWS * 4 * (MOST_SPEC_INPUTS + MOST_SPEC_OUTPUTS))
    return refused('too-long', 'it is too long for a table');
  if (first.startsWith('|') || (first.includes('|') && !/[\t,;]/.test(first)))
    return done(
      lines
        .split(/\r?\n/)
        .filter((line) => line.trim() && !RULE.test(line.trim()))
        .map((line) =>
          line
            .trim()
            .replace(/^\||(?<!\\)\|$/g, '')
            .split(/(?<!\\)\|/)
            .map((cell) => cell.trim().replaceAll('\\|', '|')),
        ),
    );
  const delimiter = first.includes('\t') ? '\t' : first.includes(',') ? ',' : ';';
  const parsed = Papa.parse<string[]>(lines, { delimiter });
  const bad = parsed.errors[0];
  if (bad) return refused('bad-csv', `row ${(bad.row ?? 0) + 1}: a quoted cell is not closed`);
  return done(parsed.data.map((line) => line.map((cell) => unguarded(cell.trim()))));
}

/** The table line by line, open cells as `.`; `specFromText` reads it. */
export function specLines({ inputs, outputs }: SpecTable, format: TextFormat): Iterable<string> {
  const rows = Array.from({ length: 2 ** inputs.length }, (_, row) => [
    ...inputs.map((_, i) => String(inputAt(inputs.length, i, row))),
    ...outputs.map((o) => o.rows[row]!),
  ]);
  return linesOf([...inputs, ...outputs.map((o) => o.name)], rows, format, inputs.length);
}
