import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { type Logic, ONE, ZERO } from '../values/logic';
import { type DueChange, type Engine, type Notes, UNCHANGED } from './engine';
import { evaluate, hasOneInput, TABLE } from './evaluate';
import { Wheel } from './wheel';

/** Times in ps that are exact, with room for any delay. */
export const EXACT_UNTIL = 2 ** 52;
const NOT_DUE = 255;
/** Entries a gate in `packGates`. */
const GATE = 4;
/** A reading by storage, and one by a gate that `TABLE` does not know. */
const STORAGE = 254;
const ELSEWHERE = 255;
const NO_PLACE = 0xffff;

/** Delays in ps by gate. */
export interface GateDelays {
  readonly rise: Float64Array;
  readonly fall: Float64Array;
}

/** The output of a gate for some values of nets. */
export function outputOf(netlist: Netlist, g: number, values: Uint8Array): Logic {
  return evaluate(netlist.op[g]!, netlist.ins, netlist.inStart[g]!, netlist.inStart[g + 1]!, values);
}

/**
 * The reference engine: any delays at any times (Ulrich, 1969, "Exclusive simulation of activity in digital networks",
 * for the two phases of an instant).
 */
export class PlainEngine implements Engine {
  events = 0;
  private readonly rise: Float64Array;
  private readonly fall: Float64Array;
  private readonly wheel: Wheel;
  /** The value to which each gate's output will change when it is due; NOT_DUE otherwise. */
  private readonly dueValue: Uint8Array;
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
  /** The changes of the instant that ends, as `Notes` gets them. */
  private readonly words: Int32Array;
  private readonly instantTime = new Float64Array(1);
  private readonly instantEnd = new Int32Array(1);
  private pendingNets: Int32Array;
  private pendingValues: Uint8Array;
  planned = 0;
  private readonly touchedGates: Int32Array;
  private touched = 0;
  private readonly storage: Int32Array;
  private stored = 0;
  private readonly storageStamp: Int32Array;
  /** How often it was asked which storage is to be looked at. */
  private looks = 0;

  /**
   * @param values of the nets, which it changes.
   * @param time ps.
   */
  constructor(
    private readonly netlist: Netlist,
    delays: GateDelays,
    readonly values: Uint8Array,
    public time: number,
    private readonly notes: Notes | null,
  ) {
    const gates = netlist.op.length;
    const { nets } = netlist;
    this.rise = delays.rise;
    this.fall = delays.fall;
    this.wheel = new Wheel(gates, [this.rise, this.fall]);
    this.dueValue = new Uint8Array(gates).fill(NOT_DUE);
    this.gates = this.packGates();
    this.shifts = this.packReadings();
    this.places = new Uint16Array(gates);
    this.stamp = new Int32Array(gates).fill(-1);
    this.storage = new Int32Array(netlist.storage.length);
    this.storageStamp = new Int32Array(netlist.storage.length > 0 ? gates : 0).fill(-1);
    this.netStamp = new Int32Array(nets).fill(-1);
    this.before = new Uint8Array(nets);
    this.dueGates = new Int32Array(gates);
    this.changedNets = new Int32Array(nets);
    this.words = new Int32Array(nets);
    this.touchedGates = new Int32Array(gates);
    this.pendingNets = new Int32Array(gates + netlist.sources.length + 64);
    this.pendingValues = new Uint8Array(this.pendingNets.length);
    this.findPlaces();
  }

  /** Has gates evaluated in the next round, whatever they read. */
  touch(gates: Iterable<number>): void {
    for (const g of gates) this.touchedGates[this.touched++] = g;
  }

  /** Makes a gate due that is not. */
  addDue({ gate, time, value }: DueChange): void {
    this.dueValue[gate] = value;
    this.wheel.add(gate, time, this.wheel.dayOf(time));
  }

  eachDue(visit: (change: DueChange) => void): void {
    const { dueValue, wheel } = this;
    for (let gate = 0; gate < dueValue.length; gate++)
      if (dueValue[gate] !== NOT_DUE) visit({ gate, time: wheel.due[gate]!, value: dueValue[gate]! });
  }

  next(): number {
    return this.wheel.earliest(this.time);
  }

  takeDue(): void {
    const { netlist, dueGates } = this;
    const due = this.wheel.count > 0 ? this.wheel.take(this.time, dueGates) : 0;
    for (let i = 0; i < due; i++) {
      const g = dueGates[i]!;
      this.plan(netlist.out[g]!, this.dueValue[g]!);
      this.dueValue[g] = NOT_DUE;
    }
  }

  plan(net: number, value: number): void {
    if (this.planned === this.pendingNets.length) {
      const [nets, values] = [this.pendingNets, this.pendingValues];
      this.pendingNets = new Int32Array(2 * nets.length);
      this.pendingNets.set(nets);
      this.pendingValues = new Uint8Array(2 * nets.length);
      this.pendingValues.set(values);
    }
    this.pendingNets[this.planned] = net;
    this.pendingValues[this.planned++] = value;
  }

  dropPlanned(): void {
    this.planned = 0;
  }

  eachPlanned(visit: (net: number) => void): void {
    for (let i = 0; i < this.planned; i++) visit(this.pendingNets[i]!);
  }

  settle(before: number, bound: number): number {
    let rounds = before;
    for (;;) {
      this.takeEffect();
      this.evaluateTouched();
      if (this.planned === 0) return rounds;
      if (++rounds > bound) return rounds;
    }
  }

  storageRead(into: Int32Array): number {
    const count = this.stored;
    for (let i = 0; i < count; i++) into[i] = this.storage[i]!;
    this.stored = 0;
    this.looks++;
    return count;
  }

  valueBefore(net: number): number {
    return this.netStamp[net] === this.instant ? this.before[net]! : UNCHANGED;
  }

  endInstant(): void {
    const { changedNets, changed, values, before, notes, words, instantTime, instantEnd } = this;
    let count = 0;
    for (let i = 0; i < changed; i++) {
      const net = changedNets[i]!;
      if (values[net] !== before[net]) words[count++] = (net << 4) | (before[net]! << 2) | values[net]!;
    }
    if (notes && count > 0) {
      instantTime[0] = this.time;
      instantEnd[0] = count;
      notes.note(words, instantTime, instantEnd, 1);
    }
    this.changed = 0;
    this.instant++;
  }

  flush(): void {}

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
    const { shifts, places } = this;
    const noting = this.notes !== null;
    const { fanStart, fan } = this.netlist;
    const round = ++this.round;
    const { planned } = this;
    let { touched, changed } = this;
    let events = 0;
    for (let i = 0; i < planned; i++) {
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
        if (shift === STORAGE) {
          if (this.storageStamp[g] === this.looks) continue;
          this.storageStamp[g] = this.looks;
          this.storage[this.stored++] = g;
          continue;
        }
        if (stamp[g] === round) continue;
        stamp[g] = round;
        touchedGates[touched++] = g;
      }
    }
    this.events += events;
    this.touched = touched;
    this.changed = changed;
    this.planned = 0;
  }

  /** For each gate: its output, and its delays in days of the wheel, -1 if they are not whole days. */
  private packGates(): Int32Array {
    const { out } = this.netlist;
    const packed = new Int32Array(GATE * out.length);
    const days = (delay: number) => (delay % this.wheel.day === 0 ? delay / this.wheel.day : -1);
    for (let g = 0; g < out.length; g++) {
      packed[GATE * g] = out[g]!;
      packed[GATE * g + 1] = days(this.rise[g]!);
      packed[GATE * g + 2] = days(this.fall[g]!);
    }
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
    const { touchedGates, touched, gates, places, values, wheel, dueValue, time, netlist } = this;
    if (touched === 0) return;
    const today = wheel.dayOf(time);
    const { day } = wheel;
    // Beyond, the day of a rounded time is looked up.
    const isExact = time < EXACT_UNTIL;
    for (let i = 0; i < touched; i++) {
      const g = touchedGates[i]!;
      const at = g * GATE;
      const place = places[g]!;
      const value = place === NO_PLACE ? outputOf(netlist, g, values) : TABLE[place]!;
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
}
