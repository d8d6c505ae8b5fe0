import { csvLine, tsvLine } from '../../values/csv';
import { latexName, latexText } from '../../values/latex';
import { letterOf } from '../../values/logic';
import { cell, inputAt, type TruthTable } from './truth-table';

export type TextFormat = 'csv' | 'tsv' | 'md' | 'latex';
export type TableFormat = TextFormat | 'json';

function* cells(table: TruthTable, only: Iterable<number> | null): Generator<string[]> {
  const inputs = table.inputs.length;
  for (const row of only ?? count(table.rows))
    yield [
      ...table.inputs.map((_, i) => String(inputAt(inputs, i, row))),
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
  if (format !== 'json') {
    yield* linesOf([...table.inputs, ...table.outputs], cells(table, only), format, table.inputs.length);
    return;
  }
  yield `{"inputs":${JSON.stringify(table.inputs)},"outputs":${JSON.stringify(table.outputs)},"rows":[`;
  let row = 0;
  for (const values of cells(table, only)) yield `  "${values.join('')}"${++row < table.rows ? ',' : ''}`;
  yield ']}';
}
