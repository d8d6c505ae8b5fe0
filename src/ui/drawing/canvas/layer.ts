import type { View } from '@/core/drawing/geometry/viewport';
import type { Steps } from '@/core/values/steps';
import type { Size } from '@/ui/controls/usePainter';

/** How much of the shown stretch is kept around it on each side, as a share of it. */
const AROUND = 0.25;
/** A picture that is scaled by no more than this may stand in for a fresh one while the view moves. */
const MOST_SCALED = 1.6;
/** Ms without a change after which the view is at rest. */
const REST = 90;
/** Ms a frame for which a picture is painted. */
const SLICE = 10;

/** A picture of a sheet. */
interface Picture {
  readonly canvas: HTMLCanvasElement;
  readonly of: readonly unknown[];
  readonly view: View;
  /** CSS pixels. */
  readonly size: Size;
}

/**
 * A picture of a large sheet seen from far away, somewhat larger than the view: while only the view moves the picture is
 * moved along, which costs a fraction of painting thousands of parts again. A new picture is painted over several frames;
 * the one before stands until it is there.
 */
export class Layer {
  private picture: Picture | null = null;
  private next: { readonly picture: Picture; readonly steps: Steps<void> } | null = null;
  /** The canvas of the picture before, to be used again. */
  private spare: HTMLCanvasElement | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** Whether there is a picture, sharp or not. */
  get isThere(): boolean {
    return this.picture !== null;
  }

  /** Whether a picture is being painted. */
  get isBusy(): boolean {
    return this.next !== null;
  }

  /**
   * Paints the picture on paper.
   * @param of everything that the picture depends on except the view.
   * @param render paints the sheet on a context scaled to CSS pixels.
   * @param again asks for another painting: at the next frame, and once the view is at rest.
   * @param step CSS pixels of a grid step at scale 1.
   */
  paint(
    g: CanvasRenderingContext2D,
    size: Size,
    view: View,
    of: readonly unknown[],
    step: number,
    render: (g: CanvasRenderingContext2D, size: Size, view: View) => Steps<void>,
    again: () => void,
  ): void {
    // One that has been begun is finished, or it would never be while something runs.
    if (!this.next && !this.serves(size, view, of, step)) this.begin(size, view, of, step, render);
    this.goOn();
    const { picture } = this;
    if (picture) {
      const at = placed(picture, view, step);
      g.drawImage(picture.canvas, at.x, at.y, at.width, at.height);
    }
    if (this.next || !this.serves(size, view, of, step)) again();
    // The next one within this time belongs to the same movement; after it all is painted sharply.
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.timer = undefined;
      if (this.picture && this.picture.view.scale !== view.scale) again();
    }, REST);
  }

  /** Whether the picture that is there can be shown. */
  private serves(size: Size, view: View, of: readonly unknown[], step: number): boolean {
    const { picture } = this;
    if (!picture || of.length !== picture.of.length || of.some((one, i) => one !== picture.of[i]))
      return false;
    const at = placed(picture, view, step);
    const covers = at.x <= 0 && at.y <= 0 && at.x + at.width >= size.width && at.y + at.height >= size.height;
    const zoom = view.scale / picture.view.scale;
    const moving = zoom !== 1 && zoom < MOST_SCALED && zoom > 1 / MOST_SCALED;
    return covers && (zoom === 1 || (moving && this.timer !== undefined));
  }

  private begin(
    size: Size,
    view: View,
    of: readonly unknown[],
    step: number,
    render: (g: CanvasRenderingContext2D, size: Size, view: View) => Steps<void>,
  ): void {
    const ratio = window.devicePixelRatio || 1;
    const wide = { width: size.width * (1 + 2 * AROUND), height: size.height * (1 + 2 * AROUND) };
    const s = step * view.scale;
    const from = { ...view, x: view.x - (size.width * AROUND) / s, y: view.y - (size.height * AROUND) / s };
    const canvas = this.spare ?? document.createElement('canvas');
    this.spare = null;
    canvas.width = Math.ceil(wide.width * ratio);
    canvas.height = Math.ceil(wide.height * ratio);
    const own = canvas.getContext('2d')!;
    own.setTransform(ratio, 0, 0, ratio, 0, 0);
    this.next = { picture: { canvas, of, view: from, size: wide }, steps: render(own, wide, from) };
  }

  /** Paints for a while at what has been begun. */
  private goOn(): void {
    const until = performance.now() + SLICE;
    while (this.next && performance.now() < until) {
      if (!this.next.steps.next().done) continue;
      this.spare = this.picture?.canvas ?? null;
      this.picture = this.next.picture;
      this.next = null;
    }
  }
}

/** Where a picture lies in a view, in CSS pixels. */
function placed(picture: Picture, view: View, step: number): { x: number; y: number } & Size {
  const zoom = view.scale / picture.view.scale;
  return {
    x: (picture.view.x - view.x) * step * view.scale,
    y: (picture.view.y - view.y) * step * view.scale,
    width: picture.size.width * zoom,
    height: picture.size.height * zoom,
  };
}
