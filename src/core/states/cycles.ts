import { inputAt } from '../logic/table/truth-table';
import { type Machine, stateNumber } from './machine';

/**
 * The states that a circuit passes while its inputs stay in one row: those it passes once, and those it
 * repeats.
 */
export interface StateCycle {
  readonly row: number;
  /** States that it passes before it comes round, from power-up. */
  readonly before: readonly number[];
  /** The states of the cycle, beginning with the power-up state if it is among them, else with the lowest. */
  readonly cycle: readonly number[];
  readonly direction: 'forwards' | 'backwards' | null;
}

/** Where a circuit goes from a state while its inputs stay in a row. */
export function cycleFrom(machine: Machine, state: number, row: number): StateCycle {
  const seen = new Map<number, number>();
  const way: number[] = [];
  for (let at = state; !seen.has(at); at = machine.next[at * machine.rows + row]!) {
    seen.set(at, way.length);
    way.push(at);
  }
  const last = way.at(-1)!;
  const begins = seen.get(machine.next[last * machine.rows + row]!)!;
  const cycle = way.slice(begins);
  return { row, before: way.slice(0, begins), cycle, direction: directionOf(machine, cycle) };
}

/** Whether the numbers of a cycle go up by one, or down, except at the wrap-around. */
function directionOf(machine: Machine, cycle: readonly number[]): StateCycle['direction'] {
  const numbers = cycle.map((s) => stateNumber(machine.states[s]!.code));
  if (numbers.length < 3 || numbers.includes(null)) return null;
  const steps = numbers.map((n, i) => numbers[(i + 1) % numbers.length]! - n!);
  const others = (by: number) => steps.filter((s) => s !== by).length;
  return others(1) === 1 ? 'forwards' : others(-1) === 1 ? 'backwards' : null;
}

/** The ways from power-up, one for each row of the inputs. */
export const cyclesOf = (machine: Machine): StateCycle[] =>
  Array.from({ length: machine.rows }, (_, row) => cycleFrom(machine, 0, row));

/** States from which the one of power-up is never reached again, whatever the inputs do. */
export function transientStates(machine: Machine): Set<number> {
  const into = new Map<number, number[]>();
  for (const { from, to } of machine.transitions) into.set(to, [...(into.get(to) ?? []), from]);
  const back = new Set([0]);
  for (const state of back) for (const from of into.get(state) ?? []) back.add(from);
  return new Set([...machine.states.keys()].filter((s) => !back.has(s)));
}

const MOST_TOLD = 24;

/** A row of the inputs in words: `Forward = 1, Stop = 0`. */
export function inputRowText(machine: Machine, row: number): string {
  return machine.inputs.map((name, i) => `${name} = ${inputAt(machine.inputs.length, i, row)}`).join(', ');
}

/** A cycle in words: `0 1 2 ... 9, then 0 (10 states, forwards)`. @param nameOf the name of a state. */
export function cycleText(round: StateCycle, nameOf: (state: number) => string): string {
  const told = (states: readonly number[]) => {
    const names = states.map(nameOf);
    if (names.length <= MOST_TOLD) return names.join(' ');
    return `${names.slice(0, 4).join(' ')} … ${names.slice(-2).join(' ')}`;
  };
  const { before, cycle, direction } = round;
  const first = before.length > 0 ? `${told(before)}, then again and again ` : '';
  if (cycle.length === 1) return `${first}${before.length > 0 ? '' : 'it stays in '}${nameOf(cycle[0]!)}`;
  const turn = direction ? `, ${direction}` : '';
  return `${first}${told(cycle)}, then ${nameOf(cycle[0]!)} (${cycle.length} states${turn})`;
}
