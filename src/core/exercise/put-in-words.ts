import type { Sheet } from '../circuit/sheet';
import { sumOf } from '../logic/expression/forms';
import { written } from '../logic/expression/notation';
import { minimise } from '../logic/minimise/minimise';
import { mapped, type Result } from '../values/result';
import { functionOf, functionsOfSheet } from './kinds/function';
import { wholeTable } from './kinds/table/set-up';

/** What Markdown would take for its own in a cell. */
const cellText = (text: string): string => text.replaceAll(/[\\|*_`<>[\]]/g, (sign) => `\\${sign}`);

/** The truth or state table of a sheet in Markdown, for the words of a task. */
export const tableInWords = (sheet: Sheet, sheets: readonly Sheet[]): Result<string> =>
  mapped(wholeTable(sheet, sheets), ({ columns, rows }) => {
    const line = (cells: readonly string[]) => `| ${cells.join(' | ')} |`;
    return [
      line(columns.map(({ name }) => cellText(name))),
      line(columns.map(() => ':-:')),
      ...Array.from({ length: rows }, (_, row) => line(columns.map(({ cells }) => cellText(cells[row]!)))),
    ].join('\n');
  });

/** A smallest sum of products for each output of a sheet, for the words of a task. */
export const formulasInWords = (sheet: Sheet, sheets: readonly Sheet[]): Result<string> =>
  mapped(functionsOfSheet(sheet, sheets), (functions) =>
    functions
      .map((of) => `\`${of.output} = ${written(sumOf(minimise(functionOf(of)).cubes, of.inputs), 'prime')}\``)
      .join('  \n'),
  );
