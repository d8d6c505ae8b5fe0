'use client';

import { useState } from 'react';
import { sentence } from '@/core/values/result';
import type { Place } from '@/session/desk';
import type { OpenSession } from '@/session/open-session';
import { storeProblem } from '@/store/database';
import { saveLesson } from '@/ui/session/save-lesson';

const WORDS: Record<Exclude<Place, 'here'>, string> = {
  elsewhere: 'This lesson is being edited in another tab. You can look and try here.',
  overtaken:
    'Another tab took this lesson before the last edits made here were saved. They are on this page only: save it as a file.',
  deleted: 'This lesson was deleted in another tab. What you see is on this page only.',
};

/** Says that a lesson is edited in another tab or was deleted there, with ways out. */
export function EditedElsewhere({ open, place }: { open: OpenSession; place: Exclude<Place, 'here'> }) {
  const [isBusy, setBusy] = useState(false);
  const { session } = open;
  const press = (label: string, run: () => Promise<void>) => (
    <button
      type="button"
      className="button small"
      disabled={isBusy}
      onClick={() => {
        setBusy(true);
        run()
          .catch((error) => session.say(sentence(storeProblem(error)), 'bad'))
          .finally(() => setBusy(false));
      }}
    >
      {label}
    </button>
  );
  return (
    <div
      role="alert"
      className={`flex flex-wrap items-center gap-x-3 gap-y-1 rounded-xl border px-3 py-1.5 text-sm ${place === 'elsewhere' ? 'border-accent bg-accent-soft' : 'border-bad bg-raised'}`}
    >
      {WORDS[place]}
      {place === 'elsewhere' && press('Edit here instead', () => open.takeOver())}
      {place === 'deleted' && press('Bring it back', () => open.bringBack())}
      {place !== 'elsewhere' && (
        <button type="button" className="button small" onClick={() => saveLesson(session.state.lesson)}>
          Save file
        </button>
      )}
      {place === 'overtaken' && (
        <button type="button" className="button small" onClick={() => location.reload()}>
          Show what is saved
        </button>
      )}
    </div>
  );
}
