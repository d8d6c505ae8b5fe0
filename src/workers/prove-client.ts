import type { Sheet } from '@/core/circuit/sheet';
import type { Proof } from '@/core/logic/equivalence/prove';
import type { Result } from '@/core/values/result';
import type { ProveWork } from './prove-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./prove-worker.ts', import.meta.url), { type: 'module' });

/** Proves two sheets the same, or not. @param progress gets the share of the work that is done, 0 to 1. */
export const prover = (
  a: Sheet,
  b: Sheet,
  sheets: readonly Sheet[],
  progress: (share: number) => void,
): WorkerJob<Result<Proof>> =>
  workerJob<ProveWork, Result<Proof>>(start, (work, { callable }) =>
    work.prove(a, b, sheets, callable(progress)),
  );
