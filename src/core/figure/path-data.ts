import type { Point } from '../circuit/geometry';
import type { Step } from './figure';

/** An affine map as SVG has it: x' = a x + c y + e, y' = b x + d y + f. */
export interface Matrix {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

export const UNMOVED: Matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

export const mapped = (m: Matrix, x: number, y: number): Point => ({
  x: m.a * x + m.c * y + m.e,
  y: m.b * x + m.d * y + m.f,
});

/** The map that does `inner` first. */
export const after = (outer: Matrix, inner: Matrix): Matrix => ({
  a: outer.a * inner.a + outer.c * inner.b,
  b: outer.b * inner.a + outer.d * inner.b,
  c: outer.a * inner.c + outer.c * inner.d,
  d: outer.b * inner.c + outer.d * inner.d,
  e: outer.a * inner.e + outer.c * inner.f + outer.e,
  f: outer.b * inner.e + outer.d * inner.f + outer.f,
});

/** How much longer lengths become, on average over directions. */
export const scaleOf = (m: Matrix): number => Math.sqrt(Math.abs(m.a * m.d - m.b * m.c));

/** How many numbers follow each letter. */
const COUNT: Readonly<Record<string, number>> = {
  M: 2,
  L: 2,
  H: 1,
  V: 1,
  C: 6,
  S: 4,
  Q: 4,
  T: 2,
  A: 7,
  Z: 0,
};
const PIECE = /([a-zA-Z])|([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)/g;

/** The letters of path data, each with its numbers; a repeated letter may be left out (SVG 1.1, 8.3). */
function* commandsOf(d: string): Generator<{ readonly letter: string; readonly numbers: number[] }> {
  let letter = '';
  let numbers: number[] = [];
  for (const [, named, number] of d.matchAll(PIECE)) {
    if (named) {
      letter = named;
      numbers = [];
      if (COUNT[letter.toUpperCase()] === 0) yield { letter, numbers };
      continue;
    }
    numbers.push(Number(number));
    if (numbers.length !== COUNT[letter.toUpperCase()]) continue;
    yield { letter, numbers };
    numbers = [];
    if (letter === 'M') letter = 'L';
    else if (letter === 'm') letter = 'l';
  }
}

/** SVG path data as steps: all coordinates absolute, arcs and quadratic curves as cubic ones. */
export function stepsOfPath(d: string, m: Matrix = UNMOVED): Step[] {
  const steps: Step[] = [];
  let at: Point = { x: 0, y: 0 };
  let start = at;
  /** The last control point, and whether it was of a cubic or a quadratic curve. */
  type Control = { readonly at: Point; readonly of: 'C' | 'Q' } | null;
  let last = null as Control;
  const line = (to: Point) => {
    steps.push({ to: 'line', at: mapped(m, to.x, to.y) });
    at = to;
  };
  const curve = (p: Point, q: Point, to: Point) => {
    steps.push({ to: 'curve', by: [mapped(m, p.x, p.y), mapped(m, q.x, q.y)], at: mapped(m, to.x, to.y) });
    at = to;
  };
  const quadratic = (p: Point, to: Point) => {
    const third = (from: Point): Point => ({
      x: from.x + (2 / 3) * (p.x - from.x),
      y: from.y + (2 / 3) * (p.y - from.y),
    });
    curve(third(at), third(to), to);
    last = { at: p, of: 'Q' };
  };
  for (const { letter, numbers } of commandsOf(d)) {
    const name = letter.toUpperCase();
    const from: Point = letter === name ? { x: 0, y: 0 } : at;
    const point = (i: number): Point => ({ x: from.x + numbers[i]!, y: from.y + numbers[i + 1]! });
    const mirrored = (of: 'C' | 'Q'): Point =>
      last?.of === of ? { x: 2 * at.x - last.at.x, y: 2 * at.y - last.at.y } : at;
    const was: Control = last;
    if (name === 'M') {
      at = point(0);
      start = at;
      steps.push({ to: 'move', at: mapped(m, at.x, at.y) });
    } else if (name === 'L') line(point(0));
    else if (name === 'H') line({ x: from.x + numbers[0]!, y: at.y });
    else if (name === 'V') line({ x: at.x, y: from.y + numbers[0]! });
    else if (name === 'C' || name === 'S') {
      const p = name === 'C' ? point(0) : mirrored('C');
      const q = point(name === 'C' ? 2 : 0);
      curve(p, q, point(name === 'C' ? 4 : 2));
      last = { at: q, of: 'C' };
    } else if (name === 'Q') quadratic(point(0), point(2));
    else if (name === 'T') quadratic(mirrored('Q'), point(0));
    else if (name === 'A') for (const [p, q, to] of arcCurves(at, numbers, point(5))) curve(p, q, to);
    else if (name === 'Z') {
      steps.push({ to: 'close' });
      at = start;
    }
    if (last === was) last = null;
  }
  return steps;
}

/** An elliptical arc as cubic curves of at most a quarter turn each (SVG 1.1, F.6.5). */
function arcCurves(from: Point, numbers: readonly number[], to: Point): [Point, Point, Point][] {
  const [rx0, ry0, turn, isLarge, isClockwise] = numbers as [number, number, number, number, number];
  if (from.x === to.x && from.y === to.y) return [];
  const phi = (turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(phi), Math.sin(phi)];
  const [dx, dy] = [(from.x - to.x) / 2, (from.y - to.y) / 2];
  const [x1, y1] = [cos * dx + sin * dy, -sin * dx + cos * dy];
  let [rx, ry] = [Math.abs(rx0), Math.abs(ry0)];
  if (rx === 0 || ry === 0) return [[from, to, to]];
  const short = (x1 / rx) ** 2 + (y1 / ry) ** 2;
  if (short > 1) {
    rx *= Math.sqrt(short);
    ry *= Math.sqrt(short);
  }
  const over = Math.max(0, (rx * ry) ** 2 - (rx * y1) ** 2 - (ry * x1) ** 2);
  const k = (isLarge === isClockwise ? -1 : 1) * Math.sqrt(over / ((rx * y1) ** 2 + (ry * x1) ** 2));
  const [cx1, cy1] = [(k * rx * y1) / ry, (-k * ry * x1) / rx];
  const centre = {
    x: cos * cx1 - sin * cy1 + (from.x + to.x) / 2,
    y: sin * cx1 + cos * cy1 + (from.y + to.y) / 2,
  };
  const begin = Math.atan2((y1 - cy1) / ry, (x1 - cx1) / rx);
  let sweep = Math.atan2((-y1 - cy1) / ry, (-x1 - cx1) / rx) - begin;
  if (isClockwise && sweep < 0) sweep += 2 * Math.PI;
  else if (!isClockwise && sweep > 0) sweep -= 2 * Math.PI;
  const count = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9));
  const each = sweep / count;
  const handle = (4 / 3) * Math.tan(each / 4);
  const on = (angle: number, along: number): Point => {
    const [x, y] = [
      rx * (Math.cos(angle) - along * Math.sin(angle)),
      ry * (Math.sin(angle) + along * Math.cos(angle)),
    ];
    return { x: centre.x + cos * x - sin * y, y: centre.y + sin * x + cos * y };
  };
  return Array.from({ length: count }, (_, i) => {
    const [a, b] = [begin + i * each, begin + (i + 1) * each];
    return [on(a, handle), on(b, -handle), i === count - 1 ? to : on(b, 0)];
  });
}
