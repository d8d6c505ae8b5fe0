import type { Delays } from '../circuit/time-setup';
import type { Netlist } from '../netlist/netlist';
import type { Trace } from '../simulate/trace';
import { type Logic, ONE } from '../values/logic';
import { justAfter } from '../values/time';

const UNIT = 1000;
const MOST_STEPS = 200;

/** A change of a net. */
export interface Edge {
  readonly net: number;
  /** Ps. */
  readonly time: number;
  readonly value: Logic;
}

/** A change, the part that made it, and the changes at the part's inputs that caused it. */
export interface Cause {
  readonly effect: Edge;
  /** The part as `Netlist.partName` has it; null where the change came from outside. */
  readonly part: string | null;
  readonly causes: readonly Edge[];
}

const drivers = new WeakMap<Netlist, Int32Array>();

/** The gate that drives each net, or -1. */
function driverOf(netlist: Netlist): Int32Array {
  let known = drivers.get(netlist);
  if (!known) {
    known = new Int32Array(netlist.nets).fill(-1);
    for (let g = 0; g < netlist.out.length; g++) known[netlist.out[g]!] = g;
    drivers.set(netlist, known);
  }
  return known;
}

/** The last change of a net not after a time, or null. */
export function edgeAt(trace: Trace, net: number, time: number): Edge | null {
  const at = trace.changeBefore(new Set([net]), justAfter(time));
  return at === null ? null : { net, time: at, value: trace.valueAt(net, at) };
}

/**
 * Why a net changed: the inputs of the part that drives it which changed just as long before as its delay is. Gates
 * inside a part take no time and are gone through.
 */
export function causeOf(netlist: Netlist, delays: Delays, trace: Trace, effect: Edge): Cause {
  const driver = driverOf(netlist);
  const first = driver[effect.net]!;
  if (first === -1) return { effect, part: null, causes: [] };
  const owner = netlist.owner[first]!;
  const found = new Map<number, Edge>();
  const seen = new Set<number>();
  const look = (net: number, time: number, value: Logic) => {
    const g = driver[net]!;
    if (seen.has(net)) return;
    seen.add(net);
    const own = value === ONE ? netlist.rise[g]! : netlist.fall[g]!;
    const delay = delays === 'parts' ? own : delays === 'unit' && netlist.delayed[g] ? UNIT : 0;
    const begun = time - delay;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) {
      const input = netlist.ins[i]!;
      const edge = edgeAt(trace, input, begun);
      if (edge?.time !== begun) continue;
      const before = driver[input]!;
      if (before !== -1 && netlist.owner[before] === owner) look(input, begun, edge.value);
      else found.set(input, edge);
    }
  };
  look(effect.net, effect.time, effect.value);
  return { effect, part: netlist.partName(owner), causes: [...found.values()] };
}

/**
 * The chain of causes of a change, following the first of several causes each time; the effect comes first.
 */
export function chainOf(netlist: Netlist, delays: Delays, trace: Trace, effect: Edge): Cause[] {
  const chain: Cause[] = [];
  for (let edge: Edge | undefined = effect; edge && chain.length < MOST_STEPS; ) {
    const cause: Cause = causeOf(netlist, delays, trace, edge);
    chain.push(cause);
    const next: Edge | undefined = cause.causes[0];
    // A loop without delay would go round in the same instant.
    if (next && chain.some((c) => c.effect.net === next.net && c.effect.time === next.time)) break;
    edge = next;
  }
  return chain;
}
