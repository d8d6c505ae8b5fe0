'use client';

import { useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import { sheetsGiven } from '@/core/exercise/begin';
import { expectedKindOf } from '@/core/exercise/expected';
import { readingText } from '@/core/exercise/expected-rows';
import { type FaultAnswer, type FaultCheck, type FaultTask, wordOf } from '@/core/exercise/kinds/fault';
import { nameOfPart } from '@/core/exercise/kinds/fault/inject';
import { goToExpected } from '@/session/changes/expected';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { ExpectedHead } from '../ExpectedHead';
import { build } from './build';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

const NOTHING: FaultAnswer = { kind: 'fault', part: null, row: null, tried: 0 };
const MOST_SHOWN = 64;

function Work({ task: any, answer: given, onAnswer }: WorkProps) {
  const task = any as FaultTask;
  const session = useSession();
  const answer = (given as FaultAnswer | null) ?? NOTHING;
  const [sheet] = sheetsGiven(task.given!);
  const chosen = useSessionState((s) => (s.selection.parts.size === 1 ? [...s.selection.parts][0]! : null));
  const tried = useSessionState((s) => s.tried.size);
  const word = wordOf(task);
  const expectation = expectedKindOf(task.key.wanted).rows(task.key.wanted);
  const { inputs, outputs, rows, when, input, output } = expectation;
  const [typed, setTyped] = useState('0');
  const first = Math.min(Math.max(0, Math.trunc(Number(typed)) || 0), rows - 1);
  const take = (change: Partial<FaultAnswer>) => onAnswer?.({ ...answer, ...change, tried } as FaultAnswer);
  const isFound = task.asked.does === 'find';
  const selected = chosen !== null && sheet!.parts.has(chosen) ? chosen : null;
  return (
    <>
      <p className="text-sm text-quiet">
        {isFound
          ? `Without the fault the circuit would do this. ${task.asked.needsRow ? `Choose a ${word} that shows it, and the part.` : 'Choose the part.'}`
          : 'Change the drawing until the circuit does this.'}
      </p>
      {rows > MOST_SHOWN && (
        <label className="flex items-center gap-2 text-sm">
          <span>From {word}</span>
          <input
            className="field w-24"
            type="number"
            min={0}
            max={rows - 1}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <span className="text-quiet">of {rows}</span>
        </label>
      )}
      <div className="max-h-80 overflow-auto">
        <table className="w-full text-center font-mono text-sm" aria-label="What is wanted">
          <ExpectedHead of={expectation} last="Actions" />
          <tbody>
            {Array.from({ length: Math.min(rows - first, MOST_SHOWN) }, (_, i) => first + i).map((row) => (
              <tr key={row} className={row === answer.row ? 'bg-one-soft' : ''}>
                {when && <td className="font-sans text-quiet tabular-nums">{when(row)}</td>}
                {inputs.map((name, i) => (
                  <td key={name}>{input(i, row)}</td>
                ))}
                {outputs.map((name, o) => (
                  <td key={name} className="border-l border-hairline">
                    {readingText(output(o, row))}
                  </td>
                ))}
                <td className="font-sans text-xs whitespace-nowrap">
                  <button
                    type="button"
                    className="cursor-pointer rounded-md px-1 underline hover:bg-accent-soft"
                    onClick={() => goToExpected(session, task.key.wanted, row)}
                    {...hint(when ? 'Run the circuit up to this reading' : 'Put the switches to this row')}
                  >
                    try
                    <span className="sr-only">
                      {' '}
                      {word} {row}
                    </span>
                  </button>
                  {isFound && task.asked.needsRow && onAnswer && (
                    <button
                      type="button"
                      className="cursor-pointer rounded-md px-1 underline hover:bg-accent-soft"
                      aria-pressed={row === answer.row}
                      onClick={() => take({ row: row === answer.row ? null : row })}
                    >
                      shows it
                      <span className="sr-only">
                        : {word} {row}
                      </span>
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {isFound && (
        <div className="flex flex-col items-start gap-1.5 text-sm">
          <p>
            <span className="text-quiet">The part at fault: </span>
            <b>{answer.part ? nameOfPart(sheet!, answer.part) : 'not chosen yet'}</b>
          </p>
          {onAnswer && (
            <button
              type="button"
              className="button small"
              disabled={selected === null || selected === answer.part}
              onClick={() => selected && take({ part: selected })}
              {...hint('Select the part on the drawing first')}
            >
              {selected ? `It is ${nameOfPart(sheet!, selected)}` : 'It is the selected part'}
            </button>
          )}
        </div>
      )}
    </>
  );
}

function Feedback({ task: any, mark, tells }: FeedbackProps) {
  const task = any as FaultTask;
  const { placeIsRight, rowTells, truth, repaired } = mark.detail as FaultCheck;
  if (repaired) {
    const asBuilt = { ...task, key: task.key.wanted } as unknown as Task;
    return <build.Feedback task={asBuilt} mark={{ ...mark, detail: repaired }} tells={tells} />;
  }
  if (tells !== 'wanted' && tells !== 'places') return null;
  const line = (ok: boolean, right: string, wrong: string) => (
    <li className={ok ? 'text-good' : 'text-bad'}>
      {ok ? '✓' : '✗'} {ok ? right : wrong}
    </li>
  );
  return (
    <ul className="mt-1 flex flex-col gap-0.5 text-sm">
      {placeIsRight !== null && line(placeIsRight, 'This part is at fault.', 'This part is not at fault.')}
      {rowTells !== null &&
        line(
          rowTells,
          `This ${wordOf(task)} shows it.`,
          `In this ${wordOf(task)} the circuit does what is wanted.`,
        )}
      {tells === 'wanted' && mark.complaints.length === 0 && !mark.solved && (
        <li>
          It is <b>{truth}</b>.
        </li>
      )}
    </ul>
  );
}

export const fault: TaskView = { kind: 'fault', Work, Feedback };
