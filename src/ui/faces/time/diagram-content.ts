import type { Netlist } from '@/core/netlist/netlist';
import { type Stretch, stretchesOf } from '@/core/simulate/stretches';
import type { Trace } from '@/core/simulate/trace';
import { waveformStretches } from '@/core/simulate/waveform';
import type { WrongCapture } from '@/core/timing/captures';
import { glitchesOf } from '@/core/timing/measure';
import type { Session } from '@/session/session';
import type { Elsewhere, LaneBeside } from './beside';
import type { Diagram, Lane, LaneShape, Span } from './diagram';
import type { LaneView } from './lanes';

/*
 * The content of the diagram in a window: the lanes with their stretches, another run beside them, and flaws.
 */

/** How a lane is laid out: its bits, whether it is a staircase, how high it is, and whether another run stands below. */
export const shapeOf = (lane: LaneView, beside: readonly LaneBeside[]): LaneShape => ({
  width: lane.nets.length,
  stairs: lane.stairs,
  height: lane.height,
  other: beside.find((b) => b.lane === lane) ?? null,
});

interface Known {
  readonly trace: Trace;
  readonly length: number;
  readonly lanes: readonly LaneView[];
  readonly from: number;
  readonly to: number;
  readonly grain: number;
}

/** The stretches of the lanes; they are found again only where something has happened or another window is shown. */
export class StretchCache {
  private known: Known | null = null;
  private stretches: readonly (readonly Stretch[])[] = [];

  /** @param grain ps a pixel: all changes within one become one stretch. */
  of(
    trace: Trace,
    lanes: readonly LaneView[],
    from: number,
    to: number,
    grain: number,
  ): readonly (readonly Stretch[])[] {
    const is: Known = { trace, length: trace.length, lanes, from, to, grain };
    const was = this.known;
    if (!was || (Object.keys(is) as (keyof Known)[]).some((key) => was[key] !== is[key])) {
      const nets = lanes.map((l) => l.nets);
      this.stretches = stretchesOf(trace, nets, from, to, grain);
      this.known = is;
    }
    return this.stretches;
  }
}

/** The lanes as they are painted. */
export function paintedLanes(
  lanes: readonly LaneView[],
  stretches: readonly (readonly Stretch[])[],
  chosen: ReadonlySet<string>,
  beside: (lane: LaneView) => Lane['other'],
): Lane[] {
  return lanes.map((lane, i) => ({
    width: lane.nets.length,
    stairs: lane.stairs,
    height: lane.height,
    other: beside(lane),
    name: lane.marked,
    stretches: lane.nets.length > 0 ? stretches[i]! : [],
    radix: lane.radix,
    chosen: chosen.has(lane.key),
  }));
}

/** The lane of another run that stands below a lane, in a window of so many pixels. */
export function besideLane(
  lane: LaneView,
  beside: readonly LaneBeside[],
  other: Elsewhere | null,
  { from, perPixel }: Span,
  width: number,
): Lane['other'] {
  const found = beside.find((b) => b.lane === lane);
  if (!found || !other) return null;
  const to = Math.min(from + width * perPixel, other.until);
  return { stretches: waveformStretches(found.course, from, to, perPixel), differs: found.differs };
}

/** Setup and hold times that were missed, captures that came too late, and pulses shorter than a limit, in a window. */
export function flawsIn(
  session: Session,
  netlist: Netlist,
  lanes: readonly LaneView[],
  wrong: readonly WrongCapture[],
  shorter: number | null,
  from: number,
  to: number,
): Diagram['flaws'] {
  const laneOf = new Map(lanes.flatMap((l, i) => l.nets.map((net) => [net, i] as const)));
  /** The lane of a bit of storage itself, or of the part that passes it on. */
  const laneOfStore = (net: number) =>
    laneOf.get(net) ??
    [...netlist.fan.subarray(netlist.fanStart[net]!, netlist.fanStart[net + 1]!)]
      .map((g) => laneOf.get(netlist.out[g]!))
      .find((l) => l !== undefined);
  const isShown = ({ time }: { readonly time: number }) => time >= from && time <= to;
  const missed = session.violations
    .filter(isShown)
    .map((v) => ({ lane: laneOfStore(netlist.out[netlist.storage[v.store]!]!), from: v.time, to: v.time }));
  const late = wrong.filter(isShown).map((w) => ({ lane: laneOfStore(w.net), from: w.time, to: w.time }));
  const short =
    shorter === null
      ? []
      : glitchesOf(session.trace, [...laneOf.keys()], shorter, from, to).map((glitch) => ({
          lane: laneOf.get(glitch.net),
          from: glitch.from,
          to: glitch.to,
        }));
  return [...missed, ...late, ...short].filter(
    (f): f is { lane: number; from: number; to: number } => f.lane !== undefined,
  );
}
