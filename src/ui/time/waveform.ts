import type { Change } from '@/core/simulate/trace';
import { type Logic, ONE, X, Z, ZERO } from '@/core/values/logic';
import type { Palette } from '../drawing/palette';

export interface Lane {
  readonly name: string;
  readonly changes: readonly Change[];
}

/** The window of time that is shown: ps at the left edge, and ps a pixel. */
export interface Span {
  readonly from: number;
  readonly perPixel: number;
}

export const NAMES = 96;
export const RULER = 34;
/** Heights of a lane in pixels, as there is room. */
const SMALLEST_LANE = 25;
const LARGEST_LANE = 44;
const THIN = 1.5;
const THICK = 3.5;

export const toX = (span: Span, time: number) => NAMES + (time - span.from) / span.perPixel;
export const toTime = (span: Span, x: number) => span.from + (x - NAMES) * span.perPixel;

/** A step of 1, 2 or 5 times a power of ten, at least `least` ps. */
export function rulerStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(1, least)));
  return power * ([1, 2, 5, 10].find((m) => m * power >= least) ?? 10);
}

export interface Diagram {
  readonly lanes: readonly Lane[];
  readonly span: Span;
  /** Time in ps up to which the circuit has run. */
  readonly now: number;
  /** The moment in ps. */
  readonly moment: number;
  readonly timeText: (ps: number) => string;
}

export function paintDiagram(
  g: CanvasRenderingContext2D,
  size: { width: number; height: number },
  { lanes, span, now, moment, timeText }: Diagram,
  palette: Palette,
  font: string,
): void {
  g.fillStyle = palette.raised;
  g.fillRect(0, 0, size.width, size.height);
  const height = laneHeight(lanes.length, size.height);
  const bottom = RULER + lanes.length * height + 4;
  const step = rulerStep(62 * span.perPixel);
  g.font = `400 12px ${font}`;
  g.textAlign = 'center';
  g.textBaseline = 'alphabetic';
  for (let t = Math.ceil(Math.max(0, span.from) / step) * step; toX(span, t) < size.width; t += step) {
    const x = Math.round(toX(span, t)) + 0.5;
    if (x < NAMES) continue;
    g.strokeStyle = palette.hairline;
    g.lineWidth = 1;
    line(g, x, RULER - 4, x, bottom);
    g.fillStyle = palette.quiet;
    if (x > NAMES + 20) g.fillText(timeText(t), x, 15);
  }
  g.save();
  g.beginPath();
  g.rect(NAMES - 7, 0, size.width - NAMES + 7, size.height);
  g.clip();
  for (const [i, lane] of lanes.entries()) paintLane(g, lane, RULER + i * height, height, span, now, palette);
  const x = Math.round(toX(span, moment)) + 0.5;
  g.strokeStyle = palette.accent;
  g.lineWidth = 2;
  line(g, x, RULER - 7, x, bottom);
  g.fillStyle = palette.accent;
  g.beginPath();
  g.arc(x, RULER - 7, 6, 0, 7);
  g.fill();
  g.restore();
  g.textAlign = 'right';
  g.font = `600 14px ${font}`;
  for (const [i, lane] of lanes.entries()) {
    g.fillStyle = palette.ink;
    g.fillText(clipped(g, lane.name, NAMES - 24), NAMES - 12, RULER + (i + 0.5) * height + 5);
  }
}

function clipped(g: CanvasRenderingContext2D, text: string, width: number): string {
  if (g.measureText(text).width <= width) return text;
  let short = text;
  while (short.length > 1 && g.measureText(`${short}…`).width > width) short = short.slice(0, -1);
  return `${short}…`;
}

function line(g: CanvasRenderingContext2D, x0: number, y0: number, x1: number, y1: number): void {
  g.beginPath();
  g.moveTo(x0, y0);
  g.lineTo(x1, y1);
  g.stroke();
}

/** A lane: 1 thick and high, 0 thin and low, X hatched in the middle, Z dashed in the middle. */
function paintLane(
  g: CanvasRenderingContext2D,
  lane: Lane,
  top: number,
  height: number,
  span: Span,
  now: number,
  palette: Palette,
): void {
  const high = top + height * 0.22;
  const low = top + height * 0.78;
  let last: Logic | null = null;
  for (const [i, { time, value }] of lane.changes.entries()) {
    const end = lane.changes[i + 1]?.time ?? now;
    const x0 = Math.max(NAMES, toX(span, time));
    const x1 = toX(span, end);
    if (last !== null && last !== value && x0 >= NAMES) {
      g.strokeStyle = palette.ink;
      g.lineWidth = THIN;
      line(g, x0, high, x0, low);
    }
    last = value;
    const y = value === ONE ? high : value === ZERO ? low : (high + low) / 2;
    g.lineWidth = value === ONE ? THICK : THIN;
    g.strokeStyle =
      value === ONE
        ? palette.one
        : value === ZERO
          ? palette.zero
          : value === X
            ? palette.unknown
            : palette.undriven;
    if (value === Z) g.setLineDash([6, 5]);
    line(g, x0, y, x1, y);
    g.setLineDash([]);
    if (value === X) for (let x = x0 + 8; x < x1; x += 14) line(g, x - 3, y + 5, x + 3, y - 5);
  }
}

/** The height of each lane where that many share a canvas. */
function laneHeight(lanes: number, height: number): number {
  return Math.min(LARGEST_LANE, Math.max(SMALLEST_LANE, (height - RULER - 8) / Math.max(1, lanes)));
}

/** The least height in pixels of a diagram with that many lanes. */
export function diagramHeight(lanes: number): number {
  return RULER + lanes * SMALLEST_LANE + 8;
}
