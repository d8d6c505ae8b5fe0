'use client';

import { useState } from 'react';
import { useStore } from 'zustand';
import { writeLesson } from '@/core/formats/write-lesson';
import type { OpenSession } from '@/session/open-session';
import { fileName, saveFile } from '@/ui/controls/files';
import { Loading } from '@/ui/controls/Loading';
import { later } from '@/ui/controls/later';
import { LessonView } from './LessonView';
import { useOpenSession } from './useOpenSession';

const NotOpened = later(() => import('./NotOpened').then((m) => m.NotOpened));
const HandOut = later(() => import('@/ui/exercise/HandOut').then((m) => m.HandOut));
const HandIn = later(() => import('@/ui/exercise/HandIn').then((m) => m.HandIn));
const TaskPane = later(() => import('@/ui/exercise/TaskPane').then((m) => m.TaskPane));

/** A kept lesson with all that one does with it: a teacher hands out, a student hands in. */
export function OpenLesson({ id }: { id: string | null }) {
  const opening = useOpenSession(id);
  switch (opening.state) {
    case 'opening':
      return <Loading what="Opening the lesson …" />;
    case 'missing':
      return <NotOpened problem={null} />;
    case 'broken':
      return <NotOpened problem={opening.problem} />;
    case 'open':
      return <Ready open={opening.open} />;
  }
}

function Ready({ open }: { open: OpenSession }) {
  const { session } = open;
  const [dialog, setDialog] = useState<'out' | 'in' | null>(null);
  const readOnly = useStore(session.store, (s) => s.readOnly);
  const exercise = useStore(session.store, (s) => s.lesson.exercise);
  const save = () => {
    const { lesson } = session.state;
    saveFile(fileName(lesson.title, '.manege.json'), writeLesson(lesson));
  };
  return (
    <LessonView
      session={session}
      beside={exercise ? <TaskPane exercise={exercise} onHandIn={() => setDialog('in')} /> : undefined}
      banner={
        readOnly && (
          <div
            role="alert"
            className="flex items-center gap-3 rounded-xl border border-accent bg-accent-soft px-3 py-1.5 text-sm"
          >
            This lesson is being edited in another tab. You can look and try here.
            <button
              type="button"
              className="button small"
              onClick={() => open.takeOver().then(() => location.reload())}
            >
              Edit here instead
            </button>
          </div>
        )
      }
      actions={
        <>
          <button type="button" className="button" onClick={save} title="Save this lesson as a file">
            Save file
          </button>
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
