import type { Source } from '../netlist/netlist';
import type { ClockWave } from '../parts/part-kind';
import { squareAt, type Turn } from '../parts/square-wave';
import type { Logic } from '../values/logic';
import { justAfter } from '../values/time';

/** A source that changes by itself as time goes on. */
export type Timed = Extract<Source, { kind: 'clock' | 'stimulus' }>;

/** The level of a source at a time, and the time of its next change in ps. */
export interface Level {
  value: Logic;
  next: number;
}

/** Where the clock stands that is being asked. */
const turn: Turn = { isFirst: true, next: 0 };

/** The level of a clock at a time in ps. @param into is filled in and returned, so that a run allocates nothing at an edge. */
export function clockAt(wave: ClockWave, time: number, into: Level = { value: 0, next: 0 }): Level {
  const firstLength = wave.first ? wave.high : wave.low;
  squareAt(time, wave.low + wave.high, firstLength, -wave.begun, turn);
  into.value = turn.isFirst ? wave.first : ((1 - wave.first) as Logic);
  into.next = turn.next;
  return into;
}

/** The value of one bit of a timed source at a time in ps. @param into as in `clockAt`. */
export function levelAt(source: Timed, time: number, into: Level = { value: 0, next: 0 }): Level {
  if (source.kind === 'clock') return clockAt(source.wave, time, into);
  let { value, next } = source.levels(time);
  // Where times are no longer exact, a change may be found just before it has come.
  for (let at = time; next <= time; ) {
    at = justAfter(at);
    ({ value, next } = source.levels(at));
  }
  into.value = (Math.floor(value / 2 ** source.bit) % 2) as Logic;
  into.next = next;
  return into;
}
