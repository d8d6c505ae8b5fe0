import type { Point } from '@/core/circuit/geometry';
import { evenly, fanned, type RingPlace, type RingSlices, ringPlace, wayBetween } from './ring-places';
import { HUB, INNER, NEAREST } from './ring-size';

/** Where a hand on its way out has come to a family for good, in pixels from the middle. */
const REACHED = (NEAREST + INNER) / 2 - 8;
/** A hand that stays within so many pixels rests. */
const STILL = 4;

/** Pixels by which a hand may tremble while it holds the press. */
const TREMBLE = 6;
/** Ms of rest after which a hand has seen the ring. */
const SEEN = 300;

/**
 * A hand that moves while it holds the press that opened the ring. Near an edge the ring stands beside the press: a stroke
 * that began before the ring was seen means its directions, from the press on, until the hand rests; then it goes by what
 * it sees. Times are those of the hand's own moves, so that a busy page reads a quick stroke as one.
 */
export class Stroke {
  private at: Point;
  private doesSee = false;
  /** Whether it has gone anywhere since the press. */
  hasGone = false;

  /**
   * @param press pixel of the press.
   * @param middle pixel of the ring's middle.
   * @param since ms at which the ring opened; the hand was at the press then.
   */
  constructor(
    private readonly press: Point,
    private readonly middle: Point,
    private since: number,
  ) {
    this.at = press;
  }

  /** Goes to a pixel, at a time in ms. @returns where that is from the middle of the ring, as it is meant. */
  move(pixel: Point, time: number): Point {
    if (Math.hypot(pixel.x - this.at.x, pixel.y - this.at.y) > STILL) {
      this.doesSee ||= time - this.since >= SEEN;
      this.at = pixel;
      this.since = Math.max(this.since, time);
    }
    this.hasGone ||= Math.hypot(pixel.x - this.press.x, pixel.y - this.press.y) > TREMBLE;
    const from = this.doesSee ? this.middle : this.press;
    return { x: pixel.x - from.x, y: pixel.y - from.y };
  }
}

/**
 * A hand over the ring. The family that it reaches first is kept while it goes on to a part, whatever it cuts across, until
 * it goes back to the hub or rests on another family.
 */
export class RingHand {
  private at: Point = { x: 0, y: 0 };
  private isKept = false;
  /** Where it last moved from, for telling whether it rests. */
  private still: Point = { x: 0, y: 0 };
  private readonly byFamily: readonly RingSlices[];
  family = 0;

  /**
   * @param parts how many each family has.
   * @param recent how many parts were placed last.
   */
  constructor(parts: readonly number[], recent: number) {
    const shared = { recent: evenly(recent), families: evenly(parts.length) };
    this.byFamily = parts.map((count, i) => ({
      ...shared,
      parts: fanned(count, shared.families[i]!.middle),
    }));
  }

  /** The slices as they stand now. */
  get slices(): RingSlices {
    return this.byFamily[this.family]!;
  }

  /** Goes to a point, given from the middle. @returns what is under it then, and whether it has moved for good. */
  move(to: Point): { readonly over: RingPlace; readonly hasMoved: boolean } {
    let over = ringPlace(to, this.slices);
    for (const p of wayBetween(this.at, to)) over = this.pass(p);
    this.at = to;
    const hasMoved = Math.hypot(to.x - this.still.x, to.y - this.still.y) > STILL;
    if (hasMoved) this.still = to;
    return { over, hasMoved };
  }

  private pass(p: Point): RingPlace {
    const r = Math.hypot(p.x, p.y);
    if (r < HUB) this.isKept = false;
    const over = ringPlace(p, this.slices);
    if (over.on === 'family' && !this.isKept) {
      this.family = over.index;
      this.isKept = r >= REACHED;
    }
    if (r >= INNER) this.isKept = true;
    return ringPlace(p, this.slices);
  }

  /** It rests where it is: a family under it is the one that is meant. */
  rest(): void {
    const over = ringPlace(this.at, this.slices);
    if (over.on === 'family') this.openFamily(over.index);
  }

  openFamily(index: number): void {
    this.family = index;
    this.isKept = true;
  }
}
