import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import { OPEN_CELL } from '@/core/circuit/spec-table';
import { loopPath, OVER } from '@/core/logic/map/loop-path';
import { loopOf, type MapLayout, rowAt, sizeOfAxis, valuesAt } from '@/core/logic/map/map';
import { type Cube, coversRow, sameCube } from '@/core/logic/minimise/cube';
import { hint } from '@/ui/controls/hint';
import { Marked } from '@/ui/controls/Marked';
import { colourOf, dashOf } from './Swatch';

export interface BoardProps {
  /** The name of the function. */
  readonly name: string;
  /** The names of its inputs. */
  readonly names: readonly string[];
  readonly layout: MapLayout;
  /** What stands in the cell of a row: 0, 1, x, or open. */
  readonly letterAt: (row: number) => string;
  /** The row at which the circuit stands; -1 for none. */
  readonly live?: number;
  /** A product that is pointed at elsewhere. */
  readonly pointed?: Cube | null;
  /** Called for 0, 1 and x on a cell, where they change it. */
  readonly onType?: ((row: number, letter: string) => void) | undefined;
  /** Called where no cells are picked. */
  readonly onPress?: (row: number) => void;
  readonly onDoublePress?: (row: number) => void;
  readonly hintOfCells?: string | undefined;
  readonly loops: readonly Cube[];
  /** Cells that are picked for a group; null where none are drawn by hand. */
  readonly picked: ReadonlySet<number> | null;
  readonly onPick: (rows: ReadonlySet<number>) => void;
  /** Inputs change places where one is dragged onto another. */
  readonly onSwap?: (a: number, b: number) => void;
  /** Pairs of cells between which a glitch may come. */
  readonly marks?: readonly (readonly [number, number])[];
}

const WAYS: Readonly<Record<string, { readonly down: number; readonly across: number }>> = {
  ArrowLeft: { down: 0, across: -1 },
  ArrowRight: { down: 0, across: 1 },
  ArrowUp: { down: -1, across: 0 },
  ArrowDown: { down: 1, across: 0 },
};

const MARGIN = 14;

/** The order of the layers: neighbours differ in one input. */
const LAYERS: Readonly<Record<number, readonly number[]>> = { 1: [0], 2: [0, 1], 4: [0, 1, 3, 2] };
/** Smaller cells have no room for the number of their row. */
const NUMBERED = 46;
/** The layers of the map beside each other, each with its cells and loops. */
export function Board(props: BoardProps) {
  const { layout } = props;
  const root = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(460);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width));
    observer.observe(root.current!);
    return () => observer.disconnect();
  }, []);
  const layers = sizeOfAxis(layout.layers);
  const side = layers === 1 ? 1 : 2;
  const across = sizeOfAxis(layout.across);
  const cell = Math.max(34, Math.min(58, Math.floor((width / side - 2 * MARGIN - 64) / across)));
  return (
    <div ref={root} className="flex flex-wrap gap-x-4 gap-y-5">
      {LAYERS[layers]!.map((layer) => (
        <Layer key={layer} {...props} layer={layer} cell={cell} />
      ))}
    </div>
  );
}

function Layer({
  name,
  names,
  layout,
  letterAt,
  live = -1,
  pointed = null,
  onType,
  onPress,
  onDoublePress,
  hintOfCells,
  loops,
  picked,
  onPick,
  onSwap,
  marks = [],
  layer,
  cell,
}: BoardProps & { layer: number; cell: number }) {
  /** Arrow keys go from cell to cell, over the edge too; 0, 1 and x fill a cell of the table. */
  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    const at = Number((event.target as Element).getAttribute('data-cell') ?? -1);
    const spot = place(at);
    const way = WAYS[event.key];
    if (!spot || event.ctrlKey || event.metaKey || event.altKey) return;
    if (way) {
      const down = (spot.down + way.down + size.down) % size.down;
      const across = (spot.across + way.across + size.across) % size.across;
      const next = event.currentTarget.querySelector<HTMLElement>(`[data-cell="${rows[down]![across]}"]`);
      next?.focus();
    } else if (onType && /^[01xX.-]$/.test(event.key))
      onType(at, event.key === 'X' || event.key === '-' ? 'x' : event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const size = { down: sizeOfAxis(layout.down), across: sizeOfAxis(layout.across) };
  const painting = useRef<boolean | null>(null);
  const rows = Array.from({ length: size.down }, (_, down) =>
    Array.from({ length: size.across }, (_, across) => rowAt(layout, layer, down, across)),
  );
  const lit = (row: number) => pointed !== null && coversRow(pointed, row);
  const paint = (row: number) => {
    if (!picked || painting.current === null || picked.has(row) === painting.current) return;
    const next = new Set(picked);
    if (painting.current) next.add(row);
    else next.delete(row);
    onPick(next);
  };
  const atPointer = (event: PointerEvent) => {
    const under = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-cell]');
    if (under) paint(Number(under.getAttribute('data-cell')));
  };
  const place = (row: number) => {
    for (const [down, list] of rows.entries())
      if (list.includes(row)) return { down, across: list.indexOf(row) };
    return null;
  };
  return (
    <div>
      {layout.layers.length > 0 && (
        <p className="mb-1 pl-14 text-sm font-semibold">
          {layout.layers.map((input, i) => (
            <span key={input} className="mr-2">
              <Axis name={names[input]!} input={input} onSwap={onSwap} /> ={' '}
              {valuesAt(layout.layers, layer)[i]}
            </span>
          ))}
        </p>
      )}
      <div className="grid w-max items-end" style={{ gridTemplateColumns: `auto ${size.across * cell}px` }}>
        <span />
        <p className="text-center text-sm font-semibold">
          {layout.across.map((input) => (
            <Axis key={input} name={names[input]!} input={input} onSwap={onSwap} />
          ))}
        </p>
        <span />
        <div className="flex pb-2">
          {rows[0]!.map((_, across) => (
            <span key={across} className="text-center font-mono text-sm text-quiet" style={{ width: cell }}>
              {valuesAt(layout.across, across).join('')}
            </span>
          ))}
        </div>
        <div className="flex items-center self-stretch">
          <p className="pr-1.5 text-right text-sm font-semibold">
            {layout.down.map((input) => (
              <Axis key={input} name={names[input]!} input={input} onSwap={onSwap} />
            ))}
          </p>
          <div>
            {rows.map((_, down) => (
              <span
                key={down}
                className="flex items-center pr-2 font-mono text-sm text-quiet"
                style={{ height: cell }}
              >
                {valuesAt(layout.down, down).join('')}
              </span>
            ))}
          </div>
        </div>
        <div
          role="grid"
          aria-label={`Map of ${name}`}
          className="relative select-none"
          style={{ width: size.across * cell, height: size.down * cell }}
          onKeyDown={onKey}
          onPointerMove={(event) => painting.current !== null && atPointer(event)}
          onPointerUp={() => {
            painting.current = null;
          }}
          onPointerLeave={() => {
            painting.current = null;
          }}
        >
          {rows.map((list, down) => (
            <div role="row" key={down} className="flex">
              {list.map((row) => {
                const letter = letterAt(row);
                return (
                  <button
                    key={row}
                    type="button"
                    role="gridcell"
                    data-cell={row}
                    data-live={row === live || undefined}
                    aria-selected={picked?.has(row) ?? row === live}
                    className={`relative cursor-pointer border border-hairline map-text outline-offset-[-3px] ${
                      letter === '1' ? 'font-bold' : letter === '0' ? 'text-quiet' : ''
                    } ${picked?.has(row) ? 'bg-accent-soft' : lit(row) ? 'bg-accent-soft' : row === live ? 'bg-one-soft' : 'bg-raised'}`}
                    style={{ width: cell, height: cell }}
                    onPointerDown={(event) => {
                      if (!picked) return;
                      event.currentTarget.releasePointerCapture(event.pointerId);
                      painting.current = !picked.has(row);
                      paint(row);
                    }}
                    {...hint(picked ? undefined : hintOfCells)}
                    onDoubleClick={() => !picked && onDoublePress?.(row)}
                    onClick={(event) => {
                      if (!picked) onPress?.(row);
                      else if (event.detail === 0) {
                        // From the keyboard.
                        painting.current = !picked.has(row);
                        paint(row);
                        painting.current = null;
                      }
                    }}
                  >
                    <span className="sr-only">
                      row {row}: {letter === OPEN_CELL && 'open'}
                    </span>
                    {letter === OPEN_CELL ? <span aria-hidden="true">·</span> : letter}
                    {cell >= NUMBERED && (
                      <span
                        aria-hidden="true"
                        className="absolute right-2.5 bottom-1.5 text-[9px] leading-none font-normal text-quiet"
                      >
                        {row}
                      </span>
                    )}
                  </button>
                );
              })}
            </div>
          ))}
          <svg
            className="pointer-events-none absolute"
            style={{ left: -OVER - 2, top: -OVER - 2 }}
            width={size.across * cell + 2 * OVER + 4}
            height={size.down * cell + 2 * OVER + 4}
            aria-hidden="true"
          >
            <g transform={`translate(${OVER + 2} ${OVER + 2})`}>
              {loops.map((cube, i) =>
                loopOf(cube, layout)
                  .filter((piece) => piece.layer === layer)
                  .map((piece, k) => (
                    <path
                      key={`${i} ${k}`}
                      d={loopPath(piece, cell, 3.5 + 3 * (i % 4), size)}
                      fill={colourOf(i)}
                      fillOpacity={pointed && sameCube(pointed, cube) ? 0.22 : 0.05}
                      stroke={colourOf(i)}
                      strokeWidth={pointed && sameCube(pointed, cube) ? 3.5 : 2.25}
                      strokeDasharray={dashOf(i)}
                      strokeLinecap="round"
                      className="pointer-events-none"
                    />
                  )),
              )}
              {marks.map(([a, b]) => {
                const [p, q] = [place(a), place(b)];
                if (!p || !q || Math.abs(p.down - q.down) + Math.abs(p.across - q.across) !== 1) return null;
                const x = ((p.across + q.across + 1) / 2) * cell;
                const y = ((p.down + q.down + 1) / 2) * cell;
                return (
                  <path
                    key={`${a} ${b}`}
                    d={`M${x - 6} ${y - 4}l4 8l4 -8l4 8`}
                    fill="none"
                    stroke="var(--conflict)"
                    strokeWidth="2"
                    strokeLinejoin="round"
                  />
                );
              })}
            </g>
          </svg>
          {place(live) && (
            <span
              className="pointer-events-none absolute border-[3px] border-one"
              style={{
                left: (place(live)?.across ?? 0) * cell,
                top: (place(live)?.down ?? 0) * cell,
                width: cell,
                height: cell,
              }}
            />
          )}
        </div>
      </div>
    </div>
  );
}

const DRAGGED = 'application/x-manege-axis';

/** The name of an input beside the map; dragged onto another one, the two change places. */
function Axis({ name, input, onSwap }: { name: string; input: number; onSwap: BoardProps['onSwap'] }) {
  if (!onSwap)
    return (
      <span className="mx-0.5 inline-block px-1">
        <Marked text={name} />
      </span>
    );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: names change places on the table from the keyboard too
    <span
      draggable
      {...hint('Drag onto another input: the two change places')}
      className="mx-0.5 inline-block cursor-grab rounded-md px-1 hover:bg-accent-soft"
      onDragStart={(event) => {
        event.dataTransfer.setData(DRAGGED, String(input));
        event.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(DRAGGED)) event.preventDefault();
      }}
      onDrop={(event) => {
        event.preventDefault();
        event.stopPropagation();
        onSwap(Number(event.dataTransfer.getData(DRAGGED)), input);
      }}
    >
      <Marked text={name} />
    </span>
  );
}
