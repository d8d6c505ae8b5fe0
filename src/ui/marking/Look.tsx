'use client';

import { useEffect, useMemo, useRef } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import { type Marked, mistakeIn } from '@/core/exercise/marking';
import { isSealed } from '@/core/exercise/sealed';
import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { drivenByTask } from '@/session/changes/expected';
import { Session } from '@/session/session';
import { hint } from '@/ui/controls/hint';
import type { Steps } from '@/ui/controls/steps-back';
import { UndoRedo } from '@/ui/controls/UndoRedo';
import { MarkedTask } from '@/ui/exercise/MarkedTask';
import { LessonView } from '@/ui/lesson/LessonView';
import { Given } from './Given';
import { answerIn, type Row } from './marked-row';

interface LookProps {
  readonly row: Row;
  /** All hand-ins of the exercise, the latest of each student. */
  readonly rows: readonly Row[];
  readonly exercise: Exercise;
  /** The task that is looked at, from 0; null for the first that is not right. */
  readonly at: number | null;
  readonly onTask: (at: number) => void;
  readonly marks: Steps<ClassMarks>;
  readonly onMarks: (marks: ClassMarks, typing?: string) => void;
  readonly onUndo: () => void;
  readonly onRedo: () => void;
  readonly onBack: () => void;
  /** Goes to another hand-in; with a task, to the next in which that one is wrong. */
  readonly onStep?: ((by: number, onlyWrong?: number) => void) | undefined;
  readonly onLook: (key: number) => void;
}

/** The work at a task as it is looked at: its sheet is open, driven by what is expected of it. */
function sessionFor(row: Row, { task }: Marked): Session {
  const { lesson } = row.handIn;
  const sheetId = lesson.work?.tasks[task.id]?.sheet ?? lesson.sheets[0]!.id;
  const expected = isSealed(task) ? undefined : taskKindOf(task).expected?.(task);
  const shown = expected ? drivenByTask(lesson, expected, sheetId) : lesson;
  return new Session(shown, { readOnly: true, sheetId });
}

/** Keys go to the page where no text is typed and nothing else takes them. */
function useKeys(keys: Readonly<Record<string, () => void>>): void {
  const latest = useRef(keys);
  latest.current = keys;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      const isText =
        (target instanceof HTMLInputElement && target.type !== 'checkbox' && target.type !== 'radio') ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement;
      if (isText || event.altKey) return;
      const name = `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey ? 'Shift+' : ''}${event.key.toLowerCase()}`;
      const act = latest.current[name];
      if (!act) return;
      event.preventDefault();
      event.stopPropagation();
      act();
    };
    // Before the sheet, on which letters begin the name of a part.
    window.addEventListener('keydown', listen, { capture: true });
    return () => window.removeEventListener('keydown', listen, { capture: true });
  }, []);
}

/** One hand-in as a live circuit, with its marks beside it. Nothing done to the circuit here is kept. */
export function Look(props: LookProps) {
  const { row, rows, exercise, marks, onMarks, onUndo, onRedo, onBack, onStep, onTask, onLook } = props;
  const firstOpen = Math.max(
    0,
    row.marks.findIndex(({ mark }) => mark.solved !== true),
  );
  const at = Math.min(props.at ?? firstOpen, row.marks.length - 1);
  const seen = row.marks[at]!;
  const session = useMemo(() => sessionFor(row, seen), [row, seen]);
  const answered = answerIn(row, at);
  const alike = rows.filter((other) => answered.said !== null && other.said[at] === answered.said);
  const nextAlike = () => {
    const next = alike[(alike.findIndex(({ key }) => key === row.key) + 1) % alike.length];
    if (next) onLook(next.key);
  };
  useKeys({
    n: () => onStep?.(1),
    p: () => onStep?.(-1),
    w: () => onStep?.(1, at),
    'Ctrl+z': onUndo,
    'Ctrl+Shift+z': onRedo,
    'Ctrl+y': onRedo,
  });
  return (
    <LessonView
      key={seen.task.id}
      session={session}
      home={{ href: '/', label: 'All lessons' }}
      beside={
        <section className="pane" aria-label="Marks">
          <div className="pane-head">
            <h2 className="scrolls truncate font-semibold">{exercise.title}</h2>
          </div>
          {row.marks.length > 1 && (
            <nav aria-label="Tasks" className="flex flex-wrap gap-1 border-b border-hairline px-3 py-2">
              {row.marks.map(({ task, mark }, i) => (
                <button
                  key={task.id}
                  type="button"
                  className={`h-7 min-w-9 cursor-pointer rounded-lg border px-1.5 text-sm font-semibold ${
                    i === at ? 'border-accent bg-accent-soft' : 'border-hairline hover:bg-accent-soft'
                  } ${mark.solved ? 'text-good' : mark.solved === null ? '' : 'text-bad'}`}
                  aria-current={i === at ? 'step' : undefined}
                  onClick={() => onTask(i)}
                  {...hint(task.title)}
                >
                  {i + 1} {mark.solved ? '✓' : mark.solved === null ? '?' : '✗'}
                </button>
              ))}
            </nav>
          )}
          <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4">
            <MarkedTask marked={seen} lesson={row.handIn.lesson} isTitled={row.marks.length > 1} />
            <Given
              answered={answered}
              marks={marks.now}
              onMarks={onMarks}
              alike={alike.length}
              mistake={mistakeIn(seen)}
              sameCircuit={
                rows.filter((other) => row.drawn[at] !== null && other.drawn[at] === row.drawn[at]).length
              }
              onNextAlike={nextAlike}
            />
          </div>
        </section>
      }
      banner={
        <div className="flex items-center gap-3 rounded-xl border border-hairline bg-raised px-3 py-1.5">
          <button type="button" className="button small" onClick={onBack}>
            Back to marking
          </button>
          {onStep && (
            <>
              <button
                type="button"
                className="icon-button"
                aria-label="Hand-in before"
                {...hint('Hand-in before (p)')}
                onClick={() => onStep(-1)}
              >
                ◂
              </button>
              <button
                type="button"
                className="icon-button"
                aria-label="Next hand-in"
                {...hint('Next hand-in (n)')}
                onClick={() => onStep(1)}
              >
                ▸
              </button>
              <button
                type="button"
                className="button small"
                {...hint('The next hand-in in which this task is wrong (w)')}
                onClick={() => onStep(1, at)}
              >
                Next wrong
              </button>
            </>
          )}
          <bdi className="max-w-80 truncate font-bold">{row.handIn.name}</bdi>
          <span className="ml-auto" />
          <UndoRedo steps={marks} onUndo={onUndo} onRedo={onRedo} what="what was given" />
        </div>
      }
    />
  );
}
