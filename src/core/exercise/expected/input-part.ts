import type { Params } from '../../circuit/sheet';
import { PS_PER_SECOND } from '../../values/time';
import type { ExpectedSignal } from './expected-kind';

/** Frequencies in Hz that a clock part can have. */
const LEAST_HERTZ = 0.01;
const MOST_HERTZ = 1e9;

/** The part that gives an input: a clock where it goes up and down by itself, else a switch; with the parameters that it needs. */
export function inputPart({
  width,
  period,
}: Pick<ExpectedSignal, 'width' | 'period'>): readonly [kind: 'clock' | 'switch', params: Params] {
  const hertz = period === null ? 0 : PS_PER_SECOND / period;
  return hertz >= LEAST_HERTZ && hertz <= MOST_HERTZ ? ['clock', { hertz }] : ['switch', { width }];
}
