'use client';

import { useCallback, useEffect, useRef } from 'react';
import { timeText } from '@/core/values/time';
import { hasClock, shortestPeriod } from '@/session/moment';
import { usePainter } from '@/ui/controls/usePainter';
import { FONTS } from '@/ui/drawing/palette';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { diagramHeight, type Lane, NAMES, paintDiagram, RULER, type Span, toTime, toX } from './waveform';

const CYCLES_SHOWN = 12;
const FALLBACK_PERIOD = 1e12;

/**
 * The timing diagram: a lane for each input, clock and output. It follows the run until it is dragged; dragging
 * the cursor shows all faces as they were then.
 */
export function TimeFace() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const playing = useSessionState((s) => s.playing);
  const span = useRef<Span | null>(null);
  const follows = useRef(true);
  const lastMoment = useRef(0);
  const drag = useRef<{ cursor: boolean; x: number; from: number } | null>(null);
  const count = netlist.inputColumns.length + netlist.outputColumns.length;
  const clocked = hasClock(netlist);
  // While time runs, a reader that heard every frame would hear nothing else.
  const resting = useSessionState((s) => (s.playing ? null : (s.cursor ?? s.now)));
  const reached = useSessionState((s) => (s.playing ? null : s.now));

  const period = shortestPeriod(netlist) ?? FALLBACK_PERIOD;
  const momentNow = useCallback(() => session.state.cursor ?? session.state.now, [session]);

  const { canvas, repaint } = usePainter(
    (g, pixels, palette) => {
      const width = Math.max(50, pixels.width - NAMES);
      span.current ??= { from: 0, perPixel: (CYCLES_SHOWN * period) / width };
      const { now } = session.state;
      const right = span.current.from + width * span.current.perPixel;
      if (follows.current && now > right - 0.06 * width * span.current.perPixel)
        span.current = { ...span.current, from: now - 0.94 * width * span.current.perPixel };
      if (follows.current && now < span.current.from)
        span.current = { ...span.current, from: Math.max(0, now - period) };
      const moment = momentNow();
      const seen = width * span.current.perPixel;
      const out = moment < span.current.from || moment > span.current.from + seen;
      if (moment !== lastMoment.current && out)
        span.current = { ...span.current, from: Math.max(0, moment - 0.1 * seen) };
      lastMoment.current = moment;
      const terminals = [...session.state.netlist.inputColumns, ...session.state.netlist.outputColumns];
      const { trace } = session;
      const from = Math.max(trace.begins, span.current.from);
      const to = Math.min(now, span.current.from + width * span.current.perPixel);
      const changes = trace.window(
        terminals.map((t) => t.nets[0]!),
        from,
        to,
      );
      const lanes: Lane[] = terminals.map((t, i) => ({
        name: t.name,
        changes: changes[i]!,
      }));
      paintDiagram(g, pixels, { lanes, span: span.current, now: to, moment, timeText }, palette, FONTS.text);
    },
    useCallback(
      ({ clientWidth, clientHeight }: HTMLElement) => ({
        width: clientWidth,
        height: Math.max(clientHeight, diagramHeight(count)),
      }),
      [count],
    ),
  );

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (is.netlist !== was.netlist || is.values !== was.values) repaint();
      }),
    [session, repaint],
  );

  // A clock of another period wants another scale.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only the period counts
  useEffect(() => {
    span.current = null;
    follows.current = true;
    repaint();
  }, [period]);

  useEffect(() => {
    if (playing) follows.current = true;
  }, [playing]);

  useEffect(() => {
    const element = canvas.current!;
    const around = element.parentElement!;
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.shiftKey && around.scrollHeight > around.clientHeight) return;
      event.preventDefault();
      if (!span.current) return;
      const x = event.clientX - element.getBoundingClientRect().left;
      const at = toTime(span.current, x);
      const perPixel = Math.min(1e12, Math.max(0.5, span.current.perPixel * Math.exp(event.deltaY / 500)));
      span.current = { perPixel, from: Math.max(0, at - (x - NAMES) * perPixel) };
      follows.current = false;
      repaint();
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [canvas, repaint]);

  const zoom = (factor: number) => {
    const now = span.current;
    if (!now) return;
    const moment = momentNow();
    const perPixel = Math.min(1e12, Math.max(0.5, now.perPixel * factor));
    span.current = { perPixel, from: Math.max(0, moment - (toX(now, moment) - NAMES) * perPixel) };
    repaint();
  };

  const pixel = (event: React.PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  return (
    <section className="pane" aria-label="Time">
      <header className="pane-head">
        <h2 className="font-semibold">Time</h2>
        <span className="text-quiet">
          {clocked ? 'drag the round handle back to see what was' : 'without a clock, time stands still'}
        </span>
        <span className="ml-auto flex items-center">
          <button
            type="button"
            className="icon-button size-7"
            onClick={() => zoom(1 / 1.5)}
            aria-label="Shorter stretch of time"
            title="Closer"
          >
            +
          </button>
          <button
            type="button"
            className="icon-button size-7"
            onClick={() => zoom(1.5)}
            aria-label="Longer stretch of time"
            title="Farther"
          >
            −
          </button>
        </span>
      </header>
      <div className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        {count === 0 && (
          <p className="absolute z-10 p-5 text-quiet">No signals yet. Place a clock, a switch or a lamp.</p>
        )}
        <canvas
          ref={canvas}
          tabIndex={0}
          role="slider"
          aria-label="Moment on the timing diagram"
          aria-valuemin={0}
          aria-valuemax={reached ?? 0}
          aria-valuenow={resting ?? 0}
          aria-valuetext={resting === null ? 'running' : timeText(resting)}
          className="block w-full touch-none outline-offset-[-2px]"
          style={{ cursor: 'ew-resize' }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowLeft') session.stepHalfBack();
            else if (event.key === 'ArrowRight') session.stepHalf();
            else if (event.key === 'Home') session.goToTime(0);
            else if (event.key === 'End') session.goToTime(session.state.now);
            else return;
            event.preventDefault();
          }}
          onPointerDown={(event) => {
            if (!span.current) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            const { x, y } = pixel(event);
            const nearCursor = Math.abs(x - toX(span.current, momentNow())) < 12;
            const cursor = y < RULER || nearCursor || event.button === 0;
            drag.current = {
              cursor: cursor && !event.shiftKey && event.button === 0,
              x,
              from: span.current.from,
            };
            if (drag.current.cursor) session.goToTime(Math.max(0, toTime(span.current, x)));
          }}
          onPointerMove={(event) => {
            if (!drag.current || !span.current) return;
            const { x } = pixel(event);
            if (drag.current.cursor) session.goToTime(Math.max(0, toTime(span.current, Math.max(NAMES, x))));
            else {
              follows.current = false;
              span.current = {
                ...span.current,
                from: Math.max(0, drag.current.from - (x - drag.current.x) * span.current.perPixel),
              };
              repaint();
            }
          }}
          onPointerUp={() => {
            drag.current = null;
          }}
        />
      </div>
    </section>
  );
}
