import type { Box, Point } from '@/core/circuit/geometry';

/** Pixels of a grid step at scale 1. */
export const STEP = 14;
export const SMALLEST = 0.03;
export const LARGEST = 4;

/** Which part of the sheet a canvas shows: the sheet point at its top left corner, and the scale. */
export interface View {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

export const START_VIEW: View = { x: -4, y: -4, scale: 1 };

export function toSheet(view: View, px: number, py: number): Point {
  const s = STEP * view.scale;
  return { x: view.x + px / s, y: view.y + py / s };
}

export function toScreen(view: View, p: Point): Point {
  const s = STEP * view.scale;
  return { x: (p.x - view.x) * s, y: (p.y - view.y) * s };
}

/** The view scaled so that the sheet point under the pixel stays there. */
export function zoomed(view: View, factor: number, px: number, py: number): View {
  const scale = Math.min(LARGEST, Math.max(SMALLEST, view.scale * factor));
  const at = toSheet(view, px, py);
  const s = STEP * scale;
  return { x: at.x - px / s, y: at.y - py / s, scale };
}

export function panned(view: View, dx: number, dy: number): View {
  const s = STEP * view.scale;
  return { ...view, x: view.x - dx / s, y: view.y - dy / s };
}

/** Whether a box is wholly in sight on a canvas of so many pixels. */
export function isInSight(view: View, box: Box, width: number, height: number): boolean {
  const [first, last] = [toScreen(view, { x: box.x0, y: box.y0 }), toScreen(view, { x: box.x1, y: box.y1 })];
  return first.x >= 0 && first.y >= 0 && last.x <= width && last.y <= height;
}

/** The view that shows a box whole with some air around it, at most a little enlarged. */
export function fitted(box: Box | null, width: number, height: number, most = 1.6): View {
  if (!box || width === 0 || height === 0) return START_VIEW;
  const air = 2;
  const w = box.x1 - box.x0 + 2 * air;
  const h = box.y1 - box.y0 + 2 * air;
  const scale = Math.min(most, Math.max(SMALLEST, Math.min(width / (w * STEP), height / (h * STEP))));
  const s = STEP * scale;
  return {
    x: (box.x0 + box.x1) / 2 - width / s / 2,
    y: (box.y0 + box.y1) / 2 - height / s / 2,
    scale,
  };
}
