'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { apply } from '@/core/circuit/edit';
import { around, grown, type Point } from '@/core/circuit/geometry';
import { type Params, type Part, type Sheet, sheetOf } from '@/core/circuit/lesson';
import { move } from '@/core/drawing/gestures';
import { bodyOf, footprintOf, pinOf } from '@/core/drawing/placement';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import { kindOf } from '@/core/parts/catalogue';
import type { PartKind } from '@/core/parts/part-kind';
import { copied, pasteText, place, removeSelected } from '@/session/commands';
import type { SessionState } from '@/session/session';
import { later } from '@/ui/controls/later';
import { usePainter } from '@/ui/controls/usePainter';
import { useSession, useSessionState } from '@/ui/lesson/session-context';
import { Hand } from './hand';
import { allowedIn, drawingKey } from './keys';
import { PartsList } from './PartsList';
import { type Overlay, paint, type Scene } from './painter';
import { OUTER } from './ring-size';
import { Trouble } from './Trouble';
import { fitted, START_VIEW, STEP, toScreen, toSheet, type View, zoomed } from './view';
import { Way } from './Way';

/** What opens on the sheet is fetched when the pointer or the focus first comes to it. */
const overlays = {
  ring: () => import('./Ring').then((m) => m.Ring),
  typing: () => import('./TypingLine').then((m) => m.TypingLine),
  settings: () => import('./PartSettings').then((m) => m.PartSettings),
};
const Ring = later(overlays.ring);
const TypingLine = later(overlays.typing);
const PartSettings = later(overlays.settings);
const fetchOverlays = () => {
  for (const fetchOne of Object.values(overlays)) void fetchOne();
};

type Opened =
  | { readonly is: 'ring'; readonly at: Point; readonly pressed: boolean }
  | {
      readonly is: 'typing';
      readonly at: Point;
      readonly first: string;
      readonly entered: boolean;
      readonly next: string;
    }
  | { readonly is: 'settings'; readonly part: string };

/** What of the open lesson is to be seen on the canvas. */
const DRAWN = ['lesson', 'path', 'sheetId', 'selection', 'netlist', 'values', 'on', 'readOnly'] as const;

/** How near in pixels the pointer must be to a badge for its words to show. */
const BADGE_REACH = 16;

/** The drawing face: the sheet on a canvas, live, with everything that a hand does on it. */
export function Drawing() {
  const session = useSession();
  const sheetId = useSessionState((s) => s.sheetId);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  const readOnly = useSessionState((s) => s.readOnly);
  const root = useRef<HTMLDivElement>(null);
  const view = useRef<View>(START_VIEW);
  /** Whether the next painting is to show everything. */
  const whole = useRef(true);
  const pointer = useRef<Point | null>(null);
  /** Whether a name is being typed, known before the page is painted anew. */
  const typing = useRef(false);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [tip, setTip] = useState<{ text: string; x: number; y: number } | null>(null);
  const [cursor, setCursor] = useState('default');
  const allowed = useMemo(() => allowedIn(session), [session]);

  const { canvas, size, repaint } = usePainter((g, pixels, palette) => {
    if (whole.current) {
      const box = around([...session.sheet.parts.values()].map(footprintOf));
      view.current = fitted(box, pixels.width, pixels.height);
      whole.current = false;
    }
    const state = session.state;
    const shown = shownSheet();
    paint(g, pixels, view.current, sceneOf(state, shown), overlayOf(state, shown, hand), palette);
    setCursor(hand.cursor);
  }, measureWhole);
  const hand = useMemo(
    () =>
      new Hand({
        session,
        view: () => view.current,
        setView: (next) => {
          view.current = next;
        },
        repaint,
        openSettings: (id) => {
          const part = session.sheet.parts.get(id);
          // Two clicks on a block lead into it; F2 sets what can be set about it.
          if (part?.kind === 'block') session.enter(id);
          else setOpened({ is: 'settings', part: id });
        },
      }),
    [session, repaint],
  );
  const preview = useRef<{ by: Point; sheet: Sheet; from: Sheet } | null>(null);

  /** The sheet as it would be if the parts were let go here. */
  const shownSheet = (): Sheet => {
    const now = session.sheet;
    const by = hand.dragged;
    if (!by || (by.x === 0 && by.y === 0)) return now;
    const last = preview.current;
    if (last && last.from === now && last.by.x === by.x && last.by.y === by.y) return last.sheet;
    const { lesson, selection } = session.state;
    const applied = apply(lesson, move(lesson, now.id, selection.parts, by));
    const moved = applied.ok ? sheetOf(applied.lesson, now.id)! : now;
    preview.current = { by, sheet: moved, from: now };
    return moved;
  };

  const showAll = useCallback(() => {
    whole.current = true;
    repaint();
  }, [repaint]);

  useEffect(
    () =>
      session.store.subscribe((is, was) => {
        if (DRAWN.some((key) => is[key] !== was[key])) repaint();
      }),
    [session, repaint],
  );

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
    setOpened(null);
    showAll();
  }, [sheetId, showAll]);

  const pixelOf = (event: { clientX: number; clientY: number }): Point => {
    const box = root.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const middle = (): Point => ({ x: size.current.width / 2, y: size.current.height / 2 });
  const close = () => {
    setOpened(null);
    root.current?.focus();
  };
  const placeAt = (pixel: Point, kind: PartKind, params: Params, labels: readonly string[]) => {
    const p = toSheet(view.current, pixel.x, pixel.y);
    place(session, kind, params, labels, { x: Math.round(p.x), y: Math.round(p.y) });
    close();
  };
  const act = (id: string) => {
    const part = session.sheet.parts.get(id);
    if (part?.kind === 'block') {
      session.enter(id);
      return;
    }
    const role = part && kindOf(part).role?.(part.params);
    if (role?.role === 'input' && ['switch', 'button', 'port'].includes(role.by)) session.flip(id);
    else setOpened({ is: 'settings', part: id });
  };
  const openTyping = (first: string) => {
    typing.current = true;
    setOpened({ is: 'typing', at: pointer.current ?? middle(), first, entered: false, next: '' });
  };
  /** Keys that are pressed before the typing line is there are not lost. */
  const typeAhead = (event: React.KeyboardEvent) => {
    if (!typing.current || event.target !== root.current) return false;
    const { key } = event;
    if (key === 'Escape') setOpened(null);
    else
      setOpened((now) => {
        if (now?.is !== 'typing') return now;
        if (key === 'Enter') return { ...now, entered: true };
        if (key.length !== 1) return now;
        // What comes after Enter is the next part's name.
        return now.entered ? { ...now, next: now.next + key } : { ...now, first: now.first + key };
      });
    return true;
  };
  useEffect(() => {
    typing.current = opened?.is === 'typing';
  }, [opened]);
  const showTip = (pixel: Point) => {
    const spot = troubleSpots(session.sheet, session.state.diagnostics).find(({ at }) => {
      const p = toScreen(view.current, at);
      return Math.hypot(p.x - pixel.x, p.y - pixel.y) < BADGE_REACH;
    });
    if (spot) setTip({ text: spot.trouble.message, x: pixel.x, y: pixel.y });
    else if (tip) setTip(null);
  };
  const showTrouble = (trouble: Diagnostic) => {
    const spot = troubleSpots(session.sheet, [trouble])[0];
    if (!spot) return;
    const { width, height } = size.current;
    const s = STEP * view.current.scale;
    view.current = { ...view.current, x: spot.at.x - width / s / 2, y: spot.at.y - height / s / 2 };
    const p = toScreen(view.current, spot.at);
    setTip({ text: trouble.message, x: p.x, y: p.y });
    session.select({ parts: new Set(trouble.pins.map((pin) => pin.part)), wires: new Set() });
    repaint();
  };

  const settingsPart = opened?.is === 'settings' ? sheet.parts.get(opened.part) : undefined;
  const settingsAt = settingsPart && settingsPosition(settingsPart, view.current, size.current);

  return (
    <section className="pane" aria-label="Drawing">
      <header className="pane-head">
        <h2 className="font-semibold">Drawing</h2>
        <Way />
        <GateCount />
        <Trouble onShow={showTrouble} />
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
        onKeyDown={(event) => {
          if (event.target instanceof HTMLInputElement || event.target instanceof HTMLSelectElement) return;
          const used =
            typeAhead(event) ||
            drawingKey(event, {
              session,
              openRing: () => setOpened({ is: 'ring', at: pointer.current ?? middle(), pressed: false }),
              openTyping,
              openSettings: (part) => setOpened({ is: 'settings', part }),
              act,
              showAll,
              zoom: (factor) => {
                const at = pointer.current ?? middle();
                view.current = zoomed(view.current, factor, at.x, at.y);
                repaint();
              },
              cancel: () => hand.cancel(),
            });
          if (used) {
            event.preventDefault();
            event.stopPropagation();
          }
        }}
        onFocus={fetchOverlays}
        onPointerEnter={fetchOverlays}
        onCopy={(event) => {
          const text = copied(session);
          if (!text || event.target instanceof HTMLInputElement) return;
          event.clipboardData.setData('text/plain', text);
          event.preventDefault();
        }}
        onCut={(event) => {
          const text = copied(session);
          if (!text || event.target instanceof HTMLInputElement) return;
          event.clipboardData.setData('text/plain', text);
          event.preventDefault();
          removeSelected(session);
        }}
        onPaste={(event) => {
          if (event.target instanceof HTMLInputElement) return;
          event.preventDefault();
          pasteText(session, event.clipboardData.getData('text/plain'), allowed);
        }}
        onContextMenu={(event) => event.preventDefault()}
        // The ring that the right button opens has the focus; the press itself must not take it back.
        onMouseDown={(event) => event.button === 2 && event.preventDefault()}
        onDoubleClick={(event) => hand.double(pixelOf(event))}
        onPointerDown={(event) => {
          root.current?.focus();
          setOpened(null);
          setTip(null);
          if (event.button === 2) {
            if (hand.wiring) hand.cancel();
            else setOpened({ is: 'ring', at: pixelOf(event), pressed: true });
            return;
          }
          event.currentTarget.setPointerCapture(event.pointerId);
          hand.down(pixelOf(event), {
            shift: event.shiftKey,
            add: event.ctrlKey || event.metaKey,
            middle: event.button === 1,
          });
        }}
        onPointerMove={(event) => {
          const pixel = pixelOf(event);
          pointer.current = pixel;
          if (opened?.is === 'ring') return;
          hand.move(pixel);
          showTip(pixel);
        }}
        onPointerUp={(event) => {
          if (event.button === 2) return;
          hand.up(pixelOf(event), { shift: event.shiftKey, add: event.ctrlKey || event.metaKey });
          showTip(pixelOf(event));
        }}
        onPointerCancel={() => hand.cancel()}
        onPointerLeave={() => {
          hand.leave();
          pointer.current = null;
          setTip(null);
        }}
      >
        <canvas ref={canvas} className="absolute inset-0 size-full" aria-hidden="true" />
        <PartsList onAct={act} />
        {sheet.parts.size === 0 && !opened && <EmptySheet readOnly={readOnly} />}
        {opened?.is === 'ring' && (
          <Ring
            x={within(opened.at.x, OUTER + 4, size.current.width - OUTER - 4)}
            y={within(opened.at.y, OUTER + 4, size.current.height - OUTER - 26)}
            pressed={opened.pressed}
            session={session}
            onClose={close}
            onPlace={(kind, params) => placeAt(opened.at, kind, params, [''])}
            onType={openTyping}
          />
        )}
        {opened?.is === 'typing' && (
          <TypingLine
            x={within(opened.at.x, 4, size.current.width - 296)}
            y={within(opened.at.y, 4, size.current.height - 300)}
            first={opened.first}
            entered={opened.entered}
            session={session}
            onClose={close}
            onPlace={(typed) => {
              placeAt(opened.at, typed.kind, typed.params, typed.labels);
              if (opened.next) openTyping(opened.next);
            }}
          />
        )}
        {settingsPart && settingsAt && (
          <PartSettings
            key={settingsPart.id}
            part={settingsPart}
            x={settingsAt.x}
            y={settingsAt.y}
            room={settingsAt.room}
            onClose={close}
          />
        )}
        {tip && (
          <p
            role="status"
            className="pointer-events-none absolute z-20 w-72 rounded-lg border border-bad bg-raised px-3 py-2 text-sm shadow-lg"
            style={{
              left: within(tip.x + 14, 8, size.current.width - 300),
              top: within(tip.y + 14, 8, size.current.height - 110),
            }}
          >
            {tip.text}
          </p>
        )}
      </div>
    </section>
  );
}

const measureWhole = ({ clientWidth, clientHeight }: HTMLElement) => ({
  width: clientWidth,
  height: clientHeight,
});

function sceneOf(state: SessionState, sheet: Sheet): Scene {
  const { view, values, conflicts, path, lesson } = state;
  const around = path.length === 0 ? '' : `${path.join('/')}/`;
  const on = around
    ? new Set([...state.on].flatMap((key) => (key.startsWith(around) ? [key.slice(around.length)] : [])))
    : state.on;
  return { sheet, netlist: view, values, conflicts, on, standard: lesson.settings.symbols };
}

function overlayOf(state: SessionState, sheet: Sheet, hand: Hand): Overlay {
  const { hover } = hand;
  return {
    parts: state.selection.parts,
    wires: state.selection.wires,
    hover: hover && {
      part: hover.is === 'part' ? hover.part : undefined,
      wire: hover.is === 'wire' ? hover.wire : undefined,
      pin: hover.is === 'pin' ? hover.at : undefined,
    },
    rubber: hand.rubber,
    box: hand.box,
    trouble: troubleSpots(sheet, state.diagnostics).map(({ at, trouble }) => ({
      at,
      grave: trouble.code !== 'loose-input',
    })),
    grid: true,
  };
}

/** A pixel moved into a stretch; to its beginning where it is too short. */
function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(value, most));
}

/** Pins with a complaint, where they stand on the sheet. */
function troubleSpots(
  sheet: Sheet,
  diagnostics: readonly Diagnostic[],
): { at: Point; trouble: Diagnostic }[] {
  return diagnostics.flatMap((trouble) =>
    trouble.pins.flatMap(({ part, port }) => {
      const at = pinOf(sheet, part, port)?.at;
      return at ? [{ at, trouble }] : [];
    }),
  );
}

function settingsPosition(
  part: Part,
  view: View,
  size: { width: number; height: number },
): Point & { room: number } {
  const body = grown(bodyOf(part), 1);
  const p = toScreen(view, { x: body.x1, y: body.y0 });
  // About as tall as what can be set: never past the lower edge, and scrolled where it has no room.
  const height = 150 + 46 * (kindOf(part).settings?.length ?? 0);
  const y = within(p.y, 4, Math.max(4, size.height - height - 12));
  return { x: within(p.x, 4, size.width - 250), y, room: size.height - y - 8 };
}

function GateCount() {
  const netlist = useSessionState((s) => s.netlist);
  const sheet = useSessionState((s) => sheetOf(s.lesson, s.sheetId)!);
  let gates = 0;
  let stored = 0;
  let flipFlops = 0;
  for (const part of sheet.parts.values()) {
    const { family } = kindOf(part);
    if (family === 'Gates') gates++;
    if ((family !== 'Storage' && family !== 'Registers') || part.kind === 'rom') continue;
    stored++;
    if (part.kind.endsWith('ff')) flipFlops++;
  }
  const levels = netlist.level.reduce((most, l) => Math.max(most, l), 0);
  const words = [
    gates > 0 && (gates === 1 ? '1 gate' : `${gates} gates`),
    flipFlops > 0 && (flipFlops === 1 ? '1 flip-flop' : `${flipFlops} flip-flops`),
    stored > flipFlops && `${stored - flipFlops} ${flipFlops ? 'more ' : ''}that store`,
    gates > 0 &&
      stored === 0 &&
      netlist.looped.length === 0 &&
      (levels === 1 ? '1 level' : `${levels} levels`),
  ].filter(Boolean);
  return <span className="text-quiet">{words.join(' · ')}</span>;
}

function EmptySheet({ readOnly }: { readOnly: boolean }) {
  if (readOnly) return null;
  return (
    <div className="pointer-events-none absolute inset-0 flex flex-col items-center justify-center gap-2 p-8 text-center">
      <p className="text-xl font-semibold">An empty sheet</p>
      <p className="max-w-md text-quiet">
        Press <Key>Space</Key> or the right mouse button for the ring of parts, or simply type a name:{' '}
        <Key>sw A, B</Key> <Key>and</Key> <Key>lamp</Key>
      </p>
      <p className="max-w-md text-quiet">
        Then drag from pin to pin to wire them, and click a switch to try.
      </p>
    </div>
  );
}

function Key({ children }: { children: string }) {
  return (
    <kbd className="rounded-md border border-hairline bg-raised px-1.5 py-0.5 font-mono text-[0.85em] text-ink">
      {children}
    </kbd>
  );
}
