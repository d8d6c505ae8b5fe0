import { useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Stimulus } from '@/core/circuit/time-setup';
import type { Netlist } from '@/core/netlist/netlist';
import { drivingOf } from '@/core/simulate/drive';
import type { Trace } from '@/core/simulate/trace';
import {
  differencesAt,
  differencesOf,
  type TimeSpan,
  type Waveform,
  waveformFromText,
  waveformOfBits,
} from '@/core/simulate/waveform';
import { useSession, useSessionState } from '@/ui/session/session-context';
import type { LaneView } from './lanes';

/** A run from elsewhere, by the nets that it says something about. */
export interface Elsewhere {
  /** Its name, in a word or two. */
  readonly name: string;
  /** Ps up to which it is known, if it does not go on for ever. */
  readonly until: number;
  /** Times in ps at which alone the two are compared; null if they are compared at all times. */
  readonly at: readonly number[] | null;
  /** Whether inputs are left out, though they may share a wire with an output. */
  readonly ofOutputs: boolean;
  readonly nets: ReadonlyMap<number, { readonly course: Waveform; readonly bit: number }>;
}

/** A lane that stands in the other run too, and where the two are not alike. */
export interface LaneBeside {
  readonly lane: LaneView;
  readonly course: Waveform;
  readonly differs: readonly TimeSpan[];
}

/** The expected outputs of a stimulus; null if it has none. */
export function expectedOf(stimulus: Stimulus | null, netlist: Netlist): Elsewhere | null {
  if (!stimulus?.expected) return null;
  const { until, outputs, at } = stimulus.expected;
  const nets = new Map<number, { course: Waveform; bit: number }>();
  for (const { part, course: text } of outputs) {
    const terminal = netlist.outputs.find((t) => t.part === part);
    const waveform = waveformFromText(text);
    if (terminal && waveform?.width === terminal.nets.length)
      for (const [bit, net] of terminal.nets.entries()) nets.set(net, { course: waveform, bit });
  }
  return { name: 'expected', until, at: at ?? null, ofOutputs: true, nets };
}

/** The lanes of which the other run has every bit, with the stretches that differ up to a time in ps. */
export function lanesBeside(
  lanes: readonly LaneView[],
  { nets, until, at, ofOutputs }: Elsewhere,
  trace: Trace,
  now: number,
): LaneBeside[] {
  return lanes.flatMap((lane) => {
    const bits = lane.nets.map((net) => nets.get(net));
    if ((ofOutputs && lane.isInput) || bits.length === 0 || bits.some((b) => b === undefined)) return [];
    const waveform = waveformOfBits(bits.filter((b) => b !== undefined));
    const end = Math.min(now, until);
    const differs = at
      ? differencesAt(trace, lane.nets, waveform, at, end)
      : differencesOf(trace, lane.nets, waveform, end);
    return [{ lane, course: waveform, differs }];
  });
}

const NONE: readonly LaneBeside[] = [];

/**
 * The run beside this one: a dump that was read, or else the expected outputs of the stimulus.
 * @param dump the dump, or null.
 */
export function useBeside(
  lanes: readonly LaneView[],
  dump: Elsewhere | null,
): { readonly other: Elsewhere | null; readonly beside: readonly LaneBeside[] } {
  const session = useSession();
  const netlist = useSessionState((s) => s.netlist);
  const { trace } = session;
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.time);
  // While it runs, only the time up to the last rest is compared.
  const reached = useSessionState((s) => (s.playing ? -1 : s.now));
  const other = useMemo(() => dump ?? expectedOf(drivingOf(plan), netlist), [dump, plan, netlist]);
  const beside = useMemo(
    () => (other ? lanesBeside(lanes, other, trace, Math.max(0, reached)) : NONE),
    [other, lanes, trace, reached],
  );
  return { other, beside };
}
