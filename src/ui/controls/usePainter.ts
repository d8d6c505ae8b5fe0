import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef } from 'react';
import { type Palette, readPalette } from '@/ui/controls/palette';
import { rememberPainter } from './painted';
import { useProjector, useTheme } from './theme';

export interface Size {
  readonly width: number;
  readonly height: number;
}

export interface Painter {
  readonly canvas: RefObject<HTMLCanvasElement | null>;
  /** CSS pixels. */
  readonly size: RefObject<Size>;
  /** Paints with one of the next frames, once however often it is asked. */
  readonly repaint: () => void;
}

/** After this many ms of painting the remaining canvases wait for the next frame, so a large drawing and a long diagram take a frame each. */
const MS_A_FRAME = 2;

/** Canvases waiting to be painted, in the order of their requests. */
const waiting = new Set<() => void>();
let frame = 0;

function paintWaiting(): void {
  const end = performance.now() + MS_A_FRAME;
  try {
    for (const paint of waiting) {
      waiting.delete(paint);
      paint();
      if (performance.now() > end) return;
    }
  } finally {
    frame = waiting.size > 0 ? requestAnimationFrame(paintWaiting) : 0;
  }
}

/**
 * A canvas that is painted when something has changed: sharp on every screen, again with another theme, at
 * once when it is resized (a resized canvas is blank), and otherwise with one of the next frames.
 * @param paint gets a context scaled to CSS pixels; the newest one given is used.
 * @param measure gives the intended size of the canvas, from the element around it.
 */
export function usePainter(
  paint: (g: CanvasRenderingContext2D, size: Size, palette: Palette) => void,
  measure: (around: HTMLElement) => Size,
): Painter {
  const canvas = useRef<HTMLCanvasElement>(null);
  const size = useRef<Size>({ width: 0, height: 0 });
  const palette = useRef<Palette | null>(null);
  const looks = `${useTheme()} ${useProjector()}`;
  const latest = useRef(paint);
  latest.current = paint;

  const paintNow = useCallback(() => {
    const g = canvas.current?.getContext('2d');
    if (!g || size.current.width === 0) return;
    palette.current ??= readPalette();
    const ratio = window.devicePixelRatio || 1;
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    latest.current(g, size.current, palette.current);
  }, []);

  const repaint = useCallback(() => {
    waiting.add(paintNow);
    if (frame === 0) frame = requestAnimationFrame(paintWaiting);
  }, [paintNow]);

  useEffect(() => () => void waiting.delete(paintNow), [paintNow]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another theme has other colours
  useEffect(() => {
    palette.current = null;
    repaint();
    document.fonts.ready.then(repaint);
  }, [looks, repaint]);

  // Before the first paint: a canvas that grew afterwards would move what a hand is about to press.
  useLayoutEffect(() => {
    const element = canvas.current!;
    rememberPainter(element, (g, palette) => latest.current(g, size.current, palette));
    const around = element.parentElement!;
    element.style.height = `${measure(around).height}px`;
    const observer = new ResizeObserver(() => {
      size.current = measure(around);
      const ratio = window.devicePixelRatio || 1;
      element.width = Math.round(size.current.width * ratio);
      element.height = Math.round(size.current.height * ratio);
      element.style.height = `${size.current.height}px`;
      paintNow();
    });
    observer.observe(around);
    return () => observer.disconnect();
  }, [measure, paintNow]);

  return { canvas, size, repaint };
}
