import { proxy, type Remote, transfer, wrap } from 'comlink';

export { proxy, transfer };

/*
 * The workers of a page. A worker that has done its job waits a while for the next one, as starting a worker takes longer than most jobs.
 */

/** A worker and its functions. */
export interface Running {
  readonly worker: Worker;
  readonly work: Remote<unknown>;
}

/** Milliseconds for which a worker waits. */
const WAITS = 20_000;
/** The script of a worker has not come. */
export const NOT_THERE = new Error('the script of the background work is missing');

/** Workers that wait, by what starts them, with the timers that end them. */
const waiting = new Map<() => Worker, Map<Running, ReturnType<typeof setTimeout>>>();

/** A worker that has nothing to do: one that waits, or a new one. */
export function takeWorker(start: () => Worker): Running {
  for (const [running, timer] of waiting.get(start) ?? []) {
    clearTimeout(timer);
    waiting.get(start)!.delete(running);
    return running;
  }
  const worker = start();
  return { worker, work: wrap<unknown>(worker) };
}

/** Has a worker wait for another job. */
export function keepWorker(start: () => Worker, running: Running): void {
  const those = waiting.get(start) ?? new Map();
  waiting.set(start, those);
  const timer = setTimeout(() => {
    those.delete(running);
    running.worker.terminate();
  }, WAITS);
  those.set(running, timer);
}

/** Settles only if a worker fails: the event of a script that cannot be fetched has no message. */
export function failureOf(worker: Worker, signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    const fails = ({ message }: ErrorEvent) => reject(message ? new Error(message) : NOT_THERE);
    worker.addEventListener('error', fails, { signal });
  });
}
