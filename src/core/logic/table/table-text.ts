import { csvLine, tsvLine } from '../../values/csv';
import { latexName, latexText } from '../../values/latex';
import { letterOf } from '../../values/logic';
import type { TablePiece } from './derive-table';
import { cell, inputAt, type TruthTable } from './truth-table';

export type TextFormat = 'csv' | 'tsv' | 'md' | 'latex';
export type TableFormat = TextFormat | 'json';

function* cells(table: TruthTable, only: Iterable<number> | null, first = 0): Generator<string[]> {
  const inputs = table.inputs.length;
  for (const row of only ?? count(table.rows))
    yield [
      ...table.inputs.map((_, i) => String(inputAt(inputs, i, first + row))),
      ...table.outputs.map((_, o) => letterOf(cell(table, o, row))),
    ];
}

function* count(rows: number): Generator<number> {
  for (let row = 0; row < rows; row++) yield row;
}

/**
 * A table line by line, without line ends: the names, then a line a row.
 * @param given how many columns stand before the line between what is given and what follows, where a format has one.
 */
export function* linesOf(
  names: readonly string[],
  rows: Iterable<readonly string[]>,
  format: TextFormat,
  given = 0,
): Generator<string> {
  if (format === 'latex') {
    const columns = names.map((_, i) => (i === given && given > 0 ? '|c' : 'c')).join('');
    yield `\\begin{array}{${columns}}`;
    yield `${names.map(latexName).join(' & ')} \\\\ \\hline`;
    for (const row of rows) yield `${row.map(latexCell).join(' & ')} \\\\`;
    yield '\\end{array}';
  } else if (format === 'md') {
    yield `| ${names.map((name) => name.replaceAll('|', '\\|')).join(' | ')} |`;
    yield `|${names.map(() => ' :-: |').join('')}`;
    for (const row of rows) yield `| ${row.join(' | ')} |`;
  } else {
    yield format === 'csv' ? csvLine(names) : tsvLine(names);
    const between = format === 'csv' ? ',' : '\t';
    for (const row of rows) yield row.join(between);
  }
}

/** A value in a formula: digits and signs as they are, letters upright, as they are no variables. */
const latexCell = (text: string): string => (/\p{L}/u.test(text) ? `\\mathrm{${latexText(text)}}` : text);

/**
 * A derived table line by line, without line ends: a heading, then a line a row.
 * @param only the rows to write; all without it.
 */
export function* tableLines(
  table: TruthTable,
  format: TableFormat,
  only: Iterable<number> | null = null,
): Generator<string> {
  yield* linesUnder(table, cells(table, only), format);
}

/** As `tableLines`, of a table that is derived piece by piece. */
export function* pieceLines(pieces: Iterable<TablePiece>, format: TableFormat): Generator<string> {
  const all = pieces[Symbol.iterator]();
  const begin = all.next();
  if (begin.done) return;
  function* rows() {
    for (let next = begin; !next.done; next = all.next()) yield* cells(next.value, null, next.value.first);
  }
  yield* linesUnder(begin.value, rows(), format);
}

function* linesUnder(
  { inputs, outputs }: Pick<TruthTable, 'inputs' | 'outputs'>,
  rows: Iterable<readonly string[]>,
  format: TableFormat,
): Generator<string> {
  if (format !== 'json') {
    yield* linesOf([...inputs, ...outputs], rows, format, inputs.length);
    return;
  }
  yield `{"inputs":${JSON.stringify(inputs)},"outputs":${JSON.stringify(outputs)},"rows":[`;
  let line: string | null = null;
  for (const values of rows) {
    if (line !== null) yield `${line},`;
    line = `  "${values.join('')}"`;
  }
  if (line !== null) yield line;
  yield ']}';
}
