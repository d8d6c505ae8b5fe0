import type { Params } from '../../circuit/sheet';
import { PS_PER_SECOND } from '../../values/time';
import type { ExpectedSignal } from './expected-kind';

/** Frequencies in Hz that a clock part can have. */
const LEAST_HERTZ = 0.01;
const MOST_HERTZ = 1e9;

/** The part that provides an input, with its parameters: a clock if it toggles by itself, else a switch. */
export function inputPart({
  width,
  period,
}: Pick<ExpectedSignal, 'width' | 'period'>): readonly [kind: 'clock' | 'switch', params: Params] {
  const hertz = period === null ? 0 : PS_PER_SECOND / period;
  return hertz >= LEAST_HERTZ && hertz <= MOST_HERTZ ? ['clock', { hertz }] : ['switch', { width }];
}
