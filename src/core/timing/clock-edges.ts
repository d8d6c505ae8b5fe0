import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { clockNets } from '../simulate/clock-nets';
import { levelAt, type Timed } from '../simulate/timed-sources';
import { ONE } from '../values/logic';
import { justBefore } from '../values/time';

/** Most edges that are told at once. */
const MOST = 2000;

/** The input that clocks most of the storage, and its active edge there; null if there is none. */
export function clockOf(netlist: Netlist): { readonly source: Timed; readonly rising: boolean } | null {
  const timed = netlist.sources.filter((s): s is Timed => s.kind === 'clock' || s.kind === 'stimulus');
  const counts = new Map<number, number>();
  let falling = 0;
  for (const g of netlist.storage) {
    const net = netlist.ins[netlist.inStart[g]! + 1]!;
    counts.set(net, (counts.get(net) ?? 0) + 1);
    if (netlist.op[g] === Primitive.DFF_FALL) falling++;
  }
  // A square wave is a clock only where it clocks something.
  const leads = clockNets(netlist);
  const clocks = timed.filter(
    (s) => s.kind === 'clock' || counts.has(s.net) || (s.repeats && leads[s.net] === 1),
  );
  const [source] = clocks.sort((a, b) => (counts.get(b.net) ?? 0) - (counts.get(a.net) ?? 0));
  return source ? { source, rising: falling * 2 <= netlist.storage.length } : null;
}

/**
 * The active edges of a clock in [from, to], in ps, and the number of the first: the first one since time 0 is 1.
 * Of very many only those that come first.
 * @param least how many are told though they come later.
 */
export function clockEdges(
  netlist: Netlist,
  from: number,
  to: number,
  least = 0,
): { readonly edges: readonly number[]; readonly first: number; readonly isAll: boolean } {
  const none = { edges: [], first: 1, isAll: true };
  const clock = clockOf(netlist);
  if (!clock) return none;
  const { source, rising } = clock;
  /** The first active edge after a time. */
  const after = (time: number) => {
    const { next } = levelAt(source, time);
    if (next === Number.POSITIVE_INFINITY) return next;
    return (levelAt(source, next).value === ONE) === rising ? next : levelAt(source, next).next;
  };
  const numberOf = (edge: number) => Math.ceil(edge / (after(edge) - edge));
  const edges: number[] = [];
  const isWanted = (time: number) => time <= to || (edges.length < least && time < Number.POSITIVE_INFINITY);
  for (let time = after(Math.max(0, justBefore(from))); isWanted(time); time = after(time)) {
    if (edges.length === MOST) return { edges, first: numberOf(edges[0]!), isAll: false };
    edges.push(time);
  }
  if (edges.length === 0) return none;
  return { edges, first: numberOf(edges[0]!), isAll: true };
}

/** The time in ps from one active edge of the clock to the next; null where nothing clocks, or no more. */
export function periodOf(netlist: Netlist): number | null {
  const { edges } = clockEdges(netlist, 0, 0, 2);
  return edges.length < 2 ? null : edges[1]! - edges[0]!;
}
