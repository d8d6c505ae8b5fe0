import type { Params } from '../../circuit/sheet';
import { type Bit, C0, C1, type Cells, CX } from './cells';
import { Execution } from './execute';
import { MOST_PART, NOW } from './gates';
import type { Logic } from './logic';
import { fail, type Scope, type Signal, wordOfBits } from './scope';
import type { Call, Expression, Item, Statement, Watched } from './syntax';
import type { Place } from './tokens';
import { KEPT, type Tree } from './trees';
import type { Word } from './word';

/** The clock of a register, or the gate of a latch. */
interface Register {
  readonly edge: 'rising' | 'falling';
  readonly clock: Bit;
}

/** An asynchronous condition with the values that it gives. */
interface Asynchronous {
  readonly signal: Bit;
  readonly active: 0 | 1;
  readonly values: ReadonlyMap<Bit, Bit>;
}

interface Level {
  readonly bit: Bit;
  readonly active: 0 | 1;
}
interface Controls {
  readonly preset: Level | null;
  readonly clear: Level | null;
}

/** What one process makes of a signal, to be built when all is known that reads it. */
interface Pending {
  readonly at: Place;
  readonly bits: readonly Bit[];
  /** Whether it is only needed where somebody else reads it: a variable that is assigned with “=”. */
  readonly isVariable: boolean;
  readonly build: () => void;
}

/** A statement without a begin and end around it, if it is the only one. */
function sole(s: Statement | null): Statement | null {
  let at = s;
  while (at?.is === 'block' && at.statements.length === 1 && at.declarations.length === 0)
    at = at.statements[0]!;
  return at;
}

/** Makes storage, and logic, of always blocks. */
export class Registers {
  constructor(
    private readonly logic: Logic,
    private readonly cells: Cells,
    private readonly tell: (note: string, at: Place) => void,
  ) {}

  readonly powerUp = new Map<Bit, Bit>();

  /** Bits that a process assigns, and where. */
  private readonly owned = new Map<Bit, Place>();
  private readonly readBefore = new Set<Bit>();
  private readonly pending: Pending[] = [];
  private readonly delays = new Map<Bit, Params>();

  /** The values of an initial block. */
  initial({ body }: Extract<Item, { is: 'initial' }>): void {
    const execution = this.executed(body);
    for (const [bit, tree] of execution.results(body)) {
      if (typeof tree !== 'number' || tree >= 0)
        fail('a constant is expected in an “initial” block of a circuit', body);
      else this.powerUp.set(bit, tree);
    }
  }

  /** The words of a memory that an initial block has filled; null where it has filled none. */
  content(words: readonly (readonly Bit[])[]): Word[] | null {
    if (!words.some((word) => word.some((bit) => this.powerUp.has(bit)))) return null;
    return words.map(
      (word) =>
        wordOfBits(
          word.map((bit) => this.powerUp.get(bit) ?? CX),
          false,
        )!,
    );
  }

  /** Puts in a function outside of processes. */
  called(e: Call): Bit[] {
    const execution = new Execution(this.logic);
    return this.logic.within(this.logic.scope, execution, () => execution.callFunction(e));
  }

  private executed(body: Statement | null): Execution {
    const execution = new Execution(this.logic);
    const { callFunction } = this.logic;
    this.logic.callFunction = (e) => execution.callFunction(e);
    this.logic.within(this.logic.scope, execution, () => body && execution.run(body));
    this.logic.callFunction = callFunction;
    for (const bit of execution.readBefore) this.readBefore.add(bit);
    for (const [bit, delay] of execution.delays) this.delays.set(bit, delay);
    return execution;
  }

  always(item: Extract<Item, { is: 'always' }>): void {
    const { on } = item;
    if (on === null) fail('“@” is expected: a process without it belongs in a test bench', item);
    const watched = on === 'all' ? [] : (on as readonly Watched[]);
    const edges = watched.filter(({ edge }) => edge !== null);
    if (edges.length > 0 && edges.length < watched.length)
      fail(
        'a list of edges and levels together is outside the part of Verilog that is read: one of them is expected',
        item,
      );
    if (edges.length === 0) this.combinational(item.body);
    else this.clocked(item, edges);
  }

  /** Builds what the processes have made, once all items are read. @param isPort whether a bit leaves the module. */
  finish(isPort: (bit: Bit) => boolean): void {
    const isNeeded = (bit: Bit) => this.readBefore.has(bit) || this.logic.readOutside.has(bit) || isPort(bit);
    for (const { at, bits, isVariable, build } of this.pending) {
      // Loops of several processes may count with one variable.
      if (isVariable && !bits.some(isNeeded)) continue;
      this.own(bits, at);
      build();
    }
    // What only an initial block assigns keeps that value.
    for (const [bit, value] of this.powerUp)
      if (!this.owned.has(bit) && isNeeded(bit)) this.cells.join(bit, value);
  }

  private own(bits: Iterable<Bit>, at: Place): void {
    for (const bit of bits) {
      const before = this.owned.get(bit);
      if (before && before !== at)
        fail(
          `a signal that is assigned here is assigned in the block of line ${before.line} as well: one block is expected`,
          at,
        );
      this.owned.set(bit, at);
    }
  }

  /** Results by signal, the bits of each in order. */
  private bySignal(results: ReadonlyMap<Bit, Tree>): { signal: Signal; bits: Bit[] }[] {
    const made: { signal: Signal; bits: Bit[] }[] = [];
    const left = new Set(results.keys());
    for (let scope: Scope | null = this.logic.scope; scope && left.size > 0; scope = scope.parent)
      for (const signal of scope.signals.values()) {
        const bits = signal.bits.filter((bit) => left.delete(bit));
        if (bits.length === 0) continue;
        if (!signal.isMemory) made.push({ signal, bits });
        // Each word is a register of its own.
        else
          for (let from = 0; from < bits.length; from += signal.width)
            made.push({ signal, bits: bits.slice(from, from + signal.width) });
      }
    return made;
  }

  /** Logic, and a latch for what no branch assigns. */
  private combinational(body: Statement): void {
    const execution = this.executed(body);
    const results = execution.results(body);
    const { growth } = execution;
    for (const { signal, bits } of this.bySignal(results)) {
      const trees = bits.map((bit) => results.get(bit)!);
      const isVariable = signal.type === 'integer';
      const build = () => {
        const values = growth.bits(trees, () => null);
        const assigned = trees.map((tree) => growth.isAssigned(tree));
        for (let from = 0; from < bits.length; ) {
          let to = from + 1;
          while (to < bits.length && assigned[to] === assigned[from]) to++;
          const [own, next] = [bits.slice(from, to), values.slice(from, to)];
          if (assigned[from] === C1) for (const [i, bit] of own.entries()) this.cells.join(bit, next[i]!);
          else {
            for (const [i, bit] of own.entries()) this.latch(bit, next[i]!, assigned[from]!, signal.name);
            this.tell(`${signal.name} keeps its value where no branch assigns it: it became a latch`, body);
          }
          from = to;
        }
      };
      this.pending.push({ at: body, bits, isVariable, build });
    }
  }

  private latch(bit: Bit, D: Bit, EN: Bit, name: string): void {
    const params = {
      ...(this.delays.get(bit) ?? NOW),
      setup: 0,
      hold: 0,
      powerUp: this.begun(bit),
      clear: 'none',
      preset: 'none',
    };
    this.cells.add('dlatch', params, { D: [D], EN: [EN], Q: [bit] }, name);
  }

  private begun(bit: Bit): string {
    const value = this.powerUp.get(bit);
    return value === C1 ? '1' : value === C0 ? '0' : value === CX ? 'X' : 'lesson';
  }

  private clocked(item: Extract<Item, { is: 'always' }>, edges: readonly Watched[]): void {
    const { logic } = this;
    const signalOf = ({ signal }: Watched) => {
      const { bits } = logic.own(signal);
      return bits.length === 1 ? bits[0]! : fail('a signal of one bit is expected', signal);
    };
    const asynchronous: Asynchronous[] = [];
    let rest: Statement | null = sole(item.body);
    while (rest?.is === 'if' && rest.no !== null && asynchronous.length < edges.length - 1) {
      asynchronous.push(
        this.asynchronous(
          rest.condition,
          rest.yes,
          edges.map((e) => ({ edge: e.edge!, bit: signalOf(e) })),
        ),
      );
      rest = sole(rest.no);
    }
    const clocks = edges.filter((edge) => !asynchronous.some((a) => a.signal === signalOf(edge)));
    if (clocks.length !== 1)
      fail('one clock, and an “if” for each other edge in the list, is expected', item);
    const clock: Register = {
      edge: clocks[0]!.edge === 'posedge' ? 'rising' : 'falling',
      clock: signalOf(clocks[0]!),
    };
    const execution = this.executed(rest);
    const results = new Map(execution.results(item));
    for (const { values } of asynchronous)
      for (const bit of values.keys()) if (!results.has(bit)) results.set(bit, KEPT);
    for (const { signal, bits } of this.bySignal(results)) {
      const isVariable = bits.every((bit) => execution.isBlocking(bit));
      const trees = bits.map((bit) => results.get(bit)!);
      this.pending.push({
        at: item.body,
        bits,
        isVariable,
        build: () => this.store(signal, bits, trees, execution, clock, asynchronous),
      });
    }
  }

  private store(
    signal: Signal,
    bits: readonly Bit[],
    trees: readonly Tree[],
    { growth }: Execution,
    clock: Register,
    asynchronous: readonly Asynchronous[],
  ): void {
    const { gates } = this.logic;
    const values = growth.bits(trees, () => null);
    const enables = trees.map((tree, i) => {
      // Where a set or clear acts and gives this bit no value, it keeps what it has.
      const others = asynchronous.filter((a) => !a.values.has(bits[i]!));
      return others.reduce(
        (all, a) => gates.and(all, a.active ? gates.not(a.signal) : a.signal),
        growth.isAssigned(tree),
      );
    });
    const controls = bits.map((bit) => this.controls(bit, asynchronous));
    const usual = (i: number) =>
      JSON.stringify([controls[i], enables[i], this.powerUp.get(bits[i]!), this.delays.get(bits[i]!)]);
    // Neighbours that are set, cleared, enabled and begin alike are one register.
    for (let from = 0; from < bits.length; ) {
      let to = from + 1;
      const isWide = controls[from]!.preset === null;
      while (isWide && to < bits.length && to - from < MOST_PART && usual(to) === usual(from)) to++;
      const enable = enables[from]!;
      const own = bits.slice(from, to);
      const D = enable === C0 ? own : values.slice(from, to);
      this.flipFlops(own, D, clock, enable, controls[from]!, signal.name);
      from = to;
    }
  }

  private flipFlops(
    bits: readonly Bit[],
    D: readonly Bit[],
    { edge, clock }: Register,
    enable: Bit,
    { preset, clear }: Controls,
    name: string,
  ): void {
    const named = (level: Level | null) => (level ? (level.active ? 'high' : 'low') : 'none');
    const isEnabled = enable !== C1 && enable !== C0;
    const params: Params = {
      ...(this.delays.get(bits[0]!) ?? NOW),
      setup: 0,
      hold: 0,
      clear: named(clear),
      powerUp: this.begun(bits[0]!),
      edge,
      enable: isEnabled ? 'yes' : 'no',
    };
    const pins = {
      D,
      C: [clock],
      Q: bits,
      ...(clear ? { CLR: [clear.bit] } : {}),
      ...(preset ? { PRE: [preset.bit] } : {}),
      ...(isEnabled ? { EN: [enable] } : {}),
    };
    if (bits.length === 1) this.cells.add('dff', { ...params, preset: named(preset) }, pins, name);
    else this.cells.add('register', { ...params, width: bits.length }, pins, name);
  }

  /** `if (clear)` or `if (!clear)` with constants, which agrees with its edge in the list. */
  private asynchronous(
    condition: Expression,
    then: Statement,
    edges: readonly { edge: 'posedge' | 'negedge'; bit: Bit }[],
  ): Asynchronous {
    const { of, active } = this.level(condition);
    const signal = this.logic.own(of).bits[0]!;
    const edge =
      edges.find((e) => e.bit === signal) ??
      fail('the signal of this “if” is not in the list of edges', condition);
    if ((edge.edge === 'posedge' ? 1 : 0) !== active)
      fail(`“${edge.edge}” in the list and this “if” do not agree on the level`, condition);
    const values = new Map<Bit, Bit>();
    for (const [bit, tree] of this.executed(then).results(then)) {
      if (typeof tree !== 'number' || tree >= 0)
        return fail('a constant is expected where a register is set or cleared', then);
      values.set(bit, tree);
    }
    return { signal, active, values };
  }

  private level(e: Expression): { of: Expression; active: 0 | 1 } {
    if (e.is === 'unary' && (e.operator === '!' || e.operator === '~')) {
      const inner = this.level(e.of);
      return { of: inner.of, active: inner.active ? 0 : 1 };
    }
    if (e.is === 'binary' && (e.operator === '==' || e.operator === '!=')) {
      const right =
        e.right.is === 'number' || e.right.is === 'name'
          ? this.logic.constant(e.right, this.logic.scope)
          : null;
      if (right) {
        const same = right.ones === 1n;
        const inner = this.level(e.left);
        return same === (e.operator === '==') ? inner : { of: inner.of, active: inner.active ? 0 : 1 };
      }
    }
    if (this.logic.own(e).bits.length !== 1) fail('a signal of one bit is expected', e);
    return { of: e, active: 1 };
  }

  /** Preset and clear of a bit, clear being the stronger. */
  private controls(bit: Bit, asynchronous: readonly Asynchronous[]): Controls {
    const { gates } = this.logic;
    const found = { preset: null as Level | null, clear: null as Level | null };
    for (const { signal, active, values } of asynchronous) {
      const value = values.get(bit);
      if (value === undefined) continue;
      const to = value === C1 ? 'preset' : 'clear';
      const first = to === 'clear' ? found.preset : null;
      const level = { bit: signal, active };
      const had = found[to];
      if (!had && !first) found[to] = level;
      else {
        // An earlier “if” has priority; a later one acts only without it.
        const high = (l: Level) => (l.active ? l.bit : gates.not(l.bit));
        const own = first ? gates.and(high(level), gates.not(high(first))) : high(level);
        found[to] = { bit: had ? gates.or(high(had), own) : own, active: 1 };
      }
    }
    return found;
  }
}
