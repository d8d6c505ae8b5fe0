import { STEP, type View } from '@/core/drawing/geometry/viewport';
import type { Palette } from '@/ui/controls/palette';
import type { Size } from '@/ui/controls/usePainter';

/** The dots of the view that was painted last, as a picture once it was painted twice. */
let last: { readonly key: string; picture: HTMLCanvasElement | null } = { key: '', picture: null };

/** Paints the dots of the grid. Where the view stays, as while time runs, a thousand dots are one picture. */
export function paintGrid(g: CanvasRenderingContext2D, size: Size, view: View, palette: Palette): void {
  // A recorder for a figure takes dots: it has no pixels.
  if (typeof CanvasRenderingContext2D === 'undefined' || !(g instanceof CanvasRenderingContext2D)) {
    paintDots(g, size, view, palette);
    return;
  }
  const ratio = g.getTransform().a;
  const key = [view.x, view.y, view.scale, size.width, size.height, ratio, palette.grid].join(' ');
  if (key !== last.key) {
    last = { key, picture: null };
    paintDots(g, size, view, palette);
    return;
  }
  last.picture ??= pictureOf(size, ratio, (own) => paintDots(own, size, view, palette));
  const { width, height } = last.picture;
  g.drawImage(last.picture, 0, 0, width / ratio, height / ratio);
}

function pictureOf(
  size: Size,
  ratio: number,
  paintOn: (g: CanvasRenderingContext2D) => void,
): HTMLCanvasElement {
  const picture = document.createElement('canvas');
  picture.width = Math.ceil(size.width * ratio);
  picture.height = Math.ceil(size.height * ratio);
  const own = picture.getContext('2d')!;
  own.scale(ratio, ratio);
  paintOn(own);
  return picture;
}

function paintDots(g: CanvasRenderingContext2D, size: Size, view: View, palette: Palette): void {
  const every = view.scale < 0.5 ? 4 : 2;
  const s = STEP * view.scale;
  g.fillStyle = palette.grid;
  const x0 = Math.ceil(view.x / every) * every;
  const y0 = Math.ceil(view.y / every) * every;
  for (let y = y0; (y - view.y) * s < size.height; y += every)
    for (let x = x0; (x - view.x) * s < size.width; x += every)
      g.fillRect(Math.round((x - view.x) * s) - 0.5, Math.round((y - view.y) * s) - 0.5, 1.5, 1.5);
}
