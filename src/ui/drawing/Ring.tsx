'use client';

import { useEffect, useRef, useState } from 'react';
import type { Params } from '@/core/circuit/lesson';
import { defaultParams, families } from '@/core/parts/catalogue';
import type { Family, PartKind } from '@/core/parts/part-kind';
import type { Session } from '@/session/session';
import { placeable } from './placeable';
import { OUTER } from './ring-size';

interface Props {
  /** Pixel within the drawing at which the ring opens. */
  readonly x: number;
  readonly y: number;
  readonly session: Session;
  /** Whether the button that opened it is still down, so that letting go over a part places it. */
  readonly pressed: boolean;
  readonly onPlace: (kind: PartKind, params: Params) => void;
  readonly onClose: () => void;
  /** A letter was typed instead. */
  readonly onType: (letter: string) => void;
}

const HUB = 24;
const INNER = 108;
const GAP = 2;

/** SVG path of a sector between two radii and two angles (radians, 0 is up, clockwise). */
function sector(r0: number, r1: number, from: number, to: number): string {
  const full = to - from > 6.28;
  const end = full ? to - 0.0001 : to;
  const at = (r: number, a: number) => `${(r * Math.sin(a)).toFixed(2)} ${(-r * Math.cos(a)).toFixed(2)}`;
  const large = end - from > Math.PI ? 1 : 0;
  return `M${at(r0, from)}L${at(r1, from)}A${r1} ${r1} 0 ${large} 1 ${at(r1, end)}L${at(r0, end)}A${r0} ${r0} 0 ${large} 0 ${at(r0, from)}Z`;
}

const slice = (index: number, count: number) => {
  const width = (2 * Math.PI) / count;
  return { from: index * width - width / 2, to: index * width + width / 2, middle: index * width };
};

const place = (r: number, angle: number) => ({ x: r * Math.sin(angle), y: -r * Math.cos(angle) });

/** The index of the slice in which a direction lies. */
function sliceAt(dx: number, dy: number, count: number): number {
  const turn = Math.atan2(dx, -dy) / (2 * Math.PI);
  return ((Math.round(turn * count) % count) + count) % count;
}

/**
 * The ring: families on the inner circle, their parts on the outer one, the number of inputs in the hub. Opens at
 * the pointer; chosen by a click, by letting go of the button that opened it, or by the arrow keys and Enter.
 */
export function Ring({ x, y, session, pressed, onPlace, onClose, onType }: Props) {
  const groups = families(placeable(session));
  const [family, setFamily] = useState<Family>(groups[0]!.family);
  const [at, setAt] = useState<number | null>(null);
  const [inputs, setInputs] = useState(2);
  const held = useRef(pressed);
  const root = useRef<HTMLDivElement>(null);
  const group = groups.find((g) => g.family === family) ?? groups[0]!;
  const hasInputs = family === 'Gates';

  useEffect(() => root.current?.focus(), []);

  const choose = (kind: PartKind | undefined) => {
    if (!kind) return;
    const takes = kind.settings?.some((s) => s.param === 'inputs');
    onPlace(kind, { ...defaultParams(kind), ...(takes ? { inputs } : {}) });
  };
  const turnFamily = (by: number) => {
    const i = groups.indexOf(group);
    setFamily(groups[(i + by + groups.length) % groups.length]!.family);
    setAt(0);
  };
  const point = (event: React.PointerEvent) => {
    const box = root.current!.getBoundingClientRect();
    const dx = event.clientX - box.left - box.width / 2;
    const dy = event.clientY - box.top - box.height / 2;
    const r = Math.hypot(dx, dy);
    if (r < HUB) return { r, kind: undefined };
    if (r < INNER) return { r, family: groups[sliceAt(dx, dy, groups.length)]!, kind: undefined };
    const index = sliceAt(dx, dy, group.kinds.length);
    return { r, index, kind: group.kinds[index] };
  };

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
      onPointerMove={(event) => {
        const over = point(event);
        if (over.family && over.family.family !== family) setFamily(over.family.family);
        setAt(over.index ?? null);
      }}
      onPointerUp={(event) => {
        event.stopPropagation();
        const over = point(event);
        const wasHeld = held.current;
        held.current = false;
        if (over.r > OUTER) onClose();
        else if (over.kind) choose(over.kind);
        else if (over.family && !wasHeld && over.family.kinds.length === 1) choose(over.family.kinds[0]);
      }}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) onClose();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        const count = group.kinds.length;
        if (event.key === 'Escape' || event.key === ' ') onClose();
        else if (event.key === 'ArrowRight') setAt((i) => (i === null ? 0 : (i + 1) % count));
        else if (event.key === 'ArrowLeft') setAt((i) => (i === null ? count - 1 : (i + count - 1) % count));
        else if (event.key === 'ArrowDown') turnFamily(1);
        else if (event.key === 'ArrowUp') turnFamily(-1);
        else if (event.key === 'Enter') choose(group.kinds[at ?? 0]);
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
          const { from, to, middle } = slice(i, groups.length);
          const p = place((HUB + INNER) / 2 + 2, middle);
          const on = g.family === family;
          return (
            <g key={g.family}>
              <path
                d={sector(HUB + GAP, INNER - GAP, from, to)}
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
          const { from, to, middle } = slice(i, group.kinds.length);
          const p = place((INNER + OUTER) / 2 - 1, middle);
          const words = kind.name.split(' ');
          return (
            <g key={kind.name} role="menuitem" aria-label={kind.name}>
              <path
                d={sector(INNER, OUTER - 4, from, to)}
                fill={at === i ? 'var(--one-soft)' : 'var(--raised)'}
                stroke={at === i ? 'var(--one)' : 'var(--hairline)'}
              />
              {words.map((word, line) => (
                <text
                  key={word}
                  x={p.x}
                  y={p.y + 4.5 + (line - (words.length - 1) / 2) * 14}
                  textAnchor="middle"
                  fontSize="12.5"
                  fontWeight="600"
                  fill="var(--ink)"
                  pointerEvents="none"
                >
                  {line < words.length - 1 ? `${word} ` : word}
                </text>
              ))}
            </g>
          );
        })}
        <circle r={HUB - 1} fill="var(--raised)" stroke="var(--hairline)" />
        {hasInputs && (
          <text y="4" textAnchor="middle" fontSize="12" fontWeight="600" fill="var(--ink)">
            {inputs} in
          </text>
        )}
      </svg>
      <p className="pointer-events-none absolute top-full left-1/2 mt-1 w-max -translate-x-1/2 rounded-lg bg-raised px-2 py-0.5 text-xs text-quiet shadow">
        {at !== null && group.kinds[at]
          ? group.kinds[at].says
          : hasInputs
            ? 'keys 2 to 9: number of inputs'
            : 'click a part to place it'}
      </p>
    </div>
  );
}
