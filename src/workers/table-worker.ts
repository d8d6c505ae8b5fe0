import '@/core/simulate/with-kernel';
import { expose } from 'comlink';
import type { Sheet } from '@/core/circuit/sheet';
import { deriveTable } from '@/core/logic/table/derive-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';

const work = {
  table(sheet: Sheet, sheets: readonly Sheet[], progress: (share: number) => void): TruthTable {
    const table = deriveTable(compile(sheet, sheets), { progress });
    // The columns share one memory; sent one by one, each would copy it.
    const own = (c: Uint32Array | null) => c?.slice() ?? null;
    return {
      ...table,
      ones: table.ones.map((c) => c.slice()),
      unknown: table.unknown.map(own),
      floating: table.floating.map(own),
    };
  },
};

export type TableWork = typeof work;

expose(work);
