import type { Wave } from '../circuit/time-setup';
import { type Problem, problem } from '../values/result';
import { timeText } from '../values/time';
import { type WaveFault, waveFault } from './drive';

/*
 * Apart from the faults themselves, because only those who type a wave read the words.
 */

/** The problem of a wave, for the person who typed it; null if it can be run. */
export function waveProblem(wave: Wave, width: number): Problem | null {
  const fault = waveFault(wave, width);
  return fault && problem(fault.code, wordsOf(fault, wave, width));
}

function wordsOf(fault: WaveFault, { step, high }: Wave, width: number): string {
  const bits = width === 1 ? 'one bit' : `${width} bits`;
  switch (fault.code) {
    case 'bad-moment':
      return `“${fault.pair}” is not a time and a value that fits ${bits}: write 25 1 for 1 from 25 ns on, or 2 ms 0`;
    case 'moments-out-of-order':
      return `${timeText(fault.at)} does not come after ${timeText(fault.last)}: give the times in order, each once`;
    case 'bad-period':
      return 'a period of 0 is no clock: give a period of at least 2 ps, or a frequency above 0 Hz';
    case 'bad-duty':
      return `high for ${timeText(high)} of ${timeText(step)} never changes: give a duty between 0 and 100 %`;
    case 'bad-step':
      return 'each value must last for at least 1 ps';
    case 'bad-value':
      return `value ${fault.place}, “${fault.text}”, is no number that fits ${bits}`;
    case 'bad-bit':
      return `character ${fault.place}, “${fault.text}”, is neither 0 nor 1`;
  }
}
