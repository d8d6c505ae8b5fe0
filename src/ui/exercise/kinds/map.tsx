'use client';

import { useMemo, useState } from 'react';
import { functionOf } from '@/core/exercise/kinds/function';
import { groupsOf, type MapAnswer, type MapCheck, type MapTask } from '@/core/exercise/kinds/map';
import { sumOf } from '@/core/logic/expression/forms';
import { cubeOfRows, layoutOf, wrongWithGroup } from '@/core/logic/map/map';
import { rowsOf } from '@/core/logic/minimise/cube';
import { sentence } from '@/core/values/result';
import { hint } from '@/ui/controls/hint';
import { Typeset } from '@/ui/formula-text/Typeset';
import { Board } from '@/ui/map-board/Board';
import { Swatch } from '@/ui/map-board/Swatch';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

function Work({ task: any, answer: given, onAnswer }: WorkProps) {
  const task = any as MapTask;
  const answer = given as MapAnswer | null;
  const { function: of } = task.asked;
  const fn = useMemo(() => functionOf(of), [of]);
  const layout = useMemo(() => layoutOf(of.inputs.map((_, i) => i)), [of]);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState('');
  const groups = groupsOf(task, answer);
  const take = (rows: readonly (readonly number[])[]) =>
    onAnswer?.({ kind: 'map', groups: rows.map((group) => [...group]) } as MapAnswer);
  const rowsNow = groups.map((cube) => [...rowsOf(cube, fn.inputs)]);
  const loop = () => {
    // Which cells make a block is told at once; whether the group is right is told by the check.
    const shape = wrongWithGroup(picked, { inputs: fn.inputs, rows: fn.rows.map(() => 1) });
    setProblem(shape ? sentence(shape) : '');
    if (shape || !cubeOfRows(picked, fn.inputs)) return;
    take([...rowsNow, [...picked]]);
    setPicked(new Set());
  };
  return (
    <>
      <Board
        name={of.output}
        names={of.inputs}
        layout={layout}
        letterAt={(row) => of.rows[row]!}
        loops={groups}
        picked={onAnswer ? picked : null}
        onPick={setPicked}
      />
      {onAnswer && (
        <>
          <p className="text-sm text-quiet">
            Click or drag over cells that belong together, at opposite edges too, then loop them.
          </p>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button small" disabled={picked.size === 0} onClick={loop}>
              {picked.size === 0
                ? 'Loop the cells'
                : picked.size === 1
                  ? 'Loop this cell'
                  : `Loop these ${picked.size} cells`}
            </button>
            {picked.size > 0 && (
              <button type="button" className="button small" onClick={() => setPicked(new Set())}>
                Let go
              </button>
            )}
          </div>
        </>
      )}
      {problem && (
        <p role="alert" className="text-sm text-bad">
          {problem}
        </p>
      )}
      <ol className="flex flex-col gap-1 text-sm" aria-label="Groups">
        {groups.map((cube, i) => (
          <li key={`${cube.mask} ${cube.value} ${i}`} className="flex items-center gap-2">
            <Swatch index={i} />
            <span>group {i + 1}</span>
            {onAnswer && (
              <button
                type="button"
                className="icon-button size-6"
                aria-label={`Remove group ${i + 1}`}
                {...hint('Remove')}
                onClick={() => take(rowsNow.filter((_, k) => k !== i))}
              >
                ×
              </button>
            )}
          </li>
        ))}
      </ol>
    </>
  );
}

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  const { inputs } = (any as MapTask).asked.function;
  const { groups, said, bare, smallest } = mark.detail as MapCheck;
  if ((tells !== 'wanted' && tells !== 'places') || groups.length === 0) return null;
  return (
    <div className="mt-2 flex flex-col gap-1 text-sm">
      <ol className="flex flex-col gap-1">
        {said.map((text, i) => (
          <li key={i} className="flex items-center gap-2">
            <Swatch index={i} />
            {text === null ? (
              <span className="text-good">
                ✓ <Typeset expression={sumOf([groups[i]!], inputs)} notation="bar" />
              </span>
            ) : (
              <span className="text-bad">{text}</span>
            )}
          </li>
        ))}
      </ol>
      {bare.length > 0 && (
        <p className="text-bad">
          No group covers {bare.length === 1 ? 'row' : 'rows'} {bare.join(', ')}.
        </p>
      )}
      {tells === 'wanted' && !mark.solved && (
        <p>
          One way: <Typeset expression={sumOf(smallest, inputs)} notation="bar" />
        </p>
      )}
    </div>
  );
}

export const map: TaskView = { kind: 'map', Work, Feedback };
