'use client';

import { useMemo } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { drivenByTask, goToExpected } from '@/session/changes/exercise';
import { Session } from '@/session/session';
import { hint } from '@/ui/controls/hint';
import { LessonView } from '@/ui/lesson/LessonView';
import { type Row, wordOf } from './marked-row';

interface LookProps {
  readonly row: Row;
  readonly exercise: Exercise;
  readonly onBack: () => void;
  readonly onStep?: (by: number) => void;
}

/** One hand-in as a live circuit. Nothing done to it here is kept. */
export function Look({ row, exercise, onBack, onStep }: LookProps) {
  const session = useMemo(
    () => new Session(drivenByTask(row.handIn.lesson, exercise), { readOnly: true }),
    [row, exercise],
  );
  const word = wordOf(exercise);
  const { right, rows, complaints, rowIsRight } = row.check;
  const wrong = rowIsRight.findIndex((ok) => !ok);
  return (
    <LessonView
      session={session}
      home={{ href: '/', label: 'All lessons' }}
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
          <span className={right === rows ? 'text-good' : 'text-bad'}>
            {right} of {rows} {word}s right
          </span>
          {wrong !== -1 && (
            <button
              type="button"
              className="button small"
              onClick={() => goToExpected(session, exercise, wrong)}
            >
              Show the first wrong {word}
            </button>
          )}
          <span className="truncate text-sm text-quiet" {...hint(complaints.join(' '))}>
            {complaints.join(' ')}
          </span>
        </div>
      }
    />
  );
}
