import { useCallback, useEffect, useRef, useState } from 'react';
import type { KeptExercise } from '@/store/exercises';
import { handInTexts } from '@/store/hand-ins';
import { type OpenedHandIn, type Opener, opener } from '@/workers/mark-client';

/** Hand-ins that stay open, so that going back and on is at once. */
const MOST_OPEN = 8;

/**
 * The hand-in that is looked at, opened in the background, with those opened beforehand that may come next.
 * @param key its number in the store; null for none.
 * @param next those that may come next.
 * @param fail is told what went wrong; always the same function.
 * @returns null while it is being opened.
 */
export function useOpened(
  shown: KeptExercise | null,
  key: number | null,
  next: readonly number[],
  fail: (error: unknown) => void,
): OpenedHandIn | null {
  const worker = useRef<Opener | null>(null);
  const open = useRef<{ of: KeptExercise | null; by: Map<number, OpenedHandIn | null> }>({
    of: null,
    by: new Map(),
  });
  const [, setCount] = useState(0);
  useEffect(() => () => worker.current?.end(), []);
  const fetch = useCallback(
    (wanted: number) => {
      if (!shown) return;
      if (open.current.of !== shown) open.current = { of: shown, by: new Map() };
      const { by } = open.current;
      const there = by.get(wanted);
      if (there !== undefined) {
        // The ones that were wanted last stay longest.
        by.delete(wanted);
        by.set(wanted, there);
        return;
      }
      // Its place is taken while it is being opened.
      by.set(wanted, null);
      for (const old of [...by.keys()].slice(0, Math.max(0, by.size - MOST_OPEN))) by.delete(old);
      worker.current ??= opener();
      const { exercise, editions } = shown;
      handInTexts([wanted])
        .then(([kept]) => (kept ? worker.current!.open(kept.text, exercise, editions) : null))
        .then((found) => {
          if (found) by.set(wanted, found);
          else by.delete(wanted);
          setCount((n) => n + 1);
        })
        .catch((error) => {
          by.delete(wanted);
          fail(error);
        });
    },
    [shown, fail],
  );
  const opened = key === null || open.current.of !== shown ? null : (open.current.by.get(key) ?? null);
  const ahead = next.join();
  useEffect(() => {
    if (key !== null) fetch(key);
  }, [key, fetch]);
  // The next ones only once the one that is looked at is there.
  useEffect(() => {
    if (opened) for (const one of ahead.split(',').filter(Boolean)) fetch(Number(one));
  }, [opened, ahead, fetch]);
  return opened;
}
