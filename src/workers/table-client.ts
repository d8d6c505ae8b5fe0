import type { Sheet } from '@/core/circuit/sheet';
import type { TruthTable } from '@/core/logic/table/truth-table';
import type { TableWork } from './table-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./table-worker.ts', import.meta.url), { type: 'module' });

/**
 * Derives a large table.
 * @param memory columns that the page does without from then on.
 * @param progress gets the share of the rows that is derived, 0 to 1.
 */
export const tableMaker = (
  sheet: Sheet,
  sheets: readonly Sheet[],
  memory: readonly Uint32Array<ArrayBuffer>[],
  progress: (share: number) => void,
): WorkerJob<TruthTable> =>
  workerJob<TableWork, TruthTable>(start, (work, { callable, given }) => {
    // Those given to a worker that did not come are gone.
    const left = memory.filter((column) => column.length > 0);
    const buffers = left.map((column) => column.buffer);
    return work.table(sheet, sheets, given(left, buffers), callable(progress));
  });
