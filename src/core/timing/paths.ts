import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';

/** A way through the circuit, part by part. */
export interface Path {
  /** Sum of the delays along it, in ps. */
  readonly delayPs: number;
  /** Paths of the parts in order. */
  readonly through: readonly string[];
}

export interface Timing {
  /** The slowest way from inputs and storage to outputs and storage; null without a part that takes time. */
  readonly slowest: Path | null;
  /**
   * The shortest period in ps at which every register still takes its data in time: its own delay, the way to the
   * next one, and the setup time there; null where no register feeds another. Where one works on the rising and
   * the other on the falling edge, half a period must do (both halves taken as equal).
   */
  readonly shortestClockPs: number | null;
}

interface Arrival {
  /** Latest change of each net in ps after its launch; -1 where nothing launched reaches it. */
  readonly at: Float64Array;
  /** The gate by which that comes, or -1. */
  readonly by: Int32Array;
}

/** Latest arrivals when the given nets change at time 0, in one pass over the levels. */
function arrivals(netlist: Netlist, launched: Iterable<number>): Arrival {
  const at = new Float64Array(netlist.nets).fill(-1);
  const by = new Int32Array(netlist.nets).fill(-1);
  for (const net of launched) at[net] = 0;
  for (const g of netlist.order) {
    let latest = -1;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
      latest = Math.max(latest, at[netlist.ins[i]!]!);
    if (latest < 0) continue;
    const then = latest + Math.max(netlist.rise[g]!, netlist.fall[g]!);
    const out = netlist.out[g]!;
    if (then > at[out]!) {
      at[out] = then;
      by[out] = g;
    }
  }
  return { at, by };
}

function pathTo(netlist: Netlist, { at, by }: Arrival, end: number): Path {
  const through: string[] = [];
  for (let net = end; by[net] !== -1; ) {
    const g = by[net]!;
    const name = netlist.partName(netlist.owner[g]!);
    if (through.at(-1) !== name) through.push(name);
    let latest = netlist.ins[netlist.inStart[g]!]!;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
      if (at[netlist.ins[i]!]! > at[latest]!) latest = netlist.ins[i]!;
    net = latest;
  }
  return { delayPs: at[end]!, through: through.reverse() };
}

const edgeOf = (netlist: Netlist, gate: number) =>
  netlist.op[gate] === Primitive.DFF_FALL ? 'fall' : 'rise';

/** Timing by the parts' own delays. Loops without storage are left out. */
export function timingOf(netlist: Netlist): Timing {
  const launched = [
    ...netlist.sources.filter((s) => s.kind !== 'constant').map((s) => s.net),
    ...[...netlist.storage].map((g) => netlist.out[g]!),
  ];
  const all = arrivals(netlist, launched);
  const ends = [
    ...netlist.outputColumns.map((c) => c.nets[0]),
    ...[...netlist.storage].flatMap((g) => [
      ...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!),
    ]),
  ];
  let end = -1;
  for (const net of ends) if (end === -1 || all.at[net]! > all.at[end]!) end = net;

  let shortest = -1;
  for (const launch of ['rise', 'fall'] as const) {
    const from = [...netlist.storage].filter((g) => edgeOf(netlist, g) === launch);
    if (from.length === 0) continue;
    const { at } = arrivals(
      netlist,
      from.map((g) => netlist.out[g]!),
    );
    for (const [i, g] of netlist.storage.entries()) {
      const data = at[netlist.ins[netlist.inStart[g]!]!]!;
      // A bit that only keeps itself asks for nothing.
      if (data < 0 || (data === 0 && netlist.stores[i]!.setup === 0)) continue;
      const needed = data + netlist.stores[i]!.setup;
      shortest = Math.max(shortest, edgeOf(netlist, g) === launch ? needed : 2 * needed);
    }
  }
  return {
    slowest: end !== -1 && all.at[end]! > 0 ? pathTo(netlist, all, end) : null,
    shortestClockPs: shortest < 0 ? null : shortest,
  };
}
