import { Stepper } from '../logic/table/state-table';
import { inputAt } from '../logic/table/truth-table';
import type { Netlist } from '../netlist/netlist';
import { type Logic, letterOf } from '../values/logic';
import { done, type Result, refusal, refused, within } from '../values/result';

/** Most bits of storage for which all states are explored, reachable or not. */
export const MOST_STATE_BITS = 16;
/** Most steps of the circuit that are made to find its states. */
const MOST_STEPS = 1 << 18;
const MOST_INPUTS = 10;

/** The rows of the inputs in which a circuit goes from one state to another, with its outputs then. */
export interface Transition {
  readonly from: number;
  readonly to: number;
  readonly rows: readonly number[];
  /** The outputs before the edge, for each of the rows. */
  readonly outputs: readonly string[];
}

export interface State {
  /** The bits of the state as letters, in the order of `Machine.bits`. */
  readonly code: string;
  readonly reachable: boolean;
  /** The outputs, if they depend on the state alone. */
  readonly outputs: string | null;
}

/** The state machine of a circuit with storage: its states, and the transitions at an active edge of the clock. */
export interface Machine {
  /** The names of the bits of a state, the highest first. */
  readonly bits: readonly string[];
  /** The nets that hold them. */
  readonly nets: readonly number[];
  /** The inputs but for the clock, the first the highest bit of a row. */
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** The one of power-up first; those that cannot be reached last. */
  readonly states: readonly State[];
  readonly transitions: readonly Transition[];
  /** The next state of each state in each row of the inputs: `next[state * rows + row]`. */
  readonly next: Int32Array;
  readonly rows: number;
  /** Whether outputs depend on the state alone, and so belong to it and not to a transition (Moore, 1956). */
  readonly isMoore: boolean;
  /** Whether it holds only states that a run has passed. */
  readonly isPartial: boolean;
}

/**
 * The order in which bits are read as a number: by the numbers at the end of their names, the highest first, if all
 * differ; else in the given order.
 */
export function bitOrder(names: readonly string[]): number[] {
  const order = names.map((_, i) => i);
  const weights = names.map((name) => Number(/(\d+)\D*$/.exec(name)?.[1] ?? Number.NaN));
  if (weights.some(Number.isNaN) || new Set(weights).size < weights.length) return order;
  return order.sort((a, b) => weights[b]! - weights[a]!);
}

/**
 * Explores the states of a circuit from power-up, in all rows of its inputs, and on request from every other
 * state as well.
 * @param labels the labels of the bits of storage, in the order of the stepper.
 */
export function machineOf(
  netlist: Netlist,
  { all = false, labels = null }: { all?: boolean; labels?: readonly string[] | null } = {},
): Result<Machine> {
  if (netlist.storage.length === 0)
    return refused('no-storage', 'nothing here stores a bit, so there are no states');
  const made = Stepper.of(netlist);
  if (!made.ok) return refusal(within('it has no states of its own', made.problem));
  const stepper = made.value;
  const inputs = stepper.columns.length;
  const bits = netlist.storage.length;
  if (inputs > MOST_INPUTS)
    return refused(
      'too-many-inputs',
      `${inputs} inputs give too many ways out of each state: ${MOST_INPUTS} are the most`,
    );
  const names = labels ?? stepper.states;
  const order = bitOrder(names);
  const rows = 2 ** inputs;
  const found = new Map<string, number>();
  const codes: Logic[][] = [];
  const next: number[] = [];
  const outs: string[][] = [];
  const codeOf = (state: readonly Logic[]) => order.map((i) => letterOf(state[i]!)).join('');
  const enter = (state: Logic[]): number => {
    const code = codeOf(state);
    const known = found.get(code);
    if (known !== undefined) return known;
    found.set(code, codes.length);
    codes.push(state);
    return codes.length - 1;
  };
  const tooMany = () =>
    refused(
      'too-many-states',
      `it has more states than are explored here (${codes.length} were found); the timing diagram shows those that it passes`,
    );
  let steps = 0;
  const explore = (from: number): boolean => {
    for (let s = from; s < codes.length; s++) {
      steps += rows;
      if (steps > MOST_STEPS) return false;
      const own: string[] = [];
      for (let row = 0; row < rows; row++) {
        const values = Array.from({ length: inputs }, (_, i) => inputAt(inputs, i, row) as Logic);
        const step = stepper.step(codes[s]!, values);
        next[s * rows + row] = enter(step.next);
        own.push(step.outputs.map(letterOf).join(''));
      }
      outs.push(own);
    }
    return true;
  };
  enter(stepper.powerUp());
  if (!explore(0)) return tooMany();
  const reachable = codes.length;
  if (all) {
    if (bits > MOST_STATE_BITS || 2 ** bits * rows > MOST_STEPS) return tooMany();
    for (let code = 0; code < 2 ** bits; code++) {
      const state = new Array<Logic>(bits);
      for (const [place, i] of order.entries()) state[i] = inputAt(bits, place, code) as Logic;
      const before = codes.length;
      enter(state);
      if (codes.length > before && !explore(before)) return tooMany();
    }
  }
  const isMoore = outs.every((own) => own.every((o) => o === own[0]));
  return done({
    bits: order.map((i) => names[i]!),
    nets: order.map((i) => stepper.nets[i]!),
    inputs: stepper.columns.map((c) => c.name),
    outputs: netlist.outputColumns.map((c) => c.name),
    states: codes.map((state, s) => ({
      code: codeOf(state),
      reachable: s < reachable,
      outputs: isMoore ? outs[s]![0]! : null,
    })),
    transitions: transitionsOf(next, outs, codes.length, rows),
    next: Int32Array.from(next),
    rows,
    isMoore,
    isPartial: false,
  });
}

function transitionsOf(
  next: readonly number[],
  outs: readonly string[][],
  states: number,
  rows: number,
): Transition[] {
  const transitions: Transition[] = [];
  for (let from = 0; from < states; from++) {
    const ways = new Map<number, { rows: number[]; outputs: string[] }>();
    for (let row = 0; row < rows; row++) {
      const to = next[from * rows + row]!;
      const way = ways.get(to) ?? { rows: [], outputs: [] };
      ways.set(to, way);
      way.rows.push(row);
      way.outputs.push(outs[from]![row]!);
    }
    for (const [to, way] of ways) transitions.push({ from, to, ...way });
  }
  return transitions;
}

/** The number of a state; null where a bit of it is unknown. */
export function stateNumber(code: string): number | null {
  return /^[01]+$/.test(code) ? Number.parseInt(code, 2) : null;
}
