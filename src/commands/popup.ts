import type { Point } from '@/core/circuit/geometry';
import type { End, Params, PinEnd } from '@/core/circuit/sheet';
import type { PartKind } from '@/core/parts/part-kind';

/** The popups over the sheet; points are pixels within the drawing. */
export type Popup =
  | {
      readonly is: 'ring';
      readonly at: Point;
      /** The pointer that opened it and is still down: releasing it over a part places the part. */
      readonly flick: Flick | null;
      /** Whether the pointer shows the place. */
      readonly pointed: boolean;
    }
  | {
      readonly is: 'typing';
      readonly at: Point;
      /** The text with which the line begins. */
      readonly first: string;
      /** The part that becomes the one that is typed. */
      readonly change?: string;
      /** Ends of wires that were dropped here, to be joined to the chosen part. */
      readonly pull: readonly End[];
      /** Whether the pointer shows the place. */
      readonly pointed: boolean;
    }
  /** The label of a part that has just been placed; `placed` is offered after it. */
  | { readonly is: 'label'; readonly part: string; readonly placed: Placed }
  | { readonly is: 'settings'; readonly parts: readonly string[]; readonly at: 'label' | 'parameter' }
  /** The menu of actions; `pin` if it was opened on one. */
  | { readonly is: 'actions'; readonly at: Point; readonly pin?: PinEnd }
  | { readonly is: 'repeat'; readonly at: Point }
  /** Presses and drags select, until Escape or a box has been drawn. */
  | { readonly is: 'selecting' }
  /** Panels of one part: wiring from the keyboard, the value of a bus input, and the part's own table. */
  | { readonly is: 'wire' | 'value' | 'own'; readonly part: string }
  /** Where an end of some wires is put from the keyboard. */
  | { readonly is: 'ends'; readonly wires: readonly string[] }
  | { readonly is: 'problem'; readonly index: number }
  | { readonly is: 'widths'; readonly at: Point; readonly from: End; readonly to: PinEnd }
  | Placed;

/** Parts that have just been placed: one more key repeats them or sets them. */
export interface Placed {
  readonly is: 'placed';
  readonly kind: PartKind;
  readonly params: Params;
  readonly parts: readonly string[];
}

/** Follows a pointer; `time` is when it was at the pixel, in ms since the page began, however late that is told. */
interface FlickTaker {
  readonly move: (pixel: Point, time: number) => void;
  readonly release: () => void;
}

/** The path of a pointer since it opened the ring; it may be over before the ring is visible. */
export class Flick {
  private points: [Point, number][] = [];
  private isOver = false;
  private taker: FlickTaker | null = null;

  /** The pointer has gone to a pixel of the drawing, at a time in ms since the page began. */
  move(pixel: Point, time: number): void {
    if (this.taker) this.taker.move(pixel, time);
    else this.points.push([pixel, time]);
  }

  /** The button, or the finger, that opened the ring is let go. */
  release(): void {
    if (this.taker) this.taker.release();
    else this.isOver = true;
  }

  /** Hands the path over to the ring: what it has missed so far at once, the rest as it comes. */
  takenBy(taker: FlickTaker): void {
    if (this.taker) return;
    this.taker = taker;
    for (const [pixel, time] of this.points.splice(0)) taker.move(pixel, time);
    if (this.isOver) taker.release();
  }
}
