import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { Run } from '../simulate/run';
import { type Logic, X } from '../values/logic';
import { sheetOfPlan } from './as-sheet';
import { dataSheet, type PackagePlan } from './plan';
import { random } from './random';
import { terminalRef, type WireEnd, type Wiring } from './wiring';

/*
 * What to put on the switches to test a stage, and what its pins have to show then: as few rows as pass each of its units
 * through all inputs that reach it; with storage a short walk from power-up.
 */

/** Levels on the switches, and on the pins of the stage. */
export interface TestStep {
  /** One for each input, in declared order. */
  readonly inputs: readonly Logic[];
  /** The row of the truth table; undefined where the circuit remembers. */
  readonly row?: number;
  readonly expected: ReadonlyMap<WireEnd, Logic>;
}

export interface StageTest {
  readonly stage: number;
  readonly steps: readonly TestStep[];
}

/** Circuits with more inputs are not passed through row by row: as many rows as that are drawn from a seed. */
const MOST_ROWS = 1024;
const WALK = 24;

/** The test of each stage that can be tested by itself. */
export function stageTests(plan: PackagePlan, wiring: Wiring): StageTest[] {
  const board = new TestedBoard(plan, wiring);
  const steps = board.remembers ? board.walk() : board.rows();
  return wiring.stages
    .filter(({ canBeTested }) => canBeTested)
    .map(({ number, pins, units }) => {
      const shown = (step: Passed): TestStep => ({
        inputs: step.inputs,
        ...(board.remembers ? {} : { row: step.row }),
        expected: new Map(pins.map((pin) => [pin, step.at(pin)])),
      });
      if (board.remembers) return { stage: number, steps: steps.map(shown) };
      const looks = units.map(({ ref, letter }) => board.inputPins(ref, letter));
      return { stage: number, steps: covering(steps, looks).map(shown) };
    });
}

interface Passed {
  readonly inputs: readonly Logic[];
  readonly row: number;
  readonly at: (pin: WireEnd) => Logic;
}

/** The fewest rows, taken greedily, in which each unit sees whatever reaches it. */
function covering(rows: readonly Passed[], looks: readonly (readonly WireEnd[])[]): Passed[] {
  const seenIn = rows.map((row) => looks.map((pins, u) => `${u}:${pins.map((pin) => row.at(pin)).join('')}`));
  const open = new Set(seenIn.flat());
  const taken: number[] = [];
  while (open.size > 0) {
    let best = -1;
    let most = 0;
    for (const [i, seen] of seenIn.entries()) {
      const fresh = seen.filter((one) => open.has(one)).length;
      if (fresh > most) [best, most] = [i, fresh];
    }
    taken.push(best);
    for (const one of seenIn[best]!) open.delete(one);
  }
  return taken.sort((a, b) => a - b).map((i) => rows[i]!);
}

class TestedBoard {
  private readonly netlist: Netlist;
  private readonly nets = new Map<WireEnd, number>();

  constructor(
    private readonly plan: PackagePlan,
    wiring: Wiring,
  ) {
    this.netlist = compile(sheetOfPlan(plan, wiring));
    for (const { ref, name } of plan.packages)
      for (const pin of dataSheet({ name }).pins) {
        const net = this.netlist.netsOfPin(ref, pin.name)?.[0];
        if (net !== undefined) this.nets.set(`${ref}.${pin.number}`, net);
      }
    for (const [i, { direction }] of plan.terminals.entries()) {
      const net = this.netlist.netsOfPin(terminalRef(i), direction === 'in' ? 'Y' : 'A')?.[0];
      if (net !== undefined) this.nets.set(`${terminalRef(i)}.1`, net);
    }
  }

  get remembers(): boolean {
    return this.netlist.storage.length > 0 || this.netlist.looped.length > 0;
  }

  inputPins(ref: string, letter: string): WireEnd[] {
    const type = dataSheet(this.plan.packages.find((one) => one.ref === ref)!);
    const unit = type.units.find((one) => one.letter === letter)!;
    return [...unit.pins.values()].flatMap(({ number, use }) => (use === 'in' ? [`${ref}.${number}`] : []));
  }

  rows(): Passed[] {
    const count = this.netlist.inputs.length;
    const all = 2 ** count;
    const roll = random(1);
    return Array.from({ length: Math.min(all, MOST_ROWS) }, (_, i) => {
      const row = all <= MOST_ROWS ? i : Math.floor(roll() * all);
      const inputs = Array.from(
        { length: count },
        (_bit, k) => (Math.floor(row / 2 ** (count - 1 - k)) % 2) as Logic,
      );
      return this.passed(new Run(this.netlist, { delays: 'zero' }), inputs, row);
    });
  }

  /** One input after the other, clocks more often than others. */
  walk(): Passed[] {
    const inputs = this.plan.terminals.filter(({ direction }) => direction === 'in');
    const levels: Logic[] = inputs.map(() => 0);
    const run = new Run(this.netlist, { delays: 'zero' });
    const roll = random(1);
    const clocks = inputs.flatMap(({ by }, i) => (by === 'clock' || by === 'button' ? [i] : []));
    const begun = [this.passed(run, levels, 0)];
    if (inputs.length === 0) return begun;
    return [
      ...begun,
      ...Array.from({ length: WALK }, () => {
        const among = clocks.length > 0 && roll() < 0.7 ? clocks : inputs.map((_, i) => i);
        const turned = among[Math.floor(roll() * among.length)]!;
        levels[turned] = (1 - levels[turned]!) as Logic;
        return this.passed(run, levels, 0);
      }),
    ];
  }

  private passed(run: Run, inputs: readonly Logic[], row: number): Passed {
    run.set(this.netlist.inputs.map(({ nets }, i) => [nets[0]!, inputs[i]!] as [number, Logic]));
    const values = run.values.slice();
    return {
      inputs: [...inputs],
      row,
      at: (pin) => {
        const net = this.nets.get(pin);
        return (net === undefined ? X : values[net]!) as Logic;
      },
    };
  }
}
