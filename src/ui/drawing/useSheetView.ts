import { type RefObject, useEffect, useMemo, useRef } from 'react';
import { type Box, boundingBox, type Point } from '@/core/circuit/geometry';
import type { Part, Sheet } from '@/core/circuit/sheet';
import { footprintOf, labelBox } from '@/core/drawing/geometry/placement';
import { fitted, isInSight, START_VIEW, STEP, type View, zoomed } from '@/core/drawing/geometry/viewport';
import type { Session } from '@/session/session';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** A view that shows all of some parts on a canvas of some pixels. */
interface Fit extends Size {
  readonly view: View;
  readonly parts: Sheet['parts'];
}

export interface SheetView {
  readonly view: RefObject<View>;
  set(next: View): void;
  showAll(): void;
  /** Shows all, unless some parts are wholly in sight, or their middles are. */
  showIfHidden(parts: ReadonlySet<string>, size: Size, what: 'parts' | 'middles'): void;
  centre(at: Point, size: Size): void;
  /** Brings a part into sight at the same scale, unless it is there. */
  centreIfHidden(part: Part, size: Size): void;
  /** Brings the view up to date before it is painted. @param letters how many times larger labels are than usual. */
  beforePainting(size: Size, letters: number): void;
}

/**
 * Which part of the sheet the canvas shows. The view is refitted when the pane is resized, unless the user has panned,
 * zoomed or edited since the last fit.
 * @param repaint asks for the canvas to be painted; it is read when it is needed.
 */
export function useSheetView(session: Session, repaint: RefObject<() => void>): SheetView {
  const view = useRef<View>(START_VIEW);
  const mustFit = useRef(true);
  const lastFit = useRef<Fit | null>(null);
  return useMemo(() => {
    const set = (next: View) => {
      view.current = next;
      repaint.current();
    };
    const showAll = () => {
      mustFit.current = true;
      repaint.current();
    };
    const isHidden = (box: Box, { width, height }: Size) => !isInSight(view.current, box, width, height);
    const centre = (at: Point, { width, height }: Size) => {
      const step = STEP * view.current.scale;
      set({ ...view.current, x: at.x - width / step / 2, y: at.y - height / step / 2 });
    };
    return {
      view,
      set,
      showAll,
      showIfHidden: (ids, size, what) => {
        const parts = [...ids].flatMap((id) => session.sheet.parts.get(id) ?? []);
        const box = boundingBox(
          parts.map((p) =>
            what === 'parts' ? footprintOf(p) : { x0: p.at.x, y0: p.at.y, x1: p.at.x, y1: p.at.y },
          ),
        );
        if (!box || isHidden(box, size)) showAll();
      },
      centre,
      centreIfHidden: (part, size) => {
        const box = footprintOf(part);
        if (isHidden(box, size)) centre({ x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 }, size);
      },
      beforePainting: ({ width, height }, letters) => {
        const { parts } = session.sheet;
        const was = lastFit.current;
        const isResized = was?.width !== width || was.height !== height;
        const isUntouched = was?.view === view.current && was.parts === parts;
        if (!mustFit.current && !(isResized && isUntouched)) return;
        view.current = fitted(
          boundingBox([...parts.values()].map((p) => paintedBox(p, letters))),
          width,
          height,
        );
        lastFit.current = { view: view.current, parts, width, height };
        mustFit.current = false;
      },
    };
  }, [session, repaint]);
}

/** Everything that is painted of a part whose label is so many times larger than usual. */
function paintedBox(part: Part, letters: number): Box {
  const box = footprintOf(part);
  const label = letters === 1 ? null : labelBox(part);
  if (!label) return box;
  const [more, up] = [(label.x1 - label.x0) * (letters - 1), (label.y1 - label.y0) * (letters - 1)];
  return {
    x0: Math.min(box.x0, label.x0 - more),
    y0: Math.min(box.y0, label.y0 - up),
    x1: Math.max(box.x1, label.x1 + more),
    y1: box.y1,
  };
}

/** Zooms to the pointer with the wheel. */
export function useWheelZoom(canvas: RefObject<HTMLElement | null>, { view, set }: SheetView): void {
  useEffect(() => {
    const element = canvas.current!;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const unit = event.deltaMode === 1 ? 30 : 1;
      const factor = Math.exp((-event.deltaY * unit * (event.ctrlKey ? 4 : 1)) / 700);
      set(zoomed(view.current, factor, event.clientX - box.left, event.clientY - box.top));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [canvas, view, set]);
}
