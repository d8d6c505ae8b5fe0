import type { Remote } from 'comlink';
import { fetcher } from '@/loading/load';

const comlink = fetcher('the link to background work', () => import('comlink'));

/** Work that goes on in a worker of its own. */
export interface WorkerJob<T> {
  readonly result: Promise<T>;
  /** Ends the worker; the result never comes then. */
  readonly cancel: () => void;
}

/**
 * Does one job in a worker that ends with it.
 * @param start makes the worker.
 * @param job gets the worker's functions, and wraps a function of the page so that the worker can call it.
 *   Calls after the result are ignored.
 */
export function workerJob<W, T>(
  start: () => Worker,
  job: (work: Remote<W>, callable: <F extends (...args: never[]) => void>(of: F) => F) => Promise<T>,
): WorkerJob<T> {
  const worker = start();
  let isDone = false;
  const end = () => {
    isDone = true;
    worker.terminate();
  };
  const failed = new Promise<never>((_, reject) => {
    worker.addEventListener('error', (event) => {
      reject(new Error(event.message || 'the background work could not be started; reload the page'));
    });
  });
  const work = comlink().then(({ proxy, wrap }) =>
    job(wrap<W>(worker), (of) => proxy(((...args) => (isDone ? undefined : of(...args))) as typeof of)),
  );
  const result = Promise.race([work, failed]);
  result.then(end, end);
  return { result, cancel: end };
}
