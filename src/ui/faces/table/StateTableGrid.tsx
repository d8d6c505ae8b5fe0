'use client';

import { useEffect, useReducer, useRef } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { Stepper } from '@/core/logic/table/state-table';
import { cell, inputAt, type TruthTable } from '@/core/logic/table/truth-table';
import { type Netlist, sourceKey } from '@/core/netlist/netlist';
import { letterOf, ONE, ZERO } from '@/core/values/logic';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { MOST_ASKED, stateColumnCount, stateTableOf } from '@/ui/derived/state-table';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { GridFrame } from './GridFrame';
import { rowLook, useRows } from './useRows';

const ROW = 31;
const rowsOf = (columns: number) => (2 ** columns).toLocaleString('en');

/**
 * The state table of a circuit with storage: present state and inputs, the state after the next edge, and the
 * outputs.
 */
export function StateTableGrid() {
  const netlist = useSessionState((s) => s.netlist);
  const [asked, ask] = useReducer((_: Netlist | null, n: Netlist) => n, null);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.rootId)!);
  const made = stateTableOf(netlist, sheet, asked === netlist);
  if (!made) {
    const columns = stateColumnCount(netlist);
    return (
      <div className="flex flex-col items-start gap-3 p-5">
        <p className="text-quiet">
          {columns} bits of state and inputs make {rowsOf(columns)} rows
          {columns > MOST_ASKED
            ? `, and ${rowsOf(MOST_ASKED)} are the most that are derived here. Make a register or a bus narrower, or watch the timing diagram: it shows any number of bits.`
            : '.'}
        </p>
        {columns <= MOST_ASKED && (
          <button type="button" className="button small" onClick={() => ask(netlist)}>
            Derive them
          </button>
        )}
      </div>
    );
  }
  if (!made.ok) return <p className="p-5 text-quiet">There is no state table: {made.problem.message}.</p>;
  return <Rows key={made.value.inputs.join()} netlist={netlist} table={made.value} />;
}

function Rows({ netlist, table }: { netlist: Netlist; table: TruthTable }) {
  const session = useSession();
  const values = useSessionState((s) => s.values);
  const stepper = Stepper.of(netlist);
  const columns = stepper.ok ? stepper.value.columns : [];
  const states = table.inputs.length - columns.length;
  const nets = stepper.ok ? [...stepper.value.nets, ...columns.map((c) => c.nets[0])] : [];
  // A state or an input that is unknown stands in no row.
  const isKnown = nets.every((net) => values[net] === ZERO || values[net] === ONE);
  const live = isKnown ? nets.reduce<number>((row, net) => row * 2 + values[net]!, 0) : -1;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useRows(scroller, table.rows, ROW);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another live row asks for scrolling
  useEffect(() => {
    if (live >= 0) rows.reveal(live);
  }, [live]);
  const put = (row: number) =>
    session.put(
      columns.map((c, i) => [sourceKey(c), inputAt(table.inputs.length, states + i, row)] as const),
    );
  const grid = `repeat(${table.inputs.length + table.outputs.length}, minmax(3rem, 1fr))`;
  const edges = new Set([states, table.inputs.length, table.inputs.length + states]);
  return (
    <GridFrame
      ref={scroller}
      aria-label="State table"
      aria-rowcount={table.rows + 2}
      headClass="py-1"
      height={rows.height}
      head={
        <>
          <div className="grid text-xs text-quiet" style={{ gridTemplateColumns: grid }}>
            {[
              ['state now', states],
              ['inputs', columns.length],
              ['next state', states],
              ['outputs now', table.outputs.length - states],
            ].map(([word, span]) =>
              span ? (
                <span
                  key={word}
                  className="border-l border-hairline px-1 text-center first:border-0"
                  style={{ gridColumn: `span ${span}` }}
                >
                  {word}
                </span>
              ) : null,
            )}
          </div>
          <div className="grid font-semibold" style={{ gridTemplateColumns: grid }}>
            {[...table.inputs, ...table.outputs].map((name, i) => (
              <span
                key={i}
                role="columnheader"
                className={`truncate px-1 text-center ${edges.has(i) ? 'border-l border-hairline' : ''}`}
              >
                <Marked text={name} />
              </span>
            ))}
          </div>
        </>
      }
    >
      {rows.shown.map(({ row, top }) => (
        // biome-ignore lint/a11y/useKeyWithClickEvents: the steps of the moment are in the bar
        <div
          key={row}
          role="row"
          aria-rowindex={row + 2}
          aria-selected={row === live}
          tabIndex={-1}
          data-row={row}
          data-live={row === live || undefined}
          {...hint(columns.length > 0 ? 'Puts the inputs as in this row' : undefined)}
          className={`absolute inset-x-0 grid items-center value-text ${columns.length > 0 ? 'cursor-pointer' : ''} ${rowLook(row, row === live)}`}
          style={{ gridTemplateColumns: grid, height: ROW, top }}
          onClick={() => put(row)}
        >
          {table.inputs.map((_, i) => (
            <span
              key={i}
              role="gridcell"
              className={`flex h-full items-center justify-center ${edges.has(i) ? 'border-l border-hairline' : ''}`}
            >
              {inputAt(table.inputs.length, i, row)}
            </span>
          ))}
          {table.outputs.map((_, o) => {
            const letter = letterOf(cell(table, o, row));
            const isEdge = edges.has(table.inputs.length + o);
            return (
              <span
                key={o}
                role="gridcell"
                className={`flex h-full items-center justify-center ${isEdge ? 'border-l border-hairline' : ''} ${letter === '1' ? 'font-bold' : ''}`}
              >
                {letter}
              </span>
            );
          })}
        </div>
      ))}
    </GridFrame>
  );
}
