import FlatQueue from 'flatqueue';
import type { Delays } from '../circuit/time-setup';
import { type Netlist, sourceKey, storeName } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { type Logic, ONE, X, Z, ZERO } from '../values/logic';
import { clockNets } from './clock-nets';
import { evaluate, hasOneInput, TABLE } from './evaluate';
import { levelAt, type Timed } from './timed-sources';
import { Trace } from './trace';
import { Wheel } from './wheel';

const UNIT = 1000;
/** Times in ps that are exact, with room for any delay. */
const MOST_EXACT = 2 ** 52;
/** How often an instant that does not end may be tried again with the moving nets at X. */
const MOST_GIVE_UPS = 8;
const MOST_SWEEPS = 8;
const MOST_VIOLATIONS = 10_000;
const NOT_DUE = 255;
/** In how a clock was at the last look: its level, and whether a preset or clear acted. */
const CLOCK = 3;
const FORCED = 4;
/** Entries a gate in `packGates`. */
const GATE = 4;
/** A reading by storage, and one by a gate that `TABLE` does not know. */
const STORAGE = 254;
const ELSEWHERE = 255;
const NO_PLACE = 0xffff;

/** The power-up value of storage, by the letter in a lesson's settings. */
export const POWER_UP: Readonly<Record<'0' | '1' | 'X', Logic>> = { '0': ZERO, '1': ONE, X };

export interface RunOptions {
  readonly delays?: Delays;
  /** The power-up value of storage, where a part does not say. */
  readonly powerUp?: Logic;
  /** Values of switches, buttons and ports at the start, by `sourceKey`; 0 where none is given. */
  readonly inputs?: ReadonlyMap<string, Logic> | undefined;
  /** The initial values of storage, by the names of `storeName`; they override everything else. */
  readonly held?: ReadonlyMap<string, Logic>;
  /** Time in ps at which the run starts. */
  readonly from?: number;
  /** Most changes that the trace holds before it drops the oldest; with 0 there is no trace. */
  readonly mostChanges?: number;
}

/** The data of a storage part moved too near to its clock edge. */
export interface Violation {
  readonly kind: 'setup' | 'hold';
  /** Index into the netlist's `storage`. */
  readonly store: number;
  /** When it was found out, in ps. */
  readonly time: number;
  /** By how much it was missed, in ps. */
  readonly short: number;
}

/** A run at rest between two instants, as plain data that survives a structured clone. */
export interface SavedRun {
  readonly time: number;
  readonly events: number;
  readonly values: Uint8Array;
  readonly due: Float64Array;
  readonly dueValue: Uint8Array;
  readonly lastClock: Uint8Array;
  readonly lastEdge: Float64Array;
  readonly changedAt: Float64Array;
  readonly valueBefore: Uint8Array;
  readonly unsettled: readonly number[];
  readonly violations: readonly Violation[];
}

/*
 * Longer than other files: all phases of an instant work on the same typed arrays in one inner loop, and a class for
 * each phase would have to be handed all of them.
 */

/**
 * An event-driven run over a compiled netlist in integer picoseconds, with inertial delays: a pulse shorter than
 * a gate's delay is swallowed, one as long passes (Ulrich, 1969, "Exclusive simulation of activity in digital
 * networks", for the two phases of an instant). All changes of an instant take effect before anything is
 * evaluated; storage looks at its clock once everything without delay has come to rest, so that flip-flops on
 * one clock capture their data together even where no part has a delay. If several sources change in one instant, those
 * that lead to a clock change first: an input that changes together with an active edge changes just after it, and
 * storage captures the value from before.
 *
 * With the parts' own delays, setup and hold times are watched. A real part that is given too little time takes
 * the one value or the other; here it takes the wrong one, the value from before a late change or after an early
 * one, so that a run shows the worst that may happen, and shows it every time.
 */
export class Run {
  readonly values: Uint8Array;
  readonly trace: Trace;
  /** Time in ps up to which everything has happened. */
  time: number;
  /** Changes of nets so far. */
  events = 0;
  private instants = 0;
  /** Nets that never came to rest within an instant; they were set to X. */
  readonly unsettled = new Set<number>();
  /** The first violations of setup and hold times; `violationCount` counts on. */
  readonly violations: Violation[] = [];
  violationCount = 0;

  private readonly rise: Float64Array;
  private readonly fall: Float64Array;
  private readonly wheel: Wheel;
  /** The value to which each gate's output will change when it is due; NOT_DUE otherwise. */
  private readonly dueValue: Uint8Array;
  private readonly checksTiming: boolean;
  /** Whether anyone asks for the changes of an instant. */
  private readonly noting: boolean;
  private readonly keepsTrace: boolean;
  private readonly storeOf: Int32Array;
  private readonly setup: Float64Array;
  private readonly hold: Float64Array;
  /** How the clock of each gate that remembers was when it was last looked at, by `CLOCK` and `FORCED`. */
  private readonly lastClock: Uint8Array;
  /** Time of each storage bit's last active edge. */
  private readonly lastEdge: Float64Array;
  /** The last change of each net, and its value before; kept where timing is checked. */
  private readonly changedAt: Float64Array;
  private readonly valueBefore: Uint8Array;
  private readonly timed: readonly Timed[];
  private readonly queue = new FlatQueue<number>();

  /** The data for evaluating a gate, side by side: see `packGates`. */
  private readonly gates: Int32Array;
  private readonly shifts: Uint8Array;
  private readonly places: Uint16Array;
  private readonly stamp: Int32Array;
  private readonly netStamp: Int32Array;
  private readonly before: Uint8Array;
  private round = 0;
  private instant = 0;
  private readonly dueGates: Int32Array;
  private readonly changedNets: Int32Array;
  private changed = 0;
  private pendingNets: Int32Array;
  private pendingValues: Uint8Array;
  private pending = 0;
  private readonly touchedGates: Int32Array;
  private touched = 0;
  private readonly touchedStorage: number[] = [];
  /** Whether storage is being put to values: what that changes at clocks is no edge. */
  private isPutting = false;
  /** Counts the times that storage was looked at, and has the last one for each. */
  private looks = 0;
  private readonly lookedAt: Int32Array;
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
    const { nets } = netlist;
    const delays = options.delays ?? 'parts';
    const delay = (own: Float64Array) => {
      if (delays === 'parts') return own;
      const given = new Float64Array(gates);
      if (delays === 'unit') for (let g = 0; g < gates; g++) given[g] = netlist.delayed[g] ? UNIT : 0;
      return given;
    };
    this.rise = delay(netlist.rise);
    this.fall = delay(netlist.fall);
    this.wheel = new Wheel(gates, [this.rise, this.fall]);
    this.dueValue = new Uint8Array(gates).fill(NOT_DUE);
    this.checksTiming = delays === 'parts' && netlist.stores.some((s) => s.setup > 0 || s.hold > 0);
    this.noting = this.checksTiming || options.mostChanges !== 0;
    this.keepsTrace = options.mostChanges !== 0;
    this.storeOf = new Int32Array(gates).fill(-1);
    for (const [i, g] of netlist.storage.entries()) this.storeOf[g] = i;
    this.setup = Float64Array.from(netlist.stores, (s) => s.setup);
    this.hold = Float64Array.from(netlist.stores, (s) => s.hold);
    this.lastClock = new Uint8Array(gates).fill(X);
    this.lastEdge = new Float64Array(netlist.storage.length).fill(Number.NEGATIVE_INFINITY);
    this.changedAt = new Float64Array(this.checksTiming ? nets : 0).fill(Number.NEGATIVE_INFINITY);
    this.valueBefore = new Uint8Array(this.checksTiming ? nets : 0);
    this.gates = this.packGates();
    this.shifts = this.packReadings();
    this.places = new Uint16Array(gates);
    this.lookedAt = new Int32Array(gates);
    this.stamp = new Int32Array(gates).fill(-1);
    this.netStamp = new Int32Array(nets).fill(-1);
    this.before = new Uint8Array(nets);
    this.dueGates = new Int32Array(gates);
    this.changedNets = new Int32Array(nets);
    this.touchedGates = new Int32Array(gates);
    this.pendingNets = new Int32Array(gates + netlist.sources.length + 64);
    this.pendingValues = new Uint8Array(this.pendingNets.length);
    this.leadsToClock = netlist.storage.length > 0 ? clockNets(netlist) : null;
    this.timed = netlist.sources.filter((s) => s.kind === 'clock' || s.kind === 'stimulus');
    this.time = saved?.time ?? options.from ?? 0;
    this.values = saved ? saved.values.slice() : new Uint8Array(nets).fill(Z);
    if (saved) this.goOn(saved);
    else this.powerUp(options);
    for (const [i, source] of this.timed.entries()) this.awaitSource(i, levelAt(source, this.time).next);
    this.trace = new Trace(this.values, this.time, options.mostChanges);
  }

  /** Everything at rest at the starting time, whatever the delays; time then runs from there. */
  private powerUp(options: RunOptions): void {
    const { netlist, values } = this;
    const usual = options.powerUp ?? ZERO;
    for (const g of netlist.looped) values[netlist.out[g]!] = usual;
    for (const [i, g] of netlist.storage.entries()) {
      const own = netlist.stores[i]!.powerUp ?? 'lesson';
      const held = options.held?.get(storeName(netlist, i));
      values[netlist.out[g]!] =
        held ?? (own === 'lesson' ? usual : own === 'X' ? X : own === '1' ? ONE : ZERO);
    }
    for (const s of netlist.sources) {
      if (s.kind === 'constant') values[s.net] = s.value;
      else if (s.kind === 'clock' || s.kind === 'stimulus') values[s.net] = levelAt(s, this.time).value;
      else values[s.net] = options.inputs?.get(sourceKey(s)) ?? ZERO;
    }
    for (const g of netlist.order) values[netlist.out[g]!] = this.output(g);
    this.wakeLoops();
    this.findPlaces();
    for (const g of netlist.storage) {
      // A clock that floats is unknown from the start: that it is looked at is no edge.
      const clock = values[netlist.ins[netlist.inStart[g]! + 1]!]!;
      this.lastClock[g] = clock > 1 ? X : clock;
    }
    for (const g of netlist.looped) this.touchedGates[this.touched++] = g;
    // Storage that is open, preset or cleared at the start follows its inputs.
    for (const g of netlist.storage)
      if (netlist.op[g] === Primitive.LATCH || netlist.inStart[g + 1]! - netlist.inStart[g]! > 2)
        this.touchedStorage.push(g);
    if (this.touched + this.touchedStorage.length > 0) this.settleInstant(null);
  }

  private goOn(saved: SavedRun): void {
    this.findPlaces();
    this.events = saved.events;
    this.dueValue.set(saved.dueValue);
    this.lastClock.set(saved.lastClock);
    this.lastEdge.set(saved.lastEdge);
    this.changedAt.set(saved.changedAt);
    this.valueBefore.set(saved.valueBefore);
    for (const net of saved.unsettled) this.unsettled.add(net);
    this.violations.push(...saved.violations);
    this.violationCount = saved.violations.length;
    for (let g = 0; g < saved.due.length; g++)
      if (saved.dueValue[g] !== NOT_DUE) this.wheel.add(g, saved.due[g]!, this.wheel.dayOf(saved.due[g]!));
  }

  /** All that is needed to go on from here later, but for the trace: `new Run(netlist, options, saved)`. */
  save(): SavedRun {
    return {
      time: this.time,
      events: this.events,
      values: this.values.slice(),
      due: this.wheel.due.slice(),
      dueValue: this.dueValue.slice(),
      lastClock: this.lastClock.slice(),
      lastEdge: this.lastEdge.slice(),
      changedAt: this.changedAt.slice(),
      valueBefore: this.valueBefore.slice(),
      unsettled: [...this.unsettled],
      violations: [...this.violations],
    };
  }

  /**
   * No two gates of a loop wake in the very same instant: taken one after the other, a latch falls into one of
   * its states, and a ring begins with a single wave.
   */
  private wakeLoops(): void {
    const { netlist, values } = this;
    for (let sweep = 0; sweep < MOST_SWEEPS; sweep++) {
      let changed = false;
      for (const g of netlist.looped) {
        const value = this.output(g);
        changed ||= values[netlist.out[g]!] !== value;
        values[netlist.out[g]!] = value;
      }
      if (!changed) return;
    }
  }

  private output(g: number): Logic {
    const { netlist } = this;
    return evaluate(netlist.op[g]!, netlist.ins, netlist.inStart[g]!, netlist.inStart[g + 1]!, this.values);
  }

  /**
   * Sets sources to values now; all effects without delay take place before this returns. Sources that lead to a clock
   * of storage change first and the others just after, as with sources that change by themselves.
   */
  set(changes: Iterable<readonly [net: number, value: Logic]>): void {
    for (const [net, value] of changes) this.planSource(net, value);
    this.settleInstant(this.trace);
  }

  /** The work done so far, counted: changes of nets, and instants. */
  get steps(): number {
    return this.events + this.instants;
  }

  /** Time in ps of the next thing to happen, or Infinity. */
  next(): number {
    return Math.min(this.wheel.earliest(this.time), this.queue.peekValue() ?? Number.POSITIVE_INFINITY);
  }

  /**
   * Lets time run up to and with `until` (ps), but for no more than about `budget` steps: changes of nets, and instants, as
   * a source may change without a change of its value. The result does not depend on how a run is cut into slices.
   * @returns whether `until` was reached.
   */
  advance(until: number, budget = Number.POSITIVE_INFINITY): boolean {
    const stopAt = this.steps + budget;
    for (;;) {
      const next = this.next();
      if (next > until || next === Number.POSITIVE_INFINITY) {
        if (until !== Number.POSITIVE_INFINITY) this.time = Math.max(this.time, until);
        return true;
      }
      if (this.steps >= stopAt) return false;
      this.instants++;
      this.time = next;
      this.takeDue(next);
      this.settleInstant(this.trace);
    }
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
    for (const [i, g] of netlist.storage.entries()) {
      const value = held.get(storeName(netlist, i));
      if (value !== undefined) this.plan(netlist.out[g]!, value);
    }
    this.isPutting = true;
    this.settleInstant(this.trace);
  }

  private takeDue(now: number): void {
    const { queue, netlist, dueGates } = this;
    const due = this.wheel.count > 0 ? this.wheel.take(now, dueGates) : 0;
    for (let i = 0; i < due; i++) {
      const g = dueGates[i]!;
      this.pendingNets[i] = netlist.out[g]!;
      this.pendingValues[i] = this.dueValue[g]!;
      this.dueValue[g] = NOT_DUE;
    }
    this.pending = due;
    while (queue.length > 0 && queue.peekValue() === now) {
      const id = queue.pop()!;
      const { value, next } = levelAt(this.timed[id]!, now);
      this.awaitSource(id, next);
      this.planSource(this.timed[id]!.net, value);
    }
  }

  private planSource(net: number, value: number): void {
    if (this.leadsToClock && !this.leadsToClock[net]) this.later.push(net, value);
    else this.plan(net, value);
  }

  /** Plans what comes just after the clocks of the instant. @returns whether there was anything. */
  private planLater(): boolean {
    const { later } = this;
    for (let i = 0; i < later.length; i += 2) this.plan(later[i]!, later[i + 1]!);
    const any = later.length > 0;
    later.length = 0;
    return any;
  }

  private awaitSource(id: number, next: number): void {
    if (next !== Number.POSITIVE_INFINITY) this.queue.push(id, next);
  }

  private plan(net: number, value: number): void {
    if (this.pending === this.pendingNets.length) {
      const [nets, values] = [this.pendingNets, this.pendingValues];
      this.pendingNets = new Int32Array(2 * nets.length);
      this.pendingNets.set(nets);
      this.pendingValues = new Uint8Array(2 * nets.length);
      this.pendingValues.set(values);
    }
    this.pendingNets[this.pending] = net;
    this.pendingValues[this.pending++] = value;
  }

  /** First phase: all planned changes take effect; the gates that read them are touched. */
  private takeEffect(): void {
    const {
      values,
      pendingNets,
      pendingValues,
      netStamp,
      stamp,
      touchedGates,
      instant,
      before,
      changedNets,
    } = this;
    const { shifts, places, noting } = this;
    const { fanStart, fan } = this.netlist;
    const round = ++this.round;
    const { pending } = this;
    let { touched, changed } = this;
    let events = 0;
    for (let i = 0; i < pending; i++) {
      const net = pendingNets[i]!;
      const value = pendingValues[i]!;
      const was = values[net]!;
      if (was === value) continue;
      if (noting && netStamp[net] !== instant) {
        netStamp[net] = instant;
        before[net] = was;
        changedNets[changed++] = net;
      }
      values[net] = value;
      events++;
      const end = fanStart[net + 1]!;
      for (let f = fanStart[net]!; f < end; f++) {
        const g = fan[f]!;
        const shift = shifts[f]!;
        if (shift <= 2) places[g] = places[g]! + ((value - was) << shift);
        if (stamp[g] === round) continue;
        stamp[g] = round;
        if (shift === STORAGE) this.touchedStorage.push(g);
        else touchedGates[touched++] = g;
      }
    }
    this.events += events;
    this.touched = touched;
    this.changed = changed;
    this.pending = 0;
  }

  /** For each gate: its output, and its delays in days of the wheel, -1 if they are not whole days. */
  private packGates(): Int32Array {
    const { out } = this.netlist;
    const packed = new Int32Array(GATE * out.length);
    const days = (delay: number) => (delay % this.wheel.day === 0 ? delay / this.wheel.day : -1);
    for (let g = 0; g < out.length; g++)
      packed.set([out[g]!, days(this.rise[g]!), days(this.fall[g]!)], GATE * g);
    return packed;
  }

  /**
   * Where in a gate's place in `TABLE` each reading of a net is: gates of at most two inputs have their place at
   * hand, and a change of an input moves it.
   */
  private packReadings(): Uint8Array {
    const { op, ins, inStart, fan, fanStart } = this.netlist;
    const shifts = new Uint8Array(fan.length).fill(ELSEWHERE);
    const next = fanStart.slice();
    for (let g = 0; g < op.length; g++) {
      const count = inStart[g + 1]! - inStart[g]!;
      const known = hasOneInput(op[g]!) || (count === 2 && op[g]! <= Primitive.TRI);
      for (let i = inStart[g]!; i < inStart[g + 1]!; i++) {
        const at = next[ins[i]!]!++;
        if (op[g]! >= Primitive.DFF_RISE) shifts[at] = STORAGE;
        else if (known) shifts[at] = i === inStart[g]! ? 2 : 0;
      }
    }
    return shifts;
  }

  /** Each gate's place in `TABLE` for the values that its inputs have now. */
  private findPlaces(): void {
    const { op, ins, inStart } = this.netlist;
    const { places, values } = this;
    for (let g = 0; g < op.length; g++) {
      const from = inStart[g]!;
      const count = inStart[g + 1]! - from;
      if (hasOneInput(op[g]!)) places[g] = (op[g]! << 4) | (values[ins[from]!]! << 2);
      else if (count === 2 && op[g]! <= Primitive.TRI)
        places[g] = (op[g]! << 4) | (values[ins[from]!]! << 2) | values[ins[from + 1]!]!;
      else places[g] = NO_PLACE;
    }
  }

  /** Second phase: touched gates are evaluated and their outputs planned or put onto the wheel. */
  private evaluateTouched(): void {
    const { touchedGates, touched, gates, places, values, wheel, dueValue, time } = this;
    const today = wheel.dayOf(time);
    const { day } = wheel;
    // Beyond, the day of a rounded time is looked up.
    const isExact = time < MOST_EXACT;
    for (let i = 0; i < touched; i++) {
      const g = touchedGates[i]!;
      const at = g * GATE;
      const place = places[g]!;
      const value = place === NO_PLACE ? this.output(g) : TABLE[place]!;
      const due = dueValue[g]!;
      if (due !== NOT_DUE) {
        if (due === value) continue;
        wheel.remove(g);
        dueValue[g] = NOT_DUE;
      }
      const out = gates[at]!;
      if (value === values[out]) continue;
      const days =
        value === ONE
          ? gates[at + 1]!
          : value === ZERO
            ? gates[at + 2]!
            : Math.min(gates[at + 1]!, gates[at + 2]!);
      if (days === 0) {
        this.plan(out, value);
        continue;
      }
      dueValue[g] = value;
      if (days > 0 && isExact) wheel.add(g, time + days * day, today + days);
      else this.addPartDay(g, value);
    }
    this.touched = 0;
  }

  /** Where a day of the wheel is no common divisor of the delays. */
  private addPartDay(g: number, value: number): void {
    const [rise, fall] = [this.rise[g]!, this.fall[g]!];
    const delay = value === ONE ? rise : value === ZERO ? fall : Math.min(rise, fall);
    if (delay > 0) {
      this.wheel.add(g, this.time + delay, this.wheel.dayOf(this.time + delay));
      return;
    }
    this.dueValue[g] = NOT_DUE;
    this.plan(this.netlist.out[g]!, value);
  }

  /** Takes all clocks as they are now for how they were, and has all storage looked at. */
  private standStill(): void {
    this.isPutting = false;
    const { storage, inStart, ins } = this.netlist;
    for (const g of storage) {
      const clock = this.values[ins[inStart[g]! + 1]!]!;
      this.lastClock[g] = clock > 1 ? X : clock;
      this.touchedStorage.push(g);
    }
  }

  private clockStorage(): void {
    const touched = this.touchedStorage;
    const look = ++this.looks;
    for (let i = 0; i < touched.length; i++) {
      const g = touched[i]!;
      // Touched in several rounds, it still has one state to go on from.
      if (this.lookedAt[g] === look) continue;
      this.lookedAt[g] = look;
      const state = this.values[this.netlist.out[g]!]!;
      const next = this.nextState(g, state);
      if (next !== state) this.plan(this.netlist.out[g]!, next);
    }
    touched.length = 0;
  }

  private nextState(g: number, state: number): number {
    const { netlist, values } = this;
    const op = netlist.op[g]!;
    const from = netlist.inStart[g]!;
    const dataNet = netlist.ins[from]!;
    const data = values[dataNet]! > 1 ? X : values[dataNet]!;
    const clock = values[netlist.ins[from + 1]!]! > 1 ? X : values[netlist.ins[from + 1]!]!;
    const was = this.lastClock[g]! & CLOCK;
    // An edge that comes in the very step in which a preset or clear ends came while it still acted: as data do, it counts as
    // it stood before. So a counter that clears itself is not clocked by being cleared.
    const wasForced = this.lastClock[g]! >= FORCED;
    const withAsync = netlist.inStart[g + 1]! - from > 2;
    const preset = withAsync ? values[netlist.ins[from + 2]!]! : ZERO;
    const clear = withAsync ? values[netlist.ins[from + 3]!]! : ZERO;
    this.lastClock[g] = preset === ONE || clear === ONE ? clock | FORCED : clock;
    let next = state;
    if (op === Primitive.LATCH) {
      if (clock === ONE) next = data;
      else if (clock === X) next = data === state ? state : X;
      else if (was === ONE && this.checksTiming && preset === ZERO && clear === ZERO)
        next = this.checkSetup(g, dataNet, state);
    } else if (was !== clock && !wasForced) {
      const [low, high] = op === Primitive.DFF_RISE ? [ZERO, ONE] : [ONE, ZERO];
      if (was !== high && clock !== low) {
        const certain = was === low && clock === high;
        next = certain || data === state ? data : X;
        if (certain && this.checksTiming && preset === ZERO && clear === ZERO) {
          next = this.checkSetup(g, dataNet, next);
          this.lastEdge[this.storeOf[g]!] = this.time;
        }
      }
    } else if (was === clock && this.checksTiming && preset === ZERO && clear === ZERO)
      next = this.checkHold(g, dataNet, next);
    if (!withAsync) return next;
    if (preset !== ZERO) next = preset === ONE || next === ONE ? ONE : X;
    if (clear !== ZERO) next = clear === ONE || next === ZERO ? ZERO : X;
    return next;
  }

  /** The value captured at an active edge: the data, or the previous data if they changed too late. */
  private checkSetup(g: number, dataNet: number, next: number): number {
    const store = this.storeOf[g]!;
    const now = this.netStamp[dataNet] === this.instant && this.before[dataNet] !== this.values[dataNet];
    const changed = now ? this.time : this.changedAt[dataNet]!;
    const stood = this.time - changed;
    if (stood >= this.setup[store]! || changed <= this.lastEdge[store]!) return next;
    this.violate({ kind: 'setup', store, time: this.time, short: this.setup[store]! - stood });
    const late = now ? this.before[dataNet]! : this.valueBefore[dataNet]!;
    return late > 1 ? X : late;
  }

  /**
   * The value held after an active edge: the captured one, or the new data if the old ones went too early.
   */
  private checkHold(g: number, dataNet: number, state: number): number {
    const store = this.storeOf[g]!;
    const since = this.time - this.lastEdge[store]!;
    if (since <= 0 || since >= this.hold[store]!) return state;
    if (this.netStamp[dataNet] !== this.instant || this.before[dataNet] === this.values[dataNet])
      return state;
    this.violate({ kind: 'hold', store, time: this.time, short: this.hold[store]! - since });
    return this.values[dataNet]! > 1 ? X : this.values[dataNet]!;
  }

  private violate(violation: Violation): void {
    this.violationCount++;
    if (this.violations.length < MOST_VIOLATIONS) this.violations.push(violation);
  }

  /** Processes everything of this instant, and records the changes after it. */
  private settleInstant(trace: Trace | null): void {
    this.instant++;
    const bound = 2 * this.netlist.op.length + 16;
    let rounds = 0;
    for (;;) {
      this.takeEffect();
      this.evaluateTouched();
      if (this.pending === 0) {
        if (this.isPutting) this.standStill();
        if (this.touchedStorage.length > 0) this.clockStorage();
        if (this.pending === 0) {
          if (!this.planLater()) break;
          rounds = 0;
        }
      }
      if (++rounds > bound + MOST_GIVE_UPS) {
        this.pending = 0;
        if (!this.planLater()) break;
        rounds = 0;
      } else if (rounds > bound) this.giveUp(bound);
    }
    if (trace) this.note(trace);
    this.changed = 0;
  }

  private note(trace: Trace): void {
    const { changedNets, changed, values, before, checksTiming, changedAt, valueBefore, time, keepsTrace } =
      this;
    for (let i = 0; i < changed; i++) {
      const net = changedNets[i]!;
      if (values[net] === before[net]) continue;
      if (keepsTrace) trace.push(time, net, values[net]!);
      if (!checksTiming) continue;
      changedAt[net] = time;
      valueBefore[net] = before[net]!;
    }
  }

  /** The instant does not end: watches which nets keep changing, and sets those to X. */
  private giveUp(rounds: number): void {
    const moving = new Set<number>();
    for (let r = 0; r < rounds && this.pending > 0; r++) {
      this.takeEffect();
      this.evaluateTouched();
      if (this.pending === 0) this.clockStorage();
      for (let i = 0; i < this.pending; i++) moving.add(this.pendingNets[i]!);
    }
    this.pending = 0;
    for (const net of moving) {
      this.unsettled.add(net);
      this.plan(net, X);
    }
  }
}
