import type { Sheet } from '@/core/circuit/lesson';
import type { TruthTable } from '@/core/logic/truth-table';
import type { TableWork } from './table-worker';

/** Derives a large table in a worker of its own; cancelling ends the worker. */
export function tableMaker(
  sheet: Sheet,
  sheets: readonly Sheet[],
  progress: (share: number) => void,
): { table: Promise<TruthTable>; cancel: () => void } {
  let isDone = false;
  // What is told goes another way than the table, and may come after it.
  const told = (share: number) => {
    if (!isDone) progress(share);
  };
  const worker = new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });
  // Small sheets never need it, so it is not part of a page's first load.
  const table = import('comlink').then(
    ({ proxy, wrap }) => wrap<TableWork>(worker).table(sheet, sheets, proxy(told)) as Promise<TruthTable>,
  );
  const done = () => {
    isDone = true;
    worker.terminate();
  };
  table.then(done, done);
  return { table, cancel: done };
}
