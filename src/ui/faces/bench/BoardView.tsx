'use client';

import { type KeyboardEvent, type MouseEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import type { BoardRun } from '@/core/bench/board-run';
import { colourFor } from '@/core/bench/edit-board';
import { type Hole, pinAt, type Strip, stripOf } from '@/core/bench/holes';
import type { Board, BoardColour } from '@/core/circuit/board';
import { Fingers } from '@/ui/controls/fingers';
import type { RingHands } from './BenchRing';
import { BoardBase } from './BoardBase';
import { Cables } from './Cables';
import type { Chosen } from './chosen';
import { Devices } from './Devices';
import {
  boardWidth,
  columnX,
  devicePlaces,
  distanceToWire,
  drawingHeight,
  holeAt,
  holeBeside,
  holePoint,
  PITCH,
  type Point,
  packageBox,
  rowY,
  wirePath,
} from './layout';
import { Packages } from './Packages';

export interface BoardActions {
  readonly addWire: (from: Hole, to: Hole) => void;
  readonly moveEnd: (id: string, end: 'from' | 'to', hole: Hole) => void;
  readonly movePackage: (ref: string, column: number) => void;
  readonly remove: (chosen: NonNullable<Chosen>) => void;
  readonly flip: (ref: string) => void;
  readonly choose: (chosen: Chosen) => void;
  readonly point: (hole: Hole | null) => void;
  /** Letters that are typed go into the line. */
  readonly type: (letter: string) => void;
}

interface Props {
  readonly board: Board;
  readonly run: BoardRun;
  readonly chosen: Chosen;
  readonly actions: BoardActions;
  readonly readOnly: boolean;
  /** The wire that comes next, as a dotted bow, and the half column into which it goes. */
  readonly next: { readonly from: Hole; readonly to: Hole } | null;
  readonly wrong: ReadonlySet<string>;
  readonly scale: number;
  readonly isLit: (ref: string, pin: number) => boolean;
  /** Wires that are lit, because what they join is pointed at. */
  readonly lit: ReadonlySet<string>;
  readonly ring: RingHands;
}

/** What the pointer is doing. */
type Gesture =
  | { readonly is: 'wire'; readonly from: Hole; readonly at: Point; readonly isClick: boolean }
  | { readonly is: 'end'; readonly wire: string; readonly end: 'from' | 'to'; readonly at: Point }
  | { readonly is: 'package'; readonly ref: string; readonly grabbed: number; readonly column: number };

/** The board, drawn and handled. */
export function BoardView({
  board,
  run,
  chosen,
  actions,
  readOnly,
  next,
  wrong,
  scale,
  isLit,
  lit,
  ring,
}: Props) {
  const root = useRef<SVGSVGElement>(null);
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [begun, setBegun] = useState<Hole | null>(null);
  const [cursor, setCursor] = useState<Hole | null>(null);
  const [pointed, setPointed] = useState<Hole | null>(null);
  const devices = useMemo(() => devicePlaces(board), [board]);
  const [fingers] = useState(
    () => new Fingers(({ x, y }) => root.current?.parentElement?.scrollBy({ left: -x, top: -y })),
  );
  const [width, height] = [boardWidth(board), drawingHeight(board)];
  const shown = useMemo(() => {
    if (gesture?.is !== 'package') return board;
    const packages = board.packages.map((one) =>
      one.ref === gesture.ref ? { ...one, column: gesture.column } : one,
    );
    return { ...board, packages };
  }, [board, gesture]);
  const pointOf = (event: MouseEvent): Point => {
    const box = root.current!.getBoundingClientRect();
    return {
      x: ((event.clientX - box.left) / box.width) * width,
      y: ((event.clientY - box.top) / box.height) * height,
    };
  };
  const touchOf = ({ pointerId, clientX, clientY }: PointerEvent) => ({
    id: pointerId,
    x: clientX,
    y: clientY,
  });
  const at = (hole: Hole) => holePoint(hole, devices, board)!;
  const wireAt = (point: Point) => {
    let best: string | null = null;
    let least = 7;
    for (const wire of board.wires) {
      const far = distanceToWire(point, at(wire.from), at(wire.to));
      if (far < least) [best, least] = [wire.id, far];
    }
    return best;
  };
  const packageAt = ({ x, y }: Point) =>
    board.packages.find((one) => {
      const box = packageBox(one);
      return x >= box.x && x <= box.x + box.width && y >= box.y && y <= box.y + box.height;
    });
  const deviceAt = ({ x, y }: Point) =>
    [...devices].find(([, place]) => Math.hypot(place.x - x, place.y - y) <= 18)?.[0];

  const columnAt = ({ x }: Point) => Math.max(1, Math.round((x - columnX(1)) / PITCH) + 1);
  /** Chooses the package, wire or thing beside the board at a place. @returns whether there is one. */
  const chooseAt = (point: Point): boolean => {
    const [one, device, wire] = [packageAt(point), deviceAt(point), wireAt(point)];
    const found: Chosen =
      one !== undefined
        ? { is: 'package', id: one.ref }
        : device !== undefined
          ? { is: 'device', id: device }
          : wire !== null
            ? { is: 'wire', id: wire }
            : null;
    if (found) actions.choose(found);
    return found !== null;
  };

  const finish = (from: Hole, to: Hole) => {
    setBegun(null);
    if (from !== to) actions.addWire(from, to);
  };
  const onDown = (event: PointerEvent<SVGSVGElement>) => {
    const point = pointOf(event);
    root.current!.focus({ preventScroll: true });
    if (event.pointerType === 'touch') {
      const isSecond = fingers.down(touchOf(event), () => {
        setGesture(null);
        setBegun(null);
        if (!readOnly && !chooseAt(point)) ring.open(event, columnAt(point), true);
      });
      if (isSecond) {
        setGesture(null);
        setBegun(null);
        return;
      }
    }
    if (event.button === 2 && !readOnly && !chooseAt(point)) {
      capture(event);
      ring.open(event, columnAt(point), true);
    }
    if (event.button !== 0) return;
    const hole = holeAt(point, board, devices);
    const device = hole ? undefined : deviceAt(point);
    if (device) return actions.flip(device);
    const free = hole && !readOnly;
    const ofChosen = chosen?.is === 'wire' ? board.wires.find(({ id }) => id === chosen.id) : undefined;
    if (free && ofChosen && (hole === ofChosen.from || hole === ofChosen.to)) {
      capture(event);
      setGesture({ is: 'end', wire: ofChosen.id, end: hole === ofChosen.from ? 'from' : 'to', at: point });
      return;
    }
    const taken = hole ? board.wires.find(({ from, to }) => from === hole || to === hole) : undefined;
    if (begun && free) return finish(begun, hole);
    if (hole && taken && !hole.startsWith('X')) return actions.choose({ is: 'wire', id: taken.id });
    if (free) {
      capture(event);
      setGesture({ is: 'wire', from: hole, at: point, isClick: true });
      actions.choose(null);
      return;
    }
    const one = packageAt(point);
    if (one) {
      actions.choose({ is: 'package', id: one.ref });
      if (readOnly) return;
      capture(event);
      setGesture({ is: 'package', ref: one.ref, grabbed: point.x - columnX(one.column), column: one.column });
      return;
    }
    const wire = wireAt(point);
    actions.choose(wire ? { is: 'wire', id: wire } : null);
    setBegun(null);
  };
  const onMove = (event: PointerEvent<SVGSVGElement>) => {
    if (event.pointerType === 'touch' && fingers.move(touchOf(event))) return;
    ring.move(event);
    const point = pointOf(event);
    const hole = holeAt(point, board, devices);
    if (hole !== pointed) {
      setPointed(hole);
      actions.point(hole);
    }
    if (!gesture) return;
    if (gesture.is === 'package') {
      const column = columnAt({ x: point.x - gesture.grabbed, y: point.y });
      if (column !== gesture.column) setGesture({ ...gesture, column });
    } else if (gesture.is === 'wire')
      setGesture({ ...gesture, at: point, isClick: gesture.isClick && hole === gesture.from });
    else setGesture({ ...gesture, at: point });
  };
  const onUp = (event: PointerEvent<SVGSVGElement>) => {
    const hasMovedAll = event.pointerType === 'touch' && fingers.up(event.pointerId);
    ring.release();
    if (hasMovedAll) return;
    if (!gesture) return;
    const hole = holeAt(pointOf(event), board, devices, PITCH * 0.7);
    setGesture(null);
    if (gesture.is === 'package') {
      const was = board.packages.find(({ ref }) => ref === gesture.ref);
      if (was && was.column !== gesture.column) actions.movePackage(gesture.ref, gesture.column);
    } else if (gesture.is === 'end') {
      if (hole) actions.moveEnd(gesture.wire, gesture.end, hole);
    } else if (gesture.isClick) setBegun(gesture.from);
    else if (hole) finish(gesture.from, hole);
  };
  const onKey = (event: KeyboardEvent<SVGSVGElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const { key } = event;
    const taken = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    const held =
      chosen?.is === 'package' && !readOnly ? board.packages.find(({ ref }) => ref === chosen.id) : undefined;
    if (held && (key === 'ArrowLeft' || key === 'ArrowRight')) {
      taken();
      actions.movePackage(held.ref, held.column + (key === 'ArrowLeft' ? -1 : 1));
    } else if (key.startsWith('Arrow')) {
      taken();
      const to = holeBeside(cursor ?? 'a1', key, board);
      setCursor(to);
      actions.point(to);
    } else if ((key === 'Enter' || key === ' ') && cursor) {
      taken();
      const device = /^(X\d+)\./.exec(cursor)?.[1];
      if (key === ' ' && device) actions.flip(device);
      else if (readOnly) return;
      else if (begun) finish(begun, cursor);
      else {
        const wire = board.wires.find(({ from, to }) => from === cursor || to === cursor);
        const leg = /^[ef]/.test(cursor) ? pinAt(board, stripOf(cursor)!) : undefined;
        if (wire && !device) actions.choose({ is: 'wire', id: wire.id });
        else if (leg) actions.choose({ is: 'package', id: leg.one.ref });
        else setBegun(cursor);
      }
    } else if (key === 'Escape' && (begun || chosen || gesture)) {
      taken();
      setBegun(null);
      setGesture(null);
      actions.choose(null);
    } else if ((key === 'Delete' || key === 'Backspace') && chosen && !readOnly) {
      taken();
      actions.remove(chosen);
    } else if (/^[a-z0-9+]$/i.test(key) && !readOnly) {
      taken();
      actions.type(key);
    }
  };
  const capture = (event: PointerEvent<SVGSVGElement>) => root.current!.setPointerCapture(event.pointerId);
  const preview = previewOf();
  const strip = pointed ? stripOf(pointed) : begun ? stripOf(begun) : null;

  /** The wire that is being drawn, or whose end is being moved. */
  function previewOf(): { readonly path: string; readonly colour: BoardColour } | null {
    const to = (point: Point): Point => {
      const hole = holeAt(point, board, devices, PITCH * 0.7);
      return hole ? at(hole) : point;
    };
    if (gesture?.is === 'wire')
      return {
        path: wirePath(at(gesture.from), to(gesture.at)),
        colour: colourFor(board, stripOf(gesture.from)),
      };
    if (gesture?.is === 'end') {
      const wire = board.wires.find(({ id }) => id === gesture.wire);
      if (!wire) return null;
      const fixed = at(gesture.end === 'from' ? wire.to : wire.from);
      return { path: wirePath(fixed, to(gesture.at)), colour: wire.colour };
    }
    const target = cursor ?? pointed;
    if (begun && target && target !== begun)
      return {
        path: wirePath(at(begun), at(target)),
        colour: colourFor(board, stripOf(begun), stripOf(target)),
      };
    return null;
  }

  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no set of fields.
    <svg
      ref={root}
      role="group"
      aria-label="Wiring board"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: keys walk from hole to hole.
      tabIndex={0}
      width={width * scale}
      height={height * scale}
      viewBox={`0 0 ${width} ${height}`}
      className="block touch-none outline-none select-none focus-visible:outline-2"
      onPointerDown={onDown}
      // The ring keeps the focus that it takes.
      onMouseDown={(event) => event.button === 2 && event.preventDefault()}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onPointerLeave={() => {
        setPointed(null);
        actions.point(null);
      }}
      onKeyDown={onKey}
      onContextMenu={(event) => {
        event.preventDefault();
        // The key for menus: a press of the right button, or a finger that rests, has opened it already.
        if (event.button === 2 || readOnly || gesture) return;
        ring.open(event, cursor ? columnAt(at(cursor)) : columnAt(pointOf(event)), false);
      }}
    >
      <BoardBase board={board} />
      {strip && <NetHighlight board={board} run={run} strip={strip} />}
      <Devices board={board} places={devices} run={run} chosen={chosen} />
      <Cables
        board={board}
        devices={devices}
        run={run}
        chosen={chosen}
        wrong={wrong}
        lit={lit}
        hidden={gesture?.is === 'end' ? gesture.wire : null}
      />
      <Packages board={shown} chosen={chosen} run={run} isLit={isLit} />
      {next && <Next from={at(next.from)} to={at(next.to)} />}
      {preview && (
        <path
          d={preview.path}
          fill="none"
          stroke={`var(--cable-${preview.colour})`}
          strokeWidth={6}
          strokeLinecap="round"
          opacity={0.75}
        />
      )}
      {begun && (
        <circle
          {...at(begun)}
          cx={at(begun).x}
          cy={at(begun).y}
          r={9}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={2.5}
        />
      )}
      {cursor && (
        <rect
          x={at(cursor).x - 9}
          y={at(cursor).y - 9}
          width={18}
          height={18}
          rx={4}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={2}
        />
      )}
    </svg>
  );
}

/** Every half column of a net, faintly lit while one of its holes is pointed at. */
function NetHighlight({ board, run, strip }: { board: Board; run: BoardRun; strip: Strip }) {
  const { nets } = run.electrical;
  const net = nets.netOf(strip);
  const strips = new Set([strip, ...board.wires.flatMap(({ from, to }) => [stripOf(from)!, stripOf(to)!])]);
  return (
    <>
      {[...strips]
        .filter((one) => nets.netOf(one) === net)
        .flatMap((one) => {
          const [, column, half] = /^(\d+)([lu])$/.exec(one) ?? [];
          if (!column) return [];
          const top = rowY(half === 'l' ? 'e' : 'j');
          return [
            <rect
              key={one}
              x={columnX(Number(column)) - 9}
              y={top - 9}
              width={18}
              height={4 * PITCH + 18}
              rx={9}
              fill="var(--accent-soft)"
              stroke="var(--accent)"
              strokeWidth={1}
            />,
          ];
        })}
    </>
  );
}

/** The next wire of the guide: a dotted bow between two rings. */
function Next({ from, to }: { from: Point; to: Point }) {
  return (
    <g data-next="" pointerEvents="none">
      <path
        d={wirePath(from, to)}
        fill="none"
        stroke="var(--accent)"
        strokeWidth={4}
        strokeDasharray="1 9"
        strokeLinecap="round"
      />
      {[from, to].map(({ x, y }) => (
        <circle key={`${x} ${y}`} cx={x} cy={y} r={10} fill="none" stroke="var(--accent)" strokeWidth={2.5} />
      ))}
    </g>
  );
}
