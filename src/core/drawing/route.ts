import FlatQueue from 'flatqueue';
import { type Box, eachPiece, grown, overlap, type Point, simplified } from '../circuit/geometry';
import type { Sheet } from '../circuit/lesson';
import { bodyOf, courseOf, footprintOf, pinsOf } from './placement';
import type { WireNets } from './wire-nets';

/** An end of a course to be found: a point, and the way out of its part where it is a pin. */
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
const OVER_LABEL = 4;
const ALONG_OWN_NET = 0.6;

const OFFSET = 1 << 20;
const keyOf = (x: number, y: number) => (x + OFFSET) * 2 * OFFSET + (y + OFFSET);

/** What a course must keep clear of: bodies, foreign pins, foreign wires. Coordinates are whole grid steps. */
export class Obstacles {
  private readonly bodies: Box[] = [];
  private readonly labels: Box[] = [];
  private readonly pins = new Map<number, string>();
  private readonly leads = new Set<number>();
  /** Nets that run straight through a grid point; `node` where one turns or ends. */
  private readonly across = new Map<number, number>();
  private readonly along = new Map<number, number>();
  private readonly nodes = new Map<number, number>();

  /** @param without wires that are about to be laid anew, and so are not in the way. */
  constructor(sheet: Sheet, nets: WireNets, without: ReadonlySet<string>) {
    for (const part of sheet.parts.values()) {
      this.bodies.push(bodyOf(part));
      this.labels.push(footprintOf(part));
      for (const pin of pinsOf(part)) {
        this.pins.set(keyOf(pin.at.x, pin.at.y), `${pin.part}\n${pin.port.name}`);
        for (let step = 1; step < pin.port.lead + 0.5; step++)
          this.leads.add(keyOf(pin.at.x - pin.out.x * step, pin.at.y - pin.out.y * step));
      }
    }
    for (const wire of sheet.wires.values()) {
      if (without.has(wire.id)) continue;
      this.lay(courseOf(sheet, wire), nets.ofWire(wire.id) ?? -1);
    }
  }

  /** Adds a course that is now in the way of others. */
  lay(points: readonly Point[], net: number): void {
    for (const p of points) this.nodes.set(keyOf(p.x, p.y), net);
    eachPiece(points, (a, b) => {
      const dx = Math.sign(b.x - a.x);
      const dy = Math.sign(b.y - a.y);
      const line = dx !== 0 ? this.across : this.along;
      for (let x = a.x, y = a.y; ; x += dx, y += dy) {
        line.set(keyOf(x, y), net);
        if ((x === b.x && y === b.y) || (dx === 0 && dy === 0)) break;
      }
    });
  }

  /** What stands in a window, sorted by grid point once, so that the search itself only looks things up. */
  window(box: Box, net: number, ends: readonly Point[]): Window {
    const own = new Set(ends.map((p) => keyOf(p.x, p.y)));
    return new Window(box, (x, y) => {
      const key = keyOf(x, y);
      const foreign = (m: Map<number, number>) => m.has(key) && m.get(key) !== net;
      return {
        blocked: !own.has(key) && (this.pins.has(key) || this.leads.has(key) || foreign(this.nodes)),
        across: foreign(this.across),
        along: foreign(this.along),
        ownNet: this.across.get(key) === net || this.along.get(key) === net,
      };
    }).fill(this.bodies, this.labels, own);
  }
}

interface Spot {
  readonly blocked: boolean;
  readonly across: boolean;
  readonly along: boolean;
  readonly ownNet: boolean;
}

const BLOCKED = 1;
const ACROSS = 2;
const ALONG = 4;
const OWN = 8;
const BESIDE = 16;
const LABEL = 32;

class Window {
  readonly width: number;
  readonly height: number;
  readonly flags: Uint8Array;

  constructor(
    readonly box: Box,
    spot: (x: number, y: number) => Spot,
  ) {
    this.width = box.x1 - box.x0 + 1;
    this.height = box.y1 - box.y0 + 1;
    this.flags = new Uint8Array(this.width * this.height);
    for (let y = box.y0, i = 0; y <= box.y1; y++)
      for (let x = box.x0; x <= box.x1; x++, i++) {
        const s = spot(x, y);
        this.flags[i] =
          (s.blocked ? BLOCKED : 0) | (s.across ? ACROSS : 0) | (s.along ? ALONG : 0) | (s.ownNet ? OWN : 0);
      }
  }

  /** Whether the one step out of a pin is taken, so that no search is needed. */
  shutIn({ at, out }: RouteEnd): boolean {
    if (!out) return false;
    const flags = this.flags[(at.y + out.y - this.box.y0) * this.width + at.x + out.x - this.box.x0]!;
    return (flags & (BLOCKED | (out.x !== 0 ? ACROSS : ALONG))) !== 0;
  }

  fill(bodies: readonly Box[], labels: readonly Box[], own: ReadonlySet<number>): this {
    const mark = (box: Box, flag: number) => {
      if (!overlap(box, this.box)) return;
      for (
        let y = Math.max(this.box.y0, Math.ceil(box.y0));
        y <= Math.min(this.box.y1, Math.floor(box.y1));
        y++
      )
        for (
          let x = Math.max(this.box.x0, Math.ceil(box.x0));
          x <= Math.min(this.box.x1, Math.floor(box.x1));
          x++
        )
          if (!own.has(keyOf(x, y))) this.flags[(y - this.box.y0) * this.width + x - this.box.x0]! |= flag;
    };
    for (const label of labels) mark(label, LABEL);
    for (const body of bodies) {
      mark(grown(body, 0.7), BESIDE);
      mark(body, BLOCKED);
    }
    return this;
  }
}

/**
 * The cheapest orthogonal course from one end to the other by A* (Hart, Nilsson and Raphael, 1968) over grid
 * points and directions: short, with few bends and crossings, never through a body, a foreign pin, or along or
 * onto a foreign wire. Runs of its own net are shared gladly.
 * @returns the corners between the ends, or null where there is no way within about 40 steps around.
 */
export function route(obstacles: Obstacles, from: RouteEnd, to: RouteEnd, net: number): Point[] | null {
  for (const margin of [8, 40]) {
    const box: Box = {
      x0: Math.min(from.at.x, to.at.x) - margin,
      y0: Math.min(from.at.y, to.at.y) - margin,
      x1: Math.max(from.at.x, to.at.x) + margin,
      y1: Math.max(from.at.y, to.at.y) + margin,
    };
    const window = obstacles.window(box, net, [from.at, to.at]);
    if (window.shutIn(from) || window.shutIn(to)) return null;
    const found = search(window, from, to);
    if (found) return simplified([from.at, ...found, to.at]).slice(1, -1);
  }
  return null;
}

function search(window: Window, from: RouteEnd, to: RouteEnd): Point[] | null {
  const { width, height, flags, box } = window;
  const cells = width * height;
  const cost = new Float64Array(cells * 4).fill(Number.POSITIVE_INFINITY);
  const came = new Int32Array(cells * 4).fill(-1);
  const open = new FlatQueue<number>();
  const target = (to.at.y - box.y0) * width + to.at.x - box.x0;
  const start = (from.at.y - box.y0) * width + from.at.x - box.x0;
  const closed = new Uint8Array(cells * 4);
  const [tx, ty] = [target % width, Math.floor(target / width)];
  /** A lower bound of what is still to pay from a cell in a direction: the steps, and the bends that must come. */
  const rest = (cell: number, d: number) => {
    const dx = tx - (cell % width);
    const dy = ty - Math.floor(cell / width);
    const step = STEPS[d]!;
    const ahead = dx * step.x + dy * step.y;
    const aside = step.x !== 0 ? dy : dx;
    const bends = ahead < 0 ? 2 : aside !== 0 ? 1 : 0;
    return Math.abs(dx) + Math.abs(dy) + bends * BEND;
  };
  const isOwn = (cell: number, dx: number, dy: number) => {
    const x = (cell % width) + dx;
    const y = Math.floor(cell / width) + dy;
    return x >= 0 && y >= 0 && x < width && y < height && (flags[y * width + x]! & OWN) !== 0;
  };
  for (let d = 0; d < 4; d++) {
    const step = STEPS[d]!;
    if (from.out && (step.x !== from.out.x || step.y !== from.out.y)) continue;
    // A branch leaves its host at the very point at which it was begun.
    if (!from.out && isOwn(start, step.x, step.y)) continue;
    cost[start * 4 + d] = 0;
    open.push(start * 4 + d, rest(start, d));
  }
  while (open.length > 0) {
    const state = open.pop()!;
    const cell = state >> 2;
    const direction = state & 3;
    if (closed[state]) continue;
    closed[state] = 1;
    if (cell === target) {
      const step = STEPS[direction]!;
      if (to.out && (step.x !== -to.out.x || step.y !== -to.out.y)) continue;
      if (!to.out && isOwn(cell, -step.x, -step.y)) continue;
      return trail(came, state, start, width, box);
    }
    const x = cell % width;
    const y = Math.floor(cell / width);
    for (let d = 0; d < 4; d++) {
      if (((d + 2) & 3) === direction && cell !== start) continue;
      if (cell === start && d !== direction) continue;
      const turns = d !== direction;
      const here = flags[cell]!;
      // A corner on a foreign wire would look like a connection.
      if (turns && here & (ACROSS | ALONG)) continue;
      const step = STEPS[d]!;
      const nx = x + step.x;
      const ny = y + step.y;
      if (nx < 0 || ny < 0 || nx >= width || ny >= height) continue;
      const next = ny * width + nx;
      const there = flags[next]!;
      if (there & BLOCKED) continue;
      const horizontal = step.x !== 0;
      const running = horizontal ? ACROSS : ALONG;
      if (there & running) continue;
      let price = there & OWN && here & OWN ? ALONG_OWN_NET : 1;
      if (turns) price += BEND;
      if (there & (horizontal ? ALONG : ACROSS)) price += CROSSING;
      if (there & BESIDE) price += BESIDE_BODY;
      if (there & LABEL) price += OVER_LABEL;
      const side = horizontal ? width : 1;
      for (const beside of [next - side, next + side])
        if (beside >= 0 && beside < cells && flags[beside]! & running) price += BESIDE_WIRE;
      const total = cost[state]! + price;
      const key = next * 4 + d;
      if (total >= cost[key]!) continue;
      cost[key] = total;
      came[key] = state;
      open.push(key, total + rest(next, d));
    }
  }
  return null;
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
