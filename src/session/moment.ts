import type { Delays } from '@/core/circuit/time-setup';
import { rowOf } from '@/core/logic/table/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { clockAt, levelAt } from '@/core/simulate/timed-sources';
import { periodOf } from '@/core/timing/clock-edges';
import { type Logic, ONE } from '@/core/values/logic';
import { sameName } from '@/core/values/names';
import { PS_PER_SECOND } from '@/core/values/time';
import type { SessionState } from './state';

/** 20 ns a second: a gate takes about half a second. */
const WAVE_PACE = 20_000;

/** The row in which a circuit stands: its inputs' values read as a binary number, the first the highest. */
export function rowNow(netlist: Netlist, values: Uint8Array): number {
  return rowOf(netlist.inputColumns.map((t) => values[t.nets[0]] as Logic));
}

/** How many rows the running circuit has: of its table, or of its inputs where a task keeps the table dark; null without rows. */
export function rowsOf({
  table,
  rules,
  netlist,
}: Pick<SessionState, 'table' | 'rules' | 'netlist'>): number | null {
  if (table.state === 'ready') return table.table.rows;
  return rules.isDark && netlist.storage.length === 0 ? 2 ** netlist.inputColumns.length : null;
}

/** The row in which a circuit stands for inputs in an order of their own, found by name; -1 without all of them. */
export function rowOfNames(
  names: readonly string[],
  columns: readonly { readonly name: string; readonly nets: readonly number[] }[],
  values: Uint8Array,
): number {
  let row = 0;
  for (const name of names) {
    const input = columns.find((c) => sameName(c.name, name));
    if (!input) return -1;
    row = row * 2 + (values[input.nets[0]!] === ONE ? 1 : 0);
  }
  return row;
}

export function hasClock(netlist: Netlist): boolean {
  return netlist.sources.some((s) => s.kind === 'clock');
}

/** Whether time means anything for a circuit: something changes by itself, or its parts take time. */
export function isTimed(netlist: Netlist, delays: Delays): boolean {
  return delays !== 'zero' || movesByItself(netlist);
}

/** Whether a clock or a stimulus changes inputs as time goes on. */
export function movesByItself(netlist: Netlist): boolean {
  return netlist.sources.some((s) => s.kind === 'clock' || s.kind === 'stimulus');
}

/** The shortest clock period on the sheet in ps, be the clock a part or driven by a stimulus; null without a clock. */
export function shortestPeriod(netlist: Netlist): number | null {
  const periods = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [s.wave.low + s.wave.high] : []));
  return periods.length ? Math.min(...periods) : periodOf(netlist);
}

/** Changes of a stimulus that are looked at for its shortest step. */
const CHANGES_SEEN = 64;

/** The shortest time in ps between two changes of a stimulus, of those that come first; null where nothing changes twice. */
export function shortestStep(netlist: Netlist): number | null {
  let shortest = Number.POSITIVE_INFINITY;
  for (const source of netlist.sources) {
    if (source.kind !== 'stimulus') continue;
    let { next } = levelAt(source, 0);
    for (let i = 0, from = 0; i < CHANGES_SEEN && next < Number.POSITIVE_INFINITY; i++) {
      shortest = Math.min(shortest, next - from);
      from = next;
      ({ next } = levelAt(source, next));
    }
  }
  return shortest < Number.POSITIVE_INFINITY ? shortest : null;
}

/** Time in ps of the next change of any clock after `time`, or null without a clock. */
export function nextHalf(netlist: Netlist, time: number): number | null {
  const next = netlist.sources.flatMap((s) => (s.kind === 'clock' ? [clockAt(s.wave, time).next] : []));
  return next.length ? Math.min(...next) : null;
}

/**
 * Simulated ps a wall-clock second: at most four cycles of the quickest clock, or four steps of the stimulus; without
 * either slow enough to watch a signal go from part to part.
 */
export function fittingPace(netlist: Netlist, delays: Delays): number {
  const period = shortestPeriod(netlist);
  const step = period ?? shortestStep(netlist);
  if (step !== null) return Math.min(PS_PER_SECOND, 4 * step);
  return delays === 'zero' && !movesByItself(netlist) ? PS_PER_SECOND : WAVE_PACE;
}
