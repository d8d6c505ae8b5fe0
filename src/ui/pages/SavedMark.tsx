'use client';

import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { holdReload } from '@/loading/load';
import type { OpenSession } from '@/session/open-session';
import { isStoreKept } from '@/store/database';
import { hint } from '@/ui/controls/hint';
import { useSessionState } from '@/ui/session/session-context';

const WORDS = { saved: 'Saved', saving: 'Saving …', failed: 'Not saved' } as const;

/** Milliseconds of saving after which the mark shows it; most writes end long before, and it stays still. */
const QUIET_MS = 500;

/** Whether something has been going on for longer than `QUIET_MS`. */
function useIsLong(isGoingOn: boolean): boolean {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!isGoingOn) return;
    const timer = setTimeout(() => setLong(true), QUIET_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [isGoingOn]);
  return isLong;
}

/**
 * A quiet mark that tells whether everything is saved: a bead, filled when it is. A failure is told in words,
 * with a way to try again; closing the tab meanwhile asks first.
 */
export function SavedMark({ open }: { open: OpenSession }) {
  const saving = useSessionState((s) => s.saving);
  const isLong = useIsLong(saving.is === 'saving');
  const { session, isBehind } = open;
  const place = useStore(open.place);
  useEffect(() => {
    const ask = (event: BeforeUnloadEvent) => {
      if (isBehind()) event.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    const free = holdReload(() => session.savedOrFailed());
    return () => {
      window.removeEventListener('beforeunload', ask);
      free();
    };
  }, [session, isBehind]);
  if (saving.is === 'failed')
    return (
      <button
        type="button"
        className="h-8 shrink-0 cursor-pointer rounded-full border border-bad px-2.5 text-sm font-semibold text-bad"
        {...hint(saving.problem.message)}
        onClick={() => {
          session.say(`Not saved: ${saving.problem.message}.`, 'bad');
          open.retrySaving();
        }}
      >
        Not saved
      </button>
    );
  // Of a lesson that was deleted elsewhere nothing is saved, even where nothing was edited since.
  if (place !== 'here') return null;
  if (!isStoreKept())
    return (
      <span
        className="shrink-0 text-xs text-quiet"
        {...hint('This browser keeps no data: save the lesson as a file')}
      >
        not kept
      </span>
    );
  return (
    <span
      role="img"
      aria-label={WORDS[saving.is]}
      {...hint(saving.is === 'saved' ? 'Everything is saved in this browser' : WORDS.saving)}
      className="flex shrink-0 items-center gap-1.5 text-xs text-quiet"
    >
      <span className={`size-2 rounded-full border border-quiet ${isLong ? '' : 'bg-quiet'}`} />
      <span data-way={1} className={isLong ? 'opacity-0' : ''}>
        saved
      </span>
    </span>
  );
}
