import { proxy, wrap } from 'comlink';
import type { Sheet } from '@/core/circuit/lesson';
import type { TruthTable } from '@/core/logic/truth-table';
import type { TableWork } from './table-worker';

/** Derives a large table in a worker of its own; cancelling ends the worker. */
export function tableMaker(
  sheet: Sheet,
  progress: (share: number) => void,
): { table: Promise<TruthTable>; cancel: () => void } {
  const worker = new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });
  const table = wrap<TableWork>(worker).table(sheet, proxy(progress));
  const done = () => worker.terminate();
  table.then(done, done);
  return { table: table as Promise<TruthTable>, cancel: done };
}
