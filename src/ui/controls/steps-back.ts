/** What something was, is, and was before it was undone. */
export interface Steps<T> {
  readonly past: readonly T[];
  readonly now: T;
  readonly future: readonly T[];
}

/** Steps that can be undone, at most. */
const MOST_STEPS = 300;

export const begun = <T>(now: T): Steps<T> => ({ past: [], now, future: [] });

/** The steps after a change. @param goesOn whether it belongs to the step before it. */
export const stepped = <T>({ past, now }: Steps<T>, next: T, goesOn = false): Steps<T> => ({
  past: goesOn ? past : [...past, now].slice(-MOST_STEPS),
  now: next,
  future: [],
});

/** One step back; the same where there is none. */
export function undone<T>(steps: Steps<T>): Steps<T> {
  const { past, now, future } = steps;
  return past.length > 0 ? { past: past.slice(0, -1), now: past.at(-1)!, future: [now, ...future] } : steps;
}

/** One step forward again; the same where there is none. */
export function redone<T>(steps: Steps<T>): Steps<T> {
  const { past, now, future } = steps;
  const [next, ...rest] = future;
  return future.length > 0 ? { past: [...past, now], now: next!, future: rest } : steps;
}
