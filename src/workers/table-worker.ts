import '@/core/simulate/with-kernel';
import { expose, transfer } from 'comlink';
import type { Sheet } from '@/core/circuit/sheet';
import { deriveTable } from '@/core/logic/table/derive-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';

const work = {
  table(
    sheet: Sheet,
    sheets: readonly Sheet[],
    memory: readonly Uint32Array<ArrayBuffer>[],
    progress: (share: number) => void,
  ): TruthTable {
    const table = deriveTable(compile(sheet, sheets), { progress }, memory);
    const columns = [...table.ones, ...table.unknown, ...table.floating];
    // Handed over, not copied.
    return transfer(
      table,
      columns.flatMap((c) => (c ? [c.buffer] : [])),
    );
  },
};

export type TableWork = typeof work;

expose(work);
