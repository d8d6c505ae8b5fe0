'use client';

import { useEffect, useMemo, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { fetcher } from '@/loading/load';
import { Bar, Fold } from '@/ui/controls/Bar';
import { HoldKeys } from '@/ui/controls/HoldKeys';
import { hint } from '@/ui/controls/hint';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { OnDemand } from '@/ui/controls/OnDemand';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { matchingRows, type RowQuery } from './columns';
import { type Look, TableGrid } from './TableGrid';

const lookMenu = fetcher('the menu of columns and rows', () => import('./LookMenu').then((m) => m.LookMenu));
/** The function that changes a cell of the derived table; fetched when the first cell is pressed. */
const cells = fetcher('the table to fill in', () => import('@/session/changes/table'));
/** The table that is filled in is fetched where there is one. */
const plannedFace = fetcher('the table to fill in', () => import('./SpecFace').then((m) => m.SpecFace));
const Walk = lazyComponent('the walk through the rows', () => import('./Walk').then((m) => m.Walk));
const TriedRows = lazyComponent('the rows that were tried', () =>
  import('./TriedRows').then((m) => m.TriedRows),
);
const StateTableGrid = lazyComponent('the state table', () =>
  import('./StateTableGrid').then((m) => m.StateTableGrid),
);
const PlannedFace = lazyComponent('the table to fill in', plannedFace, ({ isBegun }) => (
  <section className="pane" aria-busy="true">
    {isBegun && <HoldKeys />}
  </section>
));

const SMALL = 'cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft';
const FIRST_CELL = { row: 0, output: 0 };
/** Above this many rows the table is too long to walk through. */
const MOST_WALKED = 1024;
const ALL_ROWS: Look = { asNumbers: true, wanted: null };

/** Whether the columns of a filter are still there. */
const fits = (wanted: RowQuery, table: TruthTable) =>
  Math.max(wanted.column, wanted.is === 'differ' ? wanted.other : 0) <
  table.inputs.length + table.outputs.length;

/** The truth table of the sheet: derived at each change, its live row marked; a click on a row sets the switches. */
export function TruthTableFace() {
  const session = useSession();
  const table = useSessionState((s) => s.table);
  const tried = useSessionState((s) => s.tried.size);
  const planned = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan !== undefined);
  const readOnly = useSessionState((s) => s.readOnly);
  const rootId = useSessionState((s) => s.rootId);
  /** The sheet for which a table was begun here. */
  const [begunFor, setBegunFor] = useState<string | null>(null);
  const [start, setStart] = useState(FIRST_CELL);
  const stores = useSessionState((s) => s.netlist.storage.length > 0);
  const isEmpty = useSessionState((s) => s.netlist.outputs.length === 0);
  const isDark = useSessionState((s) => s.rules.isDark);
  const hasBus = useSessionState((s) =>
    [...s.netlist.inputs, ...s.netlist.outputs].some((t) => t.nets.length > 1),
  );
  const [look, setLook] = useState(ALL_ROWS);
  const ready = table.state === 'ready' ? table.table : null;
  const only = useMemo(
    () => (ready && look.wanted && fits(look.wanted, ready) ? matchingRows(ready, look.wanted) : null),
    [ready, look.wanted],
  );
  const begin = () => {
    setStart(FIRST_CELL);
    setBegunFor(rootId);
  };
  // What is begun for a sheet is of that sheet alone.
  useEffect(() => {
    setBegunFor((sheet) => (sheet === rootId ? sheet : null));
    setStart(FIRST_CELL);
  }, [rootId]);
  // Once it is there it is of the document, and undo may take it away.
  useEffect(() => {
    if (planned) setBegunFor(null);
  }, [planned]);
  const isBegun = begunFor === rootId;
  if (isDark)
    return (
      <section className="pane" aria-label="Tried rows">
        <Bar className="pane-head">
          <h2 className="font-semibold">Tried rows</h2>
          {!stores && (
            <span className="head-note" data-way={1}>
              {tried} tried
            </span>
          )}
        </Bar>
        {stores ? (
          <p className="p-5 text-quiet">What this circuit does is told as it runs, and not in a table.</p>
        ) : (
          <TriedRows />
        )}
      </section>
    );
  if (planned || isBegun)
    return (
      <PlannedFace
        key={rootId}
        start={start}
        isBegun={isBegun || start !== FIRST_CELL}
        onClose={() => setBegunFor(null)}
      />
    );
  return (
    <section className="pane" aria-label="Truth table">
      <Bar className="pane-head">
        <h2 className="font-semibold">{stores ? 'State table' : 'Truth table'}</h2>
        {ready && (
          <span className="head-note" data-way={2}>
            {only ? `${only.length} of ${ready.rows} rows` : `${tried} of ${ready.rows} tried`}
          </span>
        )}
        <span className="ml-auto" />
        {!readOnly && !stores && (
          <button
            type="button"
            className={SMALL}
            onClick={begin}
            onPointerEnter={() => void plannedFace()}
            {...hint(
              'Fill in what the outputs should be: to have the circuit drawn, or to predict before you try',
            )}
          >
            Fill in
          </button>
        )}
        {ready && ready.rows <= MOST_WALKED && <Walk inputs={ready.inputs} />}
        {ready && (
          <Fold way={1} label="More for the table">
            <OnDemand
              className={SMALL}
              popup="dialog"
              load={lookMenu}
              props={{ table: ready, only, look, onChange: setLook, hasBus }}
            >
              Columns and rows
            </OnDemand>
          </Fold>
        )}
      </Bar>
      {ready && (
        <TableGrid
          table={ready}
          asNumbers={look.asNumbers && hasBus}
          only={only}
          onChange={
            readOnly || stores
              ? null
              : (output, row) => {
                  setStart({ output, row });
                  void cells().then(({ turnCell }) => turnCell(session, ready.outputs[output]!, row));
                }
          }
        />
      )}
      {stores && <StateTableGrid />}
      {table.state === 'none' && !stores && (
        <div className="flex flex-col items-start gap-3 p-5">
          <p className="text-quiet">{table.reason}</p>
          {isEmpty && !readOnly && (
            <>
              <p className="text-quiet">Or begin with the table, and have the circuit drawn from it.</p>
              <button
                type="button"
                className="button small"
                onClick={begin}
                onPointerEnter={() => void plannedFace()}
                onFocus={() => void plannedFace()}
              >
                Fill in a table
              </button>
            </>
          )}
        </div>
      )}
      {table.state === 'working' && (
        <div className="flex flex-col gap-3 p-5">
          <p>Deriving the table …</p>
          <progress
            className="w-full"
            value={table.share}
            max={1}
            aria-label="Part of the rows that is derived"
          />
          <button type="button" className="button small self-start" onClick={table.cancel}>
            Stop
          </button>
        </div>
      )}
    </section>
  );
}
