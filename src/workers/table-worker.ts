import { expose } from 'comlink';
import type { Sheet } from '@/core/circuit/lesson';
import { type TruthTable, truthTable } from '@/core/logic/truth-table';
import { compile } from '@/core/netlist/compile';

const work = {
  table(sheet: Sheet, progress: (share: number) => void): TruthTable {
    return truthTable(compile(sheet), progress);
  },
};

export type TableWork = typeof work;

expose(work);
