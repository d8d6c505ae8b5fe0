'use client';

import { useEffect, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { covers } from '@/core/logic/cube';
import type { TableFormat } from '@/core/logic/table-text';
import { cell, inputAt, type TruthTable } from '@/core/logic/truth-table';
import { sourceKey, type Terminal } from '@/core/netlist/netlist';
import { letterOf } from '@/core/values/logic';
import { reorder } from '@/session/face-commands';
import { rowNow } from '@/session/moment';
import { later } from '@/ui/controls/later';
import { Marked } from '@/ui/controls/Marked';
import { usePointed } from '@/ui/lesson/pointed';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { rowLook, useRows } from './useRows';

/** The table that is filled in is fetched where there is one. */
const plannedFace = () => import('./PlannedFace').then((m) => m.PlannedFace);
const StateTableGrid = later(() => import('./StateTableGrid').then((m) => m.StateTableGrid));
const PlannedFace = later(plannedFace, <section className="pane" aria-busy="true" />);

const ROW = 31;
const MOST_COPIED = 4096;

/** The truth table of the sheet: derived at each change, its live row marked; a click on a row sets the switches. */
export function TruthTableFace() {
  const session = useSession();
  const table = useSessionState((s) => s.table);
  const tried = useSessionState((s) => s.tried.size);
  const planned = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan !== undefined);
  const readOnly = useSessionState((s) => s.readOnly);
  const [isFilling, setFilling] = useState(false);
  const stores = useSessionState((s) => s.netlist.storage.length > 0);
  const isEmpty = useSessionState((s) => s.netlist.looped.length === 0);
  const ready = table.state === 'ready' ? table.table : null;
  if (planned || isFilling) return <PlannedFace onClose={() => setFilling(false)} />;
  const copy = async (format: TableFormat) => {
    if (!ready) return;
    const { tableLines } = await import('@/core/logic/table-text');
    await navigator.clipboard.writeText([...tableLines(ready, format)].join('\n')).then(
      () => session.say('The table is on the clipboard.'),
      () => session.say('This browser does not let pages write to the clipboard.', 'bad'),
    );
  };
  return (
    <section className="pane" aria-label="Truth table">
      <header className="pane-head">
        <h2 className="font-semibold">{stores ? 'State table' : 'Truth table'}</h2>
        {ready && (
          <span className="text-quiet">
            {tried} of {ready.rows} tried
          </span>
        )}
        {!readOnly && !stores && (
          <button
            type="button"
            className="ml-auto cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft"
            onClick={() => setFilling(true)}
            onPointerEnter={() => void plannedFace()}
            title="Fill in what the outputs are to be: to draw the circuit of it, or to predict before you try"
          >
            Fill in
          </button>
        )}
        {ready && ready.rows <= MOST_COPIED && (
          <button
            type="button"
            className={`cursor-pointer rounded-md px-1.5 text-accent hover:bg-accent-soft ${readOnly ? 'ml-auto' : ''}`}
            onClick={() => void copy('csv')}
            title="Copy the table as comma-separated values"
          >
            Copy
          </button>
        )}
      </header>
      {table.state === 'ready' && <Grid table={table.table} />}
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
                onClick={() => setFilling(true)}
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

function Grid({ table }: { table: TruthTable }) {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const live = useSessionState((s) => rowNow(s.netlist, s.values));
  const tried = useSessionState((s) => s.tried);
  const pointed = usePointed((p) => p.pointed);
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useRows(scroller, table.rows, ROW);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another live row asks for scrolling
  useEffect(() => {
    if (live < table.rows) rows.reveal(live);
  }, [live, table.rows]);

  const inputs = table.inputs.length;
  // Wide enough for the number of the last row.
  const numbers = Math.max(3, String(table.rows - 1).length * 0.5 + 1.25);
  const columns = `${numbers}rem 1.6rem repeat(${inputs + table.outputs.length}, minmax(3.2rem, 1fr))`;
  return (
    <div
      ref={scroller}
      role="grid"
      tabIndex={0}
      aria-label="Truth table"
      aria-rowcount={table.rows + 1}
      aria-colcount={inputs + table.outputs.length + 2}
      className="min-h-0 flex-1 overflow-auto outline-offset-[-2px]"
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown') session.stepRow(1);
        else if (event.key === 'ArrowUp') session.stepRow(-1);
        else if (event.key === 'Home') session.goToRow(0);
        else if (event.key === 'End') session.goToRow(table.rows - 1);
        else return;
        event.preventDefault();
      }}
    >
      <div className="min-w-max">
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-10 grid items-end border-b-2 border-ink bg-raised py-1.5 text-sm font-semibold"
          style={{ gridTemplateColumns: columns }}
        >
          <span role="columnheader" className="px-2 text-xs font-normal text-quiet">
            row
          </span>
          <span role="columnheader">
            <span className="sr-only">tried</span>
          </span>
          {netlist.inputColumns.map((t, i) => (
            <Heading key={sourceKey(t)} terminal={t} group={netlist.inputs} index={i} edge={false} />
          ))}
          {netlist.outputColumns.map((t, i) => (
            <Heading key={sourceKey(t)} terminal={t} group={netlist.outputs} index={i} edge={i === 0} />
          ))}
        </div>
        <div className="relative" style={{ height: rows.height }}>
          {rows.shown.map(({ row, top }) => {
            const isLive = row === live;
            const isTried = tried.has(row);
            const isPointed = pointed !== null && covers(pointed.cube, row);
            return (
              <div
                key={row}
                role="row"
                aria-rowindex={row + 2}
                aria-selected={isLive}
                tabIndex={-1}
                data-row={row}
                data-live={isLive || undefined}
                className={`absolute inset-x-0 grid cursor-pointer items-center ${rowLook(row, isLive, isPointed)}`}
                style={{ gridTemplateColumns: columns, height: ROW, top }}
                onClick={() => session.goToRow(row)}
              >
                <span role="rowheader" className="px-2 text-right font-mono text-xs text-quiet">
                  {row}
                </span>
                <span
                  role="gridcell"
                  className="text-center text-accent"
                  aria-label={isTried ? 'tried' : 'not tried'}
                >
                  {isTried ? '●' : '○'}
                </span>
                {table.inputs.map((_, i) => (
                  <Value key={i} letter={String(inputAt(inputs, i, row))} edge={false} />
                ))}
                {table.outputs.map((_, o) => (
                  <Value key={o} letter={letterOf(cell(table, o, row))} edge={o === 0} strong />
                ))}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

function Value({ letter, edge, strong }: { letter: string; edge: boolean; strong?: boolean }) {
  return (
    <span
      role="gridcell"
      className={`flex h-full items-center justify-center font-mono text-[15px] ${edge ? 'border-l border-hairline' : ''} ${
        strong && letter === '1' ? 'font-bold' : ''
      }`}
    >
      {letter}
    </span>
  );
}

const DRAGGED = 'application/x-manege-column';

/** A column's heading; dragged onto another of its kind, or moved by Shift and an arrow key, it changes the order. */
function Heading({
  terminal,
  group,
  index,
  edge,
}: {
  terminal: Terminal;
  group: readonly Terminal[];
  index: number;
  edge: boolean;
}) {
  const session = useSession();
  const moveTo = (part: string, to: number) => {
    const order = group.map((t) => t.part).filter((id) => id !== part);
    if (order.length === group.length) return;
    order.splice(to, 0, part);
    const { inputs, outputs } = session.state.netlist;
    const [first, second] =
      group === inputs ? [order, outputs.map((t) => t.part)] : [inputs.map((t) => t.part), order];
    reorder(session, [...first, ...second]);
  };
  return (
    <span
      role="columnheader"
      tabIndex={0}
      draggable
      title="Drag to reorder"
      className={`flex cursor-grab items-end justify-center self-stretch truncate px-1 ${edge ? 'border-l border-hairline' : ''}`}
      onDragStart={(event) => {
        event.dataTransfer.setData(DRAGGED, terminal.part);
        event.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(DRAGGED)) event.preventDefault();
      }}
      onDrop={(event) => {
        event.preventDefault();
        event.stopPropagation();
        moveTo(event.dataTransfer.getData(DRAGGED), index);
      }}
      onKeyDown={(event) => {
        if (!event.shiftKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
        event.preventDefault();
        event.stopPropagation();
        const to = index + (event.key === 'ArrowLeft' ? -1 : 1);
        if (to >= 0 && to < group.length) moveTo(terminal.part, to);
      }}
    >
      <Marked text={terminal.name} />
    </span>
  );
}
