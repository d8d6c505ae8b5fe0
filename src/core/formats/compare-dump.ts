import type { Trace } from '../simulate/trace';
import type { Logic } from '../values/logic';
import { wordText } from '../values/radix';
import type { DumpedSignal, ReadSignal } from './vcd';

/** The first place where a run and a dump are not the same. */
export interface Difference {
  readonly signal: string;
  /** Ps. */
  readonly time: number;
  readonly run: string;
  readonly dump: string;
}

/** How many signals have the same name and width in both, and the first difference among them. */
export function compareDump(
  trace: Trace,
  signals: readonly DumpedSignal[],
  dump: readonly ReadSignal[],
  until: number,
): { readonly compared: number; readonly first: Difference | null } {
  const byPath = new Map(dump.map((s) => [s.path, s]));
  let compared = 0;
  let first: Difference | null = null;
  for (const { scope, name, nets } of signals) {
    const path = [...scope, name].join('.');
    const other = byPath.get(path);
    if (!other || other.width !== nets.length) continue;
    compared++;
    const times = new Set(trace.window(nets, trace.begins, until).flatMap((lane) => lane.map((c) => c.time)));
    for (const { time } of other.changes) if (time >= trace.begins && time <= until) times.add(time);
    for (const time of [...times].sort((a, b) => a - b)) {
      if (first && time >= first.time) break;
      const state = trace.stateAt(time);
      const run = nets.map((n) => state[n] as Logic);
      const said = other.changes.findLast((c) => c.time <= time)?.bits ?? nets.map(() => 2 as Logic);
      if (run.every((bit, i) => bit === said[i])) continue;
      first = { signal: path, time, run: wordText(run, 'binary'), dump: wordText(said, 'binary') };
      break;
    }
  }
  return { compared, first };
}
