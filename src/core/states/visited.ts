import { Stepper } from '../logic/table/state-table';
import type { Netlist } from '../netlist/netlist';
import type { Trace } from '../simulate/trace';
import { type Logic, letterOf } from '../values/logic';
import { justBefore } from '../values/time';
import { bitOrder, type Machine, type Transition } from './machine';

/** States that are told apart; those that come later are left out. */
const MOST_VISITED = 5000;

/**
 * The states that a run has passed, and the transitions it took: for circuits with too many states to
 * explore. Inputs are not told apart.
 * @param edges active edges of the clock in ps, in order. A state is read just before the next edge; without
 *   edges, after each change of storage.
 * @returns null if the circuit has no states of its own.
 */
export function visitedMachine(
  netlist: Netlist,
  trace: Trace,
  edges: readonly number[],
  now: number,
  labels: readonly string[] | null = null,
): Machine | null {
  const made = Stepper.of(netlist);
  if (!made.ok || netlist.storage.length === 0) return null;
  const { nets, states: names } = made.value;
  const called = labels ?? names;
  const order = bitOrder(called);
  const outputs = netlist.outputColumns.map((c) => c.nets[0]);
  const read = [...order.map((i) => nets[i]!), ...outputs];
  const lanes = trace.window(read, trace.begins, now);
  const stored = lanes.slice(0, nets.length);
  const times =
    edges.length > 0
      ? [...edges.map(justBefore), now]
      : [...new Set(stored.flatMap((lane) => lane.map((c) => c.time)))].sort((a, b) => a - b);
  const places = lanes.map(() => 0);
  const found = new Map<string, number>();
  const said: Set<string>[] = [];
  const ways = new Map<string, Transition>();
  const next: number[] = [];
  let last = -1;
  for (const time of times) {
    if (time < trace.begins || time > now) continue;
    const letters = lanes
      .map((lane, i) => {
        while ((lane[places[i]! + 1]?.time ?? Number.POSITIVE_INFINITY) <= time) places[i]!++;
        return letterOf(lane[places[i]!]!.value as Logic);
      })
      .join('');
    const [code, out] = [letters.slice(0, nets.length), letters.slice(nets.length)];
    const state = found.get(code) ?? found.size;
    if (state === found.size) {
      if (found.size === MOST_VISITED) break;
      found.set(code, state);
      said.push(new Set());
      next.push(state);
    }
    said[state]!.add(out);
    if (last !== -1 && (edges.length > 0 || last !== state)) {
      next[last] = state;
      ways.set(`${last} ${state}`, { from: last, to: state, rows: [0], outputs: [] });
    }
    last = state;
  }
  const isMoore = said.every((outs) => outs.size <= 1);
  return {
    bits: order.map((i) => called[i]!),
    nets: order.map((i) => nets[i]!),
    inputs: [],
    outputs: netlist.outputColumns.map((c) => c.name),
    states: [...found.keys()].map((code, s) => ({
      code,
      reachable: true,
      outputs: isMoore ? ([...said[s]!][0] ?? null) : null,
    })),
    transitions: [...ways.values()].map((way) => ({ ...way, outputs: isMoore ? [] : [...said[way.from]!] })),
    next: Int32Array.from(next),
    rows: 1,
    isMoore,
    isPartial: true,
  };
}
