import type { Point } from '@/core/circuit/geometry';

/** How long in ms a finger rests before it asks, and how far in pixels it may tremble. */
export const REST = 500;
export const TREMBLE = 8;

/** A finger on the page. */
interface Touch extends Point {
  readonly id: number;
}

/** Fingers on a scrollable view: one acts as a pointer, and asks when it rests; two move the view. */
export class Fingers {
  private readonly at = new Map<number, Point>();
  private resting: ReturnType<typeof setTimeout> | undefined;
  private isMovingAll = false;

  constructor(private readonly onMoveAll: (by: Point) => void) {}

  /**
   * A finger comes down. @param onRest what it asks where it stays.
   * @returns whether it is the second finger, which cancels what the first began.
   */
  down({ id, x, y }: Touch, onRest: () => void): boolean {
    this.at.set(id, { x, y });
    clearTimeout(this.resting);
    if (this.at.size > 1) {
      this.isMovingAll = true;
      return true;
    }
    this.resting = setTimeout(onRest, REST);
    return false;
  }

  /** A finger moves. @returns whether it moves the whole. */
  move({ id, x, y }: Touch): boolean {
    const was = this.at.get(id);
    if (!was) return false;
    // Until it has left its place, it rests there.
    if (!this.isMovingAll && Math.hypot(x - was.x, y - was.y) <= TREMBLE) return false;
    clearTimeout(this.resting);
    this.at.set(id, { x, y });
    // The middle of two fingers moves half as far as one of them.
    if (this.isMovingAll) this.onMoveAll({ x: (x - was.x) / 2, y: (y - was.y) / 2 });
    return this.isMovingAll;
  }

  /** A finger goes. @returns whether it has moved the whole, and means nothing else. */
  up(id: number): boolean {
    clearTimeout(this.resting);
    this.at.delete(id);
    const was = this.isMovingAll;
    if (this.at.size === 0) this.isMovingAll = false;
    return was;
  }
}
