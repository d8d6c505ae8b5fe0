import type { Source } from '../netlist/netlist';
import type { ClockWave } from '../parts/part-kind';
import type { Logic } from '../values/logic';

/** A source that changes by itself as time goes on. */
export type Timed = Extract<Source, { kind: 'clock' | 'stimulus' }>;

/** The level of a clock at a time in ps, and the time of its next change. */
export function clockAt(wave: ClockWave, time: number): { value: Logic; next: number } {
  const period = wave.low + wave.high;
  const within = (((time + wave.begun) % period) + period) % period;
  const firstLength = wave.first ? wave.high : wave.low;
  return within < firstLength
    ? { value: wave.first, next: time + firstLength - within }
    : { value: (1 - wave.first) as Logic, next: time + period - within };
}

/** The value of one bit of a timed source, and when the source next changes. */
export function levelAt(source: Timed, time: number): { value: Logic; next: number } {
  if (source.kind === 'clock') return clockAt(source.wave, time);
  const { value, next } = source.levels(time);
  return { value: (Math.floor(value / 2 ** source.bit) % 2) as Logic, next };
}
