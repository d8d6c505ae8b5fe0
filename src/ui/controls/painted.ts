import type { Palette } from './palette';

/** Paints what a canvas shows on another context, with other colours. */
type PaintAgain = (g: CanvasRenderingContext2D, palette: Palette) => void;

const painters = new WeakMap<HTMLCanvasElement, PaintAgain>();

/** Remembers how a canvas is painted, so that a figure can be made of it. */
export function rememberPainter(canvas: HTMLCanvasElement, paint: PaintAgain): void {
  painters.set(canvas, paint);
}

/** How a canvas is painted; null for an unknown canvas. */
export const painterOf = (canvas: HTMLCanvasElement): PaintAgain | null => painters.get(canvas) ?? null;
