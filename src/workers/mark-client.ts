import type { Exercise } from '@/core/circuit/exercise';
import type { KeptText, MarkedHandIn, MarkWork } from './mark-worker';
import { type WorkerJob, workerJob } from './worker-job';

export type { MarkedHandIn } from './mark-worker';

const start = () => new Worker(new URL('./mark-worker.ts', import.meta.url), { type: 'module' });

/** Marks hand-ins of an exercise, by what each of them was asked. @param tell gets each as it is done. */
export const marker = (
  handIns: readonly KeptText[],
  exercise: Exercise,
  editions: readonly Exercise[],
  tell: (marked: MarkedHandIn) => void,
): WorkerJob<void> =>
  workerJob<MarkWork, void>(start, (work, callable) =>
    work.mark(handIns, exercise, editions, callable(tell)),
  );
