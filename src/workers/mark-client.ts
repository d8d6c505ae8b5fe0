import type { Remote } from 'comlink';
import type { Exercise } from '@/core/circuit/exercise';
import type { FoundHandIn } from '@/core/exercise/found';
import type { LikePair } from '@/core/likeness/likeness';
import type { FoundKept, KeptText, KnownExercise, MarkWork, OpenedHandIn, Sorted } from './mark-worker';
import { type WorkerJob, workerJob } from './worker-job';

export type { OpenedHandIn } from './mark-worker';

const start = () => new Worker(new URL('./mark-worker.ts', import.meta.url), { type: 'module' });

/** Workers that share the hand-ins of a class, at most. */
const MOST_WORKERS = 4;
/** Hand-ins that a worker gets at once: few, so that the list fills and the page holds few texts. */
const BATCH = 6;

/** Gives out things to several workers, some at a time. @param run has a batch done by a worker, and takes what comes of it. @param begin makes a worker ready. */
function shared<I>(
  all: readonly I[],
  run: (work: Remote<MarkWork>, batch: I[]) => Promise<void>,
  begin: (work: Remote<MarkWork>) => Promise<void> = () => Promise.resolve(),
): WorkerJob<void> {
  const left = [...all];
  const most = Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1, Math.ceil(left.length / BATCH));
  const jobs = Array.from({ length: most }, () =>
    workerJob<MarkWork, void>(start, async (work) => {
      await begin(work);
      while (left.length > 0) {
        const batch = left.splice(0, BATCH);
        try {
          await run(work, batch);
        } catch (error) {
          // A worker that is begun again does them again.
          left.unshift(...batch);
          throw error;
        }
      }
    }),
  );
  const cancel = () => {
    for (const job of jobs) job.cancel();
  };
  const result = Promise.all(jobs.map((job) => job.result)).then(() => {});
  result.catch(cancel);
  return { result, cancel };
}

/**
 * Marks hand-ins of an exercise, by what each of them was asked.
 * @param texts gives hand-ins by their keys.
 * @param tell gets some of them as they are done.
 */
export const marker = (
  keys: readonly number[],
  texts: (keys: readonly number[]) => Promise<KeptText[]>,
  exercise: Exercise,
  editions: readonly Exercise[],
  tell: (found: readonly FoundKept[]) => void,
): WorkerJob<void> =>
  shared(keys, async (work, batch) => tell(await work.mark(await texts(batch), exercise, editions)));

/**
 * Tells hand-ins from all else, and marks those of exercises that are known.
 * @param count how many texts there are.
 * @param textOf gives one of them, by its number.
 * @param tell gets some as they are done, with their numbers.
 */
export const sorter = (
  count: number,
  textOf: (at: number) => Promise<string>,
  exercises: readonly KnownExercise[],
  tell: (numbers: readonly number[], sorted: readonly Sorted[]) => Promise<void>,
): WorkerJob<void> =>
  shared(
    Array.from({ length: count }, (_, at) => at),
    async (work, batch) => {
      const texts: string[] = [];
      for (const at of batch) texts.push(await textOf(at));
      await tell(batch, await work.sort(texts));
    },
    (work) => work.know(exercises),
  );

/** A worker that stays, and opens hand-ins one after the other. */
export interface Opener {
  /** A hand-in to be looked at, with all findings; null where it cannot be read. */
  open(text: string, exercise: Exercise, editions: readonly Exercise[]): Promise<OpenedHandIn | null>;
  end(): void;
}

export function opener(): Opener {
  type Ask = (work: Remote<MarkWork>) => void;
  const asked = new Set<Ask>();
  let current: Remote<MarkWork> | null = null;
  const job = workerJob<MarkWork, never>(start, (work) => {
    current = work;
    // What was asked before the worker was there, or of one that never came.
    for (const ask of asked) ask(work);
    return new Promise(() => {});
  });
  return {
    open: (text, exercise, editions) =>
      Promise.race([
        job.result,
        new Promise<OpenedHandIn | null>((resolve, reject) => {
          const ask: Ask = (work) =>
            void work
              .open(text, exercise, editions)
              .then(resolve, reject)
              .finally(() => asked.delete(ask));
          asked.add(ask);
          if (current) ask(current);
        }),
      ]),
    end: job.cancel,
  };
}

/** The pairs of a class that are more alike than chance would have it. */
export const pairFinder = (class_: readonly FoundHandIn[]): WorkerJob<LikePair[]> =>
  workerJob<MarkWork, LikePair[]>(start, (work) => work.pairs(class_));
