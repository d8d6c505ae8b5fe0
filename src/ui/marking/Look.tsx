'use client';

import { useMemo, useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { taskKindOf } from '@/core/exercise/kinds';
import type { Marked } from '@/core/exercise/marking';
import { isSealed } from '@/core/exercise/sealed';
import { drivenByTask } from '@/session/changes/expected';
import { Session } from '@/session/session';
import { hint } from '@/ui/controls/hint';
import { MarkedTask } from '@/ui/exercise/MarkedTask';
import { LessonView } from '@/ui/lesson/LessonView';
import type { Row } from './marked-row';

interface LookProps {
  readonly row: Row;
  readonly exercise: Exercise;
  readonly onBack: () => void;
  readonly onStep?: (by: number) => void;
}

/** The work at a task as it is looked at: its sheet is open, driven by what is expected of it. */
function sessionFor(row: Row, { task }: Marked): Session {
  const { lesson } = row.handIn;
  const sheetId = lesson.work?.tasks[task.id]?.sheet ?? lesson.sheets[0]!.id;
  const expected = isSealed(task) ? undefined : taskKindOf(task).expected?.(task);
  const shown = expected ? drivenByTask(lesson, expected, sheetId) : lesson;
  return new Session(shown, { readOnly: true, sheetId });
}

/** One hand-in as a live circuit, with its marks beside it. Nothing done to it here is kept. */
export function Look({ row, exercise, onBack, onStep }: LookProps) {
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      row.marks.findIndex(({ mark }) => mark.solved !== true),
    ),
  );
  const seen = row.marks[at]!;
  const session = useMemo(() => sessionFor(row, seen), [row, seen]);
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
                  onClick={() => setAt(i)}
                  {...hint(task.title)}
                >
                  {i + 1} {mark.solved ? '✓' : mark.solved === null ? '?' : '✗'}
                </button>
              ))}
            </nav>
          )}
          <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4">
            <MarkedTask marked={seen} lesson={row.handIn.lesson} isTitled={row.marks.length > 1} />
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
                onClick={() => onStep(-1)}
              >
                ◂
              </button>
              <button
                type="button"
                className="icon-button"
                aria-label="Next hand-in"
                onClick={() => onStep(1)}
              >
                ▸
              </button>
            </>
          )}
          <bdi className="max-w-80 truncate font-bold">{row.handIn.name}</bdi>
        </div>
      }
    />
  );
}
