import type { Sheet } from '@/core/circuit/lesson';
import type { TruthTable } from '@/core/logic/truth-table';
import type { TableWork } from './table-worker';

/** Derives a large table in a worker of its own; cancelling ends the worker. */
export function tableMaker(
  sheet: Sheet,
  sheets: readonly Sheet[],
  progress: (share: number) => void,
): { table: Promise<TruthTable>; cancel: () => void } {
  const worker = new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });
  // Small sheets never need it, so it is not part of a page's first load.
  const table = import('comlink').then(
    ({ proxy, wrap }) => wrap<TableWork>(worker).table(sheet, sheets, proxy(progress)) as Promise<TruthTable>,
  );
  const done = () => worker.terminate();
  table.then(done, done);
  return { table, cancel: done };
}
