import { memo, useEffect, useMemo, useRef } from 'react';
import { coversRow, reordered } from '@/core/logic/minimise/cube';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { plainText } from '@/core/values/markup';
import type { Radix } from '@/core/values/radix';
import { reorder } from '@/session/changes/columns';
import { rowNow } from '@/session/moment';
import { told } from '@/session/told';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { placeOf, type RowQuery, type Shown, shownColumns, textAt } from './columns';
import { GridFrame, ONE_LINE } from './GridFrame';
import { MovableHeading } from './MovableHeading';
import { rowLook, useRows } from './useRows';

const ROW = 31;
/** More inputs than this are one text a row, so rows of many inputs scroll as smoothly as those of a few. */
const MOST_CELLS = 8;
const POOL = 16;

/** How wide a column must be, in rem, for the longest name above it. */
const runWidth = (columns: readonly Shown[]) =>
  Math.max(2.2, ...columns.map(({ name }) => plainText(name).length * 0.55 + 0.8));

/** How a table is looked at. */
export interface Look {
  /** Whether buses are shown as numbers, in the radix of the lesson. */
  readonly asNumbers: boolean;
  readonly wanted: RowQuery | null;
}

interface Props {
  readonly table: TruthTable;
  readonly asNumbers: boolean;
  /** The rows that are shown; all without it. */
  readonly only: Uint32Array | null;
  /** Called when an output should differ in a row; null if nothing can be changed. */
  readonly onChange: ((output: number, row: number) => void) | null;
}

/** The rows of a derived table: its live row marked; a click on a row sets the switches. */
export function TableGrid({ table, asNumbers, only, onChange }: Props) {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const live = useSessionState((s) => rowNow(s.netlist, s.values));
  const tried = useSessionState((s) => s.tried);
  const pointed = useCrossHighlight((p) => p.pointed);
  const lit = pointed && reordered(pointed.cube, pointed.inputs, table.inputs);
  const scroller = useRef<HTMLDivElement>(null);
  const radix = useSessionState((s) => s.lesson.settings.buses);
  const shown = useMemo(() => shownColumns(netlist, asNumbers), [netlist, asNumbers]);
  const rows = useRows(scroller, only?.length ?? table.rows, ROW);
  // Rows that go out of sight are used again for those that come.
  const pool = Math.ceil(rows.shown.length / POOL) * POOL;
  const place = only ? placeOf(only, live) : live;
  const liveAt = only && only[place] !== live ? -1 : place;
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another live row asks for scrolling
  useEffect(() => {
    if (liveAt >= 0 && live < table.rows) rows.reveal(liveAt);
  }, [liveAt, table.rows]);
  /** The next of the rows that are shown, and from the last on the first. */
  const step = (by: number) => {
    if (!only) return session.stepRow(by);
    const next = only[by > 0 ? (liveAt === -1 ? place : place + 1) : place - 1];
    const row = next ?? only.at(by > 0 ? 0 : -1);
    if (row !== undefined) session.goToRow(row);
  };

  // Wide enough for the number of the last row.
  const numbers = Math.max(2.5, String(table.rows - 1).length * 0.5 + 1.25);
  const inputs = shown.filter((column) => !column.isOutput);
  const run = inputs.length > MOST_CELLS && !asNumbers ? runWidth(inputs) : null;
  const each = run ? `${run}rem` : 'minmax(3.1rem, 1fr)';
  const rest = shown.length - inputs.length;
  const columns = `${numbers}rem 1.4rem repeat(${inputs.length}, ${each}) repeat(${rest}, minmax(3.1rem, 1fr))`;
  const inRow = useMemo(
    () => ({ table, shown, radix, columns, run, onChange, onRow: (row: number) => session.goToRow(row) }),
    [table, shown, radix, columns, run, onChange, session],
  );
  return (
    <GridFrame
      ref={scroller}
      aria-label="Truth table"
      aria-rowcount={(only?.length ?? table.rows) + 1}
      aria-colcount={shown.length + 2}
      onKeyDown={(event) => {
        if (event.key === 'ArrowDown') step(1);
        else if (event.key === 'ArrowUp') step(-1);
        else if (event.key === 'Home') session.goToRow(only?.[0] ?? 0);
        else if (event.key === 'End') session.goToRow(only?.at(-1) ?? table.rows - 1);
        else return;
        event.preventDefault();
      }}
      headClass={ONE_LINE}
      headStyle={{ gridTemplateColumns: columns }}
      height={rows.height}
      head={
        <>
          <span role="columnheader" className="px-2 text-xs font-normal text-quiet">
            row
          </span>
          <span role="columnheader">
            <span className="sr-only">tried</span>
          </span>
          {shown.map((column, i) => (
            <Heading key={column.key} column={column} all={shown} edge={isEdge(shown, i)} />
          ))}
        </>
      }
    >
      {rows.shown.map(({ row: at, top }) => {
        const row = only ? only[at]! : at;
        return (
          <Row
            key={at % pool}
            {...inRow}
            row={row}
            at={at}
            top={top}
            isLive={row === live}
            isTried={tried.has(row)}
            isPointed={lit !== null && coversRow(lit, row)}
          />
        );
      })}
    </GridFrame>
  );
}

interface RowProps {
  readonly table: TruthTable;
  readonly shown: readonly Shown[];
  readonly radix: Radix;
  /** Widths of the columns, for a grid. */
  readonly columns: string;
  /** Width of an input's column in rem where all inputs stand in one text; null where each has a cell. */
  readonly run: number | null;
  readonly onChange: Props['onChange'];
  readonly onRow: (row: number) => void;
  readonly row: number;
  /** Its place among the visible ones, and its position. */
  readonly at: number;
  readonly top: number;
  readonly isLive: boolean;
  readonly isTried: boolean;
  readonly isPointed: boolean;
}

const Row = memo(function Row(props: RowProps) {
  const { table, shown, radix, columns, run, onChange, onRow, row, at, top, isLive, isTried, isPointed } =
    props;
  const inputs = run === null ? 0 : table.inputs.length;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the grid takes the keys
    <div
      role="row"
      aria-rowindex={at + 2}
      aria-selected={isLive}
      tabIndex={-1}
      data-row={row}
      data-live={isLive || undefined}
      className={`absolute inset-x-0 grid cursor-pointer items-center ${rowLook(at, isLive, isPointed)} ${
        isLive
          ? 'group-focus-visible:outline-2 group-focus-visible:-outline-offset-2 group-focus-visible:outline-accent'
          : ''
      }`}
      style={{ gridTemplateColumns: columns, height: ROW, top }}
      onClick={() => onRow(row)}
    >
      <span role="rowheader" className="px-2 text-right font-mono text-xs text-quiet">
        {row}
      </span>
      <span role="gridcell" className="text-center text-accent" aria-label={isTried ? 'tried' : 'not tried'}>
        {isTried ? '●' : '○'}
      </span>
      {run !== null && (
        <span
          role="gridcell"
          aria-colspan={inputs}
          className="overflow-hidden value-text whitespace-pre"
          style={{
            gridColumn: `span ${inputs}`,
            letterSpacing: `calc(${run}rem - 1ch)`,
            paddingLeft: `calc((${run}rem - 1ch) / 2)`,
          }}
        >
          {row.toString(2).padStart(inputs, '0')}
        </span>
      )}
      {shown.slice(inputs).map((column, i) => (
        <Value
          key={column.key}
          letter={textAt(table, column, row, radix)}
          edge={isEdge(shown, inputs + i)}
          strong={column.isOutput}
          onTurn={
            onChange && column.isOutput && column.of.length === 1
              ? () => onChange(column.of[0]! - table.inputs.length, row)
              : undefined
          }
        />
      ))}
    </div>
  );
});

interface ValueProps {
  readonly letter: string;
  readonly edge: boolean;
  readonly strong: boolean;
  /** Changes the cell; without it cells are fixed. */
  readonly onTurn: (() => void) | undefined;
}

function Value({ letter, edge, strong, onTurn }: ValueProps) {
  return (
    <span
      role="gridcell"
      {...hint(onTurn && 'Double-click to reverse this value')}
      onDoubleClick={onTurn}
      className={`flex h-full items-center justify-center value-text ${edge ? 'border-l border-hairline' : ''} ${
        strong && letter === '1' ? 'font-bold' : ''
      }`}
    >
      {letter}
    </span>
  );
}

/** Whether a line parts a column from the one before it: outputs from inputs. */
const isEdge = (shown: readonly Shown[], i: number) => shown[i]!.isOutput && !shown[i - 1]?.isOutput;

interface HeadingProps {
  readonly column: Shown;
  readonly all: readonly Shown[];
  readonly edge: boolean;
}

/** A column's heading; dragged onto another of its kind, or moved by Shift and an arrow key, it changes the order. */
function Heading({ column, all, edge }: HeadingProps) {
  const session = useSession();
  const kind = all.filter((c) => c.isOutput === column.isOutput);
  const parts = [...new Set(kind.map((c) => c.part))];
  const index = parts.indexOf(column.part);
  const moveTo = (part: string, to: number) => {
    const order = parts.filter((id) => id !== part);
    if (order.length === parts.length) return;
    order.splice(to, 0, part);
    const others = [...new Set(all.filter((c) => c.isOutput !== column.isOutput).map((c) => c.part))];
    told(reorder(session, column.isOutput ? [...others, ...order] : [...order, ...others]));
  };
  return (
    <MovableHeading
      id={column.part}
      index={index}
      count={parts.length}
      className={`flex items-end justify-center self-stretch px-1 ${edge ? 'border-l border-hairline' : ''}`}
      onMove={moveTo}
    >
      {/* In a box of its own, where a subscript stands on its line. */}
      <span className="truncate">
        <Marked text={column.name} />
      </span>
    </MovableHeading>
  );
}
