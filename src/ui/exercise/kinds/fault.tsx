'use client';

import { useState } from 'react';
import type { Task } from '@/core/circuit/exercise';
import type { Sheet } from '@/core/circuit/sheet';
import { sheetsGiven } from '@/core/exercise/begin';
import { expectedKindOf } from '@/core/exercise/expected';
import { readingText } from '@/core/exercise/expected-rows';
import { type FaultAnswer, type FaultCheck, type FaultTask, wordOf } from '@/core/exercise/kinds/fault';
import { nameOfPlace } from '@/core/exercise/kinds/fault/inject';
import { counted } from '@/core/values/wording';
import { goToExpected } from '@/session/changes/expected';
import type { Selection } from '@/session/state';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { ExpectedHead } from '../ExpectedHead';
import { NOWHERE, PlaceChoice } from '../PlaceChoice';
import { build } from './build';
import type { FeedbackProps, TaskView, WorkProps } from './task-view';

const NOTHING: FaultAnswer = { kind: 'fault', part: null, wire: null, row: null, tried: 0, probed: 0 };
const MOST_SHOWN = 64;

/** The part, or the wire, that is selected alone; null for anything else. */
function placeSelected({ parts, wires }: Selection, sheet: Sheet): Pick<FaultAnswer, 'part' | 'wire'> | null {
  const [part] = parts;
  const [wire] = wires;
  if (parts.size === 1 && wires.size === 0 && sheet.parts.has(part!)) return { part: part!, wire: null };
  if (wires.size === 1 && parts.size === 0 && sheet.wires.has(wire!)) return { part: null, wire: wire! };
  return null;
}

function Work({ task: any, answer: given, onAnswer }: WorkProps) {
  const task = any as FaultTask;
  const session = useSession();
  const answer = (given as FaultAnswer | null) ?? NOTHING;
  const [sheet] = sheetsGiven(task.given!);
  const selection = useSessionState((s) => s.selection);
  const tried = useSessionState((s) => s.tried.size);
  const probed = useSessionState((s) => s.probed.size);
  const word = wordOf(task);
  const expectation = expectedKindOf(task.key.wanted).rows(task.key.wanted);
  const { inputs, outputs, rows, when, input, output } = expectation;
  const [typed, setTyped] = useState('0');
  const first = Math.min(Math.max(0, Math.trunc(Number(typed)) || 0), rows - 1);
  const take = (change: Partial<FaultAnswer>) =>
    onAnswer?.({ ...answer, ...change, tried, probed } as FaultAnswer);
  const isFound = task.asked.does === 'find';
  const selected = placeSelected(selection, sheet!);
  const isChosen = selected !== null && selected.part === answer.part && selected.wire === answer.wire;
  const hasPlace = answer.part !== null || answer.wire !== null;
  return (
    <>
      <p className="text-sm text-quiet">
        {isFound
          ? `Without the fault the circuit would do this. ${task.asked.needsRow ? `Choose a ${word} that shows it, and the part or the wire.` : 'Choose the part or the wire.'}`
          : 'Change the drawing until the circuit does this.'}
      </p>
      {task.asked.isDark && (
        <p className="text-sm text-quiet">
          A wire tells its signal once you have probed it: press it. So far {counted(probed, 'wire')} probed,{' '}
          {counted(tried, 'row')} tried.
        </p>
      )}
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
                    className="cursor-pointer rounded-md px-0.5 underline hover:bg-accent-soft"
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
                      className="cursor-pointer rounded-md px-0.5 underline hover:bg-accent-soft"
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
            <span className="text-quiet">At fault is: </span>
            <b>{hasPlace ? nameOfPlace(sheet!, answer) : 'not chosen yet'}</b>
          </p>
          {onAnswer && (
            <>
              <PlaceChoice
                label="Selected on the drawing"
                sheet={sheet!}
                parts={[...sheet!.parts.values()]}
                place={selected ?? NOWHERE}
                none="nothing yet: press a part or a wire"
                onPlace={({ part, wire }) =>
                  session.select({
                    parts: new Set(part === null ? [] : [part]),
                    wires: new Set(wire === null ? [] : [wire]),
                  })
                }
              />
              <button
                type="button"
                className="button small"
                disabled={selected === null || isChosen}
                onClick={() => selected && take(selected)}
              >
                {selected ? `It is ${nameOfPlace(sheet!, selected)}` : 'It is what is selected'}
              </button>
            </>
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
      {placeIsRight !== null && line(placeIsRight, 'This is at fault.', 'This is not at fault.')}
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
