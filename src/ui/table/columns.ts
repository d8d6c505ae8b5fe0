import { cell, inputAt, type TruthTable } from '@/core/logic/truth-table';
import type { Column, Netlist, Terminal } from '@/core/netlist/netlist';
import { type Logic, letterOf } from '@/core/values/logic';
import { type Radix, wordText } from '@/core/values/radix';

/** A column of the table as it is shown: a bit of the truth table, or all bits of a bus as one number. */
export interface Shown {
  readonly key: string;
  readonly name: string;
  readonly part: string;
  readonly isOutput: boolean;
  /** The columns of the truth table that it shows, inputs counted before outputs, the highest bit first. */
  readonly of: readonly number[];
}

const ofBits = (columns: readonly Column[], isOutput: boolean, first: number): Shown[] =>
  columns.map(({ part, bit, name }, i) => ({ key: `${part}.${bit}`, name, part, isOutput, of: [first + i] }));

function ofWords(terminals: readonly Terminal[], isOutput: boolean, first: number): Shown[] {
  let at = first;
  return terminals.map(({ part, name, nets }) => ({
    key: part,
    name,
    part,
    isOutput,
    of: nets.map(() => at++),
  }));
}

/** The columns of a sheet's table, buses bit by bit or as numbers. */
export function columnsOf(netlist: Netlist, asNumbers: boolean): Shown[] {
  const inputs = netlist.inputColumns.length;
  return asNumbers
    ? [...ofWords(netlist.inputs, false, 0), ...ofWords(netlist.outputs, true, inputs)]
    : [...ofBits(netlist.inputColumns, false, 0), ...ofBits(netlist.outputColumns, true, inputs)];
}

/** The value in a row of a column of the truth table, inputs counted before outputs. */
export function valueAt(table: TruthTable, column: number, row: number): Logic {
  const inputs = table.inputs.length;
  return column < inputs ? inputAt(inputs, column, row) : cell(table, column - inputs, row);
}

/** What stands in a row of a column. */
export function textAt(table: TruthTable, { of }: Shown, row: number, radix: Radix): string {
  const bits = of.map((column) => valueAt(table, column, row));
  return bits.length === 1 ? letterOf(bits[0]!) : wordText(bits.reverse(), radix);
}

/** Which rows are shown: those in which a column has a value, or in which two columns differ. */
export type Wanted =
  | { readonly is: 'value'; readonly column: number; readonly letter: '0' | '1' | 'X' | 'Z' }
  | { readonly is: 'differ'; readonly column: number; readonly other: number };

/** The rows of a table that are wanted, in order. Takes a step for each row. */
export function rowsWanted(table: TruthTable, wanted: Wanted): Uint32Array {
  const found = new Uint32Array(table.rows);
  let count = 0;
  for (let row = 0; row < table.rows; row++) {
    const value = valueAt(table, wanted.column, row);
    const isWanted =
      wanted.is === 'value' ? letterOf(value) === wanted.letter : value !== valueAt(table, wanted.other, row);
    if (isWanted) found[count++] = row;
  }
  return found.slice(0, count);
}
