import type { Stretch } from '@/core/simulate/stretches';
import { type Logic, ONE, X, Z, ZERO } from '@/core/values/logic';
import { wordText, wordValue } from '@/core/values/radix';
import { fineTimeText } from '@/core/values/time';
import { setFont, writeText } from '@/ui/controls/paint-text';
import type { Fonts, Palette } from '@/ui/controls/palette';

import {
  type Arrow,
  BESIDE,
  type Diagram,
  type Lane,
  laneTops,
  NAMES,
  RULER,
  rulerBase,
  rulerStep,
  type Span,
  toX,
  unitsOf,
} from './diagram';

/** How far from the edge of a lane its levels lie, in parts of its height. */
const EDGE = 0.2;
const THIN = 1.5;
/** So much larger the ruler has room for at most. */
const MOST_ON_RULER = 1.25;

/** A size as it is drawn for a projector. */
const grown = (size: number, palette: Palette, most = Number.POSITIVE_INFINITY): number =>
  size * Math.min(palette.letters, most);
const THICK = 3.5;
/** Pixels that a period must have for its edges to be carried through the lanes. */
const EDGES_APART = 9;
/** Pixels that a stretch must have for its level to be written as well. */
const LETTER_ROOM = 20;
/** A letter that would be smaller is left out. */
const LEAST_LETTER = 8;

export function paintDiagram(
  g: CanvasRenderingContext2D,
  size: { width: number; height: number },
  diagram: Diagram,
  palette: Palette,
  fonts: Fonts,
): void {
  const { lanes, span, moment, mark } = diagram;
  g.fillStyle = palette.raised;
  g.fillRect(0, 0, size.width, size.height);
  const tops = laneTops(lanes, size.height);
  const bottom = tops.at(-1)! + 4;
  paintRuler(g, size, diagram, bottom, palette, fonts);
  g.save();
  g.beginPath();
  g.rect(NAMES - 7, 0, size.width - NAMES + 7, size.height);
  g.clip();
  if (diagram.band) {
    const { lane, from, to } = diagram.band;
    const [x0, x1] = [toX(span, Math.min(from, to)), toX(span, Math.max(from, to))];
    g.fillStyle = palette['accent-soft'];
    g.fillRect(x0, tops[lane]! + 2, Math.max(1, x1 - x0), tops[lane + 1]! - tops[lane]! - 4);
  }
  for (const [i, lane] of lanes.entries()) {
    const [top, whole] = [tops[i]!, tops[i + 1]! - tops[i]!];
    const height = ownHeight(lane, whole);
    paintLane(g, lane, top, height, span, palette, fonts);
    if (lane.other) paintBeside(g, lane, lane.other, [top + height, whole - height], span, palette, fonts);
  }
  for (const flaw of diagram.flaws) paintFlaw(g, flaw, tops, span, palette);
  for (const arrow of diagram.arrows) paintArrow(g, arrow, tops, span, palette);
  if (mark !== null) paintCursor(g, toX(span, mark), bottom, palette.quiet, true);
  paintCursor(g, toX(span, moment), bottom, palette.accent, false);
  g.restore();
  g.textAlign = 'right';
  g.textBaseline = 'alphabetic';
  for (const [i, lane] of lanes.entries()) {
    const [top, height] = [tops[i]!, tops[i + 1]! - tops[i]!];
    if (lane.chosen) {
      g.fillStyle = palette['accent-soft'];
      g.fillRect(4, top + 2, NAMES - 14, height - 4);
    }
    g.fillStyle = lane.width === 0 ? palette.quiet : palette.ink;
    if (lane.width === 0) {
      g.textAlign = 'left';
      g.font = `600 12px ${fonts.text}`;
      g.fillText(lane.name, 10, top + height / 2 + 4);
      g.strokeStyle = palette.hairline;
      g.lineWidth = 1;
      line(g, 10, top + height - 1.5, size.width - 8, top + height - 1.5);
      g.textAlign = 'right';
      continue;
    }
    const own = ownHeight(lane, height);
    const tall = Math.min(grown(14, palette), own - 4);
    setFont(g, 600, tall, fonts.text);
    writeText(
      g,
      clipped(g, lane.name, NAMES - (lane.chosen ? 46 : 20)),
      NAMES - 14,
      top + own / 2 + tall * 0.35,
      tall,
      'right',
    );
    g.textAlign = 'right';
    if (!lane.other) continue;
    g.font = `400 11px ${fonts.text}`;
    g.fillStyle = palette.quiet;
    g.fillText(clipped(g, diagram.beside, NAMES - 26), NAMES - 14, top + (own + height) / 2 + 4);
  }
}

function paintRuler(
  g: CanvasRenderingContext2D,
  size: { width: number },
  { span, edges, firstEdge, timeText, inCycles }: Diagram,
  bottom: number,
  palette: Palette,
  fonts: Fonts,
): void {
  const step = rulerStep(grown(72, palette, MOST_ON_RULER) * span.perPixel);
  const base = rulerBase(span.from, step);
  g.font = `400 ${grown(12, palette, MOST_ON_RULER)}px ${fonts.text}`;
  g.textAlign = 'center';
  g.textBaseline = 'alphabetic';
  g.lineWidth = 1;
  const isTimed = !inCycles || edges.length === 0;
  for (
    let t = Math.ceil(Math.max(0, span.from) / step) * step;
    isTimed && toX(span, t) < size.width;
    t += step
  ) {
    const x = Math.round(toX(span, t)) + 0.5;
    if (x < NAMES) continue;
    g.strokeStyle = palette.hairline;
    line(g, x, RULER - 4, x, bottom);
    g.fillStyle = palette.quiet;
    if (x > NAMES + 20) g.fillText(base > 0 && t > base ? `+${timeText(t - base)}` : timeText(t), x, 15);
  }
  if (base > 0 && isTimed) {
    g.textAlign = 'right';
    g.fillText(fineTimeText(base), NAMES - 8, RULER - 4);
    g.textAlign = 'center';
  }
  const apart = edges.length > 1 ? (edges[1]! - edges[0]!) / span.perPixel : Number.POSITIVE_INFINITY;
  if (apart < EDGES_APART) return;
  g.strokeStyle = palette.undriven;
  g.setLineDash([2, 3]);
  for (const time of edges) {
    const x = Math.round(toX(span, time)) + 0.5;
    if (x >= NAMES) line(g, x, RULER - 2, x, bottom);
  }
  g.setLineDash([]);
  // Where nothing else stands on the ruler, the numbers of the cycles are as large as times are.
  g.font = `400 ${grown(isTimed ? 10.5 : 13, palette, MOST_ON_RULER)}px ${fonts.mono}`;
  const wide = g.measureText(String(firstEdge + edges.length)).width + 10;
  const every = [1, 2, 5, 10, 20, 50, 100, 200, 500].find((n) => n * apart > wide) ?? 1000;
  for (const [i, time] of edges.entries()) {
    const x = toX(span, time);
    if ((firstEdge + i) % every === 0 && x > NAMES + 4)
      g.fillText(String(firstEdge + i), x, isTimed ? RULER - 6 : 17);
  }
}

function paintCursor(
  g: CanvasRenderingContext2D,
  at: number,
  bottom: number,
  colour: string,
  isMark: boolean,
): void {
  const x = Math.round(at) + 0.5;
  g.strokeStyle = colour;
  g.fillStyle = colour;
  g.lineWidth = isMark ? 1.5 : 2;
  if (isMark) g.setLineDash([5, 4]);
  line(g, x, RULER - 7, x, bottom);
  g.setLineDash([]);
  g.beginPath();
  if (isMark) g.rect(x - 5, RULER - 12, 10, 10);
  else g.arc(x, RULER - 7, 6, 0, 7);
  g.fill();
}

/** From one change to the one that it made, over the lanes between. */
function paintArrow(
  g: CanvasRenderingContext2D,
  { from, to }: Arrow,
  tops: readonly number[],
  span: Span,
  palette: Palette,
): void {
  const middle = (lane: number) => (tops[lane]! + tops[lane + 1]!) / 2;
  const [x0, y0, x1, y1] = [toX(span, from.time), middle(from.lane), toX(span, to.time), middle(to.lane)];
  g.strokeStyle = palette.accent;
  g.fillStyle = palette.accent;
  g.lineWidth = 2;
  if (from.lane === to.lane) {
    paintHop(g, x0, x1, tops[from.lane]!, tops[from.lane + 1]! - tops[from.lane]!);
    return;
  }
  // Straight down and then across if there is room, which leaves the levels readable.
  const bend = x0 + (x1 - x0) * 0.35;
  g.beginPath();
  g.moveTo(x0, y0);
  g.bezierCurveTo(bend, y0, bend, y1, x1 - 2, y1);
  g.stroke();
  g.beginPath();
  g.arc(x0, y0, 3, 0, 7);
  g.fill();
  g.beginPath();
  g.moveTo(x1, y1);
  g.lineTo(x1 - 8, y1 - 4.5);
  g.lineTo(x1 - 8, y1 + 4.5);
  g.fill();
}

/** An arrow within a lane: above its values, which stay readable. */
function paintHop(g: CanvasRenderingContext2D, x0: number, x1: number, top: number, height: number): void {
  const high = top + height * EDGE;
  const over = high - height * 0.28;
  const lean = (x1 - x0) * 0.15;
  g.beginPath();
  g.moveTo(x0, high);
  g.bezierCurveTo(x0 + lean, over, x1 - lean, over, x1, high - 5);
  g.stroke();
  g.beginPath();
  g.arc(x0, high, 3, 0, 7);
  g.fill();
  g.beginPath();
  g.moveTo(x1, high);
  g.lineTo(x1 - 4.5, high - 8);
  g.lineTo(x1 + 4.5, high - 8);
  g.fill();
}

function paintFlaw(
  g: CanvasRenderingContext2D,
  { lane, from, to }: Diagram['flaws'][number],
  tops: readonly number[],
  span: Span,
  palette: Palette,
): void {
  const top = tops[lane]!;
  const x = (toX(span, from) + toX(span, to)) / 2;
  g.fillStyle = palette.bad;
  g.beginPath();
  g.moveTo(x, top + 8);
  g.lineTo(x - 4.5, top + 1);
  g.lineTo(x + 4.5, top + 1);
  g.fill();
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

function paintLane(
  g: CanvasRenderingContext2D,
  lane: Lane,
  top: number,
  height: number,
  span: Span,
  palette: Palette,
  fonts: Fonts,
): void {
  if (lane.width === 0) return;
  const high = top + height * EDGE;
  const low = top + height * (1 - EDGE);
  /** How far to the right numbers stand above their stretches. */
  const led = { until: Number.NEGATIVE_INFINITY };
  let last: Stretch | null = null;
  for (const stretch of lane.stretches) {
    const x0 = Math.max(NAMES, toX(span, stretch.from));
    const x1 = toX(span, stretch.to);
    if (stretch.busy) {
      g.fillStyle = palette.zero;
      g.fillRect(x0, high, Math.max(1, x1 - x0), low - high);
      last = null;
      continue;
    }
    const isEdge = last !== null && toX(span, stretch.from) >= NAMES;
    if (lane.width > 1 && lane.stairs)
      paintStair(g, stretch, isEdge ? last : null, [x0, x1, high, low], palette);
    else if (lane.width > 1) paintWord(g, lane, stretch, isEdge, [x0, x1, high, low], palette, fonts, led);
    else paintBit(g, stretch.bits[0]!, isEdge, [x0, x1, high, low], palette, fonts);
    last = stretch;
  }
}

/** The height of a lane's own waveform, in pixels. */
const ownHeight = (lane: Lane, whole: number) =>
  lane.other === null ? whole : (whole * (unitsOf(lane) - BESIDE)) / unitsOf(lane);

/** The lane of another run, drawn quietly below a lane, with a bar between the two where they differ. */
function paintBeside(
  g: CanvasRenderingContext2D,
  lane: Lane,
  { stretches, differs }: NonNullable<Lane['other']>,
  [top, height]: readonly [number, number],
  span: Span,
  palette: Palette,
  fonts: Fonts,
): void {
  const { quiet } = palette;
  const faint = { ...palette, one: quiet, zero: quiet, ink: quiet, accent: quiet };
  paintLane(g, { ...lane, stretches }, top, height, span, faint, fonts);
  g.fillStyle = palette.bad;
  for (const { from, to } of differs) {
    const [x0, x1] = [Math.max(NAMES, toX(span, from)), toX(span, to)];
    if (x1 >= NAMES) g.fillRect(x0, top - 3, Math.max(2, x1 - x0), 5);
  }
}

type Frame = readonly [x0: number, x1: number, high: number, low: number];

/** A level: 1 thick and high, 0 thin and low, X hatched in the middle, Z dashed in the middle. */
function paintBit(
  g: CanvasRenderingContext2D,
  value: Logic,
  isEdge: boolean,
  [x0, x1, high, low]: Frame,
  palette: Palette,
  fonts: Fonts,
): void {
  if (isEdge) {
    g.strokeStyle = palette.ink;
    g.lineWidth = THIN;
    line(g, x0, high, x0, low);
  }
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
  const tall = Math.min(grown(11, palette), low - high - 6);
  if (x1 - x0 < LETTER_ROOM || value > 1 || tall < LEAST_LETTER) return;
  g.font = `400 ${tall}px ${fonts.mono}`;
  g.textAlign = 'center';
  g.fillStyle = palette.quiet;
  g.fillText(String(value), (x0 + x1) / 2, value === ONE ? high + 3 + tall : low - 5);
}

/** Several bits: two lines that cross at changes, with the number between them, or above them where there is no room. */
function paintWord(
  g: CanvasRenderingContext2D,
  lane: Lane,
  { bits }: Stretch,
  isEdge: boolean,
  [x0, x1, high, low]: Frame,
  palette: Palette,
  fonts: Fonts,
  led: { until: number },
): void {
  const slope = Math.min(4, (x1 - x0) / 2);
  const middle = (high + low) / 2;
  const isUnknown = bits.some((b) => b > 1);
  g.strokeStyle = isUnknown ? palette.unknown : palette.ink;
  g.lineWidth = THIN;
  g.beginPath();
  g.moveTo(x0, isEdge ? middle : high);
  g.lineTo(x0 + (isEdge ? slope : 0), high);
  g.lineTo(x1 - slope, high);
  g.lineTo(x1, middle);
  g.moveTo(x0, isEdge ? middle : low);
  g.lineTo(x0 + (isEdge ? slope : 0), low);
  g.lineTo(x1 - slope, low);
  g.lineTo(x1, middle);
  g.stroke();
  const text = wordText(bits, lane.radix);
  g.fillStyle = isUnknown ? palette.unknown : palette.ink;
  g.textAlign = 'center';
  for (const wanted of [grown(13, palette), grown(10, palette)]) {
    const size = Math.min(wanted, low - high);
    g.font = `500 ${size}px ${fonts.mono}`;
    if (g.measureText(text).width > x1 - x0 - 5) continue;
    g.fillText(text, (x0 + x1) / 2, middle + size * 0.35);
    return;
  }
  // A number that its stretch has no room for stands above it, where nothing else does, led by a thin line.
  const at = (x0 + x1) / 2;
  const wide = g.measureText(text).width;
  if (x1 - x0 < LEAST_LED || at < led.until + wide / 2 + 4) return;
  g.fillText(text, at, high - 4);
  g.strokeStyle = palette.quiet;
  g.lineWidth = 0.75;
  line(g, at, high - 3, at, middle);
  led.until = at + wide / 2;
}

/** A stretch of fewer pixels is no more than an edge: it has no number. */
const LEAST_LED = 2;

/** A number as the height of a line. */
function paintStair(
  g: CanvasRenderingContext2D,
  { bits }: Stretch,
  before: Stretch | null,
  [x0, x1, high, low]: Frame,
  palette: Palette,
): void {
  const height = (of: readonly Logic[]) => {
    const value = wordValue(of);
    return value === null ? null : low - ((low - high) * value) / Math.max(1, 2 ** of.length - 1);
  };
  const y = height(bits);
  const was = before && height(before.bits);
  g.strokeStyle = y === null ? palette.unknown : palette.accent;
  g.lineWidth = 2;
  if (y !== null && was !== null) line(g, x0, was, x0, y);
  line(g, x0, y ?? (high + low) / 2, x1, y ?? (high + low) / 2);
}
