'use client';

import { type ReactNode, useEffect, useRef, useState } from 'react';
import type { Flick } from '@/commands/popup';
import type { Point } from '@/core/circuit/geometry';
import { RingHand, Stroke } from './ring-hand';
import { HUB, INNER, NEAREST, OUTER } from './ring-size';

/** Something that the ring offers. */
export interface RingItem {
  readonly name: string;
  /** What it is, in one line. */
  readonly says: string;
  /** Its picture, within so many pixels. */
  readonly picture: (width: number, height: number) => ReactNode;
}

/** A side of the ring, and what fans out there. */
export interface RingGroup<I extends RingItem = RingItem> {
  readonly name: string;
  readonly items: readonly I[];
}

interface Props<I extends RingItem> {
  /** Pixel at which the ring opens. */
  readonly x: number;
  readonly y: number;
  /** Pixel of the press that opened it; near an edge the ring stands beside it. */
  readonly press: Point;
  readonly flick: Flick | null;
  readonly groups: readonly RingGroup<I>[];
  /** What was chosen last, around the hub; null for a place that is still free. */
  readonly recent: readonly (I | null)[];
  /** What stands in the hub while a side is open. */
  readonly hub?: (group: RingGroup<I>) => string;
  /** A line under the ring while nothing is pointed at. */
  readonly idle: (group: RingGroup<I>) => string;
  readonly onChoose: (item: I) => void;
  readonly onDigit?: (digit: number) => void;
  /** The hub was pressed while something stands in it. */
  readonly onHub?: () => void;
  readonly onClose: () => void;
  /** A letter was typed instead. */
  readonly onType: (letter: string) => void;
}

const GAP = 2;
/** Ms for which a hand rests on a family that it means. */
const REST = 140;

/** A name that fits into a slice: the first word of a long one. */
const shortName = (name: string) => (name.length > 13 ? name.split(' ').at(0)! : name);

/** SVG path of a sector between two radii and two angles (radians, 0 is up, clockwise). */
function sector(r0: number, r1: number, from: number, to: number): string {
  const full = to - from > 6.28;
  const end = full ? to - 0.0001 : to;
  const at = (r: number, a: number) => `${(r * Math.sin(a)).toFixed(2)} ${(-r * Math.cos(a)).toFixed(2)}`;
  const large = end - from > Math.PI ? 1 : 0;
  return `M${at(r0, from)}L${at(r1, from)}A${r1} ${r1} 0 ${large} 1 ${at(r1, end)}L${at(r0, end)}A${r0} ${r0} 0 ${large} 0 ${at(r0, from)}Z`;
}

const place = (r: number, angle: number) => ({ x: r * Math.sin(angle), y: -r * Math.cos(angle) });

/**
 * The ring: around the hub what was chosen last, then the sides, and outside what one of them holds. Opens at the pointer; chosen by
 * a click, by letting go of the button that opened it, or by the arrow keys and Enter.
 */
export function RingMenu<I extends RingItem>({
  x,
  y,
  press,
  flick,
  groups,
  recent,
  hub,
  idle,
  onChoose,
  onDigit,
  onHub,
  onClose,
  onType,
}: Props<I>) {
  const [hand] = useState(
    () =>
      new RingHand(
        groups.map((g) => g.items.length),
        recent.length,
      ),
  );
  const [family, setFamily] = useState(hand.family);
  const [at, setAt] = useState<{ on: 'recent' | 'part'; index: number } | null>(null);
  const isHeld = useRef(flick !== null);
  /** Follows the press that opened the ring: a press without a move only opens it. */
  const stroke = useRef<Stroke>(null);
  const last = useRef<Point>({ x: 0, y: 0 });
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const root = useRef<HTMLDivElement>(null);
  const group = groups[family]!;
  const slices = hand.slices;
  const inHub = hub?.(group) ?? '';

  useEffect(() => {
    root.current?.focus();
    return () => clearTimeout(resting.current);
  }, []);

  const choose = (item: I | null | undefined) => {
    if (item) onChoose(item);
  };
  const openFamily = (index: number) => {
    hand.openFamily(index);
    setFamily(index);
  };
  const turnFamily = (by: number) => {
    openFamily((family + by + groups.length) % groups.length);
    setAt({ on: 'part', index: 0 });
  };
  /** The parts of the family from left to right along its fan. */
  const along = slices.parts
    .map((_, i) => i)
    .sort((a, b) => slices.parts[a]!.middle - slices.parts[b]!.middle);
  /** Follows the pointer to a point given from the middle, however far it has jumped. */
  const follow = (to: Point) => {
    const { over, hasMoved } = hand.move(to);
    last.current = to;
    setFamily(hand.family);
    setAt(over.on === 'part' || over.on === 'recent' ? { on: over.on, index: over.index } : null);
    if (!hasMoved) return over;
    clearTimeout(resting.current);
    resting.current = setTimeout(() => {
      hand.rest();
      setFamily(hand.family);
    }, REST);
    return over;
  };
  const letGo = (p: Point) => {
    const over = follow(p);
    const wasHeld = isHeld.current;
    isHeld.current = false;
    if (wasHeld && !stroke.current?.hasGone) setAt(null);
    else if (over.on === 'outside') onClose();
    else if (over.on === 'hub' && !wasHeld && inHub) onHub?.();
    else if (over.on === 'part') choose(groups[hand.family]!.items[over.index]);
    else if (over.on === 'recent' && (!wasHeld || Math.hypot(p.x, p.y) > HUB + 6)) choose(recent[over.index]);
    else if (over.on === 'family') {
      const { items } = groups[over.index]!;
      if (!wasHeld && items.length === 1) choose(items[0]);
      else openFamily(over.index);
    }
  };
  const letGoNow = useRef(letGo);
  letGoNow.current = letGo;
  const fromMiddle = (event: React.PointerEvent): Point => {
    const box = root.current!.getBoundingClientRect();
    return {
      x: event.clientX - box.left - box.width / 2,
      y: event.clientY - box.top - box.height / 2,
    };
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: the ring takes over from the hand that opened it once
  useEffect(() => {
    const held = new Stroke(press, { x, y }, performance.now());
    stroke.current = held;
    flick?.takenBy({
      move: (pixel, time) => isHeld.current && follow(held.move(pixel, time)),
      // What has been set meanwhile, as a number of inputs, counts.
      release: () => isHeld.current && letGoNow.current(last.current),
    });
  }, []);

  const shown = at && (at.on === 'recent' ? recent[at.index] : group.items[at.index]);
  return (
    <div
      ref={root}
      role="menu"
      tabIndex={-1}
      aria-label="Parts to place"
      className="absolute z-30 rounded-full outline-none"
      style={{ left: x - OUTER, top: y - OUTER, width: 2 * OUTER, height: 2 * OUTER }}
      onContextMenu={(event) => event.preventDefault()}
      onPointerDown={(event) => event.stopPropagation()}
      // While the pointer that opened it is held, the sheet follows it.
      onPointerMove={(event) => isHeld.current || follow(fromMiddle(event))}
      onPointerUp={(event) => {
        if (isHeld.current) return;
        event.stopPropagation();
        letGo(fromMiddle(event));
      }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        const count = group.items.length;
        const step = (by: number) =>
          setAt((now) => ({
            on: 'part',
            index: now?.on === 'part' ? along[(along.indexOf(now.index) + by + count) % count]! : 0,
          }));
        if (event.key === 'Escape' || event.key === ' ') onClose();
        else if (event.key === 'ArrowRight') step(1);
        else if (event.key === 'ArrowLeft') step(-1);
        else if (event.key === 'ArrowDown') turnFamily(1);
        else if (event.key === 'ArrowUp') turnFamily(-1);
        else if (event.key === 'Enter') choose(shown ?? group.items[0]);
        else if (onDigit && /^[2-9]$/.test(event.key)) onDigit(Number(event.key));
        else if (/^[a-z]$/i.test(event.key) && !event.ctrlKey && !event.metaKey) onType(event.key);
        else return;
        event.preventDefault();
      }}
    >
      <svg
        width={2 * OUTER}
        height={2 * OUTER}
        viewBox={`${-OUTER} ${-OUTER} ${2 * OUTER} ${2 * OUTER}`}
        className="drop-shadow-lg"
      >
        <title>Parts to place</title>
        <circle r={OUTER} fill="var(--raised)" stroke="var(--hairline)" />
        {groups.map((g, i) => {
          const { from, to, middle } = slices.families[i]!;
          const p = place((NEAREST + INNER) / 2, middle);
          const on = i === family;
          return (
            <g key={g.name} role="menuitem" aria-label={g.name} aria-haspopup="menu" aria-expanded={on}>
              <path
                d={sector(NEAREST + GAP, INNER - GAP, from, to)}
                fill={on ? 'var(--accent)' : 'var(--ground)'}
                stroke="var(--raised)"
                strokeWidth="2"
              />
              <text
                x={p.x}
                y={p.y + 4}
                textAnchor="middle"
                fontSize="11"
                fontWeight="600"
                fill={on ? 'var(--on-accent)' : 'var(--ink)'}
                pointerEvents="none"
              >
                {g.name}
              </text>
            </g>
          );
        })}
        {group.items.map((item, i) => {
          const { from, to, middle } = slices.parts[i]!;
          const p = place((INNER + OUTER) / 2, middle);
          const on = at?.on === 'part' && at.index === i;
          return (
            <g key={item.name} role="menuitem" aria-label={item.name}>
              <path
                d={sector(INNER, OUTER - 4, from, to)}
                fill={on ? 'var(--one-soft)' : 'var(--raised)'}
                stroke={on ? 'var(--one)' : 'var(--hairline)'}
              />
              <svg x={p.x - 22} y={p.y - 24} width="44" height="28" overflow="visible">
                <title>{item.name}</title>
                {item.picture(44, 28)}
              </svg>
              <text
                x={p.x}
                y={p.y + 17}
                textAnchor="middle"
                fontSize={item.name.length > 11 ? 9.5 : 10.5}
                fontWeight="600"
                fill="var(--ink)"
                pointerEvents="none"
              >
                {shortName(item.name)}
              </text>
            </g>
          );
        })}
        {recent.map((item, i) => {
          const { from, to, middle } = slices.recent[i]!;
          const p = place((HUB + NEAREST) / 2 + 1, middle);
          const on = at?.on === 'recent' && at.index === i;
          return (
            <g key={i} role="menuitem" aria-label={item ? `${item.name}, placed recently` : 'nothing'}>
              <path
                d={sector(HUB, NEAREST - GAP, from, to)}
                fill={on ? 'var(--one-soft)' : 'var(--raised)'}
                stroke={on ? 'var(--one)' : 'var(--hairline)'}
              />
              {item && (
                <svg x={p.x - 15} y={p.y - 11} width="30" height="22" overflow="visible">
                  <title>{item.name}</title>
                  {item.picture(30, 22)}
                </svg>
              )}
            </g>
          );
        })}
        <circle r={HUB - 1} fill="var(--raised)" stroke="var(--hairline)" />
        {inHub && (
          <text y="4" textAnchor="middle" fontSize="10.5" fontWeight="600" fill="var(--ink)">
            {inHub}
          </text>
        )}
      </svg>
      <p className="pointer-events-none absolute top-full left-1/2 mt-1 w-max -translate-x-1/2 rounded-lg bg-raised px-2 py-0.5 text-xs text-quiet shadow">
        {shown ? shown.says : idle(group)}
      </p>
    </div>
  );
}
