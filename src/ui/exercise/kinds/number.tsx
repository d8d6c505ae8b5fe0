'use client';

import type { NumberAnswer, NumberTask } from '@/core/exercise/kinds/number';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

const EXAMPLES = { number: '13', time: '12.5 ns', frequency: '80 MHz' } as const;

function Work({ task: any, answer, onAnswer }: WorkProps) {
  const { quantity, bits } = (any as NumberTask).asked;
  const example = bits === null ? EXAMPLES[quantity] : '1'.padStart(bits, '0');
  return (
    <label className="flex flex-col gap-1">
      <span className="text-sm font-semibold">
        Your answer{' '}
        <span className="font-normal text-quiet">
          {bits !== null
            ? `${bits} bits, the highest first`
            : quantity === 'number'
              ? 'a number'
              : `a ${quantity} with its unit`}
        </span>
      </span>
      <input
        className="field max-w-52 font-mono"
        value={(answer as NumberAnswer | null)?.text ?? ''}
        placeholder={`such as ${example}`}
        maxLength={60}
        readOnly={!onAnswer}
        onChange={(event) => onAnswer?.({ kind: 'number', text: event.target.value } as NumberAnswer)}
      />
    </label>
  );
}

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  // What cannot be read is no attempt yet.
  if (tells !== 'wanted' || mark.solved || mark.complaints.length > 0) return null;
  return (
    <p className="mt-1 text-sm">
      It is <b className="font-mono">{(any as NumberTask).key.value}</b>.
    </p>
  );
}

export const number: TaskView = { kind: 'number', Work, Feedback };
