import FlatQueue from 'flatqueue';
import type { Netlist, Source } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { type Logic, ONE, X, Z, ZERO } from '../values/logic';
import { evaluate } from './evaluate';
import { Trace } from './trace';

/** zero: outputs follow at once; unit: 1 ns a gate; parts: each part's own delay. */
export type Delays = 'zero' | 'unit' | 'parts';

const UNIT = 1000;
/** How often an instant that does not end may be tried again with the moving nets at X. */
const MOST_GIVE_UPS = 8;
const MOST_SWEEPS = 8;

export interface RunOptions {
  readonly delays?: Delays;
  /** What storage holds at the start. */
  readonly powerUp?: Logic;
  /** Values of switches and buttons at the start, by part; 0 where none is given. */
  readonly inputs?: ReadonlyMap<string, Logic>;
  /** What storage parts hold at the start, by part, over `powerUp`. */
  readonly held?: ReadonlyMap<string, Logic>;
  /** Time in ps at which the run starts. */
  readonly from?: number;
}

type Clock = Extract<Source, { kind: 'clock' }>;

/** The level of a clock at a time in ps, and the time of its next change. */
export function clockAt(halves: { low: number; high: number }, time: number): { value: Logic; next: number } {
  const period = halves.low + halves.high;
  const begun = Math.floor(time / period) * period;
  return time - begun < halves.low
    ? { value: ZERO, next: begun + halves.low }
    : { value: ONE, next: begun + period };
}

/**
 * An event-driven run over a compiled netlist in integer picoseconds, with inertial delays: a pulse shorter than
 * a gate's delay is swallowed, one as long passes (Ulrich, 1969, "Exclusive simulation of activity in digital
 * networks", for the two phases of an instant). All changes of an instant take effect before anything is
 * evaluated; storage looks at its clock once everything without delay has come to rest, so that flip-flops on
 * one clock take their data together even where no part has a delay.
 */
export class Run {
  readonly values: Uint8Array;
  readonly trace: Trace;
  /** Time in ps up to which everything has happened. */
  time: number;
  /** Changes of nets so far. */
  events = 0;
  /** Nets that never came to rest within an instant; they were set to X. */
  readonly unsettled = new Set<number>();

  private readonly rise: Float64Array;
  private readonly fall: Float64Array;
  /** When each gate's output is going to change, or Infinity, and to what. */
  private readonly due: Float64Array;
  private readonly dueValue: Uint8Array;
  private readonly lastClock: Uint8Array;
  private readonly clocks: readonly Clock[];
  private readonly queue = new FlatQueue<number>();

  private readonly stamp: Int32Array;
  private readonly netStamp: Int32Array;
  private readonly before: Uint8Array;
  private round = 0;
  private instant = 0;
  private changedNets: number[] = [];
  private pendingNets: number[] = [];
  private pendingValues: number[] = [];
  private touchedGates: number[] = [];
  private touchedStorage: number[] = [];

  constructor(
    readonly netlist: Netlist,
    options: RunOptions = {},
  ) {
    const gates = netlist.op.length;
    const delays = options.delays ?? 'parts';
    const delay = (own: Float64Array) =>
      delays === 'parts' ? own : new Float64Array(gates).fill(delays === 'unit' ? UNIT : 0);
    this.rise = delay(netlist.rise);
    this.fall = delay(netlist.fall);
    this.due = new Float64Array(gates).fill(Number.POSITIVE_INFINITY);
    this.dueValue = new Uint8Array(gates);
    this.lastClock = new Uint8Array(gates).fill(X);
    this.stamp = new Int32Array(gates).fill(-1);
    this.netStamp = new Int32Array(netlist.nets).fill(-1);
    this.before = new Uint8Array(netlist.nets);
    this.time = options.from ?? 0;
    this.values = new Uint8Array(netlist.nets).fill(Z);
    this.clocks = netlist.sources.filter((s) => s.kind === 'clock');
    this.powerUp(options);
    this.trace = new Trace(this.values, this.time);
  }

  /** Everything at rest at the starting time, whatever the delays; time then runs from there. */
  private powerUp(options: RunOptions): void {
    const { netlist, values } = this;
    for (const g of netlist.looped) values[netlist.out[g]!] = options.powerUp ?? ZERO;
    for (const g of netlist.storage)
      values[netlist.out[g]!] =
        options.held?.get(netlist.parts[netlist.owner[g]!]!) ?? options.powerUp ?? ZERO;
    for (const s of netlist.sources) {
      if (s.kind === 'constant') values[s.net] = s.value;
      else if (s.kind === 'clock') values[s.net] = clockAt(s.halves, this.time).value;
      else values[s.net] = options.inputs?.get(s.part) ?? ZERO;
    }
    for (const g of netlist.order) values[netlist.out[g]!] = this.output(g);
    this.wakeLoops();
    for (const g of netlist.storage) this.lastClock[g] = values[netlist.ins[netlist.inStart[g]! + 1]!]!;
    for (const [i, clock] of this.clocks.entries())
      this.queue.push(netlist.op.length + i, clockAt(clock.halves, this.time).next);
    for (const g of netlist.looped) this.touchedGates.push(g);
    if (this.touchedGates.length > 0) this.settleInstant(null);
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

  /** Puts sources to values now; whatever follows without delay follows before this returns. */
  set(changes: Iterable<readonly [net: number, value: Logic]>): void {
    for (const [net, value] of changes) this.plan(net, value);
    this.settleInstant(this.trace);
  }

  /** Time in ps of the next thing to happen, or Infinity. */
  next(): number {
    const { queue, due, netlist } = this;
    while (queue.length > 0) {
      const id = queue.peek()!;
      const time = queue.peekValue()!;
      if (id >= netlist.op.length || due[id] === time) return time;
      queue.pop();
    }
    return Number.POSITIVE_INFINITY;
  }

  /**
   * Lets time run up to and with `until` (ps), but for no more than about `budget` changes of nets. The result
   * does not depend on how a run is cut into slices.
   * @returns whether `until` was reached.
   */
  advance(until: number, budget = Number.POSITIVE_INFINITY): boolean {
    const stopAt = this.events + budget;
    for (;;) {
      const next = this.next();
      if (next > until) {
        if (until !== Number.POSITIVE_INFINITY) this.time = Math.max(this.time, until);
        return true;
      }
      if (this.events >= stopAt) return false;
      this.time = next;
      this.takeDue(next);
      this.settleInstant(this.trace);
    }
  }

  /** What each storage part holds, by part. */
  held(): Map<string, Logic> {
    const { netlist } = this;
    const held = new Map<string, Logic>();
    for (const g of netlist.storage)
      held.set(netlist.parts[netlist.owner[g]!]!, this.values[netlist.out[g]!] as Logic);
    return held;
  }

  private takeDue(now: number): void {
    const { queue, due, netlist } = this;
    const gates = netlist.op.length;
    while (queue.length > 0 && queue.peekValue() === now) {
      const id = queue.pop()!;
      if (id < gates) {
        if (due[id] !== now) continue;
        due[id] = Number.POSITIVE_INFINITY;
        this.plan(netlist.out[id]!, this.dueValue[id]!);
      } else {
        const clock = this.clocks[id - gates]!;
        const { value, next } = clockAt(clock.halves, now);
        queue.push(id, next);
        this.plan(clock.net, value);
      }
    }
  }

  private plan(net: number, value: number): void {
    this.pendingNets.push(net);
    this.pendingValues.push(value);
  }

  /** First phase: all planned changes take effect; the gates that read them are touched. */
  private takeEffect(): void {
    const { values, netlist, pendingNets, pendingValues } = this;
    this.round++;
    for (let i = 0; i < pendingNets.length; i++) {
      const net = pendingNets[i]!;
      const value = pendingValues[i]!;
      if (values[net] === value) continue;
      if (this.netStamp[net] !== this.instant) {
        this.netStamp[net] = this.instant;
        this.before[net] = values[net]!;
        this.changedNets.push(net);
      }
      values[net] = value;
      this.events++;
      for (let f = netlist.fanStart[net]!; f < netlist.fanStart[net + 1]!; f++) {
        const g = netlist.fan[f]!;
        if (this.stamp[g] === this.round) continue;
        this.stamp[g] = this.round;
        const op = netlist.op[g]!;
        if (op === Primitive.DFF_RISE || op === Primitive.DFF_FALL) this.touchedStorage.push(g);
        else this.touchedGates.push(g);
      }
    }
    pendingNets.length = 0;
    pendingValues.length = 0;
  }

  /** Second phase: touched gates are evaluated and their outputs planned or put into the queue. */
  private evaluateTouched(): void {
    const touched = this.touchedGates;
    for (const g of touched) this.schedule(g, this.output(g));
    touched.length = 0;
  }

  private schedule(g: number, value: Logic): void {
    const out = this.netlist.out[g]!;
    const now = this.values[out]!;
    if (this.due[g] !== Number.POSITIVE_INFINITY) {
      if (this.dueValue[g] === value) return;
      this.due[g] = Number.POSITIVE_INFINITY;
    }
    if (value === now) return;
    const delay =
      value === ONE ? this.rise[g]! : value === ZERO ? this.fall[g]! : Math.min(this.rise[g]!, this.fall[g]!);
    if (delay === 0) {
      this.plan(out, value);
      return;
    }
    this.due[g] = this.time + delay;
    this.dueValue[g] = value;
    this.queue.push(g, this.time + delay);
  }

  private clockStorage(): void {
    const { netlist, values } = this;
    const touched = this.touchedStorage;
    for (const g of touched) {
      const dataNet = netlist.ins[netlist.inStart[g]!]!;
      const clock = values[netlist.ins[netlist.inStart[g]! + 1]!]!;
      const was = this.lastClock[g]!;
      if (was === clock) continue;
      this.lastClock[g] = clock;
      const [before, after] = netlist.op[g] === Primitive.DFF_RISE ? [ZERO, ONE] : [ONE, ZERO];
      if (was === after || clock === before) continue;
      const data = values[dataNet]! > 1 ? X : values[dataNet]!;
      const state = values[netlist.out[g]!]!;
      const certain = was === before && clock === after;
      this.plan(netlist.out[g]!, certain || data === state ? data : X);
    }
    touched.length = 0;
  }

  /** Lets everything of this instant happen, and notes what is different after it. */
  private settleInstant(trace: Trace | null): void {
    this.instant++;
    const bound = 2 * this.netlist.op.length + 16;
    let rounds = 0;
    for (;;) {
      this.takeEffect();
      this.evaluateTouched();
      if (this.pendingNets.length === 0) {
        this.clockStorage();
        if (this.pendingNets.length === 0) break;
      }
      if (++rounds > bound + MOST_GIVE_UPS) break;
      if (rounds > bound) this.giveUp(bound);
    }
    this.pendingNets.length = 0;
    this.pendingValues.length = 0;
    if (trace)
      for (const net of this.changedNets)
        if (this.values[net] !== this.before[net]) trace.push(this.time, net, this.values[net]!);
    this.changedNets.length = 0;
  }

  /** The instant does not end: watches which nets keep changing, and sets those to X. */
  private giveUp(rounds: number): void {
    const moving = new Set<number>();
    for (let r = 0; r < rounds && this.pendingNets.length > 0; r++) {
      this.takeEffect();
      this.evaluateTouched();
      if (this.pendingNets.length === 0) this.clockStorage();
      for (const net of this.pendingNets) moving.add(net);
    }
    this.pendingNets.length = 0;
    this.pendingValues.length = 0;
    for (const net of moving) {
      this.unsettled.add(net);
      this.plan(net, X);
    }
  }
}
