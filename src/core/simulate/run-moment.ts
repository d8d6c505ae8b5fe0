import { isByHand, type Netlist, sourceKey } from '../netlist/netlist';
import { type Logic, letterOf, ONE, X, Z, ZERO } from '../values/logic';
import { Run } from './run';
import type { RunOptions } from './run-options';

/*
 * How a running circuit stands, small enough for a link, so that another page goes on from there.
 */

export interface RunMoment {
  /** Time in ps. */
  readonly at: number;
  /** What storage holds, by `storeName`: for a run that cannot be made again. */
  readonly held?: Readonly<Record<string, '0' | '1' | 'X' | 'Z'>> | undefined;
  /** For a run that can: the inputs that were 1 at power-up, by `sourceKey`, and each change by hand since. */
  readonly begun?: readonly string[] | undefined;
  readonly replay?: readonly ByHand[] | undefined;
}

/** Time in ps, `sourceKey` of an input, its new value. */
export type ByHand = readonly [time: number, input: string, value: 0 | 1];

/** Changes by hand from which a moment is kept by what storage holds instead. */
export const MOST_REPLAYED = 400;
/** Steps that a run is made again for at most, well under a second of work. */
const MOST_STEPS = 3_000_000;

const VALUES: Readonly<Record<string, Logic>> = { '0': ZERO, '1': ONE, X, Z };

/**
 * The moment of a run. Where its trace reaches back to power-up and few inputs were changed by hand, the run is made again from
 * them, with all of its diagram; otherwise it goes on from what storage holds.
 */
export function momentOf(run: Run, options: RunOptions): RunMoment {
  const at = run.time;
  const again = replayOf(run);
  if (again) {
    const moment = { at, ...again };
    const made = runFrom(run.netlist, options, moment);
    if (
      made.time === at &&
      made.events === run.events &&
      made.values.every((v, net) => v === run.values[net])
    )
      return moment;
  }
  const held = [...run.held()].map(([name, value]) => [name, letterOf(value)]);
  return held.length > 0 ? { at, held: Object.fromEntries(held) } : { at };
}

function replayOf({ trace, netlist, time, steps }: Run): Pick<RunMoment, 'begun' | 'replay'> | null {
  if (trace.trimmed || trace.begins !== 0 || time === 0 || steps > MOST_STEPS) return null;
  const sources = netlist.sources.filter(isByHand);
  const lanes = trace.window(
    sources.map((s) => s.net),
    0,
    time,
  );
  const replay: ByHand[] = [];
  const begun: string[] = [];
  for (const [i, [first, ...later]] of lanes.entries()) {
    const key = sourceKey(sources[i]!);
    if (first!.value === ONE) begun.push(key);
    for (const { time, value } of later) replay.push([time, key, value === ONE ? 1 : 0]);
  }
  return replay.length <= MOST_REPLAYED ? { begun, replay: replay.sort((a, b) => a[0] - b[0]) } : null;
}

/** A run that stands as `moment` says; where making it again would take too long, as far as it came. */
export function runFrom(netlist: Netlist, options: RunOptions, moment: RunMoment): Run {
  if (!moment.replay) {
    const held = new Map(Object.entries(moment.held ?? {}).map(([name, letter]) => [name, VALUES[letter]!]));
    return new Run(netlist, { ...options, held, from: moment.at });
  }
  const inputs = new Map((moment.begun ?? []).map((key) => [key, ONE as Logic]));
  const run = new Run(netlist, { ...options, inputs });
  const nets = new Map(netlist.sources.filter(isByHand).map((s) => [sourceKey(s), s.net]));
  const goTo = (time: number) => run.advance(time, Math.max(0, MOST_STEPS - run.steps));
  for (let i = 0; i < moment.replay.length; ) {
    const [time] = moment.replay[i]!;
    if (!goTo(time)) return run;
    const changes: [number, Logic][] = [];
    for (; moment.replay[i]?.[0] === time; i++) {
      const [, key, value] = moment.replay[i]!;
      const net = nets.get(key);
      if (net !== undefined) changes.push([net, value ? ONE : ZERO]);
    }
    run.set(changes);
  }
  goTo(moment.at);
  return run;
}
