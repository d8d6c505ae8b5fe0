'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import { innerSignals } from '@/core/netlist/inner-signals';
import { driversOf, type Netlist, type Terminal } from '@/core/netlist/netlist';
import { drivingOf } from '@/core/simulate/drive';
import { type WrongCapture, wrongCaptures } from '@/core/timing/captures';
import { edgeAt } from '@/core/timing/cause';
import { clockEdges } from '@/core/timing/clock-edges';
import { spokenText } from '@/core/values/markup';
import { timeText } from '@/core/values/time';
import { drawLevel, drawValue, setTimeSetup } from '@/session/changes/time';
import { isTimed, shortestPeriod, shortestStep } from '@/session/moment';
import { stepMoment } from '@/session/step';
import { told } from '@/session/told';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { FONTS } from '@/ui/controls/palette';
import { usePainter } from '@/ui/controls/usePainter';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { type Elsewhere, useBeside } from './beside';
import { type Diagram, diagramHeight, laneTops, NAMES } from './diagram';
import { besideLane, flawsIn, paintedLanes, StretchCache, shapeOf } from './diagram-content';
import { type Choosing, useDiagramPointer } from './diagram-pointer';
import { LaneMenu } from './LaneMenu';
import { LanesMenu } from './LanesMenu';
import { useLaneRoom } from './lane-room';
import { grouped, kept, type LaneView, lanesOf, moved, without, withSignals } from './lanes';
import { paintDiagram } from './paint-diagram';
import { Reading } from './Reading';
import { saveDiagram } from './save-diagram';
import { type Beneath, TimeBar } from './TimeBar';
import { diagramWidth, useTimeWheel, useTimeWindow } from './time-window';
import { type Why, whyOf } from './why-changed';

const StimulusPanel = lazyComponent('the stimulus panel', () =>
  import('./StimulusPanel').then((m) => m.StimulusPanel),
);
const PrintedLines = lazyComponent('what was printed', () =>
  import('./PrintedLines').then((m) => m.PrintedLines),
);
const Findings = lazyComponent('“Find out”', () => import('./findings/Findings').then((m) => m.Findings));

/** Pulses under this many ps are short ones, as long as nothing else was said. */
const SHORT_PULSE = 20_000;
/** Ps that are shown at first where nothing has a period: a few gates one after the other. */
const FALLBACK_PERIOD = 10_000;
const ZOOM_STEP = 1.5;

/** A stretch of a lane of several bits, as it was drawn: times in ps, and its pixel. */
interface Asked {
  readonly lane: LaneView;
  readonly from: number;
  readonly to: number;
  readonly x: number;
}

/** A field over the drawn stretch of a bus, for the value that it is to have there. */
function ValueField({ asked, top, onClose }: { asked: Asked; top: number; onClose: () => void }) {
  const session = useSession();
  const { lane, from, to, x } = asked;
  return (
    <input
      className="absolute z-10 h-7 w-24 rounded-lg border border-accent bg-raised px-1.5 font-mono text-sm shadow"
      style={{ left: x, top: top + 4 }}
      aria-label={`Value of ${spokenText(lane.name)} from ${timeText(from)} to ${timeText(to)}`}
      placeholder="5, 0x1F, -2"
      // biome-ignore lint/a11y/noAutofocus: the stretch was drawn to give it this value
      autoFocus
      maxLength={70}
      onBlur={onClose}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') onClose();
        if (event.key !== 'Enter') return;
        if (drawValue(session, lane.of[0]!, from, to, event.currentTarget.value).ok) onClose();
      }}
    />
  );
}

/** One list for all renderings: a new one would repaint the diagram and the drawing. */
const NO_CAPTURES: readonly WrongCapture[] = [];

/** The part of the sheet that drives a net. */
function partOfNet(netlist: Netlist, net: number): string {
  return driversOf(netlist, [net])[0]?.split('/')[0] ?? '';
}

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
  const driving = drivingOf(plan);
  const inner = useMemo(
    () => innerSignals(sheetOf(session.state.lesson, session.state.rootId)!, netlist),
    [session, netlist],
  );
  const lanes = useMemo(() => lanesOf(netlist, plan, buses, inner), [netlist, plan, buses, inner]);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [isMenuOpen, setMenuOpen] = useState(false);
  const [mark, setMark] = useState<number | null>(null);
  const [why, setWhy] = useState<Why | null>(null);
  const [beneath, setBeneath] = useState<Beneath>(null);
  const [shorter, setShorter] = useState<number | null>(null);
  const reached = useSessionState((s) => (s.playing ? null : s.now));
  /** Wrong captures, while “Find out” is open and the run rests. */
  const wrong = useMemo(
    () =>
      beneath === 'findings' && reached !== null && delays !== 'zero'
        ? (wrongCaptures(netlist, session.trace, clockEdges(netlist, session.trace.begins, reached).edges) ??
          NO_CAPTURES)
        : NO_CAPTURES,
    [beneath, reached, delays, netlist, session],
  );
  /** The stretch of a bus for which a value is asked. */
  const [asked, setAsked] = useState<Asked | null>(null);
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
  const stretches = useRef(new StretchCache());
  const band = useRef<Diagram['band']>(null);
  const [lastAt, setLastAt] = useState<string | null>(null);
  // While time runs, a reader that heard every frame would hear nothing else.
  const resting = useSessionState((s) => (s.playing ? null : (s.cursor ?? s.now)));
  const period = shortestPeriod(netlist) ?? shortestStep(netlist) ?? FALLBACK_PERIOD;
  const momentNow = useCallback(() => session.state.cursor ?? session.state.now, [session]);
  const repaintNow = useRef(() => {});
  const window = useTimeWindow(session, period, playing, repaintNow);

  const { canvas, size, repaint } = usePainter(
    (g, pixels, palette) => {
      const { trace, state } = session;
      const span = window.toPaint(pixels.width);
      const width = diagramWidth(pixels.width);
      const end = span.from + width * span.perPixel;
      const from = Math.max(trace.begins, span.from);
      const to = Math.min(state.now, end);
      const shown = stretches.current.of(trace, lanes, from, Math.max(from, to), span.perPixel);
      const { edges, first, isAll } = clockEdges(netlist, span.from, end);
      const diagram: Diagram = {
        lanes: paintedLanes(lanes, shown, chosen, (lane) => besideLane(lane, beside, other, span, width)),
        span,
        now: to,
        moment: momentNow(),
        mark,
        edges: isAll ? edges : [],
        firstEdge: first,
        arrows: why?.arrows(lanes) ?? [],
        flaws: flawsIn(session, netlist, lanes, wrong, shorter, from, to),
        band: band.current,
        beside: other?.name ?? '',
        inCycles,
        timeText,
      };
      paintDiagram(g, pixels, diagram, palette, FONTS);
    },
    useCallback(
      ({ clientWidth, clientHeight }: HTMLElement) => ({
        width: clientWidth,
        height: Math.max(clientHeight, diagramHeight(shapes)),
      }),
      [shapes],
    ),
  );
  repaintNow.current = repaint;
  useTimeWheel(canvas, window);

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (is.netlist !== was.netlist || is.values !== was.values || is.now !== was.now) repaint();
      }),
    [session, repaint],
  );

  // The causes of a change are lit in the drawing while they are told.
  const light = useCrossHighlight((p) => p.light);
  useEffect(() => {
    const took = new Set(wrong.map((w) => partOfNet(netlist, w.net)));
    light(why?.parts ?? (took.size > 0 ? took : null));
    return () => light(null);
  }, [why, wrong, netlist, light]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: all that is painted besides the run
  useEffect(repaint, [repaint, shapes, chosen, mark, why, shorter, wrong, inCycles]);

  /** Chooses a lane: alone, with those chosen before, or with all from the one that was chosen last. */
  const choose = (key: string, how: Choosing) => {
    const next = new Set(how === 'alone' ? [] : chosen);
    if (how === 'to') {
      const [from, to] = [lanes.findIndex((l) => l.key === lastAt), lanes.findIndex((l) => l.key === key)];
      for (const l of lanes.slice(Math.min(Math.max(0, from), to), Math.max(from, to) + 1)) next.add(l.key);
    } else if (how === 'alone' || !next.delete(key)) next.add(key);
    if (how !== 'to') setLastAt(key);
    setChosen(next);
    setWhy(null);
  };
  const arrange = (next: readonly LaneView[], hidden: readonly string[] = plan?.hidden ?? []) =>
    setTimeSetup(session, { lanes: kept(next, buses), hidden: [...hidden] }, 'arrange the lanes');
  const savePicture = (kind: 'svg' | 'png') => {
    if (canvas.current) void saveDiagram(kind, session.state.lesson.title, canvas.current);
  };
  const zoomAtMoment = (factor: number) => window.zoomAt(factor, momentNow());
  const showAll = () => window.showAll(size.current.width);
  const picked = lanes.filter((l) => chosen.has(l.key));
  const signals = useMemo(() => [...netlist.inputs, ...netlist.outputs, ...inner], [netlist, inner]);
  const room = useLaneRoom(
    canvas,
    shapes,
    picked.map((l) => lanes.indexOf(l)),
  );
  /** The lane at which the menu stands: of several the one that was chosen last. */
  const menued = lanes.findIndex((l) => l === (picked.find((p) => p.key === lastAt) ?? picked.at(-1)));
  const rearrange = (next: readonly LaneView[], hidden?: readonly string[]) => {
    told(arrange(next, hidden));
    const isNew = (l: LaneView) => !lanes.some((o) => o.key === l.key);
    const added = next.filter(isNew).map((l) => l.key);
    if (added.length > 0 || next.length < lanes.length) setChosen(new Set(added));
  };
  const group = () => {
    if (picked.length > 1) rearrange(grouped(lanes, chosen));
  };
  const hide = (keys: ReadonlySet<string>) => {
    if (keys.size === 0) return;
    const left = without(lanes, keys, netlist, plan?.hidden ?? []);
    rearrange(left.lanes, left.hidden);
  };
  const show = (signals: readonly Terminal[]) => {
    const shown = new Set(signals.map((s) => s.part));
    told(
      arrange(
        withSignals(lanes, signals, buses),
        plan?.hidden.filter((part) => !shown.has(part)),
      ),
    );
  };
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

  const pointer = useDiagramPointer({
    session,
    lanes,
    shapes,
    window,
    canvas,
    size,
    band,
    repaint,
    canDraw: beneath === 'stimulus' && !readOnly,
    canMove: !readOnly,
    choose,
    onMoment: () => setWhy(null),
    onDrawn: (lane, from, to, x) => {
      if (lane.nets.length === 1) told(drawLevel(session, lane.of[0]!, from, to));
      else if (to > from) setAsked({ lane, from, to, x });
    },
    onMoved: (lane, to) => told(arrange(moved(lanes, lane, to))),
    onMenu: (lane) => {
      if (readOnly) return;
      if (!chosen.has(lane)) choose(lane, 'alone');
      setMenuOpen(true);
    },
  });

  return (
    <section className="pane" aria-label="Time">
      <TimeBar timed={timed} beneath={beneath} onBeneath={setBeneath} onFit={showAll} onZoom={zoomAtMoment}>
        {!readOnly && signals.length > 0 && (
          <LanesMenu
            lanes={lanes}
            signals={signals}
            onShow={show}
            onHide={(lane) => hide(new Set([lane.key]))}
          />
        )}
      </TimeBar>
      <div
        className="relative flex-1 overflow-x-hidden overflow-y-auto"
        // The lanes come first; what stands beneath scrolls.
        style={{ minHeight: `min(${diagramHeight(shapes)}px, 55%)` }}
      >
        {lanes.length === 0 && (
          <p className="absolute inset-0 z-10 bg-raised p-5 text-quiet">
            No signals yet. Place a clock, a switch or a lamp.
          </p>
        )}
        {lanes.length > 0 && reached === 0 && (
          <p
            className="pointer-events-none absolute right-4 bottom-2 z-10 rounded-lg bg-raised px-3 py-2 text-center text-sm text-quiet"
            style={{ left: NAMES + 8 }}
          >
            {timed
              ? 'Time has not run yet: press ▶, or type a time below.'
              : 'Nothing takes time here yet: choose delays above, or let a stimulus drive the inputs.'}
          </p>
        )}
        {asked && (
          <ValueField
            asked={asked}
            top={laneTops(shapes, size.current.height)[lanes.findIndex((l) => l.key === asked.lane.key)] ?? 0}
            onClose={() => setAsked(null)}
          />
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
            else if (event.key === '+') zoomAtMoment(1 / ZOOM_STEP);
            else if (event.key === '-') zoomAtMoment(ZOOM_STEP);
            else if (event.key === '0') showAll();
            else if (event.key === 'm') setMark(mark === null ? momentNow() : null);
            else if (event.key === 'w') askWhy();
            else if (event.key === 'g' && !readOnly) group();
            else if (event.key === 'h' && !readOnly) hide(chosen);
            else if (event.key === 'Enter' && picked.length > 0) setMenuOpen(true);
            else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              const at = lanes.findIndex((l) => chosen.has(l.key));
              const next =
                lanes[Math.max(0, Math.min(lanes.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))];
              if (next) choose(next.key, event.shiftKey ? 'add' : 'alone');
            } else return;
            event.preventDefault();
          }}
          {...pointer}
        />
        {!readOnly && menued !== -1 && (
          <LaneMenu
            key={picked.length === 1 ? 'one' : 'several'}
            lanes={lanes}
            chosen={picked}
            signals={signals}
            place={{ top: room.tops[menued]!, height: room.tops[menued + 1]! - room.tops[menued]! }}
            open={isMenuOpen}
            onOpen={setMenuOpen}
            onBack={() => canvas.current?.focus()}
            onArrange={rearrange}
            onHide={() => hide(chosen)}
            shorter={shorter ?? SHORT_PULSE}
          />
        )}
      </div>
      {room.unseen > 0 && (
        <p className="shrink-0 px-3 text-xs text-quiet">
          {room.unseen === 1 ? 'One lane is' : `${room.unseen} lanes are`} out of sight: scroll, or give Time
          more room.
        </p>
      )}
      <Reading
        lane={picked.length === 1 ? picked[0]! : null}
        mark={mark}
        onMark={() => setMark(mark === null ? momentNow() : null)}
        onWhy={askWhy}
        why={why}
        inCycles={shortestPeriod(netlist) === null ? null : inCycles}
        onCycles={setInCycles}
      />
      {driving?.printed && beneath === null && <PrintedLines stimulus={driving} />}
      {beneath === 'stimulus' && <StimulusPanel onClose={() => setBeneath(null)} />}
      {beneath === 'findings' && (
        <Findings
          onPicture={savePicture}
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
