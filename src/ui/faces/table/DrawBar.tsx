'use client';

import { useEffect, useState } from 'react';
import type { SpecTable } from '@/core/circuit/spec-table';
import { openCells } from '@/core/logic/specification/spec-edits';
import type { CircuitForm, Cost } from '@/core/synthesis/circuit-of-spec';
import { timeText } from '@/core/values/time';
import { hint } from '@/ui/controls/hint';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { circuitWeigher } from '@/workers/draw-client';

const DRAWN_AS = {
  sop: 'AND, then OR',
  pos: 'OR, then AND',
  nand: 'NAND only',
  nor: 'NOR only',
  mixed: 'XOR where it helps',
  xor: 'XOR of products',
  minterms: 'every 1 of its own',
} as const;
type DrawnForm = keyof typeof DRAWN_AS;
const ALL = Object.keys(DRAWN_AS) as DrawnForm[];

interface Props {
  readonly plan: SpecTable;
  readonly isSame: boolean;
  readonly drawnAs: CircuitForm;
  readonly onChange: (as: CircuitForm) => void;
  readonly onDraw: (as?: CircuitForm) => void;
  /** Stops the drawing that is under way; null if there is none. */
  readonly onStop: (() => void) | null;
}

const FIELD = 'h-8 rounded-lg border border-hairline bg-raised px-1.5';

/** Draws the circuit of the table, with the size of each form of it. */
export function DrawBar({ plan, isSame, drawnAs, onChange, onDraw, onStop }: Props) {
  const isDrawn = useSessionState((s) => s.netlist.outputs.length > 0);
  const [isWeighed, setWeighed] = useState(false);
  const nothing = openCells(plan) === plan.outputs.length * 2 ** plan.inputs.length;
  return (
    <form
      className="border-t border-hairline text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        onDraw();
      }}
    >
      {isWeighed && !nothing && <Weighed plan={plan} as={drawnAs} onDraw={onDraw} />}
      <div className="flex flex-wrap items-center gap-2 px-3 py-2">
        <select
          className={`${FIELD} min-w-40 flex-1`}
          aria-label="Form of the circuit"
          value={drawnAs.form}
          onChange={(event) => onChange({ ...drawnAs, form: event.target.value as DrawnForm })}
        >
          {ALL.map((one) => (
            <option key={one} value={one}>
              {DRAWN_AS[one]}
            </option>
          ))}
        </select>
        <select
          className={FIELD}
          aria-label="Most inputs of a gate"
          {...hint('Most inputs of a gate')}
          value={drawnAs.mostInputs}
          onChange={(event) => onChange({ ...drawnAs, mostInputs: Number(event.target.value) })}
        >
          {[2, 3, 4, 8].map((n) => (
            <option key={n} value={n}>
              {n === 8 ? 'any inputs' : `${n} inputs`}
            </option>
          ))}
        </select>
        {plan.outputs.length > 1 && (
          <label
            className="flex items-center gap-1.5"
            {...hint('What several outputs can share is built once')}
          >
            <input
              type="checkbox"
              checked={drawnAs.isShared}
              onChange={(event) => onChange({ ...drawnAs, isShared: event.target.checked })}
            />
            share
          </label>
        )}
        <button
          type="button"
          className="cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft"
          aria-expanded={isWeighed}
          disabled={nothing}
          {...hint('What each form would take: gates, inputs, levels and delay')}
          onClick={() => setWeighed(!isWeighed)}
        >
          Compare
        </button>
        {onStop ? (
          <button type="button" className="button small ml-auto" onClick={onStop}>
            Drawing … stop
          </button>
        ) : (
          <button type="submit" className={`button small ml-auto ${isSame ? '' : 'main'}`} disabled={nothing}>
            {isDrawn ? 'Draw again' : 'Draw it'}
          </button>
        )}
      </div>
    </form>
  );
}

type Costs = Partial<Record<DrawnForm, Cost>>;

/** The size of the circuit in each form; the smallest of each kind is bold. A press on a form draws it. */
function Weighed({
  plan,
  as,
  onDraw,
}: {
  plan: SpecTable;
  as: CircuitForm;
  onDraw: (as: CircuitForm) => void;
}) {
  const { mostInputs, isShared } = as;
  const session = useSession();
  const [costs, setCosts] = useState<Costs>({});
  useEffect(() => {
    setCosts({});
    let isLeft = false;
    const ways = ALL.map((form) => ({ form, mostInputs, isShared }));
    const job = circuitWeigher(plan, ways, ({ form }, cost) => {
      if (!isLeft) setCosts((before) => ({ ...before, [form]: cost }));
    });
    job.result.catch((error) => session.say(`The forms could not be compared: ${error.message}.`, 'bad'));
    return () => {
      isLeft = true;
      job.cancel();
    };
  }, [session, plan, mostInputs, isShared]);
  const isWhole = ALL.every((form) => costs[form]);
  const least = (of: keyof Cost) => Math.min(...ALL.map((form) => costs[form]?.[of] ?? Infinity));
  const cell = (form: DrawnForm, of: keyof Cost, text = (n: number) => String(n)) => {
    const cost = costs[form];
    const isLeast = isWhole && cost?.[of] === least(of);
    return (
      <td className={`px-1.5 text-right font-mono whitespace-nowrap ${isLeast ? 'font-bold' : 'text-quiet'}`}>
        {cost ? text(cost[of]) : '…'}
      </td>
    );
  };
  return (
    <table className="w-full border-b border-hairline text-sm" aria-busy={!isWhole}>
      <caption className="sr-only">What each form of the circuit takes</caption>
      <thead>
        <tr className="text-right text-xs text-quiet">
          <th className="py-1 pl-3 text-left font-normal">built as</th>
          {['gates', 'inputs', 'levels', 'delay'].map((word) => (
            <th key={word} className="px-1.5 font-normal">
              {word}
            </th>
          ))}
          <th className="pr-3">
            <span className="sr-only">draw</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {ALL.map((form) => (
          <tr key={form} className={form === as.form ? 'bg-accent-soft' : ''}>
            <th scope="row" className="py-0.5 pl-3 text-left font-normal">
              {DRAWN_AS[form]}
            </th>
            {cell(form, 'gates')}
            {cell(form, 'inputs')}
            {cell(form, 'levels')}
            {cell(form, 'delayPs', timeText)}
            <td className="pr-3 text-right">
              <button
                type="button"
                className="cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft"
                aria-label={`Draw as ${DRAWN_AS[form]}`}
                onClick={() => onDraw({ ...as, form })}
              >
                Draw
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
