import { createStore } from 'zustand/vanilla';
import { pathTo } from '@/loading/base';
import { remember, remembered } from './page-memory';

/*
 * The one way to fetch a part of Manege that a page does without at first. It is retried until it succeeds,
 * so nothing that waits for it is lost; failures are shown to the person (`ui/controls/FetchFailures.tsx`).
 */

export interface Failing {
  /** The part being fetched, as it follows “could not fetch”: `the ring of parts`. */
  readonly what: string;
  /** Tries again at once. */
  retry(): void;
}

export interface LoadingState {
  readonly failing: readonly Failing[];
  /** Whether the server has another build than this page: missing parts will then never come. */
  readonly isOutdated: boolean;
}

export const loading = createStore<LoadingState>(() => ({ failing: [], isOutdated: false }));

/** Milliseconds between one attempt and the next, the last for all that follow. */
const PAUSES = [300, 1000, 2000, 5000, 10_000];
/** Failures after which the person is told, and the server is asked whether it has another build. */
const QUIET_FAILURES = 2;

/**
 * Fetches a part of Manege, retrying until it succeeds.
 * @param what as it follows “could not fetch”.
 * @param fetchIt may be called several times.
 */
export async function load<T>(what: string, fetchIt: () => Promise<T>): Promise<T> {
  let failing: Failing | null = null;
  try {
    for (let attempt = 0; ; attempt++) {
      try {
        return await fetchIt();
      } catch {
        let wake = () => {};
        const woken = new Promise<void>((resolve) => {
          wake = resolve;
        });
        if (attempt + 1 >= QUIET_FAILURES) {
          const was = failing;
          failing = { what, retry: wake };
          show(was, failing);
          if (await isOutdated()) loading.setState({ isOutdated: true });
        }
        await pause(PAUSES[Math.min(attempt, PAUSES.length - 1)]!, woken);
      }
    }
  } finally {
    show(failing, null);
  }
}

function show(was: Failing | null, is: Failing | null): void {
  if (!was && !is) return;
  const { failing } = loading.getState();
  // Each keeps its place: what the person reads does not change with every attempt.
  if (was) loading.setState({ failing: failing.flatMap((f) => (f !== was ? f : is ? [is] : [])) });
  else if (is) loading.setState({ failing: [...failing, is] });
}

/** Waits for some milliseconds, or until the network is back, or until it is woken. */
function pause(ms: number, woken: Promise<void>): Promise<void> {
  return new Promise((resolve) => {
    const end = () => {
      clearTimeout(timer);
      removeEventListener('online', end);
      resolve();
    };
    const timer = setTimeout(end, ms);
    addEventListener('online', end);
    void woken.then(end);
  });
}

/** Whether a script of this page is no longer among the files of the server. */
async function isOutdated(): Promise<boolean> {
  try {
    const answer = await fetch(pathTo('/offline-files'), { cache: 'no-store' });
    const files = new Set((await answer.json()) as string[]);
    const own = [...document.scripts].map((s) => (s.src ? new URL(s.src).pathname : ''));
    return own.some((path) => path.startsWith(pathTo('/_next/static/')) && !files.has(path));
  } catch {
    // Without an answer nothing is known of the server.
    return false;
  }
}

/** Milliseconds between one look for another build and the next, while the page is looked at. */
const LOOK_EVERY = 5 * 60_000;

/**
 * Looks whether the server has another build whenever a person comes back to the page, and now and then.
 * @returns ends it.
 */
export function watchForUpdate(): () => void {
  let last = Date.now();
  const look = async () => {
    const now = Date.now();
    // A clock that was set back would never come to the next look.
    if (document.visibilityState !== 'visible' || (now >= last && now - last < LOOK_EVERY)) return;
    last = now;
    if (await isOutdated()) loading.setState({ isOutdated: true });
  };
  const timer = setInterval(() => void look(), LOOK_EVERY);
  document.addEventListener('visibilitychange', look);
  return () => {
    clearInterval(timer);
    document.removeEventListener('visibilitychange', look);
  };
}

const holds = new Set<() => Promise<void>>();

/**
 * Makes a reload by `reloadOnce` wait until something is kept.
 * @param until rejects if it cannot be kept: the page is then not reloaded.
 * @returns takes it back.
 */
export function holdReload(until: () => Promise<void>): () => void {
  holds.add(until);
  return () => {
    holds.delete(until);
  };
}

const RELOADED = 'manege-reloaded';
/** Milliseconds within which a page is not reloaded once more. */
const ONCE = 60_000;

/**
 * Reloads the page when everything that holds it back is done, but not twice in a row: a page that is
 * outdated after a reload as well would go on for ever.
 * @returns false if it will not reload.
 */
export async function reloadOnce(): Promise<boolean> {
  const last = Number(remembered(RELOADED, 'tab') ?? 0);
  if (Date.now() - last < ONCE) return false;
  try {
    await Promise.all([...holds].map((until) => until()));
  } catch {
    return false;
  }
  // A page that cannot remember that it was reloaded might go on for ever.
  if (!remember(RELOADED, String(Date.now()), 'tab')) return false;
  location.reload();
  return true;
}

/** Fetches a part of Manege on first request, once for all callers. */
export function fetcher<T>(what: string, fetchIt: () => Promise<T>): () => Promise<T> {
  let fetched: Promise<T> | undefined;
  return () => {
    fetched ??= load(what, fetchIt);
    return fetched;
  };
}
