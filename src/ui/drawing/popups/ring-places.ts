import type { Point } from '@/core/circuit/geometry';
import { HUB, INNER, NEAREST, OUTER } from './ring-size';

/** The place of the ring under a point, given from its middle. */
export type RingPlace =
  | { readonly on: 'hub' | 'outside' }
  | { readonly on: 'recent' | 'family' | 'part'; readonly index: number };

/** How many slices each circle has. */
export interface RingCounts {
  readonly recent: number;
  readonly families: number;
  readonly parts: number;
}

/** The index of the slice in which a direction lies; the first is at the top, on clockwise. */
function sliceAt({ x, y }: Point, count: number): number {
  const turn = Math.atan2(x, -y) / (2 * Math.PI);
  return ((Math.round(turn * count) % count) + count) % count;
}

export function ringPlace(p: Point, counts: RingCounts): RingPlace {
  const r = Math.hypot(p.x, p.y);
  if (r > OUTER) return { on: 'outside' };
  if (r < HUB) return { on: 'hub' };
  if (r < NEAREST) return counts.recent ? { on: 'recent', index: sliceAt(p, counts.recent) } : { on: 'hub' };
  if (r < INNER) return { on: 'family', index: sliceAt(p, counts.families) };
  return { on: 'part', index: sliceAt(p, counts.parts) };
}

/**
 * Whether a hand on its way out keeps the family that it came through: going from a family to one of its parts it
 * may cut across a neighbour.
 */
export function keepsFamily(from: Point, to: Point): boolean {
  const [near, far] = [Math.hypot(from.x, from.y), Math.hypot(to.x, to.y)];
  return near >= NEAREST && far - near > 0.3 * Math.hypot(to.x - from.x, to.y - from.y);
}

/** Points of the way from one to another, close enough together that no circle is jumped over. */
export function wayBetween(from: Point, to: Point): Point[] {
  const steps = Math.max(1, Math.ceil(Math.hypot(to.x - from.x, to.y - from.y) / 8));
  return Array.from({ length: steps }, (_, i) => ({
    x: from.x + ((to.x - from.x) * (i + 1)) / steps,
    y: from.y + ((to.y - from.y) * (i + 1)) / steps,
  }));
}
