import { type Netlist, stateName } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';

/** A part on a way, and the time that it takes, in ps. */
export interface Step {
  /** As `Netlist.partName` has it. */
  readonly part: string;
  readonly delayPs: number;
}

/** The timing requirements of one bit of storage. Times in ps. */
export interface RegisterTiming {
  /** Index into the netlist's `storage`. */
  readonly store: number;
  readonly name: string;
  /** The slowest way to its data, from the storage that launches it on, and the sum along it. */
  readonly steps: readonly Step[];
  readonly dataPs: number;
  readonly setupPs: number;
  /** Data and setup time: the shortest period that is long enough for it, or twice that between opposite edges. */
  readonly neededPs: number;
  /** The quickest way to its data, and by how much it is later than the hold time asks. */
  readonly quickestPs: number;
  readonly holdSlackPs: number;
}

interface Arrivals {
  readonly latest: Float64Array;
  readonly earliest: Float64Array;
  /** The gate by which the latest comes, or -1. */
  readonly by: Int32Array;
}

function arrivals(netlist: Netlist, launched: readonly number[]): Arrivals {
  const latest = new Float64Array(netlist.nets).fill(-1);
  const earliest = new Float64Array(netlist.nets).fill(Number.POSITIVE_INFINITY);
  const by = new Int32Array(netlist.nets).fill(-1);
  for (const net of launched) {
    latest[net] = 0;
    earliest[net] = 0;
  }
  for (const g of netlist.order) {
    let late = -1;
    let soon = Number.POSITIVE_INFINITY;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) {
      late = Math.max(late, latest[netlist.ins[i]!]!);
      soon = Math.min(soon, earliest[netlist.ins[i]!]!);
    }
    if (late < 0) continue;
    const out = netlist.out[g]!;
    const then = late + Math.max(netlist.rise[g]!, netlist.fall[g]!);
    if (then > latest[out]!) {
      latest[out] = then;
      by[out] = g;
    }
    earliest[out] = Math.min(earliest[out]!, soon + Math.min(netlist.rise[g]!, netlist.fall[g]!));
  }
  return { latest, earliest, by };
}

/** The parts along the slowest way to a net, each once, with the time that it takes there. */
function stepsTo(netlist: Netlist, { latest, by }: Arrivals, end: number): Step[] {
  const steps: Step[] = [];
  for (let net = end; by[net] !== -1; ) {
    const g = by[net]!;
    const part = netlist.partName(netlist.owner[g]!);
    let from = netlist.ins[netlist.inStart[g]!]!;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
      if (latest[netlist.ins[i]!]! > latest[from]!) from = netlist.ins[i]!;
    const delayPs = latest[net]! - latest[from]!;
    const last = steps.at(-1);
    if (last?.part === part) steps[steps.length - 1] = { part, delayPs: last.delayPs + delayPs };
    else if (delayPs > 0) steps.push({ part, delayPs });
    net = from;
  }
  return steps.reverse();
}

const isFalling = (netlist: Netlist, gate: number) => netlist.op[gate] === Primitive.DFF_FALL;

/**
 * The timing requirements of each bit of storage that is fed by storage: the sum of the launch delay, the
 * slowest path and its setup time; and the margin of the quickest path over its hold time. The most demanding
 * one comes first.
 */
export function registersOf(netlist: Netlist): RegisterTiming[] {
  const found = new Map<number, RegisterTiming>();
  for (const falls of [false, true]) {
    const from = [...netlist.storage].filter((g) => isFalling(netlist, g) === falls);
    if (from.length === 0) continue;
    const all = arrivals(
      netlist,
      from.map((g) => netlist.out[g]!),
    );
    for (const [store, g] of netlist.storage.entries()) {
      const data = netlist.ins[netlist.inStart[g]!]!;
      const { setup, hold } = netlist.stores[store]!;
      const dataPs = all.latest[data]!;
      // A bit that only keeps itself asks for nothing.
      if (dataPs < 0 || (dataPs === 0 && setup === 0)) continue;
      const sameEdge = isFalling(netlist, g) === falls;
      const neededPs = (dataPs + setup) * (sameEdge ? 1 : 2);
      if ((found.get(store)?.neededPs ?? -1) >= neededPs) continue;
      const quickestPs = all.earliest[data]!;
      found.set(store, {
        store,
        name: stateName(netlist, store),
        steps: stepsTo(netlist, all, data),
        dataPs,
        setupPs: setup,
        neededPs,
        quickestPs,
        holdSlackPs: quickestPs - hold,
      });
    }
  }
  return [...found.values()].sort((a, b) => b.neededPs - a.neededPs);
}
