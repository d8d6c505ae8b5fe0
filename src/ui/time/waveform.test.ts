import type { Logic } from '@/core/values/logic';
import type { Palette } from '../drawing/palette';
import { diagramHeight, type Lane, NAMES, paintDiagram, RULER, rulerStep, toTime, toX } from './waveform';

const span = { from: 1000, perPixel: 50 };
const palette = new Proxy({}, { get: (_, name) => String(name) }) as Palette;

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
    fillText: (text: string) => texts.push(text),
    measureText: (text: string) => ({ width: text.length * 8 }),
    ...Object.fromEntries(
      ['fillRect', 'save', 'restore', 'rect', 'clip', 'arc', 'fill'].map((n) => [n, () => {}]),
    ),
  };
  return { g: g as unknown as CanvasRenderingContext2D, lines, texts };
}

function painted(changes: readonly (readonly [time: number, value: Logic])[], name = 'Key') {
  const lane: Lane = { name, changes: changes.map(([time, value]) => ({ time, value })) };
  const { g, lines, texts } = recorder();
  paintDiagram(
    g,
    { width: NAMES + 400, height: 300 },
    { lanes: [lane], span, now: 11_000, moment: 5000, timeText: (ps) => `${ps}` },
    palette,
    'sans',
  );
  return { lines, texts };
}

test('pixels and times are each other’s inverse', () => {
  expect(toX(span, 1000)).toBe(NAMES);
  expect(toTime(span, toX(span, 7777))).toBe(7777);
});

test('the ruler steps by 1, 2 or 5 times a power of ten, never closer than asked', () => {
  expect([1, 3, 7, 90, 1200, 6e11].map(rulerStep)).toEqual([1, 5, 10, 100, 2000, 1e12]);
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

test('X is hatched and Z dashed, both in the middle', () => {
  const { lines } = painted([
    [1000, 2],
    [6000, 3],
  ]);
  expect(lines.filter((l) => l.colour === 'unknown').length).toBeGreaterThan(3);
  expect(lines.filter((l) => l.colour === 'undriven')).toEqual([expect.objectContaining({ dashed: true })]);
});

test('the moment is a line through all lanes, and long names are cut', () => {
  const { lines, texts } = painted([[1000, 0]], 'A name that is far too long');
  const moment = lines.find((l) => l.colour === 'accent')!;
  expect(moment.from[0]).toBe(Math.round(toX(span, 5000)) + 0.5);
  expect(moment.to[1]).toBeGreaterThan(RULER);
  expect(texts.at(-1)).toMatch(/^A name.*…$/);
  expect(diagramHeight(9)).toBeGreaterThan(9 * 25);
});
