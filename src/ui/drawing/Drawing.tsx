'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { apply, type Edit } from '@/core/circuit/edit';
import { boundingBox, type Point } from '@/core/circuit/geometry';
import { type Sheet, sheetOf } from '@/core/circuit/lesson';
import { footprintOf, pinOf } from '@/core/drawing/geometry/placement';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import type { Netlist } from '@/core/netlist/netlist';
import { kindOf, sheetIdInside } from '@/core/parts/catalogue';
import { counted } from '@/core/values/wording';
import { fetcher } from '@/loading/load';
import type { SessionState } from '@/session/state';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { usePainter } from '@/ui/controls/usePainter';
import { useCrossHighlight } from '@/ui/session/cross-highlight';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { within } from '../controls/within';
import type { Layer } from './canvas/layer';
import { paint } from './canvas/painter';
import { type DraggedObjects, draggedObjects, type Overlay } from './canvas/scene';
import { sceneOf } from './canvas/scene-of';
import { fitted, isInSight, START_VIEW, STEP, toScreen, type View, zoomed } from './canvas/view';
import type { KeyPress } from './gestures/keys';
import type { Keys, PointerGesture } from './gestures/pointer-gesture';
import { useEditorController } from './gestures/useEditorController';
import { useSheetKeys } from './gestures/useSheetKeys';
import { PartsList } from './PartsList';
import { ProblemCount } from './ProblemCount';
import type { Flick, Popup } from './popups/popup';

/** What hands do and what opens on the sheet is fetched when the pointer or the focus first comes to it. */
const OpenedHere = lazyComponent('the tools of the drawing', () =>
  import('./popups/PopupHost').then((m) => m.PopupHost),
);
const Way = lazyComponent('the way into blocks', () => import('./Breadcrumbs').then((m) => m.Breadcrumbs));
const EmptySheet = lazyComponent("the empty sheet's words", () =>
  import('./EmptySheet').then((m) => m.EmptySheet),
);

/** What of the open lesson is to be seen on the canvas. */
const DRAWN = ['lesson', 'path', 'sheetId', 'selection', 'netlist', 'values', 'on', 'readOnly'] as const;

/** A view that shows all of some parts in a canvas of some pixels. */
interface Fit {
  readonly view: View;
  readonly parts: Sheet['parts'];
  readonly width: number;
  readonly height: number;
}

/** Sheets of fewer parts are painted as quickly as a picture of them. */
const MANY = 150;

const NONE: ReadonlySet<string> = new Set();

const terms = fetcher('what lights up across faces', () => import('./product-highlighting'));
const layers = fetcher('pictures of large sheets', () => import('./canvas/layer'));

/** How near in pixels the pointer must be to a badge for its words to show. */
const BADGE_REACH = 16;

/** The drawing face: the sheet on a canvas, live, with everything that a hand does on it. */
export function Drawing() {
  const session = useSession();
  const sheetId = useSessionState((s) => s.sheetId);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  const readOnly = useSessionState((s) => s.readOnly);
  const looks = useSessionState((s) => s.looks);
  const isInside = useSessionState((s) => s.path.length > 0);
  const root = useRef<HTMLDivElement>(null);
  const view = useRef<View>(START_VIEW);
  /** Whether the next painting is to show everything. */
  const whole = useRef(true);
  /** What all of the sheet was last shown by. */
  const fit = useRef<Fit | null>(null);
  const pointer = useRef<Point | null>(null);
  /** What is open, known before the page is painted anew. */
  const openNow = useRef<Popup | null>(null);
  const [opened, setOpened] = useState<Popup | null>(null);
  const [tip, setTip] = useState<Tip | null>(null);
  const [cursor, setCursor] = useState('default');
  const marked = useRef(false);
  const lit = useRef<ReadonlySet<string>>(NONE);
  const over = useRef<string | null>(null);
  const pointed = useCrossHighlight((p) => p.pointed);
  const point = useCrossHighlight((p) => p.point);
  const way = useCrossHighlight((p) => p.parts);
  const layer = useRef<Layer | null>(null);
  const flick = useRef<Flick | null>(null);

  /** What keeps a picture of a large sheet seen from far away is fetched where there is one. */
  const fetchLayer = async () => {
    const { Layer } = await layers();
    layer.current ??= new Layer();
  };
  const { canvas, size, repaint } = usePainter((g, pixels, palette) => {
    // Who has changed nothing and looked nowhere else since all was shown sees all of it in a pane of another size.
    const { parts } = session.sheet;
    const was = fit.current;
    const resized = was?.width !== pixels.width || was.height !== pixels.height;
    if (whole.current || (resized && was?.view === view.current && was.parts === parts)) {
      const box = boundingBox([...parts.values()].map(footprintOf));
      view.current = fitted(box, pixels.width, pixels.height);
      fit.current = { view: view.current, parts, width: pixels.width, height: pixels.height };
      whole.current = false;
    }
    const state = session.state;
    const shown = shownSheet();
    const gesture = desk.now?.hand;
    if (!layer.current && shown.parts.size > MANY) void fetchLayer();
    const overlay = overlayOf(state, shown, gesture, preview.current?.dragged ?? null, lit.current);
    paint(g, pixels, view.current, sceneOf(state, shown), overlay, palette, {
      layer: layer.current,
      again: repaint,
    });
    setCursor(gesture?.cursor ?? 'default');
    if (!marked.current) {
      // Benches read when a sheet was first to be seen.
      performance.mark('sheet drawn');
      marked.current = true;
    }
  }, measureWhole);

  const open = useCallback((next: Popup | null) => {
    openNow.current = next;
    setOpened(next);
  }, []);
  const showAll = useCallback(() => {
    whole.current = true;
    repaint();
  }, [repaint]);
  const spot = () => pointer.current ?? { x: size.current.width / 2, y: size.current.height / 2 };
  const openTyping = (first: string) =>
    open({
      is: 'typing',
      at: spot(),
      first,
      entered: false,
      next: '',
      pull: [],
      pointed: pointer.current !== null,
    });
  const act = (id: string) => {
    const part = session.sheet.parts.get(id);
    const role = part && kindOf(part).role?.(part.params);
    if (part && sheetIdInside(part) !== undefined) session.enter(id);
    else if (role?.role === 'input' && ['switch', 'button', 'port'].includes(role.by)) {
      if (kindOf(part!).ports(part!.params)[0]!.width > 1) open({ is: 'value', part: id });
      else session.flip(id);
    } else open({ is: 'settings', parts: [id], at: 'label' });
  };
  const desk = useEditorController({
    session,
    view,
    repaint,
    opened: () => openNow.current,
    open,
    openTyping,
    act,
    showAll,
    pointed: () => pointer.current !== null,
    nextProblem: () => {
      const now = openNow.current;
      const count = session.state.diagnostics.length;
      if (count > 0) goToProblem(now?.is === 'problem' ? (now.index + 1) % count : 0);
      else session.say('Nothing is loose and nothing is wrong.');
    },
    spot,
  });
  const preview = useRef<{ edit: Edit; from: Sheet; sheet: Sheet; dragged: DraggedObjects } | null>(null);

  /** The sheet as it would be if the gesture ended here. */
  const shownSheet = (): Sheet => {
    const now = session.sheet;
    const edit = desk.now?.hand.pending();
    if (!edit) {
      preview.current = null;
      return now;
    }
    const last = preview.current;
    if (last && last.from === now && last.edit === edit) return last.sheet;
    const applied = apply(session.state.lesson, edit);
    const shown = applied.ok ? sheetOf(applied.value, now.id)! : now;
    preview.current = {
      edit,
      from: now,
      sheet: shown,
      dragged: draggedObjects(now, shown, last?.dragged ?? null),
    };
    return shown;
  };

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (DRAWN.some((key) => is[key] !== was[key])) repaint();
      }),
    [session, repaint],
  );

  // A term that is pointed at on another face lights the gates that make it, and a gate its term there.
  useEffect(() => {
    let left = false;
    const show = (parts: ReadonlySet<string>) => {
      if (left || (parts.size === 0 && lit.current.size === 0)) return;
      lit.current = parts;
      repaint();
    };
    if (way) show(way);
    else if (pointed && pointed.output !== null)
      void terms().then(({ partsMaking }) => show(partsMaking(session, pointed)));
    else show(NONE);
    return () => {
      left = true;
    };
  }, [pointed, way, session, repaint]);
  const pointAt = (part: string | null) => {
    if (part === over.current) return;
    over.current = part;
    if (part === null) point(null);
    else
      void terms().then(({ productOfPart }) => over.current === part && point(productOfPart(session, part)));
  };

  useEffect(() => {
    const element = canvas.current!;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const unit = event.deltaMode === 1 ? 30 : 1;
      const factor = Math.exp((-event.deltaY * unit * (event.ctrlKey ? 4 : 1)) / 700);
      view.current = zoomed(view.current, factor, event.clientX - box.left, event.clientY - box.top);
      repaint();
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [canvas, repaint]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another sheet is looked at whole first
  useEffect(() => {
    open(null);
    showAll();
  }, [sheetId, showAll]);

  useEffect(() => {
    if (looks.times === 0 || !root.current) return;
    const { parts } = session.state.selection;
    const selected = [...parts].flatMap((id) => session.sheet.parts.get(id) ?? []);
    const box = looks.onlyIfHidden && boundingBox(selected.map(footprintOf));
    const { clientWidth, clientHeight } = root.current;
    if (!box || !isInSight(view.current, box, clientWidth, clientHeight)) showAll();
  }, [looks, session, showAll]);

  const pixelOf = (event: { clientX: number; clientY: number }): Point => {
    const box = root.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const close = () => {
    open(null);
    root.current?.focus();
  };
  /** Keys that are pressed before the typing line is there are not lost. */
  const typeAhead = ({ key }: KeyPress) => {
    const now = openNow.current;
    if (now?.is !== 'typing') return false;
    if (key === 'Escape') open(null);
    else if (key === 'Enter') open({ ...now, entered: true });
    // What comes after Enter is the next part's name.
    else if (key.length === 1)
      open(now.entered ? { ...now, next: now.next + key } : { ...now, first: now.first + key });
    return true;
  };
  const showTip = (pixel: Point) => {
    const near = problemSpots(session.sheet, session.state.diagnostics).find(({ at }) => {
      const p = toScreen(view.current, at);
      return Math.hypot(p.x - pixel.x, p.y - pixel.y) < BADGE_REACH;
    });
    const text = near?.problem.message ?? desk.now?.probe() ?? null;
    if (text) setTip({ text, ...pixel, bad: near !== undefined });
    else if (tip) setTip(null);
  };
  /** Leads to the place of a problem and says there what can be done. */
  const goToProblem = (index: number) => {
    const problem = session.state.diagnostics[index];
    const spot = problem && problemSpots(session.sheet, [problem])[0];
    if (!spot) return;
    const { width, height } = size.current;
    const s = STEP * view.current.scale;
    view.current = { ...view.current, x: spot.at.x - width / s / 2, y: spot.at.y - height / s / 2 };
    session.select({ parts: new Set(problem.pins.map((pin) => pin.part)), wires: new Set() });
    open({ is: 'problem', index });
    repaint();
  };

  useSheetKeys(root, {
    key: (press) => typeAhead(press) || (desk.now ? desk.now.key(press) : desk.wait(press, typeAhead)),
    copy: (cut) => desk.now?.copy(cut) ?? null,
    paste: (text) => desk.with((editor) => editor.paste(text)),
  });

  return (
    <section className="pane" aria-label="Drawing">
      <header className="pane-head">
        <h2 className="font-semibold">Drawing</h2>
        {isInside && <Way />}
        <GateCount />
        <ProblemCount onShow={(problem) => goToProblem(session.state.diagnostics.indexOf(problem))} />
        <button
          type="button"
          className="icon-button size-7"
          onClick={showAll}
          title="Show everything (0)"
          aria-label="Show everything"
        >
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
            <path
              d="M2 6V2h4M10 2h4v4M14 10v4h-4M6 14H2v-4"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.6"
            />
          </svg>
        </button>
      </header>
      <div
        ref={root}
        role="application"
        tabIndex={0}
        aria-label="Sheet. Type the name of a part to place it, or press Space for the ring of parts."
        className="relative min-h-0 flex-1 touch-none overflow-hidden outline-offset-[-2px]"
        style={{ cursor }}
        onFocus={desk.fetch}
        onPointerEnter={desk.fetch}
        onContextMenu={(event) => event.preventDefault()}
        // The ring that the right button opens has the focus; the press itself must not take it back.
        onMouseDown={(event) => event.button === 2 && event.preventDefault()}
        onDoubleClick={(event) => {
          const pixel = pixelOf(event);
          desk.with((editor) => editor.hand.double(pixel));
        }}
        onPointerDown={(event) => {
          root.current?.focus();
          open(null);
          setTip(null);
          const pixel = pixelOf(event);
          pointer.current = pixel;
          if (event.button === 2) {
            desk.with((editor) => {
              if (editor.hand.wiring) editor.hand.cancel();
              else if (!editor.chooseUnder(pixel)) {
                flick.current = { points: [], released: false, taken: false };
                open({ is: 'ring', at: pixel, flick: flick.current, pointed: true });
              }
            });
            return;
          }
          event.currentTarget.setPointerCapture(event.pointerId);
          const { pointerId, pointerType } = event;
          const keys = keysOf(event);
          desk.with((editor) => editor.pointers.down(pointerId, pixel, pointerType === 'touch', keys));
        }}
        onPointerMove={(event) => {
          const pixel = pixelOf(event);
          pointer.current = pixel;
          if (openNow.current?.is === 'ring') {
            if (flick.current && !flick.current.taken) flick.current.points.push(pixel);
            return;
          }
          const { pointerId, pointerType } = event;
          desk.with((editor) => editor.pointers.move(pointerId, pixel, pointerType === 'touch'));
          if (pointerType !== 'touch') {
            showTip(pixel);
            const hover = desk.now?.hand.hover;
            pointAt(hover?.is === 'part' ? hover.part : null);
          }
        }}
        onPointerUp={(event) => {
          const pixel = pixelOf(event);
          if (event.button === 2) {
            if (flick.current) flick.current.released = true;
            return;
          }
          const { pointerId, pointerType } = event;
          const keys = keysOf(event);
          desk.with((editor) => editor.pointers.up(pointerId, pixel, pointerType === 'touch', keys));
          if (pointerType !== 'touch') showTip(pixel);
        }}
        onPointerCancel={() => desk.with((editor) => editor.pointers.cancel())}
        onPointerLeave={() => {
          desk.with((editor) => editor.hand.gone());
          pointer.current = null;
          pointAt(null);
          setTip(null);
        }}
      >
        <canvas ref={canvas} className="absolute inset-0 size-full" aria-hidden="true" />
        <PartsList onAct={act} />
        {sheet.parts.size === 0 && !opened && <EmptySheet readOnly={readOnly} />}
        {opened && (
          <OpenedHere
            opened={opened}
            sheet={sheet}
            view={view}
            size={size}
            open={open}
            openTyping={openTyping}
            close={close}
            goToProblem={goToProblem}
          />
        )}
        {tip && (
          <p
            role="status"
            className={
              tip.bad
                ? 'pointer-events-none absolute z-20 w-72 rounded-lg border border-bad bg-raised px-3 py-2 text-sm shadow-lg'
                : 'pointer-events-none absolute z-20 w-max rounded-lg border border-hairline bg-raised px-2 py-0.5 font-mono text-sm shadow'
            }
            style={{
              left: within(tip.x + 14, 8, size.current.width - (tip.bad ? 300 : 200)),
              top: within(tip.y + 14, 8, size.current.height - (tip.bad ? 110 : 40)),
            }}
          >
            {tip.text}
          </p>
        )}
      </div>
    </section>
  );
}

/** Words at the pointer: of a complaint, or of what a wire carries. */
interface Tip extends Point {
  readonly text: string;
  readonly bad: boolean;
}

const keysOf = (event: React.PointerEvent): Keys => ({
  shift: event.shiftKey,
  add: event.ctrlKey || event.metaKey,
  alt: event.altKey,
  middle: event.button === 1,
});

const measureWhole = ({ clientWidth, clientHeight }: HTMLElement) => ({
  width: clientWidth,
  height: clientHeight,
});

function overlayOf(
  state: SessionState,
  sheet: Sheet,
  gesture: PointerGesture | undefined,
  dragged: DraggedObjects | null,
  lit: Overlay['lit'],
): Overlay {
  const hover = gesture?.hover ?? null;
  return {
    parts: state.selection.parts,
    wires: state.selection.wires,
    hover: hover && {
      part: hover.is === 'part' ? hover.part : undefined,
      wire: hover.is === 'wire' ? hover.wire : undefined,
      pin: hover.is === 'pin' ? hover.at : undefined,
    },
    lit,
    wirePreview: gesture?.rubber ?? [],
    box: gesture?.box ?? null,
    guides: gesture?.guides ?? [],
    border: gesture?.border ?? null,
    touches: gesture?.touches ?? [],
    problems: problemSpots(sheet, state.diagnostics).map(({ at, problem }) => ({
      at,
      grave: problem.code !== 'loose-input',
    })),
    grid: true,
    dragged,
  };
}

/** The pins of the problems, and where they stand on the sheet. */
function problemSpots(
  sheet: Sheet,
  diagnostics: readonly Diagnostic[],
): { at: Point; problem: Diagnostic }[] {
  return diagnostics.flatMap((problem) =>
    problem.pins.flatMap(({ part, port }) => {
      const at = pinOf(sheet, part, port)?.at;
      return at ? [{ at, problem }] : [];
    }),
  );
}

/** What there is on a sheet; it stays for as long as the circuit does, wherever the parts are moved. */
function inventoryOf(sheet: Sheet, netlist: Netlist) {
  let gates = 0;
  const storage = new Map<string, number>();
  for (const part of sheet.parts.values()) {
    const { isGate, stores } = kindOf(part);
    if (isGate) gates++;
    if (stores) storage.set(stores, (storage.get(stores) ?? 0) + 1);
  }
  const levels = netlist.level.reduce((most, l) => Math.max(most, l), 0);
  return { gates, storage, levels };
}

const STORAGE_PLURALS: Readonly<Record<string, string>> = { latch: 'latches', memory: 'memories' };

function GateCount() {
  const netlist = useSessionState((s) => s.netlist);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another circuit comes with another netlist
  const { gates, storage, levels } = useMemo(() => inventoryOf(sheet, netlist), [sheet.id, netlist]);
  const words = [
    gates > 0 && counted(gates, 'gate'),
    ...[...storage].map(([name, count]) => counted(count, name, STORAGE_PLURALS[name])),
    gates > 0 && storage.size === 0 && netlist.looped.length === 0 && counted(levels, 'level'),
  ].filter(Boolean);
  return <span className="text-quiet">{words.join(' · ')}</span>;
}
