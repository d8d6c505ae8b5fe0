import FlatQueue from 'flatqueue';
import { type Netlist, storeName } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { type Logic, ONE, X, ZERO } from '../values/logic';
import { clockNets } from './clock-nets';
import type { Engine, EngineState, FastEngine, Notes } from './engine';
import { fastInUse } from './fast-in-use';
import { type Grid, gridOf } from './kernel/grid';
import { KernelChoice } from './kernel/kernel-choice';
import { type GateDelays, PlainEngine } from './plain-engine';
import { valuesAtPowerUp } from './power-up';
import type { RunOptions } from './run-options';
import { type SavedStorage, StoredBits, type Violation } from './stored-bits';
import { type Level, levelAt, type Timed } from './timed-sources';
import { Trace } from './trace';

const UNIT = 1000;
/** How often an instant that does not end may be tried again with the moving nets at X. */
const MOST_GIVE_UPS = 8;
const NOT_DUE = 255;

/** The power-up value of storage, by the letter in a lesson's settings. */
export const POWER_UP: Readonly<Record<'0' | '1' | 'X', Logic>> = { '0': ZERO, '1': ONE, X };

/** A run at rest between two instants, as plain data that survives a structured clone. */
export interface SavedRun {
  readonly time: number;
  readonly events: number;
  readonly values: Uint8Array;
  readonly due: Float64Array;
  readonly dueValue: Uint8Array;
  readonly storage: SavedStorage;
  readonly unsettled: readonly number[];
}

/**
 * An event-driven run over a compiled netlist in integer picoseconds, with inertial delays: a pulse shorter than
 * a gate's delay is swallowed, one as long passes. All changes of an instant take effect before anything is
 * evaluated; storage looks at its clock once everything without delay has come to rest, so that flip-flops on
 * one clock capture their data together even where no part has a delay. If several sources change in one instant, those
 * that lead to a clock change first: an input that changes together with an active edge changes just after it, and
 * storage captures the value from before.
 *
 * With the parts' own delays, setup and hold times are watched. A real part that is given too little time takes
 * the one value or the other; here it takes the wrong one, the value from before a late change or after an early
 * one, so that a run shows the worst that may happen, and shows it every time.
 */
export class Run implements Notes {
  readonly trace: Trace;
  /** Time in ps up to which everything has happened. */
  time: number;
  private instants = 0;
  /** Nets that never came to rest within an instant; they were set to X. */
  readonly unsettled = new Set<number>();
  private readonly storage: StoredBits;
  private engine: Engine;
  /** The engine, where it is a fast one; else null. */
  private fast: FastEngine | null = null;
  private readonly choice: KernelChoice;
  private readonly delays: GateDelays;
  /** Days for fast engines; null where the delays have none. */
  private readonly grid: Grid | null;
  /** Whether the circuit has come to rest at power-up: what changes until then is not noted. */
  private readonly isAwake: boolean = false;
  /** This, where anyone asks for the changes of an instant. */
  private readonly notes: Notes | null;
  private readonly keepsTrace: boolean;
  private readonly timed: readonly Timed[];
  private readonly queue = new FlatQueue<number>();
  /** Time in ps of the next change of a source, or Infinity. */
  private nextSource = Number.POSITIVE_INFINITY;
  private readonly level: Level = { value: 0, next: 0 };
  /** Storage to be looked at whatever has changed. */
  private readonly storageToSee: number[] = [];
  /** Storage that is looked at in this instant. */
  private readonly storageRead: Int32Array;
  /** Whether storage is being put to values: what that changes at clocks is no edge. */
  private isPutting = false;
  /** 1 for nets from which gates lead to the clock of storage; null where nothing stores. */
  private readonly leadsToClock: Uint8Array | null;
  /** Sources that change just after the clocks of this instant: net, value, net, value ... */
  private readonly later: number[] = [];

  constructor(
    readonly netlist: Netlist,
    options: RunOptions = {},
    saved?: SavedRun,
  ) {
    const gates = netlist.op.length;
    const delays = options.delays ?? 'parts';
    const delay = (own: Float64Array) => {
      if (delays === 'parts') return own;
      const given = new Float64Array(gates);
      if (delays === 'unit') for (let g = 0; g < gates; g++) given[g] = netlist.delayed[g] ? UNIT : 0;
      return given;
    };
    this.delays = { rise: delay(netlist.rise), fall: delay(netlist.fall) };
    this.choice = new KernelChoice(gates, options.kernelAfter);
    const checksTiming = delays === 'parts' && netlist.stores.some((s) => s.setup > 0 || s.hold > 0);
    this.keepsTrace = options.mostChanges !== 0;
    this.notes = checksTiming || this.keepsTrace ? this : null;
    this.storageRead = new Int32Array(netlist.storage.length);
    this.storage = new StoredBits(netlist, checksTiming, saved?.storage);
    this.leadsToClock = netlist.storage.length > 0 ? clockNets(netlist) : null;
    this.timed = netlist.sources.filter((s) => s.kind === 'clock' || s.kind === 'stimulus');
    this.time = saved?.time ?? options.from ?? 0;
    const values = saved ? saved.values.slice() : valuesAtPowerUp(netlist, options, this.time);
    this.grid = gridOf(this.delays, this.timed);
    if (!saved && netlist.looped.length === 0 && this.choice.isAtOnce)
      this.fast = this.fastFrom({ values, events: 0, eachDue: () => {} });
    const plain = this.fast ? null : this.plainEngine(values);
    this.engine = (plain ?? this.fast)!;
    if (saved) this.goOn(saved, plain!);
    else this.comeToRest(plain);
    this.trace = new Trace(this.values, this.time, options.mostChanges);
    this.isAwake = true;
    for (const [i, source] of this.timed.entries()) this.awaitSource(i, levelAt(source, this.time).next);
  }

  /** The value of each net. Not to be kept while time runs: the memory behind it may be another one later. */
  get values(): Uint8Array {
    return this.engine.values;
  }

  /** The first violations of setup and hold times; `violationCount` counts on. */
  get violations(): readonly Violation[] {
    return this.storage.violations;
  }

  get violationCount(): number {
    return this.storage.violationCount;
  }

  /** Changes of nets so far. */
  get events(): number {
    return this.engine.events;
  }

  /** The instants in which something was to change, so far. */
  private get instantsDone(): number {
    return this.instants + (this.fast?.instants ?? 0);
  }

  private plainEngine(values: Uint8Array): PlainEngine {
    return new PlainEngine(this.netlist, this.delays, values, this.time, this.notes);
  }

  private comeToRest(plain: PlainEngine | null): void {
    const { netlist, values } = this;
    this.storage.standStill(values);
    plain?.touch(netlist.looped);
    // Storage that is open, preset or cleared at the start follows its inputs.
    for (const g of netlist.storage)
      if (netlist.op[g] === Primitive.LATCH || netlist.inStart[g + 1]! - netlist.inStart[g]! > 2)
        this.storageToSee.push(g);
    if (netlist.looped.length + this.storageToSee.length === 0) return;
    this.settleInstant();
    this.engine.flush();
  }

  private goOn(saved: SavedRun, plain: PlainEngine): void {
    plain.events = saved.events;
    for (const net of saved.unsettled) this.unsettled.add(net);
    for (let g = 0; g < saved.due.length; g++)
      if (saved.dueValue[g] !== NOT_DUE)
        plain.addDue({ gate: g, time: saved.due[g]!, value: saved.dueValue[g]! });
  }

  /** All that is needed to go on from here later, but for the trace: `new Run(netlist, options, saved)`. */
  save(): SavedRun {
    const due = new Float64Array(this.netlist.op.length);
    const dueValue = new Uint8Array(due.length).fill(NOT_DUE);
    this.engine.eachDue(({ gate, time, value }) => {
      due[gate] = time;
      dueValue[gate] = value;
    });
    return {
      time: this.time,
      events: this.events,
      values: this.values.slice(),
      due,
      dueValue,
      storage: this.storage.save(),
      unsettled: [...this.unsettled],
    };
  }

  /**
   * Sets sources to values now; all effects without delay take place before this returns. Sources that lead to a clock
   * of storage change first and the others just after, as with sources that change by themselves.
   */
  set(changes: readonly (readonly [net: number, value: Logic])[]): void {
    this.meetNow();
    for (let i = 0; i < changes.length; i++) this.planSource(changes[i]![0], changes[i]![1]);
    this.settleInstant();
    this.engine.flush();
  }

  /** The work done so far, counted: changes of nets, and instants. */
  get steps(): number {
    return this.events + this.instantsDone;
  }

  /** Time in ps of the next thing to happen, or Infinity. */
  next(): number {
    return Math.min(this.engine.next(), this.nextSource);
  }

  /**
   * Lets time run up to and with `until` (ps), but for no more than about `budget` steps: changes of nets, and instants, as
   * a source may change without a change of its value. The result does not depend on how a run is cut into slices.
   * @returns whether `until` was reached.
   */
  advance(until: number, budget = Number.POSITIVE_INFINITY): boolean {
    const stopAt = this.steps + budget;
    let isReached: boolean | null = null;
    while (isReached === null) {
      this.takeFast();
      isReached = this.fast ? this.goFast(this.fast, until, stopAt) : this.goOnce(until, stopAt);
    }
    if (isReached && until !== Number.POSITIVE_INFINITY) this.time = Math.max(this.time, until);
    this.engine.flush();
    return isReached;
  }

  /** One instant. @returns whether `until` was reached; null to go on. */
  private goOnce(until: number, stopAt: number): boolean | null {
    const next = this.next();
    if (next > until || next === Number.POSITIVE_INFINITY) return true;
    if (this.steps >= stopAt) return false;
    this.instants++;
    this.time = next;
    this.takeDue();
    this.planSources();
    this.settleInstant();
    return null;
  }

  /** Instants up to where a source changes, or where storage has to be looked at. @returns as `goOnce`. */
  private goFast(fast: FastEngine, until: number, stopAt: number): boolean | null {
    const source = this.nextSource;
    if (!this.choice.isWorth(this.events)) {
      this.leaveFast(fast);
      return null;
    }
    const ended = fast.stretch(
      Math.min(until, source),
      source <= until,
      stopAt - this.steps,
      this.mostRounds,
    );
    this.time = Math.max(this.time, fast.time);
    if (ended === 'paused') return false;
    if (ended === 'open') {
      this.settleInstant(fast.rounds);
      return null;
    }
    if (fast.isToBeLeft) {
      this.leaveFast(fast);
      return null;
    }
    if (source > until || source === Number.POSITIVE_INFINITY) return true;
    if (this.steps >= stopAt) return false;
    this.instants++;
    this.time = source;
    if (fast.meet(source)) {
      this.planSources();
      this.settleInstant();
      return null;
    }
    this.leaveFast(fast);
    this.takeDue();
    this.planSources();
    this.settleInstant();
    return null;
  }

  /** Goes over to a fast engine where that is worth it. */
  private takeFast(): void {
    if (this.fast || !this.grid || !this.choice.isTime(this.steps)) return;
    this.fast = this.fastFrom(this.engine);
    if (this.fast) this.engine = this.fast;
    this.choice.changed(this.steps, this.events);
  }

  private fastFrom(state: EngineState): FastEngine | null {
    const { netlist, delays, grid, time, notes, choice } = this;
    return (grid && fastInUse()?.(netlist, delays, grid, state, time, notes, choice.mayBeStrips)) ?? null;
  }

  /** Goes back to the reference, which knows times between days. */
  private leaveFast(fast: FastEngine): void {
    fast.flush();
    this.instants = this.instantsDone;
    const plain = this.plainEngine(fast.values.slice());
    plain.events = fast.events;
    fast.eachDue((change) => plain.addDue(change));
    this.engine = plain;
    this.fast = null;
    if (fast.isSparse) this.choice.mayBeStrips = false;
    this.choice.changed(this.steps, this.events);
  }

  /** Makes now the time of the engine. */
  private meetNow(): void {
    if (this.fast && !this.fast.moveTo(this.time)) this.leaveFast(this.fast);
    else if (!this.fast) this.takeDue();
  }

  private takeDue(): void {
    this.engine.time = this.time;
    this.engine.takeDue();
  }

  /** The values of all storage, by the names of `storeName`. */
  held(): Map<string, Logic> {
    const { netlist } = this;
    const held = new Map<string, Logic>();
    for (const [i, g] of netlist.storage.entries())
      held.set(storeName(netlist, i), this.values[netlist.out[g]!] as Logic);
    return held;
  }

  /**
   * Puts storage to values now, by the names of `storeName`, as if it had always held them: no clock has an edge by it. A value
   * that an open latch, a preset or a clear does not let stand goes on at once.
   */
  putState(held: ReadonlyMap<string, Logic>): void {
    const { netlist } = this;
    this.meetNow();
    for (const [i, g] of netlist.storage.entries()) {
      const value = held.get(storeName(netlist, i));
      if (value !== undefined) this.engine.plan(netlist.out[g]!, value);
    }
    this.isPutting = true;
    this.settleInstant();
    this.engine.flush();
  }

  private planSources(): void {
    const { queue, level, time } = this;
    while (queue.length > 0 && queue.peekValue() === time) {
      const id = queue.pop()!;
      levelAt(this.timed[id]!, time, level);
      this.awaitSource(id, level.next);
      this.planSource(this.timed[id]!.net, level.value);
    }
  }

  private planSource(net: number, value: number): void {
    if (this.leadsToClock && !this.leadsToClock[net]) this.later.push(net, value);
    else this.engine.plan(net, value);
  }

  /** Plans what comes just after the clocks of the instant. @returns whether there was anything. */
  private planLater(): boolean {
    const { later } = this;
    if (later.length === 0) return false;
    for (let i = 0; i < later.length; i += 2) this.engine.plan(later[i]!, later[i + 1]!);
    later.length = 0;
    return true;
  }

  private awaitSource(id: number, next: number): void {
    if (next !== Number.POSITIVE_INFINITY) this.queue.push(id, next);
    this.nextSource = this.queue.length > 0 ? this.queue.peekValue()! : Number.POSITIVE_INFINITY;
  }

  /** Takes all clocks as they are now for how they were, and has all storage looked at. */
  private standStill(): void {
    this.isPutting = false;
    this.storage.standStill(this.values);
    this.storageToSee.push(...this.netlist.storage);
  }

  private clockStorage(): void {
    const { netlist, engine, storageRead } = this;
    const count = this.storageNow();
    this.storage.now = this.time;
    for (let i = 0; i < count; i++) {
      const g = storageRead[i]!;
      const state = this.values[netlist.out[g]!]!;
      const next = this.storage.next(g, state, engine);
      if (next !== state) engine.plan(netlist.out[g]!, next);
    }
  }

  /** Finds storage that is to be looked at, each once, for `storageRead`. @returns how many there are. */
  private storageNow(): number {
    const count = this.engine.storageRead(this.storageRead);
    if (this.storageToSee.length === 0) return count;
    const all = new Set([...this.storageRead.subarray(0, count), ...this.storageToSee]);
    this.storageRead.set([...all]);
    this.storageToSee.length = 0;
    return all.size;
  }

  /** Rounds of an instant after which it is given up. */
  private get mostRounds(): number {
    return 2 * this.netlist.op.length + 16;
  }

  /** Processes everything of this instant, and notes the changes after it. @param begun rounds that it has had. */
  private settleInstant(begun = -1): void {
    const bound = this.mostRounds;
    let rounds = Math.max(0, begun);
    let isSettled = begun >= 0;
    for (;;) {
      if (!isSettled) rounds = this.engine.settle(rounds, bound);
      isSettled = false;
      if (this.engine.planned === 0) {
        if (this.isPutting) this.standStill();
        this.clockStorage();
        if (this.engine.planned === 0) {
          if (!this.planLater()) break;
          rounds = 0;
        }
        rounds++;
      }
      if (rounds > bound + MOST_GIVE_UPS) {
        this.engine.dropPlanned();
        if (!this.planLater()) break;
        rounds = 0;
      } else if (rounds > bound) this.giveUp(bound);
    }
    this.engine.endInstant();
  }

  note(words: Int32Array, times: Float64Array, ends: Int32Array, count: number): void {
    if (!this.isAwake) return;
    if (this.keepsTrace) this.trace.push(words, times, ends, count);
    this.storage.note(words, times, ends, count);
  }

  /** The instant does not end: watches which nets keep changing, and sets those to X. */
  private giveUp(rounds: number): void {
    const { engine } = this;
    const moving = new Set<number>();
    for (let r = 0; r < rounds && engine.planned > 0; r++) {
      engine.settle(rounds, rounds);
      if (engine.planned === 0) this.clockStorage();
      engine.eachPlanned((net) => moving.add(net));
    }
    engine.dropPlanned();
    for (const net of moving) {
      this.unsettled.add(net);
      engine.plan(net, X);
    }
  }
}
