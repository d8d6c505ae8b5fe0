/** A place on a sheet, in grid steps; x grows to the right, y downwards. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A rectangle on a sheet, in grid steps; both corners belong to it. */
export interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Quarter turns clockwise. */
export type Turn = 0 | 1 | 2 | 3;

export function samePoint(a: Point, b: Point): boolean {
  return a.x === b.x && a.y === b.y;
}

/** Turns a point about the origin by quarter turns clockwise. */
export function turned(p: Point, turn: Turn): Point {
  switch (turn) {
    case 0:
      return p;
    case 1:
      return { x: -p.y, y: p.x };
    case 2:
      return { x: -p.x, y: -p.y };
    case 3:
      return { x: p.y, y: -p.x };
  }
}

/** The smallest box around all boxes, or null where there are none. */
export function boundingBox(boxes: Iterable<Box>): Box | null {
  let all: Box | null = null;
  for (const b of boxes) {
    all = all
      ? {
          x0: Math.min(all.x0, b.x0),
          y0: Math.min(all.y0, b.y0),
          x1: Math.max(all.x1, b.x1),
          y1: Math.max(all.y1, b.y1),
        }
      : b;
  }
  return all;
}

/** The smallest box around points, or null where there are none. */
export function boundingBoxOfPoints(points: Iterable<Point>): Box | null {
  let [x0, y0] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
  let [x1, y1] = [Number.NEGATIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { x, y } of points) {
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  return x0 <= x1 ? { x0, y0, x1, y1 } : null;
}

export function grown(b: Box, by: number): Box {
  return { x0: b.x0 - by, y0: b.y0 - by, x1: b.x1 + by, y1: b.y1 + by };
}

export function overlap(a: Box, b: Box): boolean {
  return a.x0 <= b.x1 && b.x0 <= a.x1 && a.y0 <= b.y1 && b.y0 <= a.y1;
}

export function contains(b: Box, p: Point): boolean {
  return p.x >= b.x0 && p.x <= b.x1 && p.y >= b.y0 && p.y <= b.y1;
}

/** Drops repeated points and points in the middle of a straight run. */
export function simplified(points: readonly Point[]): Point[] {
  const out: Point[] = [];
  for (const p of points) {
    const a = out.at(-2);
    const b = out.at(-1);
    if (b && samePoint(b, p)) continue;
    if (a && b && ((a.x === b.x && b.x === p.x) || (a.y === b.y && b.y === p.y))) {
      out.pop();
      // There and back again is no way at all.
      if (samePoint(a, p)) continue;
    }
    out.push(p);
  }
  return out;
}

/** The box of a straight, axis-parallel piece from one point to another. */
export const boxOfPiece = (a: Point, b: Point): Box => ({
  x0: Math.min(a.x, b.x),
  y0: Math.min(a.y, b.y),
  x1: Math.max(a.x, b.x),
  y1: Math.max(a.y, b.y),
});

/** Calls `visit` with each straight piece of a course of points. */
export function eachSegment(points: readonly Point[], visit: (a: Point, b: Point) => void): void {
  for (let i = 1; i < points.length; i++) visit(points[i - 1]!, points[i]!);
}

/** The nearest point to `p` on the straight, axis-parallel piece from `a` to `b`. */
export function nearestOnSegment(a: Point, b: Point, p: Point): Point {
  const clamp = (v: number, m: number, n: number) => Math.max(Math.min(m, n), Math.min(Math.max(m, n), v));
  return { x: clamp(p.x, a.x, b.x), y: clamp(p.y, a.y, b.y) };
}

/** The nearest point to `p` on a course; `p` itself where that has no piece. */
export function nearestOnCourse(points: readonly Point[], p: Point): Point {
  let best = p;
  let least = Number.POSITIVE_INFINITY;
  eachSegment(points, (a, b) => {
    const at = nearestOnSegment(a, b, p);
    const away = Math.hypot(at.x - p.x, at.y - p.y);
    if (away < least) [best, least] = [at, away];
  });
  return best;
}

export function isOnSegment(a: Point, b: Point, p: Point): boolean {
  return samePoint(nearestOnSegment(a, b, p), p);
}
