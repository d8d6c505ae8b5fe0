import type { Sheet } from '@/core/circuit/sheet';
import type { TruthTable } from '@/core/logic/table/truth-table';
import type { TableWork } from './table-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });

/** Derives a large table. @param progress gets the share of the rows that is derived, 0 to 1. */
export const tableMaker = (
  sheet: Sheet,
  sheets: readonly Sheet[],
  progress: (share: number) => void,
): WorkerJob<TruthTable> =>
  workerJob<TableWork, TruthTable>(start, (work, callable) => work.table(sheet, sheets, callable(progress)));
