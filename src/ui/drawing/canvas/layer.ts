import type { View } from '@/core/drawing/geometry/viewport';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** How much of the shown stretch is kept around it on each side, as a share of it. */
const AROUND = 0.25;
/** A picture that is scaled by no more than this may stand in for a fresh one while the view moves. */
const MOST_SCALED = 1.6;
/** Ms without a change after which the view is at rest. */
const REST = 90;

/**
 * A picture of a large sheet seen from far away, somewhat larger than the view: while only the view moves the
 * picture is moved along, which costs a fraction of painting thousands of parts again.
 */
export class Layer {
  private readonly canvas = document.createElement('canvas');
  private of: readonly unknown[] = [];
  private view: View | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /**
   * @param of everything that the picture depends on except the view.
   * @param render paints the sheet on a context scaled to CSS pixels.
   * @param again asks for another painting once the view is at rest.
   * @param step CSS pixels of a grid step at scale 1.
   */
  paint(
    g: CanvasRenderingContext2D,
    size: Size,
    view: View,
    of: readonly unknown[],
    step: number,
    render: (g: CanvasRenderingContext2D, size: Size, view: View) => void,
    again: () => void,
  ): void {
    const ratio = window.devicePixelRatio || 1;
    const same = this.view !== null && of.length === this.of.length && of.every((o, i) => o === this.of[i]);
    const wide = { width: size.width * (1 + 2 * AROUND), height: size.height * (1 + 2 * AROUND) };
    const old = this.view;
    const zoom = old ? view.scale / old.scale : 1;
    const at = old && {
      x: (old.x - view.x) * step * view.scale,
      y: (old.y - view.y) * step * view.scale,
    };
    const covers =
      !!at &&
      at.x <= 0 &&
      at.y <= 0 &&
      at.x + wide.width * zoom >= size.width &&
      at.y + wide.height * zoom >= size.height;
    const moving = zoom !== 1 && zoom < MOST_SCALED && zoom > 1 / MOST_SCALED;
    if (!same || !covers || (zoom !== 1 && !(moving && this.timer))) {
      this.canvas.width = Math.ceil(wide.width * ratio);
      this.canvas.height = Math.ceil(wide.height * ratio);
      const s = step * view.scale;
      this.view = { ...view, x: view.x - (size.width * AROUND) / s, y: view.y - (size.height * AROUND) / s };
      this.of = of;
      const own = this.canvas.getContext('2d')!;
      own.setTransform(ratio, 0, 0, ratio, 0, 0);
      render(own, wide, this.view);
      g.drawImage(this.canvas, -size.width * AROUND, -size.height * AROUND, wide.width, wide.height);
    } else g.drawImage(this.canvas, at.x, at.y, wide.width * zoom, wide.height * zoom);
    // The next one within this time belongs to the same movement; after it all is painted sharply.
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = undefined;
      if (this.view && this.view.scale !== view.scale) again();
    }, REST);
  }
}
