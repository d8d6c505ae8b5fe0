import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import type { Trace } from '../simulate/trace';
import { ONE, X, Z, ZERO } from '../values/logic';
import { justAfter, justBefore } from '../values/time';

/** Why a net is X or Z, from one part to the one before it. */
export interface UnknownStep {
  readonly net: number;
  /** When the net was looked at, in ps: storage leads to the time at which it took the unknown value. */
  readonly time: number;
  /** The part that drives the net, as `Netlist.partName` has it; null where nothing does. */
  readonly part: string | null;
  /**
   * - `passes`: a gate, one input of which is unknown; the next step has that input.
   * - `took`: storage that took an unknown value, or at an unknown edge; the next step has that input.
   * - `power-up`: storage that has been unknown since the run began.
   * - `timing`: storage whose data moved too near to the clock edge.
   * - `open`: nothing drives the net.
   * - `off`: the part lets go of the net; with no part, all that could drive it do.
   * - `fight`: drivers work against each other.
   * - `loop`: gates in a loop that came to no value.
   * - `given`: a source that is unknown itself.
   */
  readonly why: 'passes' | 'took' | 'power-up' | 'timing' | 'open' | 'off' | 'fight' | 'loop' | 'given';
}

const MOST_STEPS = 500;
const isUnknown = (value: number) => value === X || value === Z;

/**
 * Follows an unknown value back to its source, through gates at one time and through storage to the time at which it took
 * the value. Of several unknown inputs the first is followed.
 * @param net that is X or Z at the time.
 * @param time in ps, within the trace.
 * @returns the steps, the net itself first; none where it is known.
 */
export function whyUnknown(netlist: Netlist, trace: Trace, net: number, time: number): UnknownStep[] {
  const gateOf = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.out.length; g++) gateOf[netlist.out[g]!] = g;
  const sources = new Set(netlist.sources.map((s) => s.net));
  const steps: UnknownStep[] = [];
  const seen = new Set<string>();
  let at: { readonly net: number; readonly time: number } | null = { net, time };
  while (at && steps.length < MOST_STEPS) {
    const { net: here, time: now }: { readonly net: number; readonly time: number } = at;
    if (!isUnknown(trace.valueAt(here, now))) break;
    const g = gateOf[here]!;
    const part = g === -1 ? null : netlist.partName(netlist.owner[g]!);
    const step = (why: UnknownStep['why']) => steps.push({ net: here, time: now, part, why });
    if (seen.has(`${here} ${now}`)) {
      step('loop');
      break;
    }
    seen.add(`${here} ${now}`);
    if (g === -1) {
      step(sources.has(here) ? 'given' : 'open');
      break;
    }
    const inputs = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)];
    if (netlist.op[g]! >= Primitive.DFF_RISE) {
      const taken = takenFrom(trace, here, inputs, now);
      step(taken.why);
      at = taken.next;
      continue;
    }
    const value = (of: number) => trace.valueAt(of, now);
    if (netlist.op[g] === Primitive.WIRED) {
      const driven = inputs.filter((input) => value(input) !== Z);
      if (driven.length === 0) {
        steps.push({ net: here, time: now, part: null, why: 'off' });
        break;
      }
      if (driven.some((i) => value(i) === ONE) && driven.some((i) => value(i) === ZERO)) {
        step('fight');
        break;
      }
    }
    if (netlist.op[g] === Primitive.TRI && value(inputs[1]!) === ZERO) {
      step('off');
      break;
    }
    const from = inputs.find((input) => isUnknown(value(input)));
    // A gate with a delay still shows what its inputs were.
    step(from === undefined ? (netlist.op[g] === Primitive.CONST_X ? 'given' : 'loop') : 'passes');
    at = from === undefined ? null : { net: from, time: now };
  }
  return steps;
}

/** How storage came to an unknown value: since when, and by which of its inputs. */
function takenFrom(
  trace: Trace,
  net: number,
  [data, clock, preset, clear]: readonly number[],
  time: number,
): { readonly why: UnknownStep['why']; readonly next: { net: number; time: number } | null } {
  const since = trace.changeBefore(new Set([net]), justAfter(time));
  if (since === null || !isUnknown(trace.valueAt(net, since))) return { why: 'power-up', next: null };
  const levels = [preset, clear, clock].filter((input) => input !== undefined);
  const control = levels.find((input) => isUnknown(trace.valueAt(input, since)));
  if (control !== undefined) return { why: 'took', next: { net: control, time: since } };
  const before = justBefore(since);
  if (isUnknown(trace.valueAt(data!, before))) return { why: 'took', next: { net: data!, time: before } };
  if (isUnknown(trace.valueAt(data!, since))) return { why: 'took', next: { net: data!, time: since } };
  return { why: 'timing', next: null };
}
