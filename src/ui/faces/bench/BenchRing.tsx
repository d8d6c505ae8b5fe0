'use client';

import { type MouseEvent, type PointerEvent, type ReactNode, useMemo, useRef, useState } from 'react';
import { Flick } from '@/commands/popup';
import { addDevice, addPackage } from '@/core/bench/edit-board';
import { typeOf } from '@/core/bench/holes';
import type { Board, BoardDevice } from '@/core/circuit/board';
import type { Point } from '@/core/circuit/geometry';
import { findPackage, type LogicPackage, PACKAGE_GROUPS } from '@/core/parts/packages';
import type { LogicFamily } from '@/core/parts/packages/package-type';
import { done, type Result } from '@/core/values/result';
import { type RingGroup, type RingItem, RingMenu } from '@/ui/controls/ring/RingMenu';
import { OUTER } from '@/ui/controls/ring/ring-size';
import { within } from '@/ui/controls/within';

/** Something that the ring puts on a board. */
interface BoardItem extends RingItem {
  /** How it is undone. */
  readonly what: string;
  /** @param column where it was asked for. */
  readonly place: (board: Board, column: number) => Result<Board>;
}

const DEVICES: readonly (readonly [BoardDevice['kind'], name: string, says: string])[] = [
  ['switch', 'Switch', 'A switch with its resistor to minus.'],
  ['lamp', 'Lamp', 'A lamp with its resistor.'],
  ['button', 'Button', 'A push button with its resistor to minus.'],
  ['clock', 'Clock', 'A clock source.'],
  ['segments', 'Display', 'A seven-segment display.'],
];

/** In narrower pictures the number stands, as no name is beside it. */
const WIDE = 40;

/** Packages that were placed last and stand around the hub, at most. */
const RECENT = 5;

/** What stands in the picture of a package: its gates, or nothing where its name says more. */
const gatesOf = ({ type: { gate } }: LogicPackage): string =>
  gate ? `${gate.kind.toUpperCase()}${gate.inputs > 2 ? ` ${gate.inputs}` : ''}` : '';

function itemOf(one: LogicPackage): BoardItem {
  const {
    name,
    type: { number, says },
  } = one;
  return {
    name,
    says,
    what: `place ${name}`,
    place: (board, column) => addPackage(board, name, column),
    picture: (width, height) => (
      <svg width={width} height={height} viewBox="0 0 44 28" aria-hidden="true">
        {[4, 20].map((y) =>
          Array.from({ length: 7 }, (_, i) => (
            <rect key={`${y} ${i}`} x={5 + i * 5} y={y} width={3} height={5} fill="var(--ink)" />
          )),
        )}
        <rect x={2} y={8} width={40} height={13} rx={2} fill="var(--raised)" stroke="var(--ink)" />
        <text
          x={22}
          y={18}
          textAnchor="middle"
          fontSize={width < WIDE ? 11 : 9}
          fontWeight={600}
          fill="var(--ink)"
        >
          {width < WIDE ? number : gatesOf(one)}
        </text>
      </svg>
    ),
  };
}

/** What is drawn for a thing beside the board, in a picture of 44 by 28. */
const ROUND = <circle cx={22} cy={14} r={10} fill="var(--raised)" stroke="var(--ink)" strokeWidth={2} />;
const line = (d: string, width = 2) => (
  <path d={d} fill="none" stroke="var(--ink)" strokeWidth={width} strokeLinecap="round" />
);
const SHAPES: Readonly<Record<BoardDevice['kind'], ReactNode>> = {
  switch: (
    <>
      {ROUND}
      {line('M22 14L15 8', 3)}
    </>
  ),
  lamp: ROUND,
  button: (
    <>
      {ROUND}
      <circle cx={22} cy={14} r={5} fill="var(--ink)" />
    </>
  ),
  clock: (
    <>
      {ROUND}
      {line('M16 17H19V11H24V17H28')}
    </>
  ),
  segments: line('M17 6H27M29 8V13M29 15V20M17 22H27M15 15V20M15 8V13M17 14H27'),
};

const deviceItem = ([kind, name, says]: (typeof DEVICES)[number]): BoardItem => ({
  name,
  says,
  what: `place a ${name.toLowerCase()}`,
  place: (board) => done(addDevice(board, kind, '')),
  picture: (width, height) => (
    <svg width={width} height={height} viewBox="0 0 44 28" aria-hidden="true">
      {SHAPES[kind]}
    </svg>
  ),
});

/** The ring of a board: the packages of its family by what they do, and what stands beside it. */
function groupsOf(family: LogicFamily): RingGroup<BoardItem>[] {
  const packages = PACKAGE_GROUPS.map(({ name, packages: all }) => ({
    name,
    items: all.filter((one) => one.family === family).map(itemOf),
  }));
  return [
    ...packages.filter(({ items }) => items.length > 0),
    { name: 'Beside', items: DEVICES.map(deviceItem) },
  ];
}

/** What was placed on the board last. */
const recentOn = (board: Board): BoardItem[] =>
  [...new Set(board.packages.map(({ type }) => type).reverse())]
    .slice(0, RECENT)
    .flatMap((type) => findPackage(type) ?? [])
    .map(itemOf);

interface Open {
  readonly at: Point;
  readonly flick: Flick | null;
  readonly column: number;
}

/** How the board hands a press to the ring. */
export interface RingHands {
  /** Opens it; with the right button it goes on under the hand that holds it. */
  readonly open: (event: MouseEvent, column: number, isHeld: boolean) => void;
  readonly move: (event: PointerEvent) => void;
  readonly release: () => void;
}

interface Wanted {
  readonly board: Board;
  /** The family of a board without packages. */
  readonly family: LogicFamily;
  readonly onPlace: (made: Result<Board>, what: string) => void;
  readonly onType: (letter: string) => void;
  /** Where keys go when it is closed. */
  readonly onClosed: () => void;
}

/** The ring over a board: how it is opened, and the ring itself while it is. */
export function useBenchRing({ board, family, onPlace, onType, onClosed }: Wanted): {
  readonly hands: RingHands;
  readonly ring: ReactNode;
  readonly over: React.RefObject<HTMLDivElement | null>;
} {
  const over = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState<Open | null>(null);
  const held = useRef<Flick | null>(null);
  const [first] = board.packages;
  const own = first && typeOf(first) ? findPackage(first.type)!.family : family;
  const groups = useMemo(() => groupsOf(own), [own]);
  const pixelOf = ({ clientX, clientY }: { clientX: number; clientY: number }): Point => {
    const box = over.current!.getBoundingClientRect();
    return { x: clientX - box.left, y: clientY - box.top };
  };
  const close = () => {
    held.current = null;
    setOpen(null);
    onClosed();
  };
  const hands: RingHands = {
    open(event, column, isHeld) {
      // A finger that rests may ask twice.
      if (open) return;
      held.current = isHeld ? new Flick() : null;
      setOpen({ at: pixelOf(event), flick: held.current, column });
    },
    move: (event) => held.current?.move(pixelOf(event), event.timeStamp),
    release() {
      held.current?.release();
      held.current = null;
    },
  };
  const box = over.current;
  const ring = open && box && (
    <RingMenu
      x={within(open.at.x, OUTER + 4, box.clientWidth - OUTER - 4)}
      y={within(open.at.y, OUTER + 4, box.clientHeight - OUTER - 26)}
      press={open.at}
      flick={open.flick}
      groups={groups}
      recent={recentOn(board)}
      idle={() => 'press a package to place it'}
      onChoose={({ what, place }) => {
        close();
        onPlace(place(board, open.column), what);
      }}
      onClose={close}
      onType={(letter) => {
        close();
        onType(letter);
      }}
    />
  );
  return { hands, ring, over };
}
