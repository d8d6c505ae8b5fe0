import type { Sheet } from '../../circuit/sheet';
import { type Column, type Netlist, stateName, storeName } from '../../netlist/netlist';
import { spokenName } from '../../parts/catalogue';
import { Primitive } from '../../parts/primitive';
import { Run } from '../../simulate/run';
import { type Logic, ONE, X, Z, ZERO } from '../../values/logic';
import { naturalOrder } from '../../values/natural-order';
import { done, type Result, refused } from '../../values/result';
import { inputAt, type TruthTable } from './truth-table';

/** Present states and inputs together, at most: a row is a run of its own. */
const MOST_STATE_COLUMNS = 16;

/**
 * One clock of a circuit with storage: from a state and a row of inputs to the outputs and the next state.
 */
export class Stepper {
  private run: Run;
  private readonly keys: readonly string[];
  private readonly sources: ReadonlyMap<number, unknown>;

  private constructor(
    private readonly netlist: Netlist,
    /** The inputs but for the clock. */
    readonly columns: readonly Column[],
    private readonly clock: number | undefined,
    private readonly isFalling: boolean,
    /** Storage in the order of a state's bits: the highest bit of a register first. */
    private readonly order: readonly number[],
  ) {
    this.keys = order.map((i) => storeName(netlist, i));
    this.sources = new Map(netlist.sources.map((s) => [s.net, s]));
    this.run = this.begin();
  }

  static of(netlist: Netlist): Result<Stepper> {
    const clocks = clockNets(netlist);
    if (clocks.length > 1)
      return refused('several-clocks', 'it has several clocks, so “the next edge” is ambiguous');
    if (hasOpenClock(netlist))
      return refused('open-clock', 'a clock input of its storage is open, so that no edge comes there');
    const falling = [...netlist.storage].some((g) => netlist.op[g] === Primitive.DFF_FALL);
    const rising = [...netlist.storage].some((g) => netlist.op[g] !== Primitive.DFF_FALL);
    if (falling && rising)
      return refused('both-edges', 'some of it works on the rising edge and some on the falling edge');
    const columns = netlist.inputColumns.filter((c) => c.nets[0] !== clocks[0]);
    // By the ids of the parts, which stay when a lesson is written and read again; its order of parts does not.
    const nameOf = (i: number) => netlist.partName(netlist.owner[netlist.storage[i]!]!);
    const order = [...netlist.storage.keys()].sort((a, b) => naturalOrder(nameOf(a), nameOf(b)) || b - a);
    return done(new Stepper(netlist, columns, clocks[0], falling, order));
  }

  /** The names of the bits of a state. */
  get states(): string[] {
    return this.order.map((i) => stateName(this.netlist, i));
  }

  /** The nets that hold the bits of a state. */
  get nets(): number[] {
    const { netlist } = this;
    return this.order.map((i) => netlist.out[netlist.storage[i]!]!);
  }

  private begin(): Run {
    return new Run(this.netlist, { delays: 'zero', mostChanges: 0 });
  }

  /** The power-up state. */
  powerUp(): Logic[] {
    return this.stored(this.begin());
  }

  private stored(run: Run): Logic[] {
    return this.nets.map((net) => run.values[net] as Logic);
  }

  /**
   * Outputs before the active edge, and the state after it. The engine without delays computes them, so any
   * circuit gives the same result as a run.
   */
  step(
    state: readonly Logic[],
    inputs: readonly Logic[],
  ): { readonly outputs: Logic[]; readonly next: Logic[] } {
    const { netlist, clock } = this;
    // A loop of gates holds state that storage does not show.
    if (netlist.looped.length > 0) this.run = this.begin();
    const { run } = this;
    const [idle, active]: [Logic, Logic] = this.isFalling ? [ONE, ZERO] : [ZERO, ONE];
    const settled: [number, Logic][] = this.columns.map((c, i) => [c.nets[0], inputs[i]!]);
    // A clock that runs by itself stands still here, and is put by hand.
    if (clock !== undefined && this.sources.has(clock)) settled.push([clock, idle]);
    run.set(settled);
    // Whatever moved the storage on the way is put back.
    run.putState(new Map(this.keys.map((name, i) => [name, state[i]!])));
    const outputs = netlist.outputColumns.map((c) => run.values[c.nets[0]] as Logic);
    if (clock !== undefined) run.set([[clock, active]]);
    return { outputs, next: this.stored(run) };
  }
}

/** The name of a bit of state for people: its part as it is labelled or spoken of, in place of the part's id. */
export function stateLabel(sheet: Sheet, name: string): string {
  const [, id, rest] = /^([A-Za-z0-9_-]+)(.*)$/.exec(name) ?? [];
  const part = id === undefined ? undefined : sheet.parts.get(id);
  return part ? `${part.label || spokenName(part)}${rest}` : name;
}

/** The names of the bits of a state, each called as none of the others, and as none of the inputs. */
function labelsOf(sheet: Sheet, { states, columns }: Stepper): string[] {
  const taken = new Set(columns.map((c) => c.name));
  return states.map((state) => {
    const label = stateLabel(sheet, state);
    let name = label;
    for (let n = 2; taken.has(name); n++) name = `${label} (${n})`;
    taken.add(name);
    return name;
  });
}

/**
 * The table of a circuit with storage: over the present state and the inputs (without the clock) the state after
 * the next active edge of the clock, and the outputs before it. Columns of the state are called after their storage,
 * those of the next state with `+` behind.
 * @param options.sheet that was compiled: its storage is called by its labels then, and by ids without it.
 */
export function stateTable(
  netlist: Netlist,
  { progress, sheet }: { readonly progress?: (share: number) => void; readonly sheet?: Sheet } = {},
): Result<TruthTable> {
  const made = Stepper.of(netlist);
  if (!made.ok) return made;
  const stepper = made.value;
  const { columns } = stepper;
  const states = sheet ? labelsOf(sheet, stepper) : stepper.states;
  const count = states.length + columns.length;
  if (count > MOST_STATE_COLUMNS)
    return refused(
      'too-many-rows',
      `${states.length} bits of state and ${columns.length} inputs give too many rows: ${MOST_STATE_COLUMNS} together are the most`,
    );
  const rows = 2 ** count;
  const outputs = [...states.map((s) => `${s}+`), ...netlist.outputColumns.map((c) => c.name)];
  const empty = () => outputs.map(() => new Uint32Array(Math.max(1, rows >>> 5)));
  const [ones, unknown, floating] = [empty(), empty(), empty()];
  for (let row = 0; row < rows; row++) {
    const bits = Array.from({ length: count }, (_, i) => inputAt(count, i, row) as Logic);
    const { next, outputs: now } = stepper.step(bits.slice(0, states.length), bits.slice(states.length));
    for (const [o, value] of [...next, ...now].entries()) {
      const bit = 1 << (row & 31);
      const word = row >>> 5;
      if (value === ONE) ones[o]![word]! |= bit;
      if (value === X || value === Z) unknown[o]![word]! |= bit;
      if (value === Z) floating[o]![word]! |= bit;
    }
    if ((row & 0xff) === 0) progress?.(row / rows);
  }
  const inputs = [...states, ...columns.map((c) => c.name)];
  return done({ inputs, outputs, rows, ones, unknown, floating });
}

/** Whether nothing at all drives the clock of some storage. */
function hasOpenClock(netlist: Netlist): boolean {
  const driven = new Uint8Array(netlist.nets);
  for (const source of netlist.sources) driven[source.net] = 1;
  for (const net of netlist.out) driven[net] = 1;
  return [...netlist.storage].some(
    (g) => netlist.op[g] !== Primitive.LATCH && driven[netlist.ins[netlist.inStart[g]! + 1]!] === 0,
  );
}

/** The inputs of the sheet that clock its storage, straight or by way of gates. */
function clockNets(netlist: Netlist): number[] {
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.op.length; g++) driver[netlist.out[g]!] = g;
  const found = new Set<number>();
  const seen = new Set<number>();
  const inputs = new Set(netlist.inputColumns.map((c) => c.nets[0]));
  const follow = (net: number) => {
    if (seen.has(net)) return;
    seen.add(net);
    if (inputs.has(net)) {
      found.add(net);
      return;
    }
    const g = driver[net]!;
    // Only gates that pass the clock on: a gate with the clock as one of several inputs may be an enable.
    if (
      g !== -1 &&
      (netlist.op[g] === Primitive.BUF ||
        netlist.op[g] === Primitive.NOT ||
        netlist.op[g] === Primitive.WIRED)
    )
      follow(netlist.ins[netlist.inStart[g]!]!);
  };
  for (const g of netlist.storage)
    if (netlist.op[g] !== Primitive.LATCH) follow(netlist.ins[netlist.inStart[g]! + 1]!);
  return [...found];
}
