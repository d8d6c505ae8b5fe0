import type { Sheet } from '../../../circuit/sheet';
import { stateTable } from '../../../logic/table/state-table';
import { cell, inputAt, truthTable, whyNoTable } from '../../../logic/table/truth-table';
import { compile } from '../../../netlist/compile';
import { type Logic, letterOf } from '../../../values/logic';
import { done, type Result, refusal, refused } from '../../../values/result';
import { MOST_FILLED_ROWS, type TableAsked, type TableKey, type TableTask } from '.';

/** A table with all its cells. */
export interface WholeTable {
  readonly columns: readonly {
    readonly name: string;
    readonly isInput: boolean;
    readonly cells: readonly string[];
  }[];
  readonly rows: number;
}

/** The truth table of a sheet, or its state table where it stores: present states and inputs, then next states and outputs. */
export function wholeTable(sheet: Sheet, sheets: readonly Sheet[]): Result<WholeTable> {
  const netlist = compile(sheet, sheets);
  if (netlist.outputs.length === 0) return refused('no-output', 'there is no output yet: place a lamp');
  const why = whyNoTable(netlist);
  const made = why && netlist.storage.length > 0 ? stateTable(netlist, { sheet }) : null;
  if (why && !made) return refusal(why);
  if (made && !made.ok) return made;
  if (netlist.inputColumns.length > 6 && !made)
    return refused('too-many-rows', `a table to fill in has at most ${MOST_FILLED_ROWS} rows`);
  const derived = made?.ok ? made.value : truthTable(netlist);
  if (derived.rows > MOST_FILLED_ROWS)
    return refused('too-many-rows', `a table to fill in has at most ${MOST_FILLED_ROWS} rows`);
  const rows = Array.from({ length: derived.rows }, (_, row) => row);
  /** A lamp may be called as the state that it shows. */
  const free = (name: string, i: number) =>
    derived.inputs.includes(name) || derived.outputs.indexOf(name) < i ? `${name} out` : name;
  const letter = (value: number) => letterOf(value as Logic).toLowerCase();
  return done({
    rows: derived.rows,
    columns: [
      ...derived.inputs.map((name, i) => ({
        name,
        isInput: true,
        cells: rows.map((row) => String(inputAt(derived.inputs.length, i, row))),
      })),
      ...derived.outputs.map((name, o) => ({
        name: free(name, o),
        isInput: false,
        cells: rows.map((row) => letter(cell(derived, o, row))),
      })),
    ],
  });
}

/** The columns that are usually filled in: all but the inputs. */
export const usuallyAsked = ({ columns }: WholeTable): ReadonlySet<string> =>
  new Set(columns.filter(({ isInput }) => !isInput).map(({ name }) => name));

/** What is asked and wanted where some columns of a table are filled in. */
export function tableTask(
  { columns, rows }: WholeTable,
  asked: ReadonlySet<string>,
  isPredicted: boolean,
): { readonly asked: TableAsked; readonly key: TableKey } {
  const wanted = columns.filter(({ name }) => asked.has(name));
  const used = new Set(wanted.flatMap(({ cells }) => cells));
  const values = ['0', '1', ...(used.has('x') ? ['x'] : [])];
  return {
    asked: {
      rows,
      columns: columns.map(({ name, isInput, cells }) => ({
        name,
        isInput,
        cells: asked.has(name) ? null : [...cells],
      })),
      values: [...used].every((value) => values.includes(value)) ? values : [],
      isPredicted,
    },
    key: { columns: wanted.map(({ cells }) => [...cells]) },
  };
}

/** Most columns of a typed table. */
const MOST_TYPED = 12;

/** Names of columns from one line, with commas; an arrow stands before those that are filled in: `Q, Q+ → J, K`. */
export function typedColumns(line: string): {
  readonly given: readonly string[];
  readonly asked: readonly string[];
} {
  const [before, after] = line.split(/→|->|=/, 2);
  const names = (text: string | undefined) =>
    (text ?? '')
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean);
  return { given: names(before), asked: names(after) };
}

/**
 * A typed table. Filled-in cells stay if their column keeps its name. Given columns count upwards at first.
 */
export function typedTable(line: string, rows: number, old: WholeTable | null): Result<WholeTable> {
  const { given, asked } = typedColumns(line);
  const names = [...given, ...asked];
  if (asked.length === 0)
    return refused('no-column', 'write the columns that are filled in behind an arrow: A, B → Y');
  if (names.length > MOST_TYPED)
    return refused('too-many-columns', `a typed table has at most ${MOST_TYPED} columns`);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) return refused('twice', `the name ${twice} stands twice`);
  if (!Number.isInteger(rows) || rows < 1 || rows > MOST_FILLED_ROWS)
    return refused('bad-rows', `a table to fill in has 1 to ${MOST_FILLED_ROWS} rows`);
  const counted = 2 ** given.length === rows;
  const columns = names.map((name, at) => {
    const before = old?.columns.find((column) => column.name === name);
    const isInput = at < given.length;
    const fresh = (row: number) => (isInput && counted ? String(inputAt(given.length, at, row)) : '');
    return {
      name,
      isInput,
      cells: Array.from({ length: rows }, (_, row) => before?.cells[row] || fresh(row)),
    };
  });
  return done({ columns, rows });
}

/** The table with one cell changed. */
export const withCell = (table: WholeTable, column: number, row: number, value: string): WholeTable => ({
  ...table,
  columns: table.columns.with(column, {
    ...table.columns[column]!,
    cells: table.columns[column]!.cells.with(row, value),
  }),
});

/** The table of a task with all its cells: those that are given, and those that are wanted. */
export function tableOfTask({ asked: { columns, rows }, key }: TableTask): WholeTable {
  const wanted = [...key.columns];
  return {
    rows,
    columns: columns.map(({ name, isInput, cells }) => ({ name, isInput, cells: cells ?? wanted.shift()! })),
  };
}
