'use client';

import type { ReactNode } from 'react';
import type { Task, Tells } from '@/core/circuit/exercise';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import { counted } from '@/core/values/wording';

interface Props {
  readonly task: Task;
  readonly mark: Mark;
  readonly tells: Tells;
  /** Whether the work has changed since. */
  readonly stale?: boolean;
  /** What the kind shows beyond this. */
  readonly children: ReactNode;
}

/** How a task stands, in a line of its own, as far as it is told. */
export function standing({ solved, right, of, word }: Mark, tells: Tells): string {
  if (solved === null) return 'Your teacher marks this answer.';
  if (tells === 'verdict') return solved ? 'Right.' : 'Not right yet.';
  if (of === 1) return solved ? 'Right.' : 'Not right yet.';
  if (solved) return `All ${word}s right.`;
  return `${right} of ${counted(of, word)} right`;
}

/** What a check tells: how much is right, what is complained of, and what the kind shows. */
export function Told({ mark, tells, stale = false, children }: Props) {
  return (
    <div className={stale ? 'opacity-60' : ''} aria-live="polite">
      <p className={`font-semibold ${mark.solved ? 'text-good' : ''}`}>
        {standing(mark, tells)}
        {stale && <span className="font-normal text-quiet"> · before your last change</span>}
      </p>
      {mark.complaints.length > 0 && (
        <ul className="mt-1 flex list-disc flex-col gap-1 pl-5 text-sm text-bad">
          {mark.complaints.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      {mark.remark && <p className="mt-1 text-sm">{mark.remark}</p>}
      {/* Of what is sealed, or known by a digest alone, there is nothing to show. */}
      {mark.detail !== null && children}
    </div>
  );
}
