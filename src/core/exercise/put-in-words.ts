import type { Sheet } from '../circuit/sheet';
import { sumOf } from '../logic/expression/forms';
import { written } from '../logic/expression/notation';
import { minimise } from '../logic/minimise/minimise';
import { drivingOf } from '../simulate/drive';
import { mapped, type Result } from '../values/result';
import type { SetUpSource } from './expected/expected-kind';
import { run } from './expected/run';
import { runOfSheet } from './expected/run/expected-run';
import { readingText } from './expected-rows';
import { functionOf, functionsOfSheet } from './kinds/function';
import { wholeTable } from './kinds/table/set-up';

/** What Markdown would take for its own in a cell. */
const cellText = (text: string): string => text.replaceAll(/[\\|*_`<>[\]]/g, (sign) => `\\${sign}`);

/** A table in Markdown, its cells in the middle of their columns. */
function tableText(heads: readonly string[], rows: readonly (readonly string[])[]): string {
  const line = (cells: readonly string[]) => `| ${cells.map(cellText).join(' | ')} |`;
  return [line(heads), `| ${heads.map(() => ':-:').join(' | ')} |`, ...rows.map(line)].join('\n');
}

/** The truth or state table of a sheet in Markdown, for the words of a task. */
export const tableInWords = (sheet: Sheet, sheets: readonly Sheet[]): Result<string> =>
  mapped(wholeTable(sheet, sheets), ({ columns, rows }) =>
    tableText(
      columns.map(({ name }) => name),
      Array.from({ length: rows }, (_, row) => columns.map(({ cells }) => cells[row]!)),
    ),
  );

/** Readings of a run that are put into words. */
const READINGS = 16;

/** What a sheet does as it is driven now, reading by reading, for the words of a task. */
export const runInWords = ({ sheet, sheets, settings, on }: SetUpSource): Result<string> =>
  mapped(runOfSheet(sheet, { sheets, settings }, drivingOf(sheet.time), on, READINGS), ({ expected }) => {
    const { inputs, outputs, rows, when, input, output } = run.rows(expected);
    return tableText(
      ['just before', ...inputs, ...outputs],
      Array.from({ length: rows }, (_, row) => [
        when!(row),
        ...inputs.map((_, i) => input(i, row)),
        ...outputs.map((_, o) => readingText(output(o, row))),
      ]),
    );
  });

/** A smallest sum of products for each output of a sheet, for the words of a task. */
export const formulasInWords = (sheet: Sheet, sheets: readonly Sheet[]): Result<string> =>
  mapped(functionsOfSheet(sheet, sheets), (functions) =>
    functions
      .map((of) => `\`${of.output} = ${written(sumOf(minimise(functionOf(of)).cubes, of.inputs), 'prime')}\``)
      .join('  \n'),
  );
