import { csvLine, tsvLine } from '../../values/csv';
import { latexName, latexText } from '../../values/latex';
import { letterOf } from '../../values/logic';
import type { TablePiece } from './derive-table';
import { RowTexts } from './row-texts';
import type { TruthTable } from './truth-table';

export type TextFormat = 'csv' | 'tsv' | 'md' | 'latex';
export type TableFormat = TextFormat | 'json';

/** The separator between the values of a row. */
const BETWEEN: Readonly<Record<TableFormat, string>> = {
  csv: ',',
  tsv: '\t',
  md: ' | ',
  latex: ' & ',
  json: '',
};

/** A value of a row. In a formula digits and signs are as they are, letters upright, as they are no variables. */
const valueText = (text: string, format: TableFormat): string =>
  format === 'latex' && /\p{L}/u.test(text) ? `\\mathrm{${latexText(text)}}` : text;

/**
 * A table line by line, without line ends: the names, then a line a row.
 * @param given number of columns before the dividing line, in formats that draw one.
 */
export function* linesOf(
  names: readonly string[],
  rows: Iterable<readonly string[]>,
  format: TextFormat,
  given = 0,
): Generator<string> {
  function* texts() {
    for (const row of rows) yield row.map((value) => valueText(value, format)).join(BETWEEN[format]);
  }
  yield* linesUnder(names, texts(), format, given);
}

/**
 * A derived table line by line, without line ends: a heading, then a line a row.
 * @param only the rows to write; all without it.
 */
export function* tableLines(
  table: TruthTable,
  format: TableFormat,
  only: Iterable<number> | null = null,
): Generator<string> {
  const texts = rowTexts(format);
  function* rows() {
    if (only) for (const row of only) yield texts.of(table, row);
    else for (let row = 0; row < table.rows; row++) yield texts.of(table, row);
  }
  yield* derivedLines(table, rows(), format);
}

/** As `tableLines`, of a table that is derived piece by piece. */
export function* pieceLines(pieces: Iterable<TablePiece>, format: TableFormat): Generator<string> {
  const texts = rowTexts(format);
  const all = pieces[Symbol.iterator]();
  const begin = all.next();
  if (begin.done) return;
  function* rows() {
    for (let next = begin; !next.done; next = all.next())
      for (let row = 0; row < next.value.rows; row++) yield texts.of(next.value, row, next.value.first);
  }
  yield* derivedLines(begin.value, rows(), format);
}

const rowTexts = (format: TableFormat) =>
  new RowTexts(BETWEEN[format], (value) => valueText(letterOf(value), format));

function* derivedLines(
  { inputs, outputs }: Pick<TruthTable, 'inputs' | 'outputs'>,
  rows: Iterable<string>,
  format: TableFormat,
): Generator<string> {
  if (format !== 'json') {
    yield* linesUnder([...inputs, ...outputs], rows, format, inputs.length);
    return;
  }
  yield `{"inputs":${JSON.stringify(inputs)},"outputs":${JSON.stringify(outputs)},"rows":[`;
  let line: string | null = null;
  for (const row of rows) {
    if (line !== null) yield `${line},`;
    line = `  "${row}"`;
  }
  if (line !== null) yield line;
  yield ']}';
}

/** Rows under their heading. */
function* linesUnder(
  names: readonly string[],
  rows: Iterable<string>,
  format: TextFormat,
  given: number,
): Generator<string> {
  if (format === 'latex') {
    const columns = names.map((_, i) => (i === given && given > 0 ? '|c' : 'c')).join('');
    yield `\\begin{array}{${columns}}`;
    yield `${names.map(latexName).join(' & ')} \\\\ \\hline`;
    for (const row of rows) yield `${row} \\\\`;
    yield '\\end{array}';
  } else if (format === 'md') {
    yield `| ${names.map((name) => name.replaceAll('|', '\\|')).join(' | ')} |`;
    yield `|${names.map(() => ' :-: |').join('')}`;
    for (const row of rows) yield `| ${row} |`;
  } else {
    yield format === 'csv' ? csvLine(names) : tsvLine(names);
    yield* rows;
  }
}
