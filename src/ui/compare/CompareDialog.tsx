'use client';

import { useEffect, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Proof, ProofOrProblem, Row, Shown } from '@/core/logic/prove';
import { showDifference } from '@/session/show-proof';
import { Marked } from '@/ui/controls/Marked';
import { Modal } from '@/ui/controls/Modal';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { prover } from '@/workers/prove-client';

type Work =
  | { readonly state: 'idle' }
  | { readonly state: 'working'; readonly share: number }
  | { readonly state: 'done'; readonly made: ProofOrProblem };

/** Compares the open sheet with another one: proved the same, or the case that shows that they are not. */
export function CompareDialog({ onClose }: { onClose: () => void }) {
  const session = useSession();
  const lesson = useSessionState((s) => s.lesson);
  const rootId = useSessionState((s) => s.rootId);
  const others = lesson.sheets.filter((s) => s.id !== rootId);
  const [other, setOther] = useState(others[0]?.id ?? '');
  const [work, setWork] = useState<Work>({ state: 'idle' });
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);
  const [mine, theirs] = [sheetOf(lesson, rootId)!, sheetOf(lesson, other)];
  const begin = () => {
    if (!theirs) return;
    setWork({ state: 'working', share: 0 });
    const made = prover(mine, theirs, lesson.sheets, (share) => setWork({ state: 'working', share }));
    cancel.current = made.cancel;
    made.proof.then(
      (value) => setWork({ state: 'done', made: value }),
      (error: Error) => setWork({ state: 'done', made: { ok: false, problem: error.message } }),
    );
  };
  const stop = () => {
    cancel.current?.();
    setWork({ state: 'idle' });
  };
  return (
    <Modal
      title="The same, or not"
      says="All cases are looked at: what is said to be the same is proved."
      onClose={onClose}
      foot={
        <>
          <button type="button" className="button" onClick={onClose}>
            Close
          </button>
          {work.state === 'working' ? (
            <button type="button" className="button" onClick={stop}>
              Stop
            </button>
          ) : (
            <button type="button" className="button main" disabled={!theirs} onClick={begin}>
              Compare
            </button>
          )}
        </>
      }
    >
      {others.length === 0 ? (
        <p>This lesson has one sheet only. Add a second one, with inputs and outputs called the same.</p>
      ) : (
        <label className="flex flex-wrap items-center gap-2">
          <span>
            <b>{mine.name}</b> with
          </span>
          <select
            className="field max-w-72"
            value={other}
            onChange={(event) => {
              setOther(event.target.value);
              stop();
            }}
          >
            {others.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {work.state === 'working' && (
        <progress className="w-full" value={work.share} max={1} aria-label="Part of the work that is done" />
      )}
      {work.state === 'done' && !work.made.ok && (
        <p role="alert" className="text-bad">
          They cannot be compared: {work.made.problem}.
        </p>
      )}
      {work.state === 'done' && work.made.ok && (
        <Said
          proof={work.made.value}
          names={[mine.name, theirs?.name ?? '']}
          onShow={(rows, at) => {
            showDifference(session, at === 0 ? rootId : other, rows);
            onClose();
          }}
        />
      )}
    </Modal>
  );
}

interface SaidProps {
  readonly proof: Proof;
  readonly names: readonly [string, string];
  readonly onShow: (rows: readonly Row[], at: 0 | 1) => void;
}

function Said({ proof, names, onShow }: SaidProps) {
  if (proof.verdict === 'equivalent')
    return (
      <p role="status" className="text-lg">
        <b className="text-good">The same.</b>{' '}
        <span className="text-base text-quiet">Proved by {proof.method}.</span>
      </p>
    );
  if (proof.verdict === 'undecided')
    return (
      <p role="status">
        <b>Not decided.</b> In the room that there is this cannot be proved: {proof.reason}.
      </p>
    );
  const { inputs, outputs } = proof;
  return (
    <div role="status" className="flex flex-col gap-3">
      <p className="text-lg">
        <b className="text-bad">Different</b>{' '}
        {inputs.length === 1 ? 'in this row:' : `after ${inputs.length - 1} clocks from power-up:`}
      </p>
      <div className="overflow-auto rounded-lg border border-hairline">
        <table className="w-full text-center font-mono">
          <thead className="font-sans text-sm">
            <tr>
              {inputs.length > 1 && <th className="px-2 py-1">clock</th>}
              {Object.keys(inputs[0]!).map((name) => (
                <th key={name} className="px-2 py-1">
                  <Marked text={name} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {inputs.map((row, i) => (
              <tr key={i} className="border-t border-hairline">
                {inputs.length > 1 && <td className="text-quiet">{i + 1}</td>}
                {Object.values(row).map((value, k) => (
                  <td key={k}>{value}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Outputs outputs={outputs} names={names} />
      <div className="flex flex-wrap gap-2">
        {names.map((name, at) => (
          <button
            key={name}
            type="button"
            className="button small"
            onClick={() => onShow(inputs, at as 0 | 1)}
          >
            Show it on {name}
          </button>
        ))}
      </div>
    </div>
  );
}

function Outputs({
  outputs,
  names,
}: {
  outputs: { readonly a: Shown; readonly b: Shown };
  names: readonly [string, string];
}) {
  return (
    <table className="w-max font-mono">
      <tbody>
        {Object.keys(outputs.a).map((name) => {
          const [a, b] = [outputs.a[name], outputs.b[name]];
          return (
            <tr key={name} className={a === b ? 'text-quiet' : 'font-bold'}>
              <th scope="row" className="pr-4 text-left font-sans">
                <Marked text={name} />
              </th>
              <td className="pr-4">
                <span className="font-sans text-sm text-quiet">{names[0]}</span> {a}
              </td>
              <td className={a === b ? '' : 'text-bad'}>
                <span className="font-sans text-sm text-quiet">{names[1]}</span> {b}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
