import type { Trace } from '../simulate/trace';
import { type Logic, ONE, ZERO } from '../values/logic';
import { justAfter, PS_PER_SECOND } from '../values/time';

/** Measurements of a one-bit signal around a moment; times in ps, null where an edge is missing. */
export interface Measures {
  /** The stretch in which the moment lies, and how long it is. */
  readonly value: Logic;
  readonly width: number | null;
  /** From the rising edge before the moment to the next one. */
  readonly period: number | null;
  /** Hz. */
  readonly frequency: number | null;
  /** The duty: the share of the period during which it is 1. */
  readonly duty: number | null;
}

/** Period, width and duty of a net around a time in ps, from its edges in the trace. */
export function measure(trace: Trace, net: number, time: number): Measures {
  const nets = new Set([net]);
  const value = trace.valueAt(net, time);
  const from = trace.changeBefore(nets, justAfter(time));
  const to = trace.changeAfter(nets, time);
  const width = from !== null && to !== null ? to - from : null;
  let rise: number | null = null;
  let fall: number | null = null;
  let next: number | null = null;
  if (value === ONE) {
    rise = from;
    fall = to;
    next = to === null ? null : trace.changeAfter(nets, to);
  } else if (value === ZERO && from !== null) {
    rise = trace.changeBefore(nets, from);
    fall = from;
    next = to;
  }
  const isWhole = rise !== null && fall !== null && next !== null;
  const period = isWhole ? next! - rise! : null;
  return {
    value,
    width,
    period,
    frequency: period ? PS_PER_SECOND / period : null,
    duty: period ? (fall! - rise!) / period : null,
  };
}

/** The time in ps from an edge of one net to the next edge of another one; null if there is none. */
export function delayBetween(trace: Trace, from: { net: number; time: number }, to: number): number | null {
  const next = trace.changeAfter(new Set([to]), from.time - 1);
  return next === null ? null : next - from.time;
}

/** A pulse that is shorter than a threshold. */
export interface Glitch {
  readonly net: number;
  /** Ps. */
  readonly from: number;
  readonly to: number;
}

const MOST_GLITCHES = 10_000;

/** The pulses of some nets shorter than `threshold` ps between two times, in order. */
export function glitchesOf(
  trace: Trace,
  nets: readonly number[],
  threshold: number,
  from = Number.NEGATIVE_INFINITY,
  to = Number.POSITIVE_INFINITY,
): Glitch[] {
  const watched = new Set(nets);
  const last = new Map<number, number>();
  const found: Glitch[] = [];
  for (const { time, net } of trace.changes(from, to)) {
    if (!watched.has(net)) continue;
    const begun = last.get(net);
    if (begun !== undefined && time > begun && time - begun < threshold) {
      found.push({ net, from: begun, to: time });
      if (found.length === MOST_GLITCHES) break;
    }
    last.set(net, time);
  }
  return found;
}
