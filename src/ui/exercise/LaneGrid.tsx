'use client';

import { type KeyboardEvent, useRef } from 'react';
import { laneCourse } from '@/core/figure/lane-course';
import { timeText } from '@/core/values/time';

export interface GridLane {
  readonly name: string;
  /** 0, 1, and anything else where nothing is drawn. */
  readonly levels: string;
  /** Called for a cell that is drawn; absent where the lane is given. */
  readonly onDraw?: ((cell: number, level: '0' | '1') => void) | undefined;
  /** Stretches that are marked as right or wrong. */
  readonly marks?: readonly { readonly from: number; readonly to: number; readonly isRight: boolean }[];
  /** What was wanted, or observed, under the lane. */
  readonly under?: string;
}

interface Props {
  readonly label: string;
  /** ps. */
  readonly cell: number;
  readonly cells: number;
  readonly lanes: readonly GridLane[];
}

const CELL = 18;
const HIGH = 4;
const LOW = 22;
const HEIGHT = 26;

const PLACE = { left: 0, step: CELL, high: HIGH, low: LOW };

/**
 * Lanes of a timing diagram on a grid of cells. A press draws a cell high, another one low; drawn over with the pointer held,
 * cells take the level of the first; 0 and 1 are typed, and go on to the cell behind.
 */
export function LaneGrid({ label, cell, cells, lanes }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const painting = useRef<'0' | '1' | null>(null);
  const go = (lane: number, at: number) =>
    root.current?.querySelector<HTMLElement>(`[data-span="${lane},${at}"]`)?.focus();
  const onKey = (event: KeyboardEvent, lane: number, at: number) => {
    const { onDraw } = lanes[lane]!;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === '0' || event.key === '1') {
      onDraw?.(at, event.key);
      go(lane, at + 1);
    } else if (event.key === 'ArrowRight') go(lane, at + 1);
    else if (event.key === 'ArrowLeft') go(lane, at - 1);
    else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const by = event.key === 'ArrowDown' ? 1 : -1;
      for (let to = lane + by; lanes[to]; to += by)
        if (lanes[to]!.onDraw) {
          go(to, at);
          break;
        }
    } else return;
    event.preventDefault();
  };
  const draw = (lane: number, at: number) => {
    if (painting.current && lanes[lane]!.levels[at] !== painting.current)
      lanes[lane]!.onDraw?.(at, painting.current);
  };
  const isDrawn = lanes.some(({ onDraw }) => onDraw);
  const named = { role: isDrawn ? 'grid' : 'group', 'aria-label': label };
  return (
    <div
      ref={root}
      className="shrink-0 overflow-x-auto pb-1"
      onPointerUp={() => {
        painting.current = null;
      }}
      onPointerLeave={() => {
        painting.current = null;
      }}
    >
      <div {...named} className="flex w-max flex-col gap-1.5">
        {lanes.map(({ name, levels, onDraw, marks, under }, lane) => (
          <div key={name} role={isDrawn ? 'row' : undefined} className="flex items-center gap-2">
            <span
              className={`sticky left-0 z-10 w-14 shrink-0 truncate bg-raised text-right text-sm font-semibold ${onDraw ? 'text-accent' : ''}`}
            >
              {name}
            </span>
            <div className="relative" style={{ width: cells * CELL, height: under ? HEIGHT + 14 : HEIGHT }}>
              <svg width={cells * CELL} height={under ? HEIGHT + 14 : HEIGHT} aria-hidden="true">
                {marks?.map(({ from, to, isRight }) => (
                  <rect
                    key={from}
                    x={from * CELL}
                    y={0}
                    width={(to - from) * CELL}
                    height={HEIGHT}
                    fill={isRight ? 'var(--good)' : 'var(--bad)'}
                    opacity={isRight ? 0.1 : 0.18}
                  />
                ))}
                <path
                  d={Array.from({ length: cells + 1 }, (_, i) => `M${i * CELL} 0V${HEIGHT}`).join('')}
                  stroke="var(--hairline)"
                />
                <path d={laneCourse(levels, PLACE)} fill="none" stroke="var(--ink)" strokeWidth="2" />
                {under &&
                  [...under].map((letter, i) => (
                    <text
                      key={i}
                      x={(i + 0.5) * CELL}
                      y={HEIGHT + 11}
                      textAnchor="middle"
                      fontSize="11"
                      fill={letter !== 'x' && levels[i] !== letter ? 'var(--bad)' : 'var(--quiet)'}
                      fontWeight={letter !== 'x' && levels[i] !== letter ? 700 : 400}
                    >
                      {letter}
                    </text>
                  ))}
              </svg>
              {onDraw && (
                <div className="absolute top-0 left-0 flex">
                  {Array.from({ length: cells }, (_, at) => {
                    const level = levels[at];
                    const is = level === '1' ? 'high' : level === '0' ? 'low' : 'not drawn';
                    return (
                      <button
                        key={at}
                        type="button"
                        role="gridcell"
                        data-span={`${lane},${at}`}
                        tabIndex={at === 0 ? 0 : -1}
                        aria-label={`${name} from ${timeText(at * cell)}: ${is}`}
                        className="cursor-pointer hover:bg-accent-soft/60 focus-visible:bg-accent-soft"
                        style={{ width: CELL, height: HEIGHT }}
                        onPointerDown={(event) => {
                          event.currentTarget.releasePointerCapture(event.pointerId);
                          painting.current = level === '1' ? '0' : '1';
                          draw(lane, at);
                        }}
                        onPointerEnter={() => draw(lane, at)}
                        onClick={(event) => {
                          // From the keyboard.
                          if (event.detail === 0) onDraw(at, level === '1' ? '0' : '1');
                        }}
                        onKeyDown={(event) => onKey(event, lane, at)}
                      />
                    );
                  })}
                </div>
              )}
            </div>
          </div>
        ))}
        <div className="flex gap-2 text-xs text-quiet">
          <span className="w-14 shrink-0" />
          <span>0 s</span>
          <span className="ml-auto">{timeText(cell * cells)}</span>
        </div>
      </div>
    </div>
  );
}
