'use client';

import type { Task } from '@/core/circuit/exercise';
import { MOST_LETTERS, type WordsAnswer, type WordsKey } from '@/core/exercise/kinds/words';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

function Work({ answer, onAnswer }: WorkProps) {
  const text = (answer as WordsAnswer | null)?.text ?? '';
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-semibold">Your answer</span>
      <textarea
        className="field min-h-28 resize-y py-1.5"
        value={text}
        maxLength={MOST_LETTERS}
        readOnly={!onAnswer}
        onChange={(event) => onAnswer?.({ kind: 'words', text: event.target.value } as WordsAnswer)}
      />
    </label>
  );
}

/** The model answer beside the student's: for the marker alone, as a check of a sentence tells nothing. */
function Feedback({ task, tells }: FeedbackProps) {
  const { model } = (task as Task<unknown, WordsKey>).key;
  if (tells !== 'wanted' || !model) return null;
  return (
    <div className="text-sm">
      <p className="font-semibold">A good answer</p>
      <p className="break-words whitespace-pre-wrap">{model}</p>
    </div>
  );
}

export const words: TaskView = { kind: 'words', Work, Feedback };
