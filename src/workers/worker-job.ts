import type { Remote } from 'comlink';
import { fetcher, load } from '@/loading/load';

const comlink = fetcher('the link to background work', () => import('comlink'));

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

/** A worker and its functions. */
interface Running {
  readonly worker: Worker;
  readonly work: Remote<unknown>;
}

/** Milliseconds for which a worker waits for another job: edits follow one another, and to begin one takes longer than most jobs. */
const WAITS = 20_000;
/** Workers that wait, by what starts them, with the timers that end them. */
const waiting = new Map<() => Worker, Map<Running, ReturnType<typeof setTimeout>>>();

/** Has a worker wait for another job. */
function wait(start: () => Worker, running: Running): void {
  const those = waiting.get(start) ?? new Map();
  waiting.set(start, those);
  const timer = setTimeout(() => {
    those.delete(running);
    running.worker.terminate();
  }, WAITS);
  those.set(running, timer);
}

/** One that waits, if there is one. */
function oneWaiting(start: () => Worker): Running | null {
  for (const [running, timer] of waiting.get(start) ?? []) {
    clearTimeout(timer);
    waiting.get(start)!.delete(running);
    return running;
  }
  return null;
}

/** The script of a worker has not come. */
const NOT_THERE = new Error('the script of the background work is missing');
const CANCELLED = new Error('the background work was given up');

/**
 * Does one job in a worker that has nothing else to do. After a job that went well the worker waits a while for another. One whose script
 * does not come is begun again until it does, as all that is fetched is.
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
  const attempt = async (): Promise<T> => {
    const { proxy, transfer, wrap } = await comlink();
    if (isDone) throw CANCELLED;
    const begun = () => {
      const worker = start();
      return { worker, work: wrap<unknown>(worker) };
    };
    const mine = oneWaiting(start) ?? begun();
    running = mine;
    const listening = new AbortController();
    const failed = failureOf(mine.worker, listening.signal);
    const work = job(mine.work as Remote<W>, {
      callable: (of) => proxy(((...args) => (isDone ? undefined : of(...args))) as typeof of),
      given: (value, memory) => transfer(value, [...memory]),
    });
    try {
      return await Promise.race([work, failed]);
    } catch (error) {
      mine.worker.terminate();
      throw error;
    } finally {
      listening.abort();
    }
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
  result.then(() => {
    if (isDone) return;
    isDone = true;
    wait(start, running!);
  }, end);
  return { result, cancel: end };
}

/** Settles only if a worker fails: the event of a script that cannot be fetched has no message. */
function failureOf(worker: Worker, signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    const fails = ({ message }: ErrorEvent) => reject(message ? new Error(message) : NOT_THERE);
    worker.addEventListener('error', fails, { signal });
  });
}

/** What a job that was given up comes to. */
const never = new Promise<never>(() => {});
