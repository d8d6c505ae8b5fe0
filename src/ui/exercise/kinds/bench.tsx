'use client';

import type { BenchTask } from '@/core/exercise/kinds/bench';
import { signalsOf } from '@/core/exercise/kinds/circuit-answer';
import { numberText } from '@/core/packages/units';
import { build } from './build';
import { named } from './named-signals';
import type { TaskView, WorkProps } from './task-view';

const GUIDED = {
  lays: 'The guide shows which wire comes next, and lays wires for you.',
  shows: 'The guide shows which wire comes next, and which one is wrong.',
  none: '',
} as const;

/** The inputs and outputs of the task, and the packages that there are. */
function Work({ task: any }: WorkProps) {
  const task = any as BenchTask;
  const { inputs, outputs } = signalsOf(task);
  const { does, guide, stock, most } = task.asked;
  const limits = [
    stock?.map(({ type, count }) => `${count} × ${numberText(type)}`).join(', '),
    most !== null && `at most ${most}`,
  ].filter(Boolean);
  return (
    <>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-sm">
        <dt className="text-quiet">Inputs</dt>
        <dd className="font-semibold">{named(inputs)}</dd>
        <dt className="text-quiet">Outputs</dt>
        <dd className="font-semibold">{named(outputs)}</dd>
        <dt className="text-quiet">Packages</dt>
        <dd className="font-semibold">{limits.join('; ') || 'any'}</dd>
      </dl>
      <p className="text-sm text-quiet">
        {does === 'wire'
          ? 'Wire the drawing on the board.'
          : 'Build it on the board; a drawing helps to plan it.'}{' '}
        {GUIDED[guide]}
      </p>
    </>
  );
}

export const bench: TaskView = { kind: 'bench', Work, Feedback: build.Feedback };
