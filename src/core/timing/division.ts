import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import type { Trace } from '../simulate/trace';
import { ONE, ZERO } from '../values/logic';

/** One stage of a chain that divides a clock. Times in ps; null if unknown. */
export interface Stage {
  /** The part as `Netlist.partName` has it. */
  readonly part: string;
  readonly net: number;
  /** How many periods of the clock it takes: 2, 4, 8 ... */
  readonly periods: number;
  readonly computed: { readonly period: number; readonly firstRise: number };
  readonly measured: { readonly period: number | null; readonly firstRise: number | null };
}

/** Goes back from a net over gates that only hand on or turn over. */
function origin(
  netlist: Netlist,
  driver: Int32Array,
  net: number,
): { net: number; delay: number; turned: boolean } {
  let at = net;
  let delay = 0;
  let turned = false;
  for (let steps = 0; steps < 64; steps++) {
    const g = driver[at]!;
    if (g === -1) break;
    const op = netlist.op[g]!;
    if (op !== Primitive.BUF && op !== Primitive.NOT) break;
    if (op === Primitive.NOT) turned = !turned;
    delay += Math.max(netlist.rise[g]!, netlist.fall[g]!);
    at = netlist.ins[netlist.inStart[g]!]!;
  }
  return { net: at, delay, turned };
}

/**
 * The stages that divide a clock by two each, one driving the next: the period and first rise of each as they
 * follow from the drawing (all stages at 0 at first, each toggling at its active edge), and as measured in a
 * run.
 * @param clock net, period and first rise of the driver of the first stage.
 * @param delayed whether the parts' own delays count.
 */
export function divisionOf(
  netlist: Netlist,
  trace: Trace,
  clock: { readonly net: number; readonly period: number; readonly firstRise: number },
  delayed: boolean,
): Stage[] {
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.out.length; g++) driver[netlist.out[g]!] = g;
  const stages: (Stage & { own: number; turns: number })[] = [];
  const taken = new Set<number>();
  /** The clock of the next stage: a net of storage or the clock, with its rise and period. */
  let from = { net: clock.net, period: clock.period, firstRise: clock.firstRise, periods: 1 };
  for (;;) {
    let found: (Stage & { own: number; turns: number }) | null = null;
    for (const g of netlist.storage) {
      if (taken.has(g)) continue;
      const by = origin(netlist, driver, netlist.ins[netlist.inStart[g]! + 1]!);
      if (by.net !== from.net) continue;
      taken.add(g);
      const falls = (netlist.op[g] === Primitive.DFF_FALL) !== by.turned;
      const out = netlist.out[g]!;
      // Readers see the output through the gates that stand for the part's delay.
      const owner = netlist.owner[g]!;
      const shown = [...netlist.fan.subarray(netlist.fanStart[out]!, netlist.fanStart[out + 1]!)].find(
        (reader) => netlist.owner[reader] === owner && netlist.op[reader] === Primitive.BUF,
      );
      const net = shown === undefined ? out : netlist.out[shown]!;
      const own = delayed && shown !== undefined ? netlist.rise[shown]! : 0;
      const edge = (falls ? from.firstRise + from.period / 2 : from.firstRise) + (delayed ? by.delay : 0);
      found = {
        part: netlist.partName(owner),
        net,
        own: out,
        turns: edge,
        periods: 2 * from.periods,
        computed: { period: 2 * from.period, firstRise: edge + own },
        measured: measured(trace, net),
      };
      break;
    }
    if (!found) return stages.map(({ own: _, turns: __, ...stage }) => stage);
    stages.push(found);
    // The next stage sees the storage itself; its delay lies on the way there.
    from = { net: found.own, periods: found.periods, period: found.computed.period, firstRise: found.turns };
  }
}

/** The first rise of a net in a trace, and from there to the next one. */
function measured(trace: Trace, net: number): Stage['measured'] {
  // The earliest changes are no longer kept.
  if (trace.trimmed) return { ...laterPeriod(trace, net), firstRise: null };
  return laterPeriod(trace, net);
}

function laterPeriod(trace: Trace, net: number): Stage['measured'] {
  const nets = new Set([net]);
  let rise: number | null = null;
  for (let at = trace.begins; ; ) {
    const next = trace.changeAfter(nets, at);
    if (next === null) return { period: null, firstRise: rise };
    if (trace.valueAt(net, next) === ONE && trace.valueAt(net, next - 1) === ZERO) {
      if (rise !== null) return { period: next - rise, firstRise: rise };
      rise = next;
    }
    at = next;
  }
}
