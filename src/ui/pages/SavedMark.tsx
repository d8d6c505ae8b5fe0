'use client';

import { useEffect } from 'react';
import { holdReload } from '@/loading/load';
import type { OpenSession } from '@/session/open-session';
import { hint } from '@/ui/controls/hint';
import { useSessionState } from '@/ui/session/session-context';

const WORDS = { saved: 'Saved', saving: 'Saving …', failed: 'Not saved' } as const;

/**
 * A quiet mark that tells whether everything is saved: a bead, filled when it is. A failure is told in words,
 * with a way to try again; closing the tab meanwhile asks first.
 */
export function SavedMark({ open }: { open: OpenSession }) {
  const saving = useSessionState((s) => s.saving);
  const { session, isBehind } = open;
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
  return (
    <span
      role="img"
      aria-label={WORDS[saving.is]}
      {...hint(saving.is === 'saved' ? 'Everything is saved in this browser' : WORDS.saving)}
      className="flex shrink-0 items-center gap-1.5 text-xs text-quiet"
    >
      <span
        className={`size-2 rounded-full border border-quiet ${saving.is === 'saved' ? 'bg-quiet' : 'transition-colors delay-500'}`}
      />
      <span
        className={`max-xl:hidden ${saving.is === 'saved' ? '' : 'opacity-0 transition-opacity delay-500'}`}
      >
        saved
      </span>
    </span>
  );
}
