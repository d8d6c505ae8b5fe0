'use client';

import type { ReactNode } from 'react';
import { Boundary } from '@/ui/controls/Boundary';
import { saveLesson } from '@/ui/session/save-lesson';
import { useSession } from '@/ui/session/session-context';

/** A face that fails says so in its own pane, while the rest goes on. @param name of the face. */
export function FaceBoundary({ name, children }: { name: string; children: ReactNode }) {
  const session = useSession();
  return (
    <Boundary
      fallback={(error, retry) => (
        <section className="pane" aria-label={name} role="alert">
          <div className="flex flex-col items-start gap-3 p-5">
            <p>
              <b>{name}</b> cannot be shown: an unexpected error stopped it. The lesson is not affected.
            </p>
            <p className="text-sm text-quiet">{error.message}</p>
            <div className="flex gap-2">
              <button type="button" className="button small main" onClick={retry}>
                Try again
              </button>
              <button type="button" className="button small" onClick={() => saveLesson(session.state.lesson)}>
                Save the lesson
              </button>
            </div>
          </div>
        </section>
      )}
    >
      {children}
    </Boundary>
  );
}
