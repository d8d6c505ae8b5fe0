import { rowOf } from '@/core/logic/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { clockAt } from '@/core/simulate/run';
import type { Logic } from '@/core/values/logic';

const PS_PER_SECOND = 1e12;

/** The row in which a circuit stands: its inputs' values read as a binary number, the first the highest. */
export function rowNow(netlist: Netlist, values: Uint8Array): number {
  return rowOf(netlist.inputColumns.map((t) => values[t.nets[0]] as Logic));
}

export function hasClock(netlist: Netlist): boolean {
  return netlist.sources.some((s) => s.kind === 'clock');
}

/** The shortest clock period on the sheet in ps, or null without a clock. */
export function shortestPeriod(netlist: Netlist): number | null {
  const periods = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [s.wave.low + s.wave.high] : []));
  return periods.length ? Math.min(...periods) : null;
}

/** Time in ps of the next change of any clock after `time`, or null without a clock. */
export function nextHalf(netlist: Netlist, time: number): number | null {
  const next = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [clockAt(s.wave, time).next] : []));
  return next.length ? Math.min(...next) : null;
}

/** Simulated ps a wall-clock second so that the quickest clock makes at most four cycles in it. */
export function fittingPace(netlist: Netlist): number {
  const period = shortestPeriod(netlist);
  return period === null ? PS_PER_SECOND : Math.min(PS_PER_SECOND, 4 * period);
}
