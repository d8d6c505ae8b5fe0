import type { GateDelays } from '../plain-engine';
import type { Timed } from '../timed-sources';
import { greatestCommonDivisor } from '../wheel';

/** Days of the longest delay at most, for the kernel; and where clocks make the days shorter. */
const MOST_DAYS = 1 << 15;
const MOST_CLOCK_DAYS = 1 << 12;

/** Delays as whole days. */
export interface Grid {
  /** Ps. */
  readonly day: number;
  readonly longest: number;
}

/** The days of the kernel: the greatest common divisor of all delays, and of the times of clocks where they are not too short then. */
export function gridOf({ rise, fall }: GateDelays, timed: readonly Timed[]): Grid | null {
  let day = 0;
  let longest = 0;
  for (const list of [rise, fall])
    for (let i = 0; i < list.length; i++) {
      const delay = list[i]!;
      if (!Number.isInteger(delay) || delay < 0) return null;
      if (delay > longest) longest = delay;
      if (day !== 1 && delay !== day) day = greatestCommonDivisor(day, delay);
    }
  if (longest > 0 && longest / day > MOST_DAYS) return null;
  let shorter = day;
  for (const source of timed)
    if (source.kind === 'clock')
      for (const time of [source.wave.low, source.wave.high, source.wave.begun])
        shorter = Number.isInteger(time) ? greatestCommonDivisor(shorter, Math.abs(time)) : 1;
  if (shorter > 0 && longest / shorter <= MOST_CLOCK_DAYS) day = shorter;
  return { day: Math.max(1, day), longest };
}
