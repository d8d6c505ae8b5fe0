import type { BooleanFunction } from '@/core/logic/minimise/cube';
import type { Minimised } from '@/core/logic/minimise/minimise';
import type { MinimiseWork } from './minimise-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./minimise-worker.ts', import.meta.url), { type: 'module' });

/** Minimises a function and its inverse. */
export const minimiser = (fn: BooleanFunction): WorkerJob<{ ones: Minimised; zeros: Minimised }> =>
  workerJob<MinimiseWork, { ones: Minimised; zeros: Minimised }>(start, (work) => work.both(fn));
