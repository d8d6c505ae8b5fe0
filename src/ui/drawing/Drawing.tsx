'use client';

import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { DrawingContext } from '@/commands/context';
import type { Popup } from '@/commands/popup';
import type { Point } from '@/core/circuit/geometry';
import { sheetOf } from '@/core/circuit/lesson';
import type { PinNotes } from '@/core/drawing/geometry/pin-notes';
import { toScreen } from '@/core/drawing/geometry/viewport';
import { Bar } from '@/ui/controls/Bar';
import { HoldKeys } from '@/ui/controls/HoldKeys';
import { holdKeys } from '@/ui/controls/held-keys';
import { hint } from '@/ui/controls/hint';
import { lazyComponent } from '@/ui/controls/lazy-component';
import { usePainter } from '@/ui/controls/usePainter';
import { useEditor } from '@/ui/session/editor-context';
import { areStepsOffered } from '@/ui/session/first-steps';
import { arePinsNoted } from '@/ui/session/noted-pins';
import { useSession, useSessionState } from '@/ui/session/session-context';
import { Layer } from './canvas/layer';
import { paint } from './canvas/painter';
import { sceneOf } from './canvas/scene-of';
import type { Keys } from './gestures/gesture-state';
import { useEditorController } from './gestures/useEditorController';
import { useSheetKeys } from './gestures/useSheetKeys';
import { Inventory } from './Inventory';
import { overlayOf, problemSpots } from './overlay';
import { PartsList } from './PartsList';
import { PointerTip, type Tip } from './PointerTip';
import { ProblemCount } from './ProblemCount';
import { useLitParts } from './useLitParts';
import { usePreview } from './usePreview';
import { useSheetView, useWheelZoom } from './useSheetView';

/** Popups are fetched when the pointer or a key first comes to the sheet. */
const PopupHost = lazyComponent(
  'the tools of the drawing',
  () => import('./popups/PopupHost').then((m) => m.PopupHost),
  <HoldKeys />,
);
const Breadcrumbs = lazyComponent('the way into blocks', () =>
  import('./Breadcrumbs').then((m) => m.Breadcrumbs),
);
const EmptySheet = lazyComponent("the empty sheet's words", () =>
  import('./EmptySheet').then((m) => m.EmptySheet),
);

const PinNoting = lazyComponent('the numbers of pins', () => import('./PinNoting').then((m) => m.PinNoting));
const FirstSteps = lazyComponent('the first steps', () => import('./FirstSteps').then((m) => m.FirstSteps));

/** The parts of the session's state that the canvas shows. */
const DRAWN = [
  'lesson',
  'path',
  'sheetId',
  'selection',
  'netlist',
  'values',
  'on',
  'readOnly',
  'rules',
] as const;

/** Sheets of fewer parts are painted as quickly as a picture of them. */
const MANY = 150;

/** How near in pixels the pointer must be to a badge for its words to show. */
const BADGE_REACH = 16;

/** The drawing face: the sheet on a canvas, live, with everything that pointers and keys do on it. */
export function Drawing() {
  const editor = useEditor();
  const session = useSession();
  const sheetId = useSessionState((s) => s.sheetId);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  const readOnly = useSessionState((s) => s.readOnly);
  const looks = useSessionState((s) => s.looks);
  const isInside = useSessionState((s) => s.path.length > 0);
  const root = useRef<HTMLDivElement>(null);
  const pointer = useRef<Point | null>(null);
  /** The open popup, known before the page is painted again. */
  const openNow = useRef<Popup | null>(null);
  const [opened, setOpened] = useState<Popup | null>(null);
  /** Counts the popups, so that one that follows another begins afresh and takes the focus. */
  const popups = useRef(0);
  const [tip, setTip] = useState<Tip | null>(null);
  const [cursor, setCursor] = useState('default');
  const [isFirst, setFirst] = useState(false);
  const isMarked = useRef(false);
  const layer = useRef<Layer | null>(null);
  const repaintNow = useRef(() => {});
  const sheetView = useSheetView(session, repaintNow);
  const { view, showAll } = sheetView;
  const preview = usePreview(session);
  const isNoted = useSessionState(arePinsNoted);
  const notes = useRef<PinNotes | undefined>(undefined);
  const note = useCallback((pins: PinNotes | undefined) => {
    notes.current = pins;
    repaintNow.current();
  }, []);

  const { canvas, size, repaint } = usePainter((g, pixels, palette) => {
    sheetView.beforePainting(pixels, palette.letters);
    const gesture = controller.now?.gesture;
    const shown = preview(gesture?.pending() ?? null);
    if (shown.sheet.parts.size > MANY) layer.current ??= new Layer();
    const { state } = session;
    const overlay = overlayOf(state, shown.sheet, gesture, shown.dragged, lit.current);
    paint(
      g,
      pixels,
      view.current,
      { ...sceneOf(state, shown.sheet), notes: notes.current },
      overlay,
      palette,
      {
        layer: layer.current,
        again: repaint,
      },
    );
    setCursor(gesture?.cursor ?? 'default');
    if (!isMarked.current && !layer.current?.isBusy) {
      // Benches read when a sheet was first to be seen.
      performance.mark('sheet drawn');
      isMarked.current = true;
    }
  }, measureWhole);
  repaintNow.current = repaint;
  const { lit, pointAt } = useLitParts(repaint);
  useWheelZoom(canvas, sheetView);

  const open = useCallback((next: Popup | null) => {
    // What is typed before the popup has the focus is typed into it.
    if (next && next.is !== 'placed' && next.is !== 'selecting') holdKeys()();
    openNow.current = next;
    popups.current++;
    setOpened(next);
  }, []);
  const context = useMemo((): DrawingContext => {
    return {
      popup: () => openNow.current,
      open,
      spot: () => pointer.current ?? { x: size.current.width / 2, y: size.current.height / 2 },
      isPointed: () => pointer.current !== null,
      view: () => view.current,
      setView: sheetView.set,
      repaint,
      showAll,
      goToProblem: (index) => {
        const problem = session.state.diagnostics[index];
        const spot = problem && problemSpots(session.sheet, [problem])[0];
        if (!spot) return;
        sheetView.centre(spot.at, size.current);
        session.select({ parts: new Set(problem.pins.map((pin) => pin.part)), wires: new Set() });
        open({ is: 'problem', index });
      },
      cancelGesture: () => holder.current?.now?.gesture.cancel() ?? false,
    };
  }, [session, open, size, view, sheetView, repaint, showAll]);
  useLayoutEffect(() => {
    editor.drawing = context;
  }, [editor, context]);
  const controller = useEditorController(editor);
  const holder = useRef(controller);
  holder.current = controller;

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (DRAWN.some((key) => is[key] !== was[key])) repaint();
      }),
    [session, repaint],
  );

  // biome-ignore lint/correctness/useExhaustiveDependencies: another sheet is looked at whole first
  useEffect(() => {
    open(null);
    showAll();
  }, [sheetId, showAll]);

  useEffect(() => {
    const { lesson, readOnly } = session.state;
    if (readOnly || lesson.exercise || session.sheet.parts.size > 0 || !areStepsOffered(lesson.id)) return;
    // The sheet itself comes first.
    const timer = setTimeout(() => setFirst(true), 700);
    return () => clearTimeout(timer);
  }, [session]);

  useEffect(() => {
    if (looks.times === 0 || !root.current) return;
    const { clientWidth: width, clientHeight: height } = root.current;
    if (looks.onlyIfHidden)
      sheetView.showIfHidden(session.state.selection.parts, { width, height }, looks.onlyIfHidden);
    else showAll();
  }, [looks, session, sheetView, showAll]);

  const endFirst = useCallback(() => setFirst(false), []);
  const pixelOf = (event: { clientX: number; clientY: number }): Point => {
    const box = root.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const close = () => {
    open(null);
    root.current?.focus();
  };
  const showTip = (pixel: Point) => {
    const near = problemSpots(session.sheet, session.state.diagnostics).find(({ at }) => {
      const p = toScreen(view.current, at);
      return Math.hypot(p.x - pixel.x, p.y - pixel.y) < BADGE_REACH;
    });
    const text = near?.problem.message ?? controller.now?.probe() ?? null;
    if (text) setTip({ text, ...pixel, isProblem: near !== undefined });
    else if (tip) setTip(null);
  };

  useSheetKeys(root, {
    press: (press) => (controller.now ?? { press: controller.wait }).press(press),
    release: (key) => controller.now?.release(key),
    copy: (cut) => controller.now?.copy(cut) ?? null,
    paste: (text) => controller.whenLoaded((now) => now.paste(text)),
  });

  const isSelecting = opened?.is === 'selecting';
  return (
    <section className="pane" aria-label="Drawing">
      <Bar className="pane-head">
        <h2 className="font-semibold">Drawing</h2>
        {isInside && <Breadcrumbs />}
        {isNoted && <PinNoting onNotes={note} />}
        <Inventory />
        <ProblemCount onShow={(problem) => context.goToProblem(session.state.diagnostics.indexOf(problem))} />
        <button
          type="button"
          className="icon-button size-7"
          onClick={() => open(isSelecting ? null : { is: 'selecting' })}
          {...hint('Select several')}
          aria-label="Select several"
          aria-pressed={isSelecting}
        >
          <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
            <path
              d="M2 2h12v12H2z"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.6"
              strokeDasharray="2.4 1.6"
            />
          </svg>
        </button>
        <button
          type="button"
          className="icon-button size-7"
          onClick={showAll}
          {...hint('Show everything (0)')}
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
      </Bar>
      <div
        ref={root}
        role="application"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: an application takes the keys itself
        tabIndex={0}
        aria-label="Sheet. Type the name of a part to place it, or press Space for the ring of parts."
        className="relative min-h-0 flex-1 touch-none overflow-hidden outline-offset-[-2px]"
        style={{ cursor }}
        onFocus={controller.fetch}
        onPointerEnter={controller.fetch}
        onContextMenu={(event) => event.preventDefault()}
        // The ring that the right button opens has the focus; the press itself must not take it back.
        // Nor may the press that a browser makes up after a finger take it from the label that the finger has asked for.
        onMouseDown={(event) =>
          (event.button === 2 || openNow.current?.is === 'label') && event.preventDefault()
        }
        onDoubleClick={(event) => {
          const pixel = pixelOf(event);
          controller.whenLoaded((now) => now.gesture.double(pixel));
        }}
        onPointerDown={(event) => {
          root.current?.focus();
          const selecting = openNow.current?.is === 'selecting';
          if (!selecting) open(null);
          setTip(null);
          const pixel = pixelOf(event);
          pointer.current = pixel;
          if (event.button === 2) {
            controller.whenLoaded((now) => {
              if (now.gesture.isWiring) now.gesture.cancel();
              else now.openAt(pixel);
            });
            return;
          }
          event.currentTarget.setPointerCapture(event.pointerId);
          const { pointerId, pointerType } = event;
          const keys = { ...keysOf(event), selecting };
          controller.whenLoaded((now) => now.pointers.down(pointerId, pixel, pointerType === 'touch', keys));
        }}
        onPointerMove={(event) => {
          const pixel = pixelOf(event);
          pointer.current = pixel;
          const { pointerId, pointerType, timeStamp } = event;
          // Whether the ring is open is known when the press before has been heeded, which may be later.
          controller.whenLoaded((now) => {
            const popup = openNow.current;
            if (popup?.is === 'ring') popup.flick?.move(pixel, timeStamp);
            else now.pointers.move(pointerId, pixel, pointerType === 'touch');
          });
          if (openNow.current?.is !== 'ring' && pointerType !== 'touch') {
            showTip(pixel);
            const hover = controller.now?.gesture.hover;
            pointAt(hover?.is === 'part' ? hover.part : null);
          }
        }}
        onPointerUp={(event) => {
          const pixel = pixelOf(event);
          const { button, pointerId, pointerType } = event;
          const keys = keysOf(event);
          controller.whenLoaded((now) => {
            const popup = openNow.current;
            if (popup?.is === 'ring' && (button === 2 || pointerType === 'touch')) popup.flick?.release();
            if (button !== 2) now.pointers.up(pointerId, pixel, pointerType === 'touch', keys);
          });
          if (button === 2) return;
          if (pointerType !== 'touch') showTip(pixel);
        }}
        onPointerCancel={() => controller.whenLoaded((now) => now.pointers.cancel())}
        onPointerLeave={() => {
          controller.whenLoaded((now) => now.gesture.gone());
          pointer.current = null;
          pointAt(null);
          setTip(null);
        }}
      >
        {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: a canvas without a tabindex takes no focus */}
        <canvas ref={canvas} className="absolute inset-0 size-full" aria-hidden="true" />
        <PartsList
          onStep={(part) => sheetView.centreIfHidden(part, size.current)}
          onAct={(part) => controller.whenLoaded((now) => now.activate(part))}
        />
        {sheet.parts.size === 0 && !opened && <EmptySheet readOnly={readOnly} />}
        {opened && <PopupHost key={popups.current} opened={opened} sheet={sheet} size={size} close={close} />}
        {isFirst && <FirstSteps onEnd={endFirst} />}
        {tip && <PointerTip tip={tip} room={size.current} />}
      </div>
    </section>
  );
}

const keysOf = (event: React.PointerEvent): Keys => ({
  shift: event.shiftKey,
  add: event.ctrlKey || event.metaKey,
  alt: event.altKey,
  middle: event.button === 1,
  time: event.timeStamp,
});

const measureWhole = ({ clientWidth, clientHeight }: HTMLElement) => ({
  width: clientWidth,
  height: clientHeight,
});
