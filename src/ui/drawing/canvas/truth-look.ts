import { cell, inputAt } from '@/core/logic/table/truth-table';
import { MOST_ROWS } from '@/core/parts/notes';
import type { TableLook } from '@/core/parts/shape';
import { letterOf } from '@/core/values/logic';
import { rowNow } from '@/session/moment';
import type { SessionState } from '@/session/state';

/** The truth table as a note on the sheet shows it: its first rows, and which is that of the moment. */
export function truthLook({ table, netlist, values, path }: SessionState): TableLook | null {
  if (table.state !== 'ready' || path.length > 0) return null;
  const { inputColumns, outputColumns } = netlist;
  const rows = Math.min(MOST_ROWS, table.table.rows);
  return {
    heading: [...inputColumns, ...outputColumns].map((c) => c.name),
    rows: Array.from({ length: rows }, (_, row) => [
      ...inputColumns.map((_, i) => String(inputAt(inputColumns.length, i, row))),
      ...outputColumns.map((_, i) => letterOf(cell(table.table, i, row))),
    ]),
    at: rowNow(netlist, values),
  };
}
