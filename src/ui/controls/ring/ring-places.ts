import type { Point } from '@/core/circuit/geometry';
import { HUB, INNER, NEAREST, OUTER } from './ring-size';

/** The place of the ring under a point, given from its middle. */
export type RingPlace =
  | { readonly on: 'hub' | 'outside' | 'gap' }
  | { readonly on: 'recent' | 'family' | 'part'; readonly index: number };

/** A slice of a circle: angles in radians, 0 at the top, clockwise. */
export interface Slice {
  readonly from: number;
  readonly to: number;
  readonly middle: number;
}

/** The slices of each circle. */
export interface RingSlices {
  readonly recent: readonly Slice[];
  readonly families: readonly Slice[];
  readonly parts: readonly Slice[];
}

const TURN = 2 * Math.PI;
/** A part's slice is this wide where there is room: so many stand on the side of their family. */
const PART = TURN / 13;

const sliceAround = (middle: number, width: number): Slice => ({
  from: middle - width / 2,
  to: middle + width / 2,
  middle,
});

/** A circle divided evenly, the first slice at the top. */
export const evenly = (count: number): Slice[] =>
  Array.from({ length: count }, (_, i) => sliceAround((i * TURN) / count, TURN / count));

/** The parts of a family fanned out around its side: the first straight ahead, the next ones to its right and left in turn. */
export function fanned(count: number, ahead: number): Slice[] {
  const width = Math.min(PART, TURN / Math.max(1, count));
  return Array.from({ length: count }, (_, i) => {
    const aside = Math.ceil(i / 2) * (i % 2 === 1 ? 1 : -1);
    return sliceAround(ahead + aside * width, width);
  });
}

/** The slice in which a direction lies, or -1. */
function sliceAt({ x, y }: Point, slices: readonly Slice[]): number {
  const angle = Math.atan2(x, -y);
  return slices.findIndex(({ from, to }) => {
    const beyond = (((angle - from) % TURN) + TURN) % TURN;
    return beyond < to - from;
  });
}

/** The place under a point, given from the middle. */
export function ringPlace(p: Point, { recent, families, parts }: RingSlices): RingPlace {
  const r = Math.hypot(p.x, p.y);
  if (r > OUTER) return { on: 'outside' };
  if (r < HUB) return { on: 'hub' };
  const on = r < NEAREST ? 'recent' : r < INNER ? 'family' : 'part';
  const index = sliceAt(p, on === 'recent' ? recent : on === 'family' ? families : parts);
  return index === -1 ? { on: on === 'recent' ? 'hub' : 'gap' } : { on, index };
}

/** Points of the way from one to another, close enough together that no circle is jumped over. */
export function wayBetween(from: Point, to: Point): Point[] {
  const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / 8));
  return Array.from({ length: steps }, (_, i) => ({
    x: from.x + ((to.x - from.x) * (i + 1)) / steps,
    y: from.y + ((to.y - from.y) * (i + 1)) / steps,
  }));
}
