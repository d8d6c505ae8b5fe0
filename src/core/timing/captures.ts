import { Stepper } from '../logic/table/state-table';
import type { Netlist } from '../netlist/netlist';
import type { Trace } from '../simulate/trace';
import type { Logic } from '../values/logic';
import { justBefore } from '../values/time';

/** A bit of storage that captured a value other than its settled input at a clock edge. */
export interface WrongCapture {
  /** Time of the edge in ps. */
  readonly time: number;
  /** The net of the bit. */
  readonly net: number;
  readonly taken: Logic;
  readonly due: Logic;
}

const MOST_FOUND = 500;

/**
 * Compares the captures of a run with those of a settled circuit: from the state and the inputs just before
 * each edge, the engine without delays computes the right values. Each edge is judged on its own, so one
 * wrong capture is not reported again in everything that follows from it. Null if the circuit has several
 * clocks.
 * @param edges the active edges of the clock in ps; the last one is not judged, because its effect is not
 *   complete.
 */
export function wrongCaptures(
  netlist: Netlist,
  trace: Trace,
  edges: readonly number[],
): WrongCapture[] | null {
  const made = Stepper.of(netlist);
  if (!made.ok) return null;
  const stepper = made.value;
  const { nets } = stepper;
  const found: WrongCapture[] = [];
  let before = edges.length > 0 ? trace.stateAt(justBefore(edges[0]!)) : null;
  for (let i = 0; i + 1 < edges.length && before && found.length < MOST_FOUND; i++) {
    const after = trace.stateAt(justBefore(edges[i + 1]!));
    const state = nets.map((net) => before![net] as Logic);
    const inputs = stepper.columns.map((c) => before![c.nets[0]] as Logic);
    const { next } = stepper.step(state, inputs);
    for (const [bit, net] of nets.entries()) {
      const taken = after[net] as Logic;
      if (taken !== next[bit]) found.push({ time: edges[i]!, net, taken, due: next[bit]! });
    }
    before = after;
  }
  return found;
}
