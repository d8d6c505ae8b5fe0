import { type RefObject, useEffect, useMemo, useRef } from 'react';
import type { Session } from '@/session/session';
import { NAMES, type Span, toTime, toX } from './diagram';

/** Clock cycles that are shown at first. */
const CYCLES_SHOWN = 12;
/** Most and fewest ps a pixel. */
const FARTHEST = 1e18;
const CLOSEST = 0.5;
/** Where the present stands in the window while the diagram follows the run, as a share of its width. */
const LEAD = 0.94;
const NARROWEST = 50;

/** Which stretch of time the diagram shows, and how it moves. */
export interface TimeWindow {
  readonly span: RefObject<Span | null>;
  /**
   * The span to paint, moved so that it contains the newest change or the moment.
   * @param width pixels of the diagram.
   */
  toPaint(width: number): Span;
  /** No longer follows the run. */
  hold(): void;
  /** Shows another stretch, and holds it. */
  moveTo(from: number): void;
  zoomAt(factor: number, time: number): void;
  /** Shows everything that has happened. @param width pixels of the canvas. */
  showAll(width: number): void;
}

/** A stretch of time with a little air behind it. @param width pixels of the diagram. */
const whole = (from: number, to: number, width: number): Span => ({
  from,
  perPixel: Math.max(CLOSEST, ((to - from) * 1.04) / width),
});

/** Pixels of the diagram beside the names of its lanes. */
export const diagramWidth = (canvas: number) => Math.max(NARROWEST, canvas - NAMES);

/**
 * The window of the diagram. It follows the run until it is moved by hand, and begins again where the clock has another
 * period.
 * @param period of the quickest clock, in ps.
 * @param repaint asks for the canvas to be painted; it is read when it is needed.
 */
export function useTimeWindow(
  session: Session,
  period: number,
  isPlaying: boolean,
  repaint: RefObject<() => void>,
): TimeWindow {
  const span = useRef<Span | null>(null);
  const follows = useRef(true);
  const lastMoment = useRef(0);
  const latest = useRef({ period, isPlaying });
  latest.current = { period, isPlaying };

  // biome-ignore lint/correctness/useExhaustiveDependencies: a clock of another period wants another scale
  useEffect(() => {
    span.current = null;
    follows.current = true;
    repaint.current();
  }, [period]);
  useEffect(() => {
    if (isPlaying) follows.current = true;
  }, [isPlaying]);
  /** The end of a run that was asked for and is to be shown whole, until it is painted. */
  const asked = useRef<number | null>(null);
  useEffect(
    () =>
      session.store.subscribe(({ goal }, was) => {
        if (goal !== was.goal && goal?.is === 'time' && !goal.isStep) asked.current = goal.time;
      }),
    [session],
  );

  return useMemo(
    () => ({
      span,
      toPaint: (canvas) => {
        const width = diagramWidth(canvas);
        span.current ??= { from: 0, perPixel: (CYCLES_SHOWN * latest.current.period) / width };
        if (asked.current !== null) {
          span.current = whole(session.trace.begins, asked.current, width);
          asked.current = null;
        }
        const { now, cursor } = session.state;
        const moment = cursor ?? now;
        let is = span.current;
        const seen = width * is.perPixel;
        if (follows.current && latest.current.isPlaying && now > is.from + LEAD * seen)
          is = { ...is, from: now - LEAD * seen };
        if (follows.current && now < is.from) is = { ...is, from: Math.max(0, now - 0.1 * seen) };
        const isOut = moment < is.from || moment > is.from + seen;
        if (moment !== lastMoment.current && isOut) is = { ...is, from: Math.max(0, moment - 0.5 * seen) };
        lastMoment.current = moment;
        span.current = is;
        return is;
      },
      hold: () => {
        follows.current = false;
      },
      moveTo: (from) => {
        if (!span.current) return;
        follows.current = false;
        span.current = { ...span.current, from: Math.max(0, from) };
        repaint.current();
      },
      zoomAt: (factor, time) => {
        const now = span.current;
        if (!now) return;
        const perPixel = Math.min(FARTHEST, Math.max(CLOSEST, now.perPixel * factor));
        span.current = { perPixel, from: Math.max(0, time - (toX(now, time) - NAMES) * perPixel) };
        repaint.current();
      },
      showAll: (canvas) => {
        const { begins } = session.trace;
        const end = Math.max(session.state.now, begins + latest.current.period);
        span.current = whole(begins, end, diagramWidth(canvas));
        follows.current = false;
        repaint.current();
      },
    }),
    [session, repaint],
  );
}

/** The wheel moves the window sideways and zooms to the pointer; without Ctrl or Shift it scrolls lanes that do not fit. */
export function useTimeWheel(canvas: RefObject<HTMLElement | null>, window: TimeWindow): void {
  useEffect(() => {
    const element = canvas.current!;
    const around = element.parentElement!;
    const onWheel = (event: WheelEvent) => {
      const isSideways = Math.abs(event.deltaX) > Math.abs(event.deltaY);
      const isScroll = !event.ctrlKey && !event.shiftKey && around.scrollHeight > around.clientHeight;
      if (isScroll && !isSideways) return;
      event.preventDefault();
      const now = window.span.current;
      if (!now) return;
      if (isSideways) window.moveTo(now.from + event.deltaX * now.perPixel);
      else {
        const x = event.clientX - element.getBoundingClientRect().left;
        const at = toTime(now, Math.max(NAMES, x));
        window.hold();
        window.zoomAt(Math.exp(event.deltaY / 500), at);
      }
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [canvas, window]);
}
