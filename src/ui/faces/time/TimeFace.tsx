'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { driversOf, type Netlist } from '@/core/netlist/netlist';
import { type Stretch, stretchesOf } from '@/core/simulate/stretches';
import type { Trace } from '@/core/simulate/trace';
import { waveformStretches } from '@/core/simulate/waveform';
import { wrongCaptures } from '@/core/timing/captures';
import { edgeAt } from '@/core/timing/cause';
import { clockEdges } from '@/core/timing/clock-edges';
import { glitchesOf } from '@/core/timing/measure';
import { timeText } from '@/core/values/time';
import { load } from '@/loading/load';
import { drawLevel, setTimeSetup } from '@/session/changes/time';
import { isTimed, shortestPeriod } from '@/session/moment';
import { stepMoment } from '@/session/step';
import { told } from '@/session/told';
import { fileName, saveFile } from '@/ui/controls/files';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { FONTS, type Palette } from '@/ui/controls/palette';
import { usePainter } from '@/ui/controls/usePainter';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { type Elsewhere, type LaneBeside, useBeside } from './beside';
import { LaneBar } from './LaneBar';
import { kept, type LaneView, lanesOf, moved } from './lanes';
import { Reading } from './Reading';
import { type Beneath, TimeBar } from './TimeBar';
import {
  type Diagram,
  diagramHeight,
  type Lane,
  type LaneShape,
  laneTops,
  NAMES,
  paintDiagram,
  RULER,
  rulerStep,
  type Span,
  toTime,
  toX,
} from './waveform';
import { type Why, whyOf } from './why-changed';

const StimulusPanel = lazyComponent('the stimulus panel', () =>
  import('./StimulusPanel').then((m) => m.StimulusPanel),
);
const Findings = lazyComponent('“Find out”', () => import('./Findings').then((m) => m.Findings));

const CYCLES_SHOWN = 12;
/** Pulses under this many ps are short ones, as long as nothing else was said. */
const USUAL_PULSE = 20_000;
/** Ps that are shown at first where nothing has a period: a few gates one after the other. */
const FALLBACK_PERIOD = 10_000;
/** Pixels within which the moment jumps to an edge. */
const SNAP = 6;
/** Most seconds and fewest ps a pixel. */
const FARTHEST = 1e13;
const CLOSEST = 0.5;

interface Drag {
  readonly is: 'moment' | 'pan' | 'lane' | 'draw';
  readonly x: number;
  readonly y: number;
  readonly from: number;
  readonly lane: string | null;
  readonly moved: boolean;
}

/** The part of the sheet that drives a net. */
function partOfNet(netlist: Netlist, net: number): string {
  return driversOf(netlist, [net])[0]?.split('/')[0] ?? '';
}

/** What was last drawn, and of what. */
interface Known {
  readonly trace: Trace;
  readonly length: number;
  readonly lanes: readonly LaneView[];
  readonly from: number;
  readonly to: number;
  readonly grain: number;
  readonly drawn: readonly (readonly Stretch[])[];
}

/** How a lane is laid out: its bits, whether it is a staircase, how high it is, and whether another run stands below. */
const shapeOf = (lane: LaneView, beside: readonly LaneBeside[]): LaneShape => ({
  width: lane.nets.length,
  stairs: lane.stairs,
  height: lane.height,
  other: beside.find((b) => b.lane === lane) ?? null,
});

/**
 * The timing diagram: lanes for inputs and outputs, in an order of one's own. It follows the run until it is moved by
 * hand; the moment shows all faces as they were then.
 */
export function TimeFace() {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time);
  const buses = useSessionState((s) => s.lesson.settings.buses);
  const delays = useSessionState((s) => s.lesson.settings.delays);
  const playing = useSessionState((s) => s.playing);
  const readOnly = useSessionState((s) => s.readOnly);
  const timed = isTimed(netlist, delays);
  const lanes = useMemo(() => lanesOf(netlist, plan, buses), [netlist, plan, buses]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [mark, setMark] = useState<number | null>(null);
  const [why, setWhy] = useState<Why | null>(null);
  const [beneath, setBeneath] = useState<Beneath>(null);
  const [shorter, setShorter] = useState<number | null>(null);
  const reached = useSessionState((s) => (s.playing ? null : s.now));
  /** What was taken wrongly, while one looks for it and the run rests. */
  const wrong = useMemo(
    () =>
      beneath === 'findings' && reached !== null && delays !== 'zero'
        ? (wrongCaptures(netlist, session.trace, clockEdges(netlist, session.trace.begins, reached).edges) ??
          [])
        : [],
    [beneath, reached, delays, netlist, session],
  );
  const [dump, setDump] = useState<Elsewhere | null>(null);
  const [inCycles, setInCycles] = useState(false);
  const { other, beside } = useBeside(lanes, dump);
  // A dump stays as long as the inputs and outputs are the nets that were found in it.
  const ends = useMemo(
    () => [...netlist.inputs, ...netlist.outputs].map((t) => `${t.part} ${t.nets}`).join(';'),
    [netlist],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: other ends make the dump one of another circuit
  useEffect(() => setDump(null), [ends]);
  const shapes = useMemo(() => lanes.map((l) => shapeOf(l, beside)), [lanes, beside]);
  const span = useRef<Span | null>(null);
  const follows = useRef(true);
  const lastMoment = useRef(0);
  const drag = useRef<Drag | null>(null);
  const known = useRef<Known | null>(null);
  const band = useRef<Diagram['band']>(null);
  /** What was painted last, for a picture of it. */
  const shownNow = useRef<Diagram | null>(null);
  const looks = useRef<Palette | null>(null);
  const lastChosen = useRef<string | null>(null);
  // While time runs, a reader that heard every frame would hear nothing else.
  const resting = useSessionState((s) => (s.playing ? null : (s.cursor ?? s.now)));
  const period = shortestPeriod(netlist) ?? FALLBACK_PERIOD;
  const momentNow = useCallback(() => session.state.cursor ?? session.state.now, [session]);

  const { canvas, size, repaint } = usePainter(
    (g, pixels, palette) => {
      const width = Math.max(50, pixels.width - NAMES);
      span.current ??= { from: 0, perPixel: (CYCLES_SHOWN * period) / width };
      const { now } = session.state;
      const moment = momentNow();
      span.current = followed(span.current, width, now, moment);
      const { trace } = session;
      const from = Math.max(trace.begins, span.current.from);
      const to = Math.min(now, span.current.from + width * span.current.perPixel);
      const drawn = drawnOf(trace, from, Math.max(from, to), span.current.perPixel);
      const painted: Lane[] = lanes.map((l, i) => ({
        width: l.nets.length,
        stairs: l.stairs,
        height: l.height,
        other: otherOf(l, span.current!, width),
        name: l.name,
        stretches: l.nets.length > 0 ? drawn[i]! : [],
        radix: l.radix,
        chosen: chosen.has(l.key),
      }));
      const { edges, first, isAll } = clockEdges(
        netlist,
        span.current.from,
        span.current.from + width * span.current.perPixel,
      );
      const flaws = flawsOf(from, to);
      const arrows = why?.arrows(lanes) ?? [];
      shownNow.current = {
        lanes: painted,
        span: span.current,
        now: to,
        moment,
        mark,
        edges: isAll ? edges : [],
        firstEdge: first,
        arrows,
        flaws,
        band: band.current,
        beside: other?.name ?? '',
        inCycles,
        timeText,
      };
      looks.current = palette;
      paintDiagram(g, pixels, shownNow.current, palette, FONTS);
    },
    useCallback(
      ({ clientWidth, clientHeight }: HTMLElement) => ({
        width: clientWidth,
        height: Math.max(clientHeight, diagramHeight(shapes)),
      }),
      [shapes],
    ),
  );

  /** What the lanes show in a window: looked at anew only where something has happened or another one is shown. */
  const drawnOf = (trace: Trace, from: number, to: number, grain: number) => {
    const is = { trace, length: trace.length, lanes, from, to, grain };
    const was = known.current;
    if (!was || Object.entries(is).some(([key, value]) => was[key as keyof typeof is] !== value))
      known.current = {
        ...is,
        drawn: stretchesOf(
          trace,
          lanes.map((l) => l.nets),
          from,
          to,
          grain,
        ),
      };
    return known.current!.drawn;
  };

  /** What stands below a lane of another run, in the window. */
  const otherOf = (lane: LaneView, { from, perPixel }: Span, width: number): Lane['other'] => {
    const found = beside.find((b) => b.lane === lane);
    if (!found || !other) return null;
    const to = Math.min(from + width * perPixel, other.until);
    return { stretches: waveformStretches(found.course, from, to, perPixel), differs: found.differs };
  };

  /** The window, moved so that what is new or the moment is in it. */
  const followed = (was: Span, width: number, now: number, moment: number): Span => {
    let is = was;
    const seen = width * is.perPixel;
    if (follows.current && playing && now > is.from + 0.94 * seen) is = { ...is, from: now - 0.94 * seen };
    if (follows.current && now < is.from) is = { ...is, from: Math.max(0, now - 0.1 * seen) };
    const isOut = moment < is.from || moment > is.from + seen;
    if (moment !== lastMoment.current && isOut) is = { ...is, from: Math.max(0, moment - 0.5 * seen) };
    lastMoment.current = moment;
    return is;
  };

  /** Pulses that are too short, and captures that came too late. */
  const flawsOf = (from: number, to: number) => {
    const laneOf = new Map(lanes.flatMap((l, i) => l.nets.map((net) => [net, i] as const)));
    /** The lane of a bit of storage itself, or of what hands it on. */
    const laneOfStore = (net: number) =>
      laneOf.get(net) ??
      [...netlist.fan.subarray(netlist.fanStart[net]!, netlist.fanStart[net + 1]!)]
        .map((g) => laneOf.get(netlist.out[g]!))
        .find((l) => l !== undefined);
    const missed = session.violations
      .filter((v) => v.time >= from && v.time <= to)
      .map((v) => ({ lane: laneOfStore(netlist.out[netlist.storage[v.store]!]!), from: v.time, to: v.time }));
    const late = wrong
      .filter((w) => w.time >= from && w.time <= to)
      .map((w) => ({ lane: laneOfStore(w.net), from: w.time, to: w.time }));
    const short =
      shorter === null
        ? []
        : glitchesOf(session.trace, [...laneOf.keys()], shorter, from, to).map((glitch) => ({
            lane: laneOf.get(glitch.net),
            from: glitch.from,
            to: glitch.to,
          }));
    return [...missed, ...late, ...short].filter(
      (f): f is { lane: number; from: number; to: number } => f.lane !== undefined,
    );
  };

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (is.netlist !== was.netlist || is.values !== was.values || is.now !== was.now) repaint();
      }),
    [session, repaint],
  );

  // What led to a change is lit in the drawing as long as it is told.
  const light = useCrossHighlight((p) => p.light);
  useEffect(() => {
    const took = new Set(wrong.map((w) => partOfNet(netlist, w.net)));
    light(why?.parts ?? (took.size > 0 ? took : null));
    return () => light(null);
  }, [why, wrong, netlist, light]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: all that is painted besides the run
  useEffect(repaint, [repaint, shapes, chosen, mark, why, shorter, wrong, inCycles]);

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
      const isScroll = !event.ctrlKey && !event.shiftKey && around.scrollHeight > around.clientHeight;
      if (isScroll && Math.abs(event.deltaX) <= Math.abs(event.deltaY)) return;
      event.preventDefault();
      if (!span.current) return;
      follows.current = false;
      if (Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        span.current = {
          ...span.current,
          from: Math.max(0, span.current.from + event.deltaX * span.current.perPixel),
        };
        repaint();
        return;
      }
      const x = event.clientX - element.getBoundingClientRect().left;
      zoomAt(Math.exp(event.deltaY / 500), toTime(span.current, Math.max(NAMES, x)));
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });

  const zoomAt = (factor: number, at: number) => {
    const now = span.current;
    if (!now) return;
    const perPixel = Math.min(FARTHEST, Math.max(CLOSEST, now.perPixel * factor));
    span.current = { perPixel, from: Math.max(0, at - (toX(now, at) - NAMES) * perPixel) };
    repaint();
  };
  /** Shows all that has happened. */
  const showAll = () => {
    const width = Math.max(50, size.current.width - NAMES);
    const from = session.trace.begins;
    const length = Math.max(period, (session.state.now - from) * 1.04);
    span.current = { from, perPixel: Math.max(CLOSEST, length / width) };
    follows.current = false;
    repaint();
  };

  const laneAt = (y: number): number => {
    const tops = laneTops(shapes, size.current.height);
    return tops.findIndex((top, i) => y >= top && y < (tops[i + 1] ?? top));
  };
  /** The time at a pixel; that of the nearest edge of any lane where one is near. */
  const snapped = (x: number): number => {
    const time = Math.max(0, toTime(span.current!, Math.max(NAMES, x)));
    const reach = SNAP * span.current!.perPixel;
    const nets = new Set(lanes.flatMap((l) => l.nets));
    const next = session.trace.changeAfter(nets, time - reach);
    if (next === null || next > time + reach) return time;
    const last = session.trace.changeBefore(nets, time + reach);
    return last !== null && Math.abs(last - time) < Math.abs(next - time) ? last : next;
  };
  /** The time at a pixel, on a tenth of the ruler's steps. */
  const onGrid = (x: number): number => {
    const step = rulerStep(72 * span.current!.perPixel) / 10;
    return Math.max(0, Math.round(toTime(span.current!, Math.max(NAMES, x)) / step) * step);
  };
  /** Turns over a stretch of an input's course. */
  const drawn = (lane: LaneView, { from, to }: { from: number; to: number }) =>
    drawLevel(session, lane.of[0]!, Math.min(from, to), Math.max(from, to));
  const pixel = (event: React.PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  /** Chooses a lane: alone, with those chosen before, or with all from the one that was chosen last. */
  const choose = (key: string, how: 'alone' | 'add' | 'to' = 'alone') => {
    const next = new Set(how === 'alone' ? [] : chosen);
    if (how === 'to') {
      const [from, to] = [
        lanes.findIndex((l) => l.key === lastChosen.current),
        lanes.findIndex((l) => l.key === key),
      ];
      for (const l of lanes.slice(Math.min(Math.max(0, from), to), Math.max(from, to) + 1)) next.add(l.key);
    } else if (how === 'alone' || !next.delete(key)) next.add(key);
    if (how !== 'to') lastChosen.current = key;
    setChosen(next);
    setWhy(null);
  };
  const arrange = (next: readonly LaneView[], hidden: readonly string[] = plan?.hidden ?? []) =>
    setTimeSetup(session, { lanes: kept(next, buses), hidden: [...hidden] }, 'arrange the lanes');
  /** Saves what is shown as a file. */
  const savePicture = async (kind: 'svg' | 'png') => {
    const name = fileName(session.state.lesson.title, kind === 'svg' ? '-time.svg' : '-time.png');
    if (kind === 'png') {
      canvas.current?.toBlob((blob) => blob && saveFile(name, blob, 'image/png'));
      return;
    }
    const g = canvas.current?.getContext('2d');
    if (!g || !shownNow.current || !looks.current) return;
    const { SvgContext } = await load('the picture writer', () => import('./svg-context'));
    const { width, height } = size.current;
    const svg = new SvgContext(width, height, g);
    paintDiagram(
      svg as unknown as CanvasRenderingContext2D,
      size.current,
      shownNow.current,
      looks.current,
      FONTS,
    );
    saveFile(name, svg.text(), 'image/svg+xml');
  };
  const picked = lanes.filter((l) => chosen.has(l.key));
  /** Why the chosen lane changed last before the moment. */
  const askWhy = () => {
    const lane = picked[0] ?? lanes.find((l) => !l.isInput && l.nets.length > 0);
    if (!lane) return;
    if (!chosen.has(lane.key)) setChosen(new Set([lane.key]));
    const moment = momentNow();
    const edges = lane.nets.map((net) => edgeAt(session.trace, net, moment)).filter((e) => e !== null);
    const last = edges.sort((a, b) => b.time - a.time)[0];
    if (!last) session.say(`${lane.name} has not changed up to here.`);
    else setWhy(whyOf(session, last));
  };

  return (
    <section className="pane" aria-label="Time">
      <TimeBar
        timed={timed}
        beneath={beneath}
        onBeneath={setBeneath}
        onFit={showAll}
        onZoom={(factor) => zoomAt(factor, momentNow())}
      />
      {picked.length > 0 && !readOnly && (
        <LaneBar
          lanes={lanes}
          chosen={picked}
          onArrange={(next, hidden) => {
            told(arrange(next, hidden));
            setChosen(new Set(next.filter((l) => !lanes.some((o) => o.key === l.key)).map((l) => l.key)));
          }}
          onChosen={setChosen}
          shorter={shorter ?? USUAL_PULSE}
        />
      )}
      <div className="relative min-h-0 flex-1 overflow-x-hidden overflow-y-auto">
        {lanes.length === 0 && (
          <p className="absolute z-10 p-5 text-quiet">No signals yet. Place a clock, a switch or a lamp.</p>
        )}
        {lanes.length > 0 && reached === 0 && (
          <p
            className="pointer-events-none absolute top-1/3 right-4 z-10 rounded-lg bg-raised px-3 py-2 text-center text-sm text-quiet"
            style={{ left: NAMES + 8 }}
          >
            {timed
              ? 'Time has not run yet: press ▶, or type a time below.'
              : 'Nothing takes time here yet: choose delays above, or let a stimulus drive the inputs.'}
          </p>
        )}
        <canvas
          ref={canvas}
          tabIndex={0}
          role="slider"
          aria-label="Moment on the timing diagram"
          data-lanes={lanes.length}
          aria-valuemin={0}
          aria-valuemax={reached ?? 0}
          aria-valuenow={resting ?? 0}
          aria-valuetext={resting === null ? 'running' : timeText(resting)}
          className="block w-full touch-none outline-offset-[-2px]"
          style={{ cursor: 'ew-resize' }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowLeft') stepMoment(session, true);
            else if (event.key === 'ArrowRight') stepMoment(session);
            else if (event.key === 'Home') session.time.goToTime(0);
            else if (event.key === 'End') session.time.goToTime(session.state.now);
            else if (event.key === '+') zoomAt(1 / 1.5, momentNow());
            else if (event.key === '-') zoomAt(1.5, momentNow());
            else if (event.key === '0') showAll();
            else if (event.key === 'm') setMark(mark === null ? momentNow() : null);
            else if (event.key === 'w') askWhy();
            else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              const at = lanes.findIndex((l) => chosen.has(l.key));
              const next =
                lanes[Math.max(0, Math.min(lanes.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))];
              if (next) choose(next.key, event.shiftKey ? 'add' : 'alone');
            } else return;
            event.preventDefault();
          }}
          onPointerDown={(event) => {
            if (!span.current || event.button > 1) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            const { x, y } = pixel(event);
            const begun = { x, y, from: span.current.from, moved: false, lane: null };
            if (x < NAMES - 7 && y > RULER) {
              const lane = lanes[laneAt(y)];
              if (!lane) return;
              choose(lane.key, event.shiftKey ? 'to' : event.ctrlKey || event.metaKey ? 'add' : 'alone');
              drag.current = { ...begun, is: 'lane', lane: lane.key };
              return;
            }
            const under = lanes[laneAt(y)];
            if (
              beneath === 'stimulus' &&
              !readOnly &&
              under?.isInput &&
              under.nets.length === 1 &&
              !event.shiftKey
            ) {
              drag.current = { ...begun, is: 'draw', lane: under.key };
              return;
            }
            const pans = event.shiftKey || event.button === 1;
            drag.current = { ...begun, is: pans ? 'pan' : 'moment' };
            if (!pans) {
              session.time.goToTime(snapped(x));
              setWhy(null);
            }
          }}
          onPointerMove={(event) => {
            const now = drag.current;
            if (!now || !span.current) return;
            const { x, y } = pixel(event);
            if (now.is === 'draw') {
              if (!now.moved && Math.abs(x - now.x) < 4) return;
              drag.current = { ...now, moved: true };
              const lane = lanes.findIndex((l) => l.key === now.lane);
              band.current = { lane, from: onGrid(now.x), to: onGrid(x) };
              repaint();
            } else if (now.is === 'moment') session.time.goToTime(snapped(x));
            else if (now.is === 'pan') {
              follows.current = false;
              span.current = {
                ...span.current,
                from: Math.max(0, now.from - (x - now.x) * span.current.perPixel),
              };
              repaint();
            } else if (Math.abs(y - now.y) > 8) drag.current = { ...now, moved: true };
          }}
          onPointerUp={(event) => {
            const now = drag.current;
            drag.current = null;
            if (now?.is === 'draw') {
              if (now.moved && band.current) told(drawn(lanes[band.current.lane]!, band.current));
              else session.time.goToTime(snapped(now.x));
              band.current = null;
              repaint();
              return;
            }
            if (now?.is !== 'lane' || !now.moved || !now.lane || readOnly) return;
            const { y } = pixel(event);
            const at = laneAt(y);
            const to = at === -1 ? (y < RULER ? 0 : lanes.length - 1) : at;
            told(arrange(moved(lanes, now.lane, to)));
          }}
        />
      </div>
      <Reading
        lane={picked.length === 1 ? picked[0]! : null}
        mark={mark}
        onMark={() => setMark(mark === null ? momentNow() : null)}
        onWhy={askWhy}
        why={why}
        inCycles={shortestPeriod(netlist) === null ? null : inCycles}
        onCycles={setInCycles}
      />
      {beneath === 'stimulus' && <StimulusPanel onClose={() => setBeneath(null)} />}
      {beneath === 'findings' && (
        <Findings
          onPicture={(kind) => void savePicture(kind)}
          lanes={lanes}
          beside={{ other, beside, isDump: dump !== null, onDump: setDump }}
          shorter={shorter}
          onShorter={setShorter}
          onClose={() => setBeneath(null)}
        />
      )}
    </section>
  );
}
