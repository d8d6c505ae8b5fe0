import type { EditorContext } from '@/commands/context';
import type { Point } from '@/core/circuit/geometry';
import { panned, zoomed } from '@/core/drawing/geometry/viewport';
import { REST, TREMBLE } from '@/ui/controls/fingers';
import type { Keys } from './gesture-state';
import type { PointerGesture } from './pointer-gesture';

/**
 * All pointers on the sheet. One draws, drags and presses; two fingers move and zoom the sheet, and whatever the first had begun
 * is given up.
 */
export class Pointers {
  private readonly fingers = new Map<number, Point>();
  private pinching = false;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private restedAt: Point | null = null;

  constructor(
    private readonly gesture: PointerGesture,
    private readonly context: EditorContext,
    /** Opens the actions at the place where a finger rests. */
    private readonly onRest: (pixel: Point) => void,
  ) {}

  down(id: number, pixel: Point, touch: boolean, keys: Keys): void {
    if (!touch) {
      this.gesture.down(pixel, keys);
      return;
    }
    this.fingers.set(id, pixel);
    if (this.fingers.size > 1) {
      this.stopResting();
      this.gesture.cancel();
      this.pinching = true;
      return;
    }
    // A finger hovers nowhere before it comes down.
    this.gesture.down(pixel, { ...keys, coarse: true });
    if (this.gesture.isHolding) return;
    this.restedAt = pixel;
    this.resting = setTimeout(() => {
      this.gesture.cancel();
      this.onRest(pixel);
      this.restedAt = null;
    }, REST);
  }

  move(id: number, pixel: Point, touch: boolean): void {
    const was = this.fingers.get(id);
    if (!touch) this.gesture.move(pixel);
    else if (was) {
      if (this.restedAt && Math.hypot(pixel.x - this.restedAt.x, pixel.y - this.restedAt.y) > TREMBLE)
        this.stopResting();
      this.fingers.set(id, pixel);
      if (this.pinching) this.pinch(id, was, pixel);
      else this.gesture.move(pixel);
    }
  }

  private pinch(id: number, was: Point, is: Point): void {
    const other = [...this.fingers].find(([finger]) => finger !== id)?.[1];
    if (!other) return;
    const { drawing } = this.context;
    const before = Math.hypot(was.x - other.x, was.y - other.y);
    const after = Math.hypot(is.x - other.x, is.y - other.y);
    // The midpoint between the fingers moves half as far as one of them.
    const moved = panned(drawing.view(), (is.x - was.x) / 2, (is.y - was.y) / 2);
    const middle = { x: (is.x + other.x) / 2, y: (is.y + other.y) / 2 };
    drawing.setView(before > 0 && after > 0 ? zoomed(moved, after / before, middle.x, middle.y) : moved);
  }

  up(id: number, pixel: Point, touch: boolean, keys: Keys): void {
    this.stopResting();
    if (touch && !this.fingers.delete(id)) return;
    if (!touch || !this.pinching) this.gesture.up(pixel, keys);
    if (this.fingers.size === 0) {
      this.pinching = false;
      if (touch) this.gesture.gone();
    }
  }

  cancel(): void {
    this.stopResting();
    this.fingers.clear();
    this.pinching = false;
    this.gesture.cancel();
  }

  private stopResting(): void {
    clearTimeout(this.resting);
    this.restedAt = null;
  }
}
