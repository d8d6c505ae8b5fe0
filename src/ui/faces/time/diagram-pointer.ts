import { type MouseEvent, type PointerEvent, type RefObject, useRef } from 'react';
import type { Session } from '@/session/session';
import type { Size } from '@/ui/controls/usePainter';
import { type Diagram, type LaneShape, laneTops, NAMES, RULER, rulerStep, toTime } from './diagram';
import type { LaneView } from './lanes';
import type { TimeWindow } from './time-window';

/** Pixels within which the moment jumps to an edge. */
const SNAP = 6;
/** Pixels that a drag goes before it draws a level, or moves a lane. */
const DRAWS = 4;
const MOVES = 8;
/** Steps of the ruler's marks to which a drawn level keeps. */
const GRID = 10;

/** How a lane is chosen: alone, beside those chosen before, or with all from the one that was chosen last. */
export type Choosing = 'alone' | 'add' | 'to';

type Drag = { readonly x: number; readonly y: number } & (
  | { readonly is: 'moment' }
  | { readonly is: 'pan'; readonly from: number }
  | { readonly is: 'lane'; readonly lane: string; readonly isMoved: boolean }
  | { readonly is: 'draw'; readonly lane: number; readonly isMoved: boolean }
);

interface Hands {
  readonly session: Session;
  readonly lanes: readonly LaneView[];
  readonly shapes: readonly LaneShape[];
  readonly window: TimeWindow;
  readonly canvas: RefObject<HTMLElement | null>;
  readonly size: RefObject<Size>;
  /** The stretch that is being drawn on a lane. */
  readonly band: RefObject<Diagram['band']>;
  readonly repaint: () => void;
  /** Whether a drag on an input draws its level. */
  readonly canDraw: boolean;
  readonly canMove: boolean;
  choose(lane: string, how: Choosing): void;
  /** The moment was moved by hand. */
  onMoment(): void;
  /** A stretch was drawn on an input's lane. @param x the pixel at which it begins. */
  onDrawn(lane: LaneView, from: number, to: number, x: number): void;
  onMoved(lane: string, to: number): void;
  /** A lane's menu is asked for. */
  onMenu(lane: string): void;
}

/**
 * The pointer on the diagram: it moves the moment and the window, chooses and moves lanes, and draws levels.
 */
export function useDiagramPointer(hands: Hands) {
  const { session, lanes, shapes, window, canvas, size, band } = hands;
  const drag = useRef<Drag | null>(null);
  const laneAt = (y: number): number => {
    const tops = laneTops(shapes, size.current.height);
    return tops.findIndex((top, i) => y >= top && y < (tops[i + 1] ?? top));
  };
  const timeAt = (x: number) => Math.max(0, toTime(window.span.current!, Math.max(NAMES, x)));
  /** The time at a pixel; that of the nearest edge of any lane where one is near. */
  const snapped = (x: number): number => {
    const time = timeAt(x);
    const reach = SNAP * window.span.current!.perPixel;
    const nets = new Set(lanes.flatMap((l) => l.nets));
    const next = session.trace.changeAfter(nets, time - reach);
    if (next === null || next > time + reach) return time;
    const last = session.trace.changeBefore(nets, time + reach);
    return last !== null && Math.abs(last - time) < Math.abs(next - time) ? last : next;
  };
  /** The time at a pixel, on the grid to which drawn levels keep. */
  const onGrid = (x: number): number => {
    const step = rulerStep(72 * window.span.current!.perPixel) / GRID;
    return Math.round(timeAt(x) / step) * step;
  };
  const pixel = (event: MouseEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  /** The drag that a press begins. */
  const begun = (event: PointerEvent): Drag | null => {
    const at = pixel(event);
    const lane = lanes[laneAt(at.y)];
    if (at.x < NAMES - 7 && at.y > RULER) {
      if (!lane) return null;
      const how = event.shiftKey ? 'to' : event.ctrlKey || event.metaKey ? 'add' : 'alone';
      hands.choose(lane.key, how);
      return { ...at, is: 'lane', lane: lane.key, isMoved: false };
    }
    if (event.shiftKey || event.button === 1) return { ...at, is: 'pan', from: window.span.current!.from };
    if (hands.canDraw && lane?.isInput && lane.of.length === 1)
      return { ...at, is: 'draw', lane: lanes.indexOf(lane), isMoved: false };
    session.time.goToTime(snapped(at.x));
    hands.onMoment();
    return { ...at, is: 'moment' };
  };
  return {
    onContextMenu: (event: MouseEvent) => {
      event.preventDefault();
      const lane = lanes[laneAt(pixel(event).y)];
      if (lane) hands.onMenu(lane.key);
    },
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      if (!window.span.current || event.button > 1) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = begun(event);
    },
    onPointerMove: (event: PointerEvent) => {
      const now = drag.current;
      if (!now || !window.span.current) return;
      const { x, y } = pixel(event);
      switch (now.is) {
        case 'moment':
          session.time.goToTime(snapped(x));
          break;
        case 'pan':
          window.moveTo(now.from - (x - now.x) * window.span.current.perPixel);
          break;
        case 'lane':
          if (Math.abs(y - now.y) > MOVES) drag.current = { ...now, isMoved: true };
          break;
        case 'draw':
          if (!now.isMoved && Math.abs(x - now.x) < DRAWS) return;
          drag.current = { ...now, isMoved: true };
          band.current = { lane: now.lane, from: onGrid(now.x), to: onGrid(x) };
          hands.repaint();
      }
    },
    onPointerUp: (event: PointerEvent) => {
      const now = drag.current;
      drag.current = null;
      if (now?.is === 'draw') {
        const { from, to } = band.current ?? { from: 0, to: 0 };
        if (now.isMoved && band.current)
          hands.onDrawn(
            lanes[now.lane]!,
            Math.min(from, to),
            Math.max(from, to),
            Math.min(now.x, pixel(event).x),
          );
        else session.time.goToTime(snapped(now.x));
        band.current = null;
        hands.repaint();
      } else if (now?.is === 'lane' && now.isMoved && hands.canMove) {
        const { y } = pixel(event);
        const at = laneAt(y);
        hands.onMoved(now.lane, at === -1 ? (y < RULER ? 0 : lanes.length - 1) : at);
      }
    },
  };
}
