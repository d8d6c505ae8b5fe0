'use client';

import { useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { SpecTable } from '@/core/circuit/spec-table';
import { openCells } from '@/core/logic/specification/spec-edits';
import { specLines } from '@/core/logic/specification/spec-text';
import type { CircuitForm } from '@/core/synthesis/circuit-of-spec';
import { fetcher } from '@/loading/load';
import { goToNamedRow } from '@/session/changes/columns';
import { setSpec } from '@/session/changes/table';
import { rowNow } from '@/session/moment';
import { Bar, Fold } from '@/ui/controls/Bar';
import { hint } from '@/ui/controls/hint';
import { OnDemand } from '@/ui/controls/OnDemand';
import { fileName } from '@/ui/controls/save-file';
import type { CircuitColumns } from '@/ui/derived/circuit-columns';
import { useDrawSpec } from '@/ui/derived/useDrawSpec';
import { isDone, useSpecComparison } from '@/ui/derived/useSpecComparison';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { DrawBar } from './DrawBar';
import { HeadButton } from './HeadButton';
import { Names } from './Names';
import { type At, SpecGrid } from './SpecGrid';
import { Walk } from './Walk';

const takeAway = fetcher('the menu of formats', () => import('./TakeAway').then((m) => m.TakeAwayMenu));
const COPY = 'shrink-0 cursor-pointer rounded-md px-1.5 whitespace-nowrap text-accent hover:bg-accent-soft';

interface Props {
  /** The cell with which to continue. */
  readonly start: At;
  /** Whether the person has just begun it here. */
  readonly isBegun: boolean;
  readonly onClose: () => void;
}

/**
 * The table that is filled in by hand, beside the circuit's columns: to draw the circuit from it, or to
 * predict first and compare with tried rows.
 */
export function SpecFace({ start, isBegun, onClose }: Props) {
  const session = useSession();
  const mayDraw = useSessionState((s) => s.rules.drawing === 'free');
  const title = useSessionState((s) => sheetOf(s.lesson, s.rootId)!.name);
  const tried = useSessionState((s) => s.tried.size);
  const [isHidden, setHidden] = useState(false);
  const planned = useSpecComparison(isHidden);
  const { plan, derived, circuit, wrong } = planned;
  const [naming, setNaming] = useState(plan === undefined);
  const [drawnAs, setDrawnAs] = useState<CircuitForm>({ form: 'sop', mostInputs: 8, isShared: true });
  const { draw, stop } = useDrawSpec();
  const drawAs = (as = drawnAs) => {
    if (!plan || !mayDraw) return;
    setDrawnAs(as);
    draw(as);
  };
  return (
    <section className="pane" aria-label="Truth table">
      <Bar className="pane-head">
        <h2 className="font-semibold">Truth table</h2>
        {plan && <Count plan={plan} circuit={circuit} wrong={wrong} tried={isHidden ? tried : null} />}
        <span className="ml-auto" />
        <Fold way={3} label="What can be done with the table">
          {circuit && (
            <HeadButton
              isOn={isHidden}
              onClick={() => setHidden(!isHidden)}
              title="Hide what the circuit does until a row has been tried on it: predict first, then observe"
            >
              Predict
            </HeadButton>
          )}
          {circuit && <Walk inputs={plan!.inputs} />}
          {plan && (
            <HeadButton
              isOn={naming}
              onClick={() => setNaming(!naming)}
              title="Change the inputs and outputs"
            >
              Names
            </HeadButton>
          )}
          <Fold way={1} label="More for the table">
            {plan && (
              <OnDemand
                className={COPY}
                popup="dialog"
                load={takeAway}
                props={{
                  className: COPY,
                  count: 2 ** plan.inputs.length,
                  lines: (format) => specLines(plan, format),
                  fileName: fileName(title, '.csv'),
                }}
              >
                Copy
              </OnDemand>
            )}
            <HeadButton
              onClick={() => {
                if (plan) {
                  if (!setSpec(session, undefined, 'remove the table').ok) return;
                  session.sayUndoable('The filled-in table is removed.');
                }
                onClose();
              }}
              title="Remove the filled-in table"
            >
              {plan ? 'Remove' : 'Cancel'}
            </HeadButton>
          </Fold>
        </Fold>
      </Bar>
      {(naming || !plan) && <Names plan={plan} onDone={() => setNaming(false)} />}
      {plan && (
        <SpecGrid
          plan={plan}
          start={start}
          isBegun={isBegun}
          circuit={circuit}
          isHidden={isHidden}
          onDraw={drawAs}
          onNames={() => setNaming(true)}
        />
      )}
      {plan && !circuit && derived && (
        <p className="border-t border-hairline px-3 py-1.5 text-sm text-quiet">
          The circuit’s inputs are {derived.inputs.join(', ')}: it cannot be compared row by row.
        </p>
      )}
      {plan && mayDraw && (
        <DrawBar
          plan={plan}
          isSame={isDone(planned)}
          drawnAs={drawnAs}
          onChange={setDrawnAs}
          onDraw={drawAs}
          onStop={stop}
        />
      )}
    </section>
  );
}

interface CountProps {
  readonly plan: SpecTable;
  readonly circuit: CircuitColumns | null;
  readonly wrong: readonly number[];
  readonly tried: number | null;
}

/**
 * The progress of the table: open cells, and the number of rows that differ from the circuit. A press leads
 * to the next of them.
 */
function Count({ plan, circuit, wrong, tried }: CountProps) {
  const session = useSession();
  const live = useSessionState((s) => rowNow(s.netlist, s.values));
  const open = openCells(plan);
  if (wrong.length > 0)
    return (
      <button
        type="button"
        className="cursor-pointer truncate rounded-md px-1 font-semibold text-bad hover:bg-accent-soft"
        onClick={() => goToNamedRow(session, plan.inputs, wrong.find((row) => row > live) ?? wrong[0]!)}
        {...hint('Go to the next row that differs')}
      >
        {wrong.length} {wrong.length === 1 ? 'row differs' : 'rows differ'}
      </button>
    );
  const words = [
    tried !== null && `${tried} of ${2 ** plan.inputs.length} tried`,
    open > 0 && `${open} open`,
    circuit?.isWhole && open === 0 && tried === null && 'all agree',
  ].filter(Boolean);
  return (
    <span className="text-quiet" data-way={2}>
      {words.join(' · ')}
    </span>
  );
}
