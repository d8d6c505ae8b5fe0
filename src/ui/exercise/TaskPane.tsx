'use client';

import { useState } from 'react';
import type { Exercise } from '@/core/circuit/exercise';
import { sheetOf } from '@/core/circuit/lesson';
import { type Check, check } from '@/core/exercise/check';
import { inputAt } from '@/core/logic/truth-table';
import { ALWAYS_ALLOWED, defaultParams, findKind } from '@/core/parts/catalogue';
import { place } from '@/session/commands';
import { goToWantedRow } from '@/session/face-commands';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { TaskText } from './TaskText';

/** The task beside the student's drawing: the words, the parts that may be used, and the check row by row. */
export function TaskPane({ exercise, onHandIn }: { exercise: Exercise; onHandIn: () => void }) {
  const session = useSession();
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  const [checked, setChecked] = useState<{ of: typeof sheet; result: Check } | null>(null);
  const { inputs, outputs } = exercise.wanted;
  const run = () => setChecked({ of: sheet, result: check(sheet, exercise) });
  const allowed = exercise.allowed.filter((kind) => !ALWAYS_ALLOWED.includes(kind));
  const placeAll = () => {
    place(session, findKind('switch')!, defaultParams(findKind('switch')!), inputs, { x: 0, y: 0 });
    place(
      session,
      findKind('lamp')!,
      defaultParams(findKind('lamp')!),
      outputs.map((o) => o.name),
      { x: 30, y: 0 },
    );
  };
  return (
    <section className="pane" aria-label="Task">
      <header className="pane-head">
        <h2 className="truncate font-semibold">{exercise.title}</h2>
      </header>
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto p-4">
        <TaskText text={exercise.task} />
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-sm">
          <dt className="text-quiet">Inputs</dt>
          <dd className="font-semibold">{inputs.join(', ')}</dd>
          <dt className="text-quiet">Outputs</dt>
          <dd className="font-semibold">{outputs.map((o) => o.name).join(', ')}</dd>
          <dt className="text-quiet">Parts</dt>
          <dd>{['Switch', 'Lamp', ...allowed.map((kind) => findKind(kind)!.name)].join(', ')}</dd>
        </dl>
        {sheet.parts.size === 0 && (
          <button type="button" className="button self-start" onClick={placeAll}>
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
        {checked && <Result check={checked.result} exercise={exercise} stale={checked.of !== sheet} />}
      </div>
    </section>
  );
}

function Result({ check: result, exercise, stale }: { check: Check; exercise: Exercise; stale: boolean }) {
  const session = useSession();
  const { inputs, outputs } = exercise.wanted;
  return (
    <div className={stale ? 'opacity-60' : ''} aria-live="polite">
      <p className={`font-semibold ${result.solved ? 'text-good' : ''}`}>
        {result.solved ? 'All rows right.' : `${result.right} of ${result.rows} rows right`}
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
            {inputs.map((name) => (
              <th key={name} scope="col" className="px-1 py-1">
                {name}
              </th>
            ))}
            {outputs.map((o) => (
              <th key={o.name} scope="col" className="border-l border-hairline px-1 py-1">
                {o.name}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">right or wrong</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {result.rowIsRight.slice(0, 256).map((right, row) => (
            <tr key={row} className={right ? '' : 'bg-one-soft'}>
              {inputs.map((name, i) => (
                <td key={name}>{inputAt(inputs.length, i, row)}</td>
              ))}
              {outputs.map((o, i) => {
                const given = result.given[i]![row]!;
                const off = o.rows[row] !== 'x' && o.rows[row] !== given;
                return (
                  <td key={o.name} className={`border-l border-hairline ${off ? 'font-bold text-bad' : ''}`}>
                    {off ? (
                      <>
                        <span className="sr-only">is </span>
                        <s className="decoration-2">{given}</s>
                        <span className="sr-only">, should be</span>
                        <span className="pl-1.5 text-ink">{o.rows[row]}</span>
                      </>
                    ) : (
                      given
                    )}
                  </td>
                );
              })}
              <td>
                <button
                  type="button"
                  className={`cursor-pointer rounded-md px-1.5 font-sans font-semibold hover:bg-accent-soft ${right ? 'text-good' : 'text-bad'}`}
                  onClick={() => goToWantedRow(session, inputs, row)}
                  title="Put the switches to this row"
                >
                  {right ? '✓' : '✗'}{' '}
                  <span className="sr-only">
                    row {row}: {right ? 'right' : 'wrong'},{' '}
                  </span>
                  <span className="text-xs font-normal underline">try</span>
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {result.rows > 256 && <p className="mt-1 text-xs text-quiet">The first 256 rows are shown.</p>}
    </div>
  );
}
