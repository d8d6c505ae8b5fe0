import { cell, inputAt, type TruthTable } from '@/core/logic/table/truth-table';
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
export function shownColumns(netlist: Netlist, asNumbers: boolean): Shown[] {
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

/** The content of a row in a column. */
export function textAt(table: TruthTable, { of }: Shown, row: number, radix: Radix): string {
  const bits = of.map((column) => valueAt(table, column, row));
  return bits.length === 1 ? letterOf(bits[0]!) : wordText(bits.reverse(), radix);
}

/** Which rows are shown: those in which a column has a value, or in which two columns differ. */
export type RowQuery =
  | { readonly is: 'value'; readonly column: number; readonly letter: '0' | '1' | 'X' | 'Z' }
  | { readonly is: 'differ'; readonly column: number; readonly other: number };

/** Words in which input p places from the right of the row number is 1, for the five that change within a word. */
const WITHIN = [0xaaaaaaaa, 0xcccccccc, 0xf0f0f0f0, 0xff00ff00, 0xffff0000];

/** For 32 rows, a bit each, where a column of the truth table has a letter, inputs counted before outputs. */
function rowsOfLetter({ inputs, ones, unknown, floating }: TruthTable, column: number, letter: string) {
  if (column < inputs.length) {
    const place = inputs.length - 1 - column;
    const one = (word: number) => (place < 5 ? WITHIN[place]! : -((word >>> (place - 5)) & 1));
    return (word: number) => (letter === '1' ? one(word) : letter === '0' ? ~one(word) : 0);
  }
  const output = column - inputs.length;
  const [at, odd, loose] = [ones[output]!, unknown[output], floating[output]];
  return (word: number) => {
    const other = odd?.[word] ?? 0;
    const undriven = other & (loose?.[word] ?? 0);
    if (letter === 'Z') return undriven;
    if (letter === 'X') return other & ~undriven;
    return (letter === '1' ? at[word]! : ~at[word]!) & ~other;
  };
}

/** Where in rows that are in order a row stands, or would stand. */
export function placeOf(rows: Uint32Array, row: number): number {
  let [from, to] = [0, rows.length];
  while (from < to) {
    const middle = (from + to) >>> 1;
    if (rows[middle]! < row) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** The rows of a table that are wanted, in order. */
export function matchingRows(table: TruthTable, wanted: RowQuery): Uint32Array {
  const masks =
    wanted.is === 'value'
      ? [rowsOfLetter(table, wanted.column, wanted.letter)]
      : ['1', '0', 'X', 'Z'].map((letter) => {
          const mine = rowsOfLetter(table, wanted.column, letter);
          const other = rowsOfLetter(table, wanted.other, letter);
          return (word: number) => mine(word) & ~other(word);
        });
  const found = new Uint32Array(table.rows);
  let count = 0;
  for (let word = 0; word * 32 < table.rows; word++) {
    let bits = 0;
    for (const mask of masks) bits |= mask(word);
    if (table.rows < 32) bits &= 2 ** table.rows - 1;
    for (; bits; bits &= bits - 1) found[count++] = word * 32 + 31 - Math.clz32(bits & -bits);
  }
  return found.slice(0, count);
}
