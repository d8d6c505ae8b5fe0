import type { Netlist } from '../../netlist/netlist';
import { X, ZERO } from '../../values/logic';
import { onesIn } from '../../values/ones';
import { Compiled, growTo, memoryOf, runOf } from '../../values/wasm/compiled';
import {
  type DueChange,
  type EngineState,
  type FastEngine,
  type Notes,
  type Stretch,
  UNCHANGED,
} from '../engine';
import { evaluate } from '../evaluate';
import type { Grid } from '../kernel/grid';
import { EXACT_UNTIL, type GateDelays, outputOf } from '../plain-engine';
import {
  COUNT,
  EVALUATE,
  HEADER,
  historyOf,
  isConstant,
  MOVE,
  PLACE,
  PLANES,
  packStrips,
  READ,
  REST,
  type Strips,
} from './strip-layout';
import { stripModule } from './strip-module';

const DAYS = 64;
/** Operations after which it is judged, and how many are worth one change of a net. */
const JUDGED = 1 << 14;
const WORTH = 2;

const strips = new Compiled(stripModule);

/**
 * What moves the gates of circuits without storage, loops and unknown values many days at once: each round evaluates the gates
 * at which something moves, on some 30 to 60 days. Where little changes in them, it says so, and is better left.
 */
export class StripEngine implements FastEngine {
  private eventsMade = 0;
  instants = 0;
  readonly rounds = 0;
  isSparse = false;
  private readonly at: Strips;
  private readonly memory: WebAssembly.Memory;
  private readonly run: (header: number) => void;
  private ints = new Int32Array();
  private bytes = new Uint8Array();
  private netValues = new Uint8Array();
  private isRead = true;
  /** The time of the day that is today; and of the last one on which anything happened. */
  private today: number;
  time: number;
  /** Whether nothing is due. */
  private isAtRest = true;
  /** Whether all values are 0 and 1. */
  private isKnown = true;
  /** The time of the last instant. */
  private acted = Number.NEGATIVE_INFINITY;
  /** Whether an instant has begun with what was due. */
  private isMet = false;
  /** Gates that came to rest today in one instant and were to change again in another, for which words have but one bit. */
  private readonly restarted = new Set<number>();
  private plannedNets: number[] = [];
  private plannedValues: number[] = [];
  /** The changes of this instant so far: those that were due, and the nets that were set, with their values before. */
  private dueWords: Int32Array = new Int32Array();
  private readonly before = new Map<number, number>();
  /** Of the days that are noted. */
  private readonly times = new Float64Array(DAYS);
  private readonly ends = new Int32Array(DAYS);
  private evaluated = 0;
  private eventsThen = 0;

  private constructor(
    private readonly netlist: Netlist,
    private readonly delays: GateDelays,
    private readonly grid: Grid,
    history: number,
    state: EngineState,
    time: number,
    private readonly notes: Notes | null,
    module: WebAssembly.Module,
  ) {
    let memory: WebAssembly.Memory | null = null;
    this.at = packStrips(netlist, state.values, delays, grid.day, history, (bytes) => {
      memory = memoryOf(bytes);
      return memory.buffer;
    });
    this.memory = memory!;
    this.run = runOf(module, this.memory);
    this.view();
    this.bytes.set(state.values, this.at.values);
    this.eventsMade = state.events;
    this.today = time;
    this.time = time;
  }

  /**
   * Goes on from where another engine is at rest.
   * @returns null where something is due or unknown, where the circuit is none for it, or there is no WebAssembly or no memory.
   */
  static from(
    netlist: Netlist,
    delays: GateDelays,
    grid: Grid,
    other: EngineState,
    time: number,
    notes: Notes | null,
  ): StripEngine | null {
    const history = historyOf(netlist, delays, grid);
    if (history === null || time + grid.longest + grid.day >= EXACT_UNTIL) return null;
    if (other.values.some((value) => value > 1)) return null;
    let isDue = false;
    other.eachDue(() => {
      isDue = true;
    });
    const module = isDue ? null : strips.get();
    if (!module) return null;
    try {
      return new StripEngine(netlist, delays, grid, history, other, time, notes, module);
    } catch (error) {
      // No memory is left for it.
      if (error instanceof RangeError) return null;
      throw error;
    }
  }

  private view(): void {
    this.ints = new Int32Array(this.memory.buffer);
    this.bytes = new Uint8Array(this.memory.buffer);
    this.netValues = this.bytes.subarray(this.at.values, this.at.values + this.netlist.nets);
  }

  get events(): number {
    return this.eventsMade;
  }

  /** The value of each net. Not to be kept while time runs. */
  get values(): Uint8Array {
    if (!this.isRead) {
      this.isRead = true;
      this.call(READ, 0);
    }
    return this.netValues;
  }

  private get(field: number): number {
    return this.ints[(this.at.header + field) >> 2]!;
  }

  private call(how: number, days: number): void {
    const header = this.at.header >> 2;
    this.ints[header + (HEADER.how >> 2)] = how;
    this.ints[header + (HEADER.days >> 2)] = days;
    this.run(this.at.header);
  }

  /** Whether a bit of a field of 64 is 1. */
  private hasBit(field: number, bit: number): boolean {
    return ((this.get(field + (bit >= 32 ? 4 : 0)) >>> (bit & 31)) & 1) === 1;
  }

  /** Days from today to the last on which something changes, of those just evaluated; 0 where nothing does. */
  private get lastChange(): number {
    const high = this.get(HEADER.changed + 4);
    const bit = high === 0 ? 31 - Math.clz32(this.get(HEADER.changed)) : 63 - Math.clz32(high);
    return Math.max(0, bit + 1 - this.at.history);
  }

  /** Evaluates the next days. @returns the steps that they take. */
  private look(days: number): number {
    this.call(EVALUATE, days);
    this.evaluated += this.get(HEADER.evaluated);
    return this.get(HEADER.events) + onesIn(this.get(HEADER.changed)) + onesIn(this.get(HEADER.changed + 4));
  }

  /** Lets the days that have just been evaluated pass. @param isInstant whether they are one instant that is gone on with. */
  private take(days: number, isInstant: boolean): void {
    const events = this.get(HEADER.events);
    const last = this.lastChange;
    if (last > 0) {
      this.eventsMade += events;
      if (!isInstant) {
        this.instants += onesIn(this.get(HEADER.changed)) + onesIn(this.get(HEADER.changed + 4));
        this.time = this.today + last * this.grid.day;
      }
      this.acted = this.today + last * this.grid.day;
      this.isRead = false;
      if (this.notes) this.note(days, events, isInstant);
    }
    this.isAtRest = !this.hasBit(HEADER.pending, this.at.history + days - 1);
    this.call(this.isAtRest ? REST : MOVE, days);
    if (this.isAtRest) this.bytes.fill(0, this.at.marks, this.at.values);
    this.today += days * this.grid.day;
  }

  /** Notes the changes of the days that have just been evaluated. */
  private note(days: number, events: number, isInstant: boolean): void {
    const { at, grid } = this;
    growTo(this.memory, at.end + 4 * events);
    if (this.ints.buffer !== this.memory.buffer) this.view();
    const planes = at.planes >> 2;
    this.ints.fill(0, planes, planes + 2 * PLANES);
    this.call(COUNT, days);
    const { times, ends } = this;
    const used = 32 - Math.clz32(events);
    let count = 0;
    let end = 0;
    for (let bit = 0; bit < DAYS; bit++) {
      if (!this.hasBit(HEADER.changed, bit)) continue;
      this.ints[(at.places >> 2) + bit] = at.end + 4 * end;
      const half = planes + (bit >> 5);
      for (let plane = 0; plane < used; plane++)
        end += ((this.ints[half + 2 * plane]! >>> (bit & 31)) & 1) << plane;
      times[count] = this.today + (bit + 1 - at.history) * grid.day;
      ends[count++] = end;
    }
    this.call(PLACE, days);
    const words = this.ints.subarray(at.end >> 2, (at.end >> 2) + events);
    if (isInstant) this.dueWords = words.slice();
    else this.notes!.note(words, times, ends, count);
  }

  stretch(limit: number, isBefore: boolean, steps: number): Stretch {
    const { history } = this.at;
    for (let left = steps; ; ) {
      const whole = (Math.min(limit, EXACT_UNTIL) - this.today) / this.grid.day;
      const until = Math.floor(whole) - (isBefore && Number.isInteger(whole) ? 1 : 0);
      if (until < 1 || this.isAtRest || this.isToBeLeft) return 'done';
      let days = Math.min(until, DAYS - history);
      let more = this.look(days);
      if (left <= 0 && more > 0) return 'paused';
      while (more > left && days > 1) {
        days >>= 1;
        more = this.look(days);
      }
      // A run that may pause here does so where something has changed.
      if (more >= left && more > 0) days = this.lastChange;
      this.take(days, false);
      left -= more;
      this.judge();
    }
  }

  /** Whether a run goes on better with another engine. */
  private judge(): void {
    if (this.evaluated < JUDGED) return;
    const changes = this.eventsMade - this.eventsThen;
    this.isSparse = WORTH * changes < this.evaluated;
    this.evaluated = 0;
    this.eventsThen = this.eventsMade;
  }

  get isToBeLeft(): boolean {
    return (
      !this.isKnown || this.restarted.size > 0 || this.isSparse || this.today + this.grid.day >= EXACT_UNTIL
    );
  }

  moveTo(now: number): boolean {
    if (this.isAtRest) this.today = now;
    const days = (now - this.today) / this.grid.day;
    if (!Number.isInteger(days) || now >= EXACT_UNTIL) return false;
    for (let left = days; left > 0; ) {
      const some = Math.min(left, DAYS - this.at.history);
      this.look(some);
      this.take(some, false);
      left -= some;
    }
    return true;
  }

  meet(now: number): boolean {
    const days = this.isAtRest ? 0 : (now - this.today) / this.grid.day;
    if (days < 1 || !Number.isInteger(days)) return this.moveTo(now);
    if (!this.moveTo(now - this.grid.day)) return false;
    if (this.isAtRest) return this.moveTo(now);
    this.look(1);
    this.take(1, true);
    this.isMet = true;
    return now < EXACT_UNTIL;
  }

  takeDue(): void {
    this.meet(this.time);
  }

  get planned(): number {
    return this.plannedNets.length;
  }

  plan(net: number, value: number): void {
    this.plannedNets.push(net);
    this.plannedValues.push(value);
  }

  dropPlanned(): void {
    this.plannedNets.length = 0;
    this.plannedValues.length = 0;
  }

  eachPlanned(visit: (net: number) => void): void {
    for (const net of this.plannedNets) visit(net);
  }

  /** As no gate is without delay, there is one round. */
  settle(rounds: number): number {
    const { plannedNets, plannedValues } = this;
    const isSecond = !this.isAtRest && !this.isMet && this.acted === this.today;
    const resting = isSecond ? this.readersAtRest() : [];
    for (let i = 0; i < plannedNets.length; i++) this.takeOn(plannedNets[i]!, plannedValues[i]!);
    this.dropPlanned();
    for (const gate of resting) {
      const value = outputOf(this.netlist, gate, this.values);
      if (value !== this.values[this.netlist.out[gate]!] && value === this.valueAgo(gate, 1))
        this.restarted.add(gate);
    }
    return rounds;
  }

  /** The gates that read what is planned and are not due. */
  private readersAtRest(): number[] {
    const { netlist, values, plannedNets } = this;
    const { fan, fanStart, out } = netlist;
    const readers = plannedNets.flatMap((net) => [...fan.subarray(fanStart[net]!, fanStart[net + 1]!)]);
    return readers.filter((gate) => outputOf(netlist, gate, values) === values[out[gate]!]);
  }

  private takeOn(net: number, value: number): void {
    const { values, ints, bytes } = this;
    const { history, readers } = this.at;
    const was = values[net]!;
    if (value === was) return;
    if (this.notes && !this.before.has(net)) this.before.set(net, was);
    values[net] = value;
    this.eventsMade++;
    this.acted = this.today;
    this.isAtRest = false;
    if (value > 1) this.isKnown = false;
    // It has the value from today on.
    const from = -1 << (history - 1);
    ints[2 * net] = value === 1 ? ints[2 * net]! | from : ints[2 * net]! & ~from;
    ints[2 * net + 1] = value === 1 ? -1 : 0;
    for (let at = readers[net]!; at < readers[net + 1]!; at++) bytes[ints[at]!] = 1;
  }

  storageRead(): number {
    return 0;
  }

  valueBefore(): number {
    return UNCHANGED;
  }

  endInstant(): void {
    this.isMet = false;
    if (!this.notes) return;
    const { dueWords, before, values } = this;
    const words = new Int32Array(dueWords.length + before.size);
    words.set(dueWords);
    let count = dueWords.length;
    for (const [net, was] of before)
      if (values[net] !== was) words[count++] = (net << 4) | (was << 2) | values[net]!;
    this.times[0] = this.today;
    this.ends[0] = count;
    if (count > 0) this.notes.note(words, this.times, this.ends, 1);
    if (dueWords.length > 0) this.dueWords = new Int32Array();
    before.clear();
  }

  flush(): void {}

  next(): number {
    let next = Number.POSITIVE_INFINITY;
    this.eachDue(({ time }) => {
      next = Math.min(next, time);
    });
    return next;
  }

  eachDue(visit: (change: DueChange) => void): void {
    if (this.isAtRest) return;
    const { netlist, values, at, grid } = this;
    for (let gate = 0; gate < netlist.op.length; gate++) {
      if (isConstant(netlist.op[gate]!)) continue;
      const value = outputOf(netlist, gate, values);
      if (value === values[netlist.out[gate]!]) continue;
      let days = 0;
      if (!this.restarted.has(gate))
        while (days + 1 < at.history && this.valueAgo(gate, days + 1) === value) days++;
      const [rise, fall] = [this.delays.rise[gate]!, this.delays.fall[gate]!];
      const delay = value === X ? Math.min(rise, fall) : value === ZERO ? fall : rise;
      visit({ gate, time: this.today + delay - days * grid.day, value });
    }
  }

  /** What a gate has made of its inputs some days ago. */
  private valueAgo(gate: number, days: number): number {
    const { op, ins, inStart } = this.netlist;
    const from = inStart[gate]!;
    const bit = this.at.history - 1 - days;
    if (bit < 0) return UNCHANGED;
    const was = Uint8Array.from(
      ins.subarray(from, inStart[gate + 1]!),
      (net) => (this.ints[2 * net]! >>> bit) & 1,
    );
    return evaluate(op[gate]!, [...was.keys()], 0, was.length, was);
  }
}
