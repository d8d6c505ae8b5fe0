import type { Source } from '../netlist/netlist';
import type { ClockWave } from '../parts/part-kind';
import { squareAt } from '../parts/square-wave';
import type { Logic } from '../values/logic';
import { justAfter } from '../values/time';

/** A source that changes by itself as time goes on. */
export type Timed = Extract<Source, { kind: 'clock' | 'stimulus' }>;

/** The level of a clock at a time in ps, and the time of its next change. */
export function clockAt(wave: ClockWave, time: number): { value: Logic; next: number } {
  const firstLength = wave.first ? wave.high : wave.low;
  const { isFirst, next } = squareAt(time, wave.low + wave.high, firstLength, -wave.begun);
  return { value: isFirst ? wave.first : ((1 - wave.first) as Logic), next };
}

/** The value of one bit of a timed source, and when the source next changes. */
export function levelAt(source: Timed, time: number): { value: Logic; next: number } {
  if (source.kind === 'clock') return clockAt(source.wave, time);
  let { value, next } = source.levels(time);
  // Where times are no longer exact, a change may be found just before it has come.
  for (let at = time; next <= time; ) {
    at = justAfter(at);
    ({ value, next } = source.levels(at));
  }
  return { value: (Math.floor(value / 2 ** source.bit) % 2) as Logic, next };
}
