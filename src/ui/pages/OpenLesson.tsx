'use client';

import { useState } from 'react';
import { useStore } from 'zustand';
import type { OpenSession } from '@/session/open-session';
import { holdKeysFor } from '@/ui/controls/HoldKeys';
import { hint } from '@/ui/controls/hint';
import { Loading } from '@/ui/controls/Loading';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { NotKept } from '@/ui/controls/NotKept';
import { LessonView } from '@/ui/lesson/LessonView';
import { LinkButton } from '@/ui/lesson/LinkButton';
import { saveToFile } from '@/ui/session/lesson-file';
import { SavedMark } from './SavedMark';
import { useOpenSession } from './useOpenSession';

const NotOpened = lazyComponent('the page for lessons that are missing', () =>
  import('./NotOpened').then((m) => m.NotOpened),
);
const EditedElsewhere = lazyComponent('what is said of other tabs', () =>
  import('./EditedElsewhere').then((m) => m.EditedElsewhere),
);
const SetAside = lazyComponent('the edits that were set aside', () =>
  import('./SetAside').then((m) => m.SetAside),
);
const HandOut = lazyComponent(
  '“Hand out”',
  () => import('@/ui/exercise/HandOut').then((m) => m.HandOut),
  holdKeysFor,
);
const HandIn = lazyComponent(
  '“Hand in”',
  () => import('@/ui/exercise/HandIn').then((m) => m.HandIn),
  holdKeysFor,
);
const TaskPane = lazyComponent('the task', () => import('@/ui/exercise/TaskPane').then((m) => m.TaskPane));

/** A kept lesson with all that one does with it: a teacher hands out, a student hands in. */
export function OpenLesson({ id, faces }: { id: string | null; faces?: readonly string[] | undefined }) {
  const opening = useOpenSession(id);
  switch (opening.state) {
    case 'opening':
      return <Loading what="Opening the lesson …" />;
    case 'missing':
      return <NotOpened problem={null} />;
    case 'broken':
      return <NotOpened problem={opening.problem} />;
    case 'open':
      return <Ready open={opening.open} faces={faces} />;
  }
}

function Ready({ open, faces }: { open: OpenSession; faces: readonly string[] | undefined }) {
  const { session } = open;
  const [dialog, setDialog] = useState<'out' | 'in' | null>(null);
  const place = useStore(open.place);
  const exercise = useStore(session.store, (s) => s.lesson.exercise);
  return (
    <LessonView
      session={session}
      faces={faces}
      beside={exercise ? <TaskPane exercise={exercise} onHandIn={() => setDialog('in')} /> : undefined}
      saved={place === 'elsewhere' ? undefined : <SavedMark open={open} />}
      banner={
        <>
          <NotKept />
          {place !== 'here' && <EditedElsewhere open={open} place={place} />}
          {place === 'here' && open.setAside > 0 && (
            <SetAside lesson={session.state.lesson} count={open.setAside} />
          )}
        </>
      }
      more={
        <>
          {!exercise && <LinkButton />}
          <button
            type="button"
            className="button"
            onClick={() => void saveToFile(session)}
            {...hint('Save this lesson as a file, or to the file that it has')}
          >
            Save file
          </button>
        </>
      }
      actions={
        <>
          {exercise ? (
            <button type="button" className="button main" onClick={() => setDialog('in')}>
              Hand in
            </button>
          ) : (
            <button type="button" className="button main" onClick={() => setDialog('out')}>
              Hand out
            </button>
          )}
          {dialog === 'out' && <HandOut onClose={() => setDialog(null)} />}
          {dialog === 'in' && exercise && (
            <HandIn exercise={exercise} seconds={open.seconds} onClose={() => setDialog(null)} />
          )}
        </>
      }
    />
  );
}
