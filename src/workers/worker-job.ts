import type { Remote } from 'comlink';
import { fetcher, load } from '@/loading/load';
import type { Running } from './worker-pool';

const workers = fetcher('the link to background work', () => import('./worker-pool'));

/** Work that goes on in a worker. */
export interface WorkerJob<T> {
  readonly result: Promise<T>;
  /** Ends the worker; the result never comes then. */
  readonly cancel: () => void;
}

/** How things are passed to a worker that it does not get a copy of. */
export interface Passing {
  /** A function of the page that the worker can call; calls after the result are ignored. */
  callable<F extends (...args: never[]) => void>(of: F): F;
  /** Memory that the page does without from then on. */
  given<T>(value: T, memory: readonly ArrayBuffer[]): T;
}

/**
 * Does one job in a worker of the pool. A worker whose script cannot be fetched is started again until it can, like all that is fetched.
 * @param start makes the worker; always the same function for the same script. Its functions must not depend on earlier jobs.
 * @param job gets the worker's functions. It is done again where the worker is begun again.
 */
export function workerJob<W, T>(
  start: () => Worker,
  job: (work: Remote<W>, passing: Passing) => Promise<T>,
): WorkerJob<T> {
  let running: Running | null = null;
  let isDone = false;
  const end = () => {
    if (!isDone) running?.worker.terminate();
    isDone = true;
  };
  const attempt = async (): Promise<() => T | Promise<never>> => {
    const { failureOf, keepWorker, NOT_THERE, proxy, takeWorker, transfer } = await workers();
    if (isDone) return () => never;
    const mine = takeWorker(start);
    running = mine;
    const listening = new AbortController();
    const failed = failureOf(mine.worker, listening.signal);
    try {
      const work = job(mine.work as Remote<W>, {
        callable: (of) => proxy(((...args) => (isDone ? undefined : of(...args))) as typeof of),
        given: (value, memory) => transfer(value, [...memory]),
      });
      const value = await Promise.race([work, failed]);
      if (isDone) return () => never;
      isDone = true;
      keepWorker(start, mine);
      return () => value;
    } catch (error) {
      mine.worker.terminate();
      if (isDone) return () => never;
      // A missing script is fetched again; any other error is the result of the job.
      if (error === NOT_THERE) throw error;
      return () => {
        throw error;
      };
    } finally {
      listening.abort();
    }
  };
  const result = load('the background work', attempt).then((answer) => answer());
  result.catch(end);
  return { result, cancel: end };
}

/** What a job that was given up comes to. */
const never = new Promise<never>(() => {});
