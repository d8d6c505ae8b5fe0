import type { Remote } from 'comlink';
import { fetcher, load } from '@/loading/load';

const comlink = fetcher('the link to background work', () => import('comlink'));

/** Work that goes on in a worker of its own. */
export interface WorkerJob<T> {
  readonly result: Promise<T>;
  /** Ends the worker; the result never comes then. */
  readonly cancel: () => void;
}

/** The script of a worker has not come. */
const NOT_THERE = new Error('the script of the background work is missing');
const CANCELLED = new Error('the background work was given up');

/**
 * Does one job in a worker that ends with it. A worker whose script does not come is begun again until it does, as all
 * that is fetched is.
 * @param start makes the worker.
 * @param job gets the worker's functions, and wraps a function of the page so that the worker can call it.
 *   Calls after the result are ignored. It is done again where the worker is begun again.
 */
export function workerJob<W, T>(
  start: () => Worker,
  job: (work: Remote<W>, callable: <F extends (...args: never[]) => void>(of: F) => F) => Promise<T>,
): WorkerJob<T> {
  let worker: Worker | null = null;
  let isDone = false;
  const end = () => {
    isDone = true;
    worker?.terminate();
  };
  const attempt = async (): Promise<T> => {
    const { proxy, wrap } = await comlink();
    if (isDone) throw CANCELLED;
    worker = start();
    const failed = failureOf(worker);
    const work = job(wrap<W>(worker), (of) =>
      proxy(((...args) => (isDone ? undefined : of(...args))) as typeof of),
    );
    return Promise.race([work, failed]);
  };
  // Only a script that is missing is waited for; what goes wrong in the work itself is its result.
  const result = load('the background work', () =>
    attempt().then(
      (value) => () => value,
      (error: unknown) => {
        if (error === NOT_THERE && !isDone) throw error;
        return (): T => {
          throw error;
        };
      },
    ),
  ).then((answer) => (isDone ? never : answer()));
  result.then(end, end);
  return { result, cancel: end };
}

/** Settles only if a worker fails: the event of a script that cannot be fetched has no message. */
function failureOf(worker: Worker): Promise<never> {
  return new Promise((_, reject) => {
    worker.addEventListener('error', ({ message }) => reject(message ? new Error(message) : NOT_THERE));
  });
}

/** What a job that was given up comes to. */
const never = new Promise<never>(() => {});
