import FlatQueue from 'flatqueue';
import {
  type Box,
  boundingBox,
  boundingBoxOfPoints,
  contains,
  eachSegment,
  grown,
  type Point,
  simplified,
} from '../../circuit/geometry';
import type { Sheet } from '../../circuit/sheet';
import { bodyOf, courseOf, footprintOf, pinsOf } from '../geometry/placement';
import { spatialIndexOf } from '../geometry/spatial-index';
import type { WireNets } from '../geometry/wire-nets';

/** An end of a course to be found: a point, and for a pin the direction away from its part. */
export interface RouteEnd {
  readonly at: Point;
  readonly out?: Point;
}

const STEPS: readonly Point[] = [
  { x: 1, y: 0 },
  { x: 0, y: 1 },
  { x: -1, y: 0 },
  { x: 0, y: -1 },
];

/** Prices of a course, in grid steps. */
const BEND = 3;
const CROSSING = 2;
const BESIDE_BODY = 0.6;
const BESIDE_WIRE = 0.4;
const OVER_LABEL = 10;
/** A corner where another pin is left: nothing could be wired to that pin any more. */
const BEFORE_PIN = 40;
const ALONG_OWN_NET = 0.6;

/** How far around its ends a course is looked for, in grid steps: near by first. */
const MARGINS = [8, 40];
const ROOM = Math.max(...MARGINS) + 2;

/** The state of a grid point, for a course of a certain net. */
export const BLOCKED = 1;
/** A foreign wire runs through from left to right, or from top to bottom. */
export const ACROSS = 2;
export const ALONG = 4;
export const OWN = 8;
const BESIDE = 16;
const LABEL = 32;
/** The one step out of a foreign pin. */
const FRONT = 64;

/**
 * The obstacles of a course: bodies, foreign pins, foreign wires. Grid points of the sheet, with a margin,
 * are stored row by row in typed arrays; nets are stored plus one, so that 0 means none.
 */
export class Obstacles {
  readonly box: Box;
  readonly width: number;
  private readonly fixed: Uint8Array;
  private readonly across: Int32Array;
  private readonly along: Int32Array;
  /** Nets that turn or end at a point. */
  private readonly nodes: Int32Array;
  /** Nets of the pins that are left by way of a point; less than 0 for pins of no net. */
  private readonly fronts: Int32Array;

  /** The price of a step over a label, or anything else that is written beside a part. */
  overLabel = OVER_LABEL;

  /**
   * @param without wires that are about to be routed again and so are no obstacles.
   * @param ends the ends to be connected: only obstacles as near to them as a course may go are recorded.
   */
  constructor(
    sheet: Sheet,
    nets: WireNets,
    without: ReadonlySet<string>,
    ends: Iterable<Point> | null = null,
  ) {
    const near = ends && boundingBoxOfPoints(ends);
    const region = near && grown(near, ROOM);
    const index = region && spatialIndexOf(sheet);
    const parts = index ? index.partsIn(region) : [...sheet.parts.values()];
    const wires = index
      ? index.wiresIn(region).map(({ wire }) => sheet.wires.get(wire!)!)
      : [...sheet.wires.values()];
    const courses = wires
      .map((w) => ({ id: w.id, points: courseOf(sheet, w) }))
      .filter(({ points }) => points.length > 0);
    const all = boundingBox([
      ...parts.map(footprintOf),
      ...courses.map((c) => boundingBoxOfPoints(c.points)!),
      ...(near ? [near] : []),
    ]);
    const { x0, y0, x1, y1 } = grown(all ?? { x0: 0, y0: 0, x1: 0, y1: 0 }, ROOM);
    this.box = { x0: Math.floor(x0), y0: Math.floor(y0), x1: Math.ceil(x1), y1: Math.ceil(y1) };
    this.width = this.box.x1 - this.box.x0 + 1;
    const cells = this.width * (this.box.y1 - this.box.y0 + 1);
    this.fixed = new Uint8Array(cells);
    this.across = new Int32Array(cells);
    this.along = new Int32Array(cells);
    this.nodes = new Int32Array(cells);
    this.fronts = new Int32Array(cells);
    for (const part of parts) {
      const body = bodyOf(part);
      this.mark(footprintOf(part), LABEL);
      this.mark(grown(body, 0.7), BESIDE);
      this.mark(body, BLOCKED);
      for (const { at, out, port } of pinsOf(part)) {
        const net = nets.ofEnd({ part: part.id, port: port.name });
        this.fronts[this.index(at.x + out.x, at.y + out.y)] = net === undefined ? -1 : net + 1;
        for (let step = 0; step < port.lead + 0.5; step++)
          this.fixed[this.index(at.x - out.x * step, at.y - out.y * step)]! |= BLOCKED;
      }
    }
    for (const { id, points: course } of courses)
      if (!without.has(id)) this.lay(course, nets.ofWire(id) ?? -1);
  }

  index(x: number, y: number): number {
    return (y - this.box.y0) * this.width + x - this.box.x0;
  }

  private mark(box: Box, flag: number): void {
    for (let y = Math.ceil(box.y0); y <= Math.floor(box.y1); y++)
      for (let x = Math.ceil(box.x0); x <= Math.floor(box.x1); x++) this.fixed[this.index(x, y)]! |= flag;
  }

  /** Adds a course that is now in the way of others. */
  lay(points: readonly Point[], net: number): void {
    for (const p of points) this.nodes[this.index(p.x, p.y)] = net + 1;
    eachSegment(points, (a, b) => {
      const dx = Math.sign(b.x - a.x);
      const dy = Math.sign(b.y - a.y);
      const line = dx !== 0 ? this.across : this.along;
      const steps = Math.abs(b.x - a.x) + Math.abs(b.y - a.y);
      for (let i = 0; i <= steps; i++) line[this.index(a.x + i * dx, a.y + i * dy)] = net + 1;
    });
  }

  /** The state of a point for a course of that net; nothing fixed is an obstacle at its own ends. */
  at(index: number, net: number, isEnd: boolean): number {
    const across = this.across[index]!;
    const along = this.along[index]!;
    const node = this.nodes[index]!;
    const own = net + 1;
    const front = this.fronts[index]!;
    let flags = isEnd ? 0 : this.fixed[index]!;
    if (front !== 0 && front !== own) flags |= FRONT;
    if (node !== 0 && node !== own && !isEnd) flags |= BLOCKED;
    if (across === own || along === own) flags |= OWN;
    if (across !== 0 && across !== own) flags |= ACROSS;
    if (along !== 0 && along !== own) flags |= ALONG;
    return flags;
  }
}

/**
 * The cheapest orthogonal course from one end to the other by A* (Hart, Nilsson and Raphael, 1968) over grid
 * points and directions: short, with few bends and crossings, never through a body, a foreign pin, or along or
 * onto a foreign wire. Runs of its own net are shared gladly.
 * @returns the corners between the ends, or null where there is no way within about 40 steps around.
 */
export function route(obstacles: Obstacles, from: RouteEnd, to: RouteEnd, net: number): Point[] | null {
  if (shutIn(obstacles, from, net) || shutIn(obstacles, to, net)) return null;
  const { box } = obstacles;
  for (const margin of MARGINS) {
    const found = search(obstacles, from, to, net, {
      x0: Math.max(box.x0, Math.min(from.at.x, to.at.x) - margin),
      y0: Math.max(box.y0, Math.min(from.at.y, to.at.y) - margin),
      x1: Math.min(box.x1, Math.max(from.at.x, to.at.x) + margin),
      y1: Math.min(box.y1, Math.max(from.at.y, to.at.y) + margin),
    });
    if (found) return simplified([from.at, ...found, to.at]).slice(1, -1);
  }
  return null;
}

/**
 * Whether a course of points from end to end is orthogonal, leaves its pins the right way, and runs over nothing:
 * through no body or pin, along no foreign wire, with no corner on one.
 */
export function isFree(
  obstacles: Obstacles,
  points: readonly Point[],
  from: RouteEnd,
  to: RouteEnd,
  net: number,
): boolean {
  if (points.length < 2 || !leaves(from, points[1]!) || !leaves(to, points.at(-2)!)) return false;
  const { box } = obstacles;
  const last = points.length - 1;
  for (let i = 0; i < last; i++) {
    const [a, b] = [points[i]!, points[i + 1]!];
    const [dx, dy] = [Math.sign(b.x - a.x), Math.sign(b.y - a.y)];
    if ((dx !== 0) === (dy !== 0)) return false;
    const running = dx !== 0 ? ACROSS : ALONG;
    for (let { x, y } = a; ; x += dx, y += dy) {
      if (!contains(box, { x, y })) return false;
      const isEnd = (i === 0 && x === a.x && y === a.y) || (i === last - 1 && x === b.x && y === b.y);
      const isCorner = (x === a.x && y === a.y) || (x === b.x && y === b.y);
      const flags = obstacles.at(obstacles.index(x, y), net, isEnd);
      if (flags & (BLOCKED | running) || (isCorner && !isEnd && flags & (ACROSS | ALONG))) return false;
      if (x === b.x && y === b.y) break;
    }
  }
  return true;
}

/** Whether a course that goes on to a point leaves its end the way out of the part. */
function leaves({ at, out }: RouteEnd, next: Point): boolean {
  return !out || (Math.sign(next.x - at.x) === out.x && Math.sign(next.y - at.y) === out.y);
}

/** Whether the one step out of a pin is free; otherwise no search is needed. */
function shutIn(obstacles: Obstacles, { at, out }: RouteEnd, net: number): boolean {
  if (!out) return false;
  const flags = obstacles.at(obstacles.index(at.x + out.x, at.y + out.y), net, false);
  return (flags & (BLOCKED | (out.x !== 0 ? ACROSS : ALONG))) !== 0;
}

function search(obstacles: Obstacles, from: RouteEnd, to: RouteEnd, net: number, box: Box): Point[] | null {
  const { overLabel } = obstacles;
  const width = box.x1 - box.x0 + 1;
  const height = box.y1 - box.y0 + 1;
  const cells = width * height;
  const cost = new Float64Array(cells * 4).fill(Number.POSITIVE_INFINITY);
  const came = new Int32Array(cells * 4).fill(-1);
  const closed = new Uint8Array(cells * 4);
  const open = new FlatQueue<number>();
  const cellOf = (p: Point) => (p.y - box.y0) * width + p.x - box.x0;
  const target = cellOf(to.at);
  const start = cellOf(from.at);
  const [tx, ty] = [target % width, Math.floor(target / width)];
  const flags = new Uint8Array(cells);
  for (let y = 0, cell = 0; y < height; y++) {
    const row = obstacles.index(box.x0, box.y0 + y);
    for (let x = 0; x < width; x++, cell++)
      flags[cell] = obstacles.at(row + x, net, cell === start || cell === target);
  }
  // Its own ends may be of no net yet.
  for (const { at, out } of [from, to])
    if (out) {
      const [x, y] = [at.x + out.x - box.x0, at.y + out.y - box.y0];
      if (x >= 0 && y >= 0 && x < width && y < height) flags[y * width + x]! &= ~FRONT;
    }
  const inside = (x: number, y: number) => x >= 0 && y >= 0 && x < width && y < height;
  const isOwn = (cell: number, dx: number, dy: number) => {
    const x = (cell % width) + dx;
    const y = Math.floor(cell / width) + dy;
    return inside(x, y) && (flags[y * width + x]! & OWN) !== 0;
  };
  /** The steps with which a course may leave an end; a branch never begins along its own net. */
  const outs = (cell: number, { out }: RouteEnd) =>
    STEPS.filter((step) => (out ? step.x === out.x && step.y === out.y : !isOwn(cell, step.x, step.y)));
  const isShut = (inner: number, end: RouteEnd, outer: number) =>
    isPocket(
      flags,
      width,
      inner,
      outs(inner, end).map(({ x, y }) => x + y * width),
      outer,
    );
  if (start !== target && (isShut(target, to, start) || isShut(start, from, target))) return null;
  /** A lower bound of the remaining cost from a point in the direction of a step: the steps, and the unavoidable bends. */
  const rest = (x: number, y: number, { x: sx, y: sy }: Point) => {
    const dx = tx - x;
    const dy = ty - y;
    const ahead = dx * sx + dy * sy;
    const aside = sx !== 0 ? dy : dx;
    const bends = ahead < 0 ? 2 : aside !== 0 ? 1 : 0;
    return Math.abs(dx) + Math.abs(dy) + bends * BEND;
  };
  for (let d = 0; d < 4; d++) {
    const step = STEPS[d]!;
    if (!outs(start, from).includes(step)) continue;
    cost[start * 4 + d] = 0;
    open.push(start * 4 + d, rest(start % width, Math.floor(start / width), step));
  }
  while (open.length > 0) {
    const state = open.pop()!;
    if (closed[state]) continue;
    closed[state] = 1;
    const cell = state >> 2;
    const direction = state & 3;
    if (cell === target) {
      const step = STEPS[direction]!;
      if (to.out && (step.x !== -to.out.x || step.y !== -to.out.y)) continue;
      if (!to.out && isOwn(cell, -step.x, -step.y)) continue;
      return trail(came, state, start, width, box);
    }
    const x = cell % width;
    const y = Math.floor(cell / width);
    const here = flags[cell]!;
    for (let d = 0; d < 4; d++) {
      const turns = d !== direction;
      if (turns && (cell === start || ((d + 2) & 3) === direction)) continue;
      // A corner on a foreign wire would look like a connection.
      if (turns && here & (ACROSS | ALONG)) continue;
      const step = STEPS[d]!;
      const nx = x + step.x;
      const ny = y + step.y;
      if (!inside(nx, ny)) continue;
      const next = ny * width + nx;
      const there = flags[next]!;
      const running = step.x !== 0 ? ACROSS : ALONG;
      const crossing = ACROSS + ALONG - running;
      if (there & (BLOCKED | running)) continue;
      let price = there & OWN && here & OWN ? ALONG_OWN_NET : 1;
      if (turns) price += here & FRONT ? BEND + BEFORE_PIN : BEND;
      if (there & crossing) price += CROSSING;
      if (there & BESIDE) price += BESIDE_BODY;
      if (there & LABEL) price += overLabel;
      const aside = step.x !== 0 ? width : 1;
      const room = step.x !== 0 ? ny : nx;
      if (room > 0 && flags[next - aside]! & running) price += BESIDE_WIRE;
      if (room < (step.x !== 0 ? height : width) - 1 && flags[next + aside]! & running) price += BESIDE_WIRE;
      const total = cost[state]! + price;
      const key = next * 4 + d;
      if (total >= cost[key]!) continue;
      cost[key] = total;
      came[key] = state;
      open.push(key, total + rest(nx, ny, step));
    }
  }
  return null;
}

/** Points that are looked at before a pocket counts as open. */
const MOST_OF_POCKET = 300;

/**
 * Whether an end lies in a pocket of obstacles without the other one: then there is no course, which a search from outside would find
 * out only after it has been everywhere. Goes over points and axes as a course may, but for the other end, which it may enter anyhow.
 * @param outs directions in which the end is left, as steps from point to point.
 */
function isPocket(
  flags: Uint8Array,
  width: number,
  inner: number,
  outs: readonly number[],
  outer: number,
): boolean {
  const seen = new Uint8Array(flags.length * 2);
  const found: number[] = [];
  const reach = (cell: number, axis: number) => {
    if (seen[2 * cell + axis]) return;
    seen[2 * cell + axis] = 1;
    found.push(2 * cell + axis);
  };
  const step = (cell: number, by: number): boolean => {
    const next = cell + by;
    const axis = by === 1 || by === -1 ? 0 : 1;
    if (next === outer) return true;
    if (next < 0 || next >= flags.length || (axis === 0 && Math.abs((next % width) - (cell % width)) > 1))
      return false;
    const there = flags[next]!;
    if (there & (BLOCKED | (axis === 0 ? ACROSS : ALONG))) return false;
    reach(next, axis);
    if (!(there & (ACROSS | ALONG))) reach(next, 1 - axis);
    return false;
  };
  for (const out of outs) if (step(inner, out)) return false;
  for (let at = 0; at < found.length; at++) {
    const by = found[at]! & 1 ? width : 1;
    const cell = found[at]! >> 1;
    if (at > MOST_OF_POCKET || step(cell, by) || step(cell, -by)) return false;
  }
  return true;
}

function trail(came: Int32Array, end: number, start: number, width: number, box: Box): Point[] {
  const points: Point[] = [];
  for (let state = end; state !== -1; state = came[state]!) {
    const cell = state >> 2;
    points.push({ x: (cell % width) + box.x0, y: Math.floor(cell / width) + box.y0 });
    if (cell === start && came[state] === -1) break;
  }
  return points.reverse();
}
