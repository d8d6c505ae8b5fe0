import type { Stretch } from '@/core/simulate/stretches';
import type { TimeSpan } from '@/core/simulate/waveform';
import type { Radix } from '@/core/values/radix';
import { PS_PER_SECOND } from '@/core/values/time';

/*
 * The timing diagram as data, and where its lanes and times stand in pixels.
 */

/** A lane as it is painted. */
export interface Lane {
  readonly name: string;
  /** None where the lane is a caption. */
  readonly stretches: readonly Stretch[];
  readonly width: number;
  readonly radix: Radix;
  readonly stairs: boolean;
  readonly chosen: boolean;
  /** How many times as high as others it is. */
  readonly height: number;
  /** How it goes elsewhere, laid beside it, and where the two are not alike. */
  readonly other: { readonly stretches: readonly Stretch[]; readonly differs: readonly TimeSpan[] } | null;
}

/** The properties of a lane that decide its height; a lane without width is a caption. */
export type LaneShape = Pick<Lane, 'width' | 'stairs' | 'height'> & { readonly other: unknown };

/** The height of another run's lane, as a share of an ordinary lane. */
export const BESIDE = 0.75;
export const unitsOf = (lane: LaneShape) =>
  (lane.stairs ? 2 : 1) * lane.height + (lane.other === null ? 0 : BESIDE);

/** The window of time that is shown: ps at the left edge, and ps a pixel. */
export interface Span {
  readonly from: number;
  readonly perPixel: number;
}

export const NAMES = 112;
export const RULER = 34;
/** Heights of a lane in pixels, as there is room. */
const SMALLEST_LANE = 18;
const LARGEST_LANE = 72;
export const CAPTION = 24;

export const toX = (span: Span, time: number) => NAMES + (time - span.from) / span.perPixel;
export const toTime = (span: Span, x: number) => span.from + (x - NAMES) * span.perPixel;

/** Steps of a ruler in seconds where people count in minutes, hours and days. */
const LONG_STEPS = [60, 120, 300, 600, 1200, 1800, 3600, 7200, 10_800, 21_600, 43_200, 86_400];

/** A step of 1, 2 or 5 times a power of ten, or of whole minutes, hours or days: at least `least` ps. */
export function rulerStep(least: number): number {
  const seconds = least / PS_PER_SECOND;
  if (seconds > 50) {
    const long = LONG_STEPS.find((step) => step >= seconds);
    return PS_PER_SECOND * (long ?? 86_400 * rulerStep(Math.ceil(seconds / 86_400)));
  }
  const power = 10 ** Math.floor(Math.log10(Math.max(1, least)));
  return power * ([1, 2, 5, 10].find((m) => m * power >= least) ?? 10);
}

/** Ticks after time 0 that six digits tell apart. */
const MOST_TOLD_APART = 1e5;

/** The time from which the ticks of a ruler are counted, in ps: 0, or near the left edge where they would read alike. */
export function rulerBase(from: number, step: number): number {
  return from / step < MOST_TOLD_APART ? 0 : Math.floor(from / (1000 * step)) * 1000 * step;
}

/** An arrow from one change to the one that it made. */
export interface Arrow {
  readonly from: { readonly lane: number; readonly time: number };
  readonly to: { readonly lane: number; readonly time: number };
}

export interface Diagram {
  readonly lanes: readonly Lane[];
  readonly span: Span;
  /** Time in ps up to which the circuit has run. */
  readonly now: number;
  /** The moment, and the mark from which it is measured, in ps. */
  readonly moment: number;
  readonly mark: number | null;
  /** Active edges of the clock that lie in the window, and the number of the first of them. */
  readonly edges: readonly number[];
  readonly firstEdge: number;
  readonly arrows: readonly Arrow[];
  /** Pulses that are too short, and captures that came too late, by lane. */
  readonly flaws: readonly { readonly lane: number; readonly from: number; readonly to: number }[];
  /** A stretch of a lane that is being drawn by hand. */
  readonly band: { readonly lane: number; readonly from: number; readonly to: number } | null;
  /** The name of the run beside the lanes. */
  readonly beside: string;
  /** Whether the ruler counts clock cycles alone. */
  readonly inCycles: boolean;
  readonly timeText: (ps: number) => string;
}

/** Where each lane begins, and where the last one ends. */
export function laneTops(lanes: readonly LaneShape[], height: number): number[] {
  const captions = lanes.filter((l) => l.width === 0).length;
  const parts = lanes.reduce((sum, l) => sum + (l.width === 0 ? 0 : unitsOf(l)), 0);
  const room = (height - RULER - 8 - captions * CAPTION) / Math.max(1, parts);
  const one = Math.min(LARGEST_LANE, Math.max(SMALLEST_LANE, room));
  const tops = [RULER];
  for (const lane of lanes) tops.push(tops.at(-1)! + (lane.width === 0 ? CAPTION : unitsOf(lane) * one));
  return tops;
}

/** The least height in pixels of a diagram with these lanes. */
export function diagramHeight(lanes: readonly LaneShape[]): number {
  return laneTops(lanes, 0).at(-1)! + 8;
}
