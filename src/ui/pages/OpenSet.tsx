'use client';

import Link from 'next/link';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { begunWork } from '@/core/exercise/begin';
import { rulesOn } from '@/core/exercise/marking';
import { sentence } from '@/core/values/result';
import { Session } from '@/session/session';
import { storeProblem, storeReady } from '@/store/database';
import { handOut, keptExercise, saveExercise } from '@/store/exercises';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { Loading } from '@/ui/controls/Loading';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { Mark } from '@/ui/controls/Mark';
import { Notice, type NoticeProps } from '@/ui/controls/Notice';
import { NotKept } from '@/ui/controls/NotKept';
import { ThemeButton } from '@/ui/controls/ThemeButton';
import { UndoRedo } from '@/ui/controls/UndoRedo';
import { Ready } from '@/ui/exercise/Ready';
import { SetEditor } from '@/ui/exercise/SetEditor';
import { begun, changed, redone, type SetHistory, undone } from '@/ui/exercise/set-history';
import { TaskPane } from '@/ui/exercise/TaskPane';
import { TitleField } from '@/ui/exercise/TitleField';
import { LessonView } from '@/ui/lesson/LessonView';

const OnPaper = lazyComponent('worksheets', () =>
  import('@/ui/paper/ExercisePaperDialog').then((m) => m.ExercisePaperDialog),
);

/** The page of an exercise: its tasks are put in order and worded, looked at as a student would, and handed out. */
export function OpenSet() {
  const [history, setHistory] = useState<SetHistory | null | 'missing'>(null);
  const [said, setSaid] = useState<Omit<NoticeProps, 'dismiss'> | null>(null);
  const [isPreview, setPreview] = useState(false);
  const [isPaper, setPaper] = useState(false);
  const [out, setOut] = useState<Exercise | null>(null);
  const dismiss = useCallback(() => setSaid(null), []);
  const fail = useCallback(
    (error: unknown) => setSaid({ text: sentence(storeProblem(error)), tone: 'bad' }),
    [],
  );
  useEffect(() => {
    const id = new URLSearchParams(location.search).get('id') ?? '';
    storeReady()
      .then(() => keptExercise(id))
      .then((kept) => setHistory(kept ? begun(kept.exercise) : 'missing'))
      .catch((error) => {
        setHistory('missing');
        fail(error);
      });
  }, [fail]);
  const take = (next: SetHistory) => {
    if (next === history) return;
    setHistory(next);
    // What it told of may be no more.
    setSaid(null);
    saveExercise(next.now).catch(fail);
  };
  const isOpen = history !== null && history !== 'missing';
  const undo = () => isOpen && take(undone(history));
  const redo = () => isOpen && take(redone(history));
  // What a notice offers is done to what is there then.
  const latestUndo = useRef(undo);
  latestUndo.current = undo;
  // Typing into a field has an undo of its own.
  const onKey = useRef<(event: KeyboardEvent) => void>(() => {});
  onKey.current = (event) => {
    const isText = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
    if (!(event.ctrlKey || event.metaKey) || event.altKey || isText || out || isPreview || isPaper) return;
    const key = event.key.toLowerCase();
    if (key !== 'z' && key !== 'y') return;
    event.preventDefault();
    if (key === 'y' || event.shiftKey) redo();
    else undo();
  };
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey.current(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  if (history === null) return <Loading what="Opening the exercise …" />;
  if (history === 'missing')
    return (
      <main className="flex h-dvh flex-col items-center justify-center gap-3 p-6 text-center">
        <Mark size={44} />
        <h1 className="text-xl font-bold">This exercise is not in this browser</h1>
        <p className="max-w-md text-quiet">It was deleted, or it was made in another browser.</p>
        <Link href="/" className="text-accent underline">
          All lessons
        </Link>
      </main>
    );
  const exercise = history.now;
  const change = (next: Exercise) => take(changed(history, next));
  if (isPreview) return <Preview exercise={exercise} onBack={() => setPreview(false)} />;
  return (
    <div className="mx-auto flex min-h-dvh max-w-6xl flex-col gap-4 px-3 py-4 sm:px-6">
      <Bar className="flex items-center gap-3">
        <Link href="/" aria-label="All lessons" {...hint('All lessons')}>
          <Mark size={34} />
        </Link>
        <h1 className="min-w-24 flex-1">
          <TitleField
            className="h-9 w-full max-w-xl rounded-lg border border-transparent bg-transparent px-1.5 text-xl font-bold hover:border-hairline focus:bg-raised"
            title={exercise.title}
            label="Title of the exercise"
            onTitle={(title) => change({ ...exercise, title })}
          />
        </h1>
        <UndoRedo steps={history} onUndo={undo} onRedo={redo} />
        <Fold way={1} label="More for the exercise">
          <Link className="button" href={`/marking?exercise=${exercise.id}`}>
            Marking
          </Link>
          <button type="button" className="button" onClick={() => setPaper(true)}>
            On paper
          </button>
          <button type="button" className="button" onClick={() => setPreview(true)}>
            As a student
          </button>
        </Fold>
        <button
          type="button"
          className="button main"
          onClick={() => {
            handOut(exercise)
              .then((made) => {
                // What was typed meanwhile stays.
                setHistory((now) => (now === history ? { ...history, now: made } : now));
                setOut(made);
              })
              .catch(fail);
          }}
        >
          Hand out
        </button>
        <span data-way={0}>
          <ThemeButton />
        </span>
      </Bar>
      <NotKept />
      <main className="flex flex-col gap-4">
        <SetEditor
          exercise={exercise}
          onChange={change}
          onRemoved={(title) =>
            setSaid({
              text: `“${title}” is removed.`,
              tone: 'calm',
              offer: { label: 'Undo', run: () => latestUndo.current() },
            })
          }
        />
      </main>
      {isPaper && <OnPaper exercise={exercise} onClose={() => setPaper(false)} />}
      {out && <Ready exercise={out} problem="" onBack={() => setOut(null)} onClose={() => setOut(null)} />}
      {said && <Notice {...said} dismiss={dismiss} />}
    </div>
  );
}

/** The exercise as a student would see it. Nothing done to it here is kept. */
function Preview({ exercise, onBack }: { readonly exercise: Exercise; readonly onBack: () => void }) {
  const session = useMemo(() => new Session(begunWork(exercise, 'preview'), { rules: rulesOn }), [exercise]);
  return (
    <LessonView
      session={session}
      beside={<TaskPane exercise={exercise} onHandIn={onBack} />}
      banner={
        <div className="flex items-center gap-3 rounded-xl border border-hairline bg-raised px-3 py-1.5">
          <button type="button" className="button small" onClick={onBack}>
            Back to the tasks
          </button>
          <span className="text-sm text-quiet">As a student sees it; nothing that you do here is kept.</span>
        </div>
      }
    />
  );
}
