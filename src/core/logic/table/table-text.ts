import { csvLine, tsvLine } from '../../values/csv';
import { letterOf } from '../../values/logic';
import { cell, inputAt, type TruthTable } from './truth-table';

export type TextFormat = 'csv' | 'tsv' | 'md';
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

/** A table line by line, without line ends: the names, then a line a row. */
export function* linesOf(
  names: readonly string[],
  rows: Iterable<readonly string[]>,
  format: TextFormat,
): Generator<string> {
  if (format === 'md') {
    yield `| ${names.map((name) => name.replaceAll('|', '\\|')).join(' | ')} |`;
    yield `|${names.map(() => ' :-: |').join('')}`;
    for (const row of rows) yield `| ${row.join(' | ')} |`;
  } else {
    yield format === 'csv' ? csvLine(names) : tsvLine(names);
    const between = format === 'csv' ? ',' : '\t';
    for (const row of rows) yield row.join(between);
  }
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
  if (format !== 'json') {
    yield* linesOf([...table.inputs, ...table.outputs], cells(table, only), format);
    return;
  }
  yield `{"inputs":${JSON.stringify(table.inputs)},"outputs":${JSON.stringify(table.outputs)},"rows":[`;
  let row = 0;
  for (const values of cells(table, only)) yield `  "${values.join('')}"${++row < table.rows ? ',' : ''}`;
  yield ']}';
}
