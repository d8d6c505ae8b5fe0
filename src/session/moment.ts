import { rowOf } from '@/core/logic/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { Primitive } from '@/core/parts/primitive';
import { clockAt } from '@/core/simulate/run';
import type { Logic } from '@/core/values/logic';

const PS_PER_SECOND = 1e12;

/** The row in which a circuit stands: its inputs' values read as a binary number, the first the highest. */
export function rowNow(netlist: Netlist, values: Uint8Array): number {
  return rowOf(netlist.inputs.map((t) => values[t.nets[0]!] as Logic));
}

export function hasClock(netlist: Netlist): boolean {
  return netlist.sources.some((s) => s.kind === 'clock');
}

/** The shortest clock period on the sheet in ps, or null without a clock. */
export function shortestPeriod(netlist: Netlist): number | null {
  const periods = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [s.halves.low + s.halves.high] : []));
  return periods.length ? Math.min(...periods) : null;
}

/** Time in ps of the next change of any clock after `time`, or null without a clock. */
export function nextHalf(netlist: Netlist, time: number): number | null {
  const next = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [clockAt(s.halves, time).next] : []));
  return next.length ? Math.min(...next) : null;
}

/** Simulated ps a wall-clock second so that the quickest clock makes at most four cycles in it. */
export function fittingPace(netlist: Netlist): number {
  const period = shortestPeriod(netlist);
  return period === null ? PS_PER_SECOND : Math.min(PS_PER_SECOND, 4 * period);
}

/** Nets on which a 0 and a 1 are driven against each other. */
export function conflicts(netlist: Netlist, values: Uint8Array): ReadonlySet<number> {
  const found = new Set<number>();
  for (let g = 0; g < netlist.op.length; g++) {
    if (netlist.op[g] !== Primitive.WIRED) continue;
    let seen = 0;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) {
      const v = values[netlist.ins[i]!]!;
      if (v < 2) seen |= 1 << v;
    }
    if (seen === 3) found.add(netlist.out[g]!);
  }
  return found;
}

const UNITS = [
  ['s', 1e12],
  ['ms', 1e9],
  ['µs', 1e6],
  ['ns', 1e3],
] as const;

/** A time in the unit that reads best: `1.25 s`, `40 ns`, `0 s`. */
export function timeText(ps: number): string {
  if (ps === 0) return '0 s';
  const [unit, scale] = UNITS.find(([, s]) => Math.abs(ps) >= s) ?? (['ps', 1] as const);
  return `${+(ps / scale).toPrecision(6)} ${unit}`;
}
