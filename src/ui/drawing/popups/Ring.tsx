'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import type { Flick } from '@/commands/popup';
import { recentKinds } from '@/commands/recent-parts';
import type { Point } from '@/core/circuit/geometry';
import type { Params } from '@/core/circuit/sheet';
import { families } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import type { PartKind } from '@/core/parts/part-kind';
import { placeable } from '@/session/placeable';
import type { Session } from '@/session/session';
import { SymbolPicture } from '../canvas/SymbolPicture';
import { RingHand, Stroke } from './ring-hand';
import { HUB, INNER, NEAREST, OUTER } from './ring-size';

interface Props {
  /** Pixel within the drawing at which the ring opens. */
  readonly x: number;
  readonly y: number;
  /** Pixel of the press that opened it; near an edge the ring stands beside it. */
  readonly press: Point;
  readonly session: Session;
  readonly flick: Flick | null;
  readonly onPlace: (kind: PartKind, params: Params) => void;
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
 * The ring: around the hub the parts that were placed last, then the families, and outside the parts of one. Opens
 * at the pointer; chosen by a click, by letting go of the button that opened it, or by the arrow keys and Enter.
 */
export function Ring({ x, y, press, session, flick, onPlace, onClose, onType }: Props) {
  const kinds = useMemo(() => placeable(session), [session]);
  const groups = families(kinds);
  const recent = useMemo(() => recentKinds(kinds), [kinds]);
  const [hand] = useState(
    () =>
      new RingHand(
        groups.map((g) => g.kinds.length),
        recent.length,
      ),
  );
  const [family, setFamily] = useState(hand.family);
  const [at, setAt] = useState<{ on: 'recent' | 'part'; index: number } | null>(null);
  const [inputs, setInputs] = useState(2);
  const isHeld = useRef(flick !== null);
  /** The hand that holds the press which opened it: one that has gone nowhere only opens the ring. */
  const stroke = useRef<Stroke>(null);
  const last = useRef<Point>({ x: 0, y: 0 });
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const root = useRef<HTMLDivElement>(null);
  const group = groups[family]!;
  const slices = hand.slices;
  const hasInputs = group.kinds.some((k) => k.settings?.some((s) => s.param === 'inputs'));

  useEffect(() => {
    root.current?.focus();
    return () => clearTimeout(resting.current);
  }, []);

  const choose = (kind: PartKind | null | undefined) => {
    if (!kind) return;
    const takes = kind.settings?.some((s) => s.param === 'inputs');
    onPlace(kind, { ...defaultParams(kind), ...(takes ? { inputs } : {}) });
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
    else if (over.on === 'part') choose(groups[hand.family]!.kinds[over.index]);
    else if (over.on === 'recent' && (!wasHeld || Math.hypot(p.x, p.y) > HUB + 6)) choose(recent[over.index]);
    else if (over.on === 'family') {
      const { kinds } = groups[over.index]!;
      if (!wasHeld && kinds.length === 1) choose(kinds[0]);
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

  const shown = at && (at.on === 'recent' ? recent[at.index] : group.kinds[at.index]);
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
        const count = group.kinds.length;
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
        else if (event.key === 'Enter') choose(shown ?? group.kinds[0]);
        else if (/^[2-9]$/.test(event.key)) setInputs(Number(event.key));
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
            <g key={g.family} role="menuitem" aria-label={g.family} aria-haspopup="menu" aria-expanded={on}>
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
                {g.family}
              </text>
            </g>
          );
        })}
        {group.kinds.map((kind, i) => {
          const { from, to, middle } = slices.parts[i]!;
          const p = place((INNER + OUTER) / 2, middle);
          const on = at?.on === 'part' && at.index === i;
          return (
            <g key={kind.name} role="menuitem" aria-label={kind.name}>
              <path
                d={sector(INNER, OUTER - 4, from, to)}
                fill={on ? 'var(--one-soft)' : 'var(--raised)'}
                stroke={on ? 'var(--one)' : 'var(--hairline)'}
              />
              <svg x={p.x - 22} y={p.y - 24} width="44" height="28" overflow="visible">
                <title>{kind.name}</title>
                <SymbolPicture kind={kind} height={28} width={44} />
              </svg>
              <text
                x={p.x}
                y={p.y + 17}
                textAnchor="middle"
                fontSize={kind.name.length > 11 ? 9.5 : 10.5}
                fontWeight="600"
                fill="var(--ink)"
                pointerEvents="none"
              >
                {shortName(kind.name)}
              </text>
            </g>
          );
        })}
        {recent.map((kind, i) => {
          const { from, to, middle } = slices.recent[i]!;
          const p = place((HUB + NEAREST) / 2 + 1, middle);
          const on = at?.on === 'recent' && at.index === i;
          return (
            <g key={i} role="menuitem" aria-label={kind ? `${kind.name}, placed recently` : 'nothing'}>
              <path
                d={sector(HUB, NEAREST - GAP, from, to)}
                fill={on ? 'var(--one-soft)' : 'var(--raised)'}
                stroke={on ? 'var(--one)' : 'var(--hairline)'}
              />
              {kind && (
                <svg x={p.x - 15} y={p.y - 11} width="30" height="22" overflow="visible">
                  <title>{kind.name}</title>
                  <SymbolPicture kind={kind} height={22} width={30} />
                </svg>
              )}
            </g>
          );
        })}
        <circle r={HUB - 1} fill="var(--raised)" stroke="var(--hairline)" />
        {hasInputs && (
          <text y="4" textAnchor="middle" fontSize="10.5" fontWeight="600" fill="var(--ink)">
            {inputs} in
          </text>
        )}
      </svg>
      <p className="pointer-events-none absolute top-full left-1/2 mt-1 w-max -translate-x-1/2 rounded-lg bg-raised px-2 py-0.5 text-xs text-quiet shadow">
        {shown ? shown.says : hasInputs ? 'keys 2 to 9: number of inputs' : 'click a part to place it'}
      </p>
    </div>
  );
}
