'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import { isAllowed } from '@/core/exercise/allowed';
import { type Check, check } from '@/core/exercise/check';
import { isAsExpected, readingText } from '@/core/exercise/expected-rows';
import { exerciseKindOf } from '@/core/exercise/kinds';
import type { ExpectedSignal } from '@/core/exercise/kinds/exercise-kind';
import { findKind } from '@/core/parts/catalogue';
import { goToExpected, placeExpected } from '@/session/changes/exercise';
import { Bar } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { TaskText } from './TaskText';

/** The task beside the student's drawing: the words, the parts that may be used, and the check row by row. */
export function TaskPane({ exercise, onHandIn }: { exercise: Exercise; onHandIn: () => void }) {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const [checked, setChecked] = useState<{ of: Lesson; sheet: string; result: Check } | null>(null);
  const { inputs, outputs } = exerciseKindOf(exercise.expected).signals(exercise.expected);
  const run = () =>
    setChecked({ of: lesson, sheet: sheet.id, result: check(sheet, exercise, lesson.sheets) });
  const mayClock = isAllowed(exercise, 'clock') && !exercise.allowed.includes('clock');
  const allowed = exercise.allowed.filter((kind) => !findKind(kind)?.alwaysAllowed);
  return (
    <section className="pane" aria-label="Task">
      <Bar className="pane-head">
        <h2 className="scrolls truncate font-semibold">{exercise.title}</h2>
      </Bar>
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4">
        <TaskText text={exercise.task} />
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-sm">
          <dt className="text-quiet">Inputs</dt>
          <dd className="font-semibold">{named(inputs)}</dd>
          <dt className="text-quiet">Outputs</dt>
          <dd className="font-semibold">{named(outputs)}</dd>
          <dt className="text-quiet">Parts</dt>
          <dd>
            {[
              'Switch',
              'Lamp',
              ...(mayClock ? ['Clock'] : []),
              ...allowed.map((kind) => findKind(kind)!.name),
            ].join(', ')}
          </dd>
        </dl>
        {sheet.parts.size === 0 && (
          <button
            type="button"
            className="button self-start"
            onClick={() => placeExpected(session, exercise)}
          >
            Place the inputs and outputs
          </button>
        )}
        <div className="flex gap-2">
          <button type="button" className="button main" onClick={run}>
            Check
          </button>
          <button type="button" className="button" onClick={onHandIn}>
            Hand in …
          </button>
        </div>
        {checked && (
          <Result
            check={checked.result}
            exercise={exercise}
            stale={checked.sheet !== sheet.id || isOther(checked.of, lesson)}
          />
        )}
      </div>
    </section>
  );
}

/** Whether the circuit differs; its stimuli and the arrangement of faces do not count. */
const isOther = (a: Lesson, b: Lesson) =>
  a.sheets.length !== b.sheets.length ||
  a.sheets.some((s, i) => s.parts !== b.sheets[i]!.parts || s.wires !== b.sheets[i]!.wires);

/** Names with commas, with the width of each bus. */
const named = (signals: readonly ExpectedSignal[]) =>
  signals.map(({ name, width }) => (width > 1 ? `${name} (${width} bits)` : name)).join(', ');

const MOST_SHOWN = 256;

/** `wrong`, with the outputs that are, where there are several. */
const wrongIn = ({ given, wrongOutputs }: Check, row: number) =>
  given.length > 1 && wrongOutputs[row]!.length > 0 ? `wrong: ${wrongOutputs[row]!.join(', ')}` : 'wrong';

function Result({ check: result, exercise, stale }: { check: Check; exercise: Exercise; stale: boolean }) {
  const session = useSession();
  const { expected } = exercise;
  const { inputs, outputs, word, when, input, output } = exerciseKindOf(expected).rows(expected);
  return (
    <div className={stale ? 'opacity-60' : ''} aria-live="polite">
      <p className={`font-semibold ${result.solved ? 'text-good' : ''}`}>
        {result.solved ? `All ${word}s right.` : `${result.right} of ${result.rows} ${word}s right`}
        {stale && <span className="font-normal text-quiet"> · before your last change</span>}
      </p>
      {result.complaints.length > 0 && (
        <ul className="mt-1 flex list-disc flex-col gap-1 pl-5 text-sm text-bad">
          {result.complaints.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      <table className="mt-2 w-full text-center font-mono text-sm">
        <thead>
          <tr className="border-b border-ink font-sans text-xs">
            {when && (
              <th
                scope="col"
                className="px-1 py-1 font-normal text-quiet"
                {...hint('When the outputs are read')}
              >
                just before
              </th>
            )}
            {inputs.map((name) => (
              <th key={name} scope="col" className="px-1 py-1">
                {name}
              </th>
            ))}
            {outputs.map((name) => (
              <th key={name} scope="col" className="border-l border-hairline px-1 py-1">
                {name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">right or wrong</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {result.rowIsRight.slice(0, MOST_SHOWN).map((isRight, row) => (
            <tr key={row} className={isRight ? '' : 'bg-one-soft'}>
              {when && <td className="font-sans text-quiet tabular-nums">{when(row)}</td>}
              {inputs.map((name, i) => (
                <td key={name}>{input(i, row)}</td>
              ))}
              {outputs.map((name, o) => {
                const given = result.given[o]![row]!;
                const right = output(o, row);
                const off = !isAsExpected(right, given);
                return (
                  <td key={name} className={`border-l border-hairline ${off ? 'font-bold text-bad' : ''}`}>
                    {off ? (
                      <>
                        <span className="sr-only">is </span>
                        <s className="decoration-2">{readingText(given)}</s>
                        <span className="sr-only">, should be</span>
                        <span className="pl-1.5 text-ink">{readingText(right)}</span>
                      </>
                    ) : (
                      readingText(given)
                    )}
                  </td>
                );
              })}
              <td>
                <button
                  type="button"
                  className={`cursor-pointer rounded-md px-1.5 font-sans font-semibold hover:bg-accent-soft ${isRight ? 'text-good' : 'text-bad'}`}
                  onClick={() => goToExpected(session, exercise, row)}
                  {...hint(
                    when
                      ? 'Run the circuit as the task does, up to this reading'
                      : 'Put the switches to this row',
                  )}
                >
                  {isRight ? '✓' : '✗'}{' '}
                  <span className="sr-only">
                    {word} {row}: {isRight ? 'right' : wrongIn(result, row)},{' '}
                  </span>
                  <span className="text-xs font-normal underline">try</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {result.rows > MOST_SHOWN && (
        <p className="mt-1 text-xs text-quiet">
          The first {MOST_SHOWN} {word}s are shown.
        </p>
      )}
    </div>
  );
}
