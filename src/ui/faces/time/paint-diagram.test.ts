import type { Logic } from '@/core/values/logic';
import type { Palette } from '@/ui/controls/palette';
import {
  type Diagram,
  diagramHeight,
  type Lane,
  laneTops,
  NAMES,
  RULER,
  rulerStep,
  toTime,
  toX,
} from './diagram';
import { paintDiagram } from './paint-diagram';

const span = { from: 1000, perPixel: 50 };
const palette = new Proxy({}, { get: (_, name) => (name === 'letters' ? 1 : String(name)) }) as Palette;

/** A context that notes each line with its colour and width. */
function recorder() {
  const lines: {
    from: [number, number];
    to: [number, number];
    colour: string;
    width: number;
    dashed: boolean;
  }[] = [];
  const texts: string[] = [];
  const curves: number[][] = [];
  let at: [number, number] = [0, 0];
  let path: { from: [number, number]; to: [number, number] }[] = [];
  let dashed = false;
  const g = {
    strokeStyle: '',
    lineWidth: 0,
    beginPath: () => {
      path = [];
    },
    moveTo: (x: number, y: number) => {
      at = [x, y];
    },
    lineTo: (x: number, y: number) => {
      path.push({ from: at, to: [x, y] });
      at = [x, y];
    },
    stroke() {
      for (const l of path) lines.push({ ...l, colour: this.strokeStyle, width: this.lineWidth, dashed });
    },
    setLineDash: (dash: number[]) => {
      dashed = dash.length > 0;
    },
    bezierCurveTo: (...points: number[]) => curves.push(points),
    fillText: (text: string) => texts.push(text),
    measureText: (text: string) => ({ width: text.length * 8 }),
    ...Object.fromEntries(
      ['fillRect', 'save', 'restore', 'rect', 'clip', 'arc', 'fill'].map((n) => [n, () => {}]),
    ),
  };
  return { g: g as unknown as CanvasRenderingContext2D, lines, texts, curves };
}

const END = 11_000;

interface Given {
  readonly name?: string;
  readonly stairs?: boolean;
  readonly more?: Partial<Diagram>;
}

/** A lane that is given bits from some times on, painted up to `END`. */
function painted(
  changes: readonly (readonly [time: number, ...bits: Logic[]])[],
  { name = 'Key', stairs = false, more = {} }: Given = {},
) {
  const lane: Lane = {
    name,
    stretches: changes.map(([from, ...bits], i) => ({
      from,
      to: changes[i + 1]?.[0] ?? END,
      bits,
      busy: false,
    })),
    width: changes[0]!.length - 1,
    radix: 'unsigned',
    stairs,
    height: 1,
    other: null,
    chosen: false,
  };
  const { g, lines, texts, curves } = recorder();
  const diagram: Diagram = {
    lanes: [lane],
    span,
    now: END,
    moment: 5000,
    mark: null,
    edges: [],
    firstEdge: 1,
    arrows: [],
    flaws: [],
    band: null,
    beside: '',
    inCycles: false,
    timeText: (ps) => `${ps}`,
    ...more,
  };
  paintDiagram(g, { width: NAMES + 400, height: 300 }, diagram, palette, { text: 'sans', mono: 'mono' });
  return { lines, texts, curves };
}

test('pixels and times are each other’s inverse', () => {
  expect(toX(span, 1000)).toBe(NAMES);
  expect(toTime(span, toX(span, 7777))).toBe(7777);
});

test('the ruler steps by 1, 2 or 5 times a power of ten, never closer than asked', () => {
  expect([1, 3, 7, 90, 1200, 6e11].map(rulerStep)).toEqual([1, 5, 10, 100, 2000, 1e12]);
  // Above a minute whole minutes, hours and days.
  expect([55e12, 700e12, 7000e12, 3e16, 3e17].map(rulerStep)).toEqual([
    60e12, 1200e12, 7200e12, 43_200e12, 432_000e12,
  ]);
});

test('ticks that six digits do not tell apart are counted from a time at the left', () => {
  const { texts } = painted([[1e12, 0]], { more: { span: { from: 1e12, perPixel: 250 }, now: 1e12 + 1e5 } });
  expect(texts).toEqual(expect.arrayContaining(['1 s', '+20000', '+40000']));
  expect(new Set(texts).size).toBe(texts.length);
});

test('a 1 is a thick line above, a 0 a thin one below, and a rise joins them', () => {
  const { lines } = painted([
    [1000, 0],
    [3000, 1],
    [5000, 0],
  ]);
  const high = lines.find((l) => l.colour === 'one')!;
  const low = lines.filter((l) => l.colour === 'zero');
  expect(high).toMatchObject({
    width: 3.5,
    from: [toX(span, 3000), expect.any(Number)],
    to: [toX(span, 5000), expect.any(Number)],
  });
  expect(low.map((l) => l.width)).toEqual([1.5, 1.5]);
  expect(high.from[1]).toBeLessThan(low[0]!.from[1]);
  const edges = lines.filter((l) => l.colour === 'ink');
  expect(edges.map((l) => l.from[0])).toEqual([toX(span, 3000), toX(span, 5000)]);
  expect(low[1]!.to[0]).toBe(toX(span, 11_000));
});

test('a number that its stretch has no room for stands above it, on a thin line, clear of the next', () => {
  // Stretches of 100, 4 and 4 pixels, of eight bits each.
  const bits = (value: number) => Array.from({ length: 8 }, (_, i) => ((value >> i) & 1) as Logic);
  const { texts, lines } = painted([
    [1000, ...bits(5)],
    [6000, ...bits(128)],
    [6200, ...bits(129)],
    [6400, ...bits(8)],
  ]);
  expect(texts.slice(-4)).toEqual(['5', '128', '8', 'Key']);
  expect(lines.filter((l) => l.width === 0.75)).toHaveLength(1);
});

test('X is hatched and Z dashed, both in the middle', () => {
  const { lines } = painted([
    [1000, 2],
    [6000, 3],
  ]);
  expect(lines.filter((l) => l.colour === 'unknown').length).toBeGreaterThan(3);
  const floating = lines.filter((l) => l.colour === 'undriven');
  expect(floating).toEqual([expect.objectContaining({ dashed: true })]);
});

test('the moment is a line through all lanes, and long names are cut', () => {
  const { lines, texts } = painted([[1000, 0]], { name: 'A name that is far too long' });
  const moment = lines.find((l) => l.colour === 'accent')!;
  expect(moment.from[0]).toBe(Math.round(toX(span, 5000)) + 0.5);
  expect(moment.to[1]).toBeGreaterThan(RULER);
  expect(texts.at(-1)).toMatch(/^A name.*…$/);
  const bits = Array(9).fill({ width: 1, stairs: false, height: 1, other: null });
  expect(diagramHeight(bits)).toBeGreaterThan(9 * 17);
});

test('levels are written where there is room', () => {
  const { texts } = painted([
    [1000, 0],
    [3000, 1],
    [3500, 0],
  ]);
  // 40 pixels, 10 pixels, 150 pixels.
  expect(texts.filter((t) => t === '0' || t === '1')).toEqual(['0', '0']);
});

test('several bits are a number between two lines, or the height of one', () => {
  const count = [
    [1000, 1, 0, 0],
    [6000, 1, 1, 0],
  ] as const;
  expect(painted(count).texts).toEqual(expect.arrayContaining(['1', '3']));
  expect(painted([[1000, 1, 2, 0]]).texts).toContain('X');
  const steps = painted(count, { stairs: true }).lines.filter((l) => l.colour === 'accent' && l.width === 2);
  const heights = new Set(steps.map((l) => l.to[1]));
  // Two heights, and the line of the moment.
  expect(heights.size).toBe(3);
});

test('clock edges are carried through the lanes with their numbers, unless they stand too close', () => {
  const edges = [1500, 3000, 4500];
  const { texts, lines } = painted([[1000, 0]], { more: { edges, firstEdge: 7 } });
  expect(texts).toEqual(expect.arrayContaining(['7', '8', '9']));
  expect(lines.filter((l) => l.dashed)).toHaveLength(3);
  const close = painted([[1000, 0]], { more: { edges: [1500, 1600], firstEdge: 7 } });
  expect(close.lines.filter((l) => l.dashed)).toHaveLength(0);
});

test('an arrow within a lane goes over its values, not through them', () => {
  const arrows = [{ from: { lane: 0, time: 3000 }, to: { lane: 0, time: 6000 } }];
  const { curves } = painted(
    [
      [1000, 0, 0],
      [3000, 1, 0],
      [6000, 0, 1],
    ],
    { more: { arrows } },
  );
  const middle = (RULER + laneTops([{ width: 2, stairs: false, height: 1, other: null }], 300).at(-1)!) / 2;
  expect(curves).toHaveLength(1);
  const [, over, , alsoOver, x, y] = curves[0]!;
  expect(x).toBe(toX(span, 6000));
  for (const height of [over!, alsoOver!, y!]) expect(height).toBeLessThan(middle - 10);
});
