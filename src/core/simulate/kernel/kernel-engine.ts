import type { Netlist } from '../../netlist/netlist';
import { Compiled, memoryOf, runOf } from '../../values/wasm/compiled';
import {
  type DueChange,
  type EngineState,
  type FastEngine,
  type Notes,
  type Stretch,
  UNCHANGED,
} from '../engine';
import { EXACT_UNTIL, type GateDelays } from '../plain-engine';
import type { Grid } from './grid';
import { kernelModule } from './kernel-module';
import {
  AT_REST,
  BEGIN_DUE,
  BEGIN_PLANNED,
  CELL,
  CHUNK,
  DAY,
  HEADER,
  IN_INSTANT,
  type Packed,
  pack,
  TARGET,
  VALUE,
  WAITS,
} from './layout';

const PAGE = 1 << 16;
/** Steps of one call: few, as a machine's better code is used when a function is called anew. */
const SLICE = 1 << 12;
const MOST_DAYS = 1 << 30;
const BITS = 3;

const kernel = new Compiled(kernelModule);

/** Compiles the kernel aside, so that the first run that goes over to it need not. */
export const compileKernel = (): Promise<void> => kernel.prepare();

/** What moves gates in WebAssembly: for delays that are whole days, and as long as all that is due lies whole days from now. */
export class KernelEngine implements FastEngine {
  readonly isSparse = false;
  private eventsMade = 0;
  instants = 0;
  private readonly at: Packed;
  private readonly memory: WebAssembly.Memory;
  private readonly run: (header: number) => void;
  private ints: Int32Array;
  values: Uint8Array;
  /** The time of the day that is today; and of the last one on which anything happened. */
  private today: number;
  time: number;
  /** The time from which the log counts its days. */
  private logFrom: number;
  private readonly gateOf: Int32Array;
  /** Whether the next round begins with what is due. */
  private begins = 0;
  /** For each net the last instant in which it changed, and its value before; kept only on request. */
  private seen: Int32Array | null = null;
  private before = new Uint8Array(0);
  private instant = 0;
  /** Where the part of the log ends that has been seen. */
  private seenTo = 0;
  /** Where in the log each net changed first, while an instant is merged. */
  private readonly firstOf: Int32Array;

  private constructor(
    private readonly netlist: Netlist,
    delays: GateDelays,
    private readonly grid: Grid,
    values: Uint8Array,
    time: number,
    private readonly notes: Notes | null,
    compiled: WebAssembly.Module,
  ) {
    let memory: WebAssembly.Memory | null = null;
    this.at = pack(netlist, values, delays, grid, notes !== null, (bytes) => {
      memory = memoryOf(bytes + PAGE);
      return memory.buffer;
    });
    this.memory = memory!;
    this.run = runOf(compiled, this.memory);
    this.ints = new Int32Array(this.memory.buffer);
    this.values = new Uint8Array(this.memory.buffer, this.at.values, netlist.nets);
    this.today = time;
    this.time = time;
    this.logFrom = time;
    this.firstOf = new Int32Array(notes ? netlist.nets : 0);
    this.gateOf = new Int32Array(netlist.nets).fill(-1);
    for (let g = 0; g < netlist.out.length; g++) this.gateOf[netlist.out[g]!] = g;
  }

  /**
   * Goes on from where another engine is between two instants.
   * @returns null where there is no WebAssembly or no memory for it, or something is due at a part of a day.
   */
  static from(
    netlist: Netlist,
    delays: GateDelays,
    grid: Grid,
    other: EngineState,
    time: number,
    notes: Notes | null,
  ): KernelEngine | null {
    const compiled = kernel.get();
    if (!compiled || time + grid.longest + grid.day >= EXACT_UNTIL) return null;
    const due: DueChange[] = [];
    other.eachDue((change) => due.push(change));
    const today = due[0]?.time ?? time;
    // Counted from the first one that is due, all lie on whole days; and so does now, or there is nothing to lead there.
    if (due.some((d) => (d.time - today) % grid.day !== 0)) return null;
    const back = Math.ceil((today - time) / grid.day) * grid.day;
    try {
      const engine = new KernelEngine(netlist, delays, grid, other.values, today - back, notes, compiled);
      engine.eventsMade = other.events;
      for (const change of due) engine.addDue(change);
      return engine;
    } catch (error) {
      // No memory is left for it.
      if (error instanceof RangeError) return null;
      throw error;
    }
  }

  get events(): number {
    return this.eventsMade;
  }

  private get(field: number): number {
    return this.ints[(this.at.header + field) >> 2]!;
  }

  private put(field: number, value: number): void {
    this.ints[(this.at.header + field) >> 2] = value;
  }

  private renew(): void {
    if (this.ints.buffer === this.memory.buffer) return;
    this.ints = new Int32Array(this.memory.buffer);
    this.values = new Uint8Array(this.memory.buffer, this.at.values, this.netlist.nets);
  }

  private addDue({ gate, time, value }: DueChange): void {
    const slot = (this.get(HEADER.today) + (time - this.today) / this.grid.day) & (this.at.slots - 1);
    const cell = CELL * this.netlist.out[gate]!;
    const word = this.ints[cell >> 2]!;
    this.ints[cell >> 2] = (word & ((1 << DAY) - 1) & ~(BITS << TARGET)) | (value << TARGET) | (slot << DAY);
    const head = (this.at.heads >> 2) + 2 * slot;
    let tail = this.ints[head + 1]!;
    if (tail % CHUNK === 0) {
      const chunk = this.get(HEADER.bump);
      if (chunk + CHUNK > this.memory.buffer.byteLength) {
        this.memory.grow(Math.ceil(this.memory.buffer.byteLength / PAGE / 8));
        this.renew();
      }
      this.put(HEADER.bump, chunk + CHUNK);
      if (tail === 0) {
        this.ints[head] = chunk;
        const used = (this.at.used >> 2) + (slot >> 5);
        this.ints[used] = this.ints[used]! | (1 << (slot & 31));
        this.put(HEADER.usedDays, this.get(HEADER.usedDays) + 1);
      } else this.ints[(tail - CHUNK) >> 2] = chunk;
      this.ints[chunk >> 2] = 0;
      tail = chunk + 4;
    }
    this.ints[tail >> 2] = cell;
    this.ints[head + 1] = tail + 4;
  }

  eachDue(visit: (change: DueChange) => void): void {
    const today = this.get(HEADER.today);
    for (let net = 0; net < this.netlist.nets; net++) {
      const word = this.ints[(CELL * net) >> 2]!;
      const value = (word >> TARGET) & BITS;
      if (value === ((word >> VALUE) & BITS)) continue;
      visit({ gate: this.gateOf[net]!, time: this.timeOf((word >>> DAY) - today), value });
    }
  }

  /** The time of a day of this lap, so many places behind today in the circle. */
  private timeOf(places: number): number {
    return this.today + (places & (this.at.slots - 1)) * this.grid.day;
  }

  next(): number {
    const { ints, at } = this;
    const today = this.get(HEADER.today);
    const left = this.get(HEADER.usedDays);
    for (let places = 1, met = 0; met < left; places++) {
      const slot = (today + places) & (at.slots - 1);
      const head = (at.heads >> 2) + 2 * slot;
      if (ints[head + 1] === 0) continue;
      met++;
      const tail = ints[head + 1]!;
      for (let chunk = ints[head]!; chunk !== 0; chunk = ints[chunk >> 2]!) {
        const end = ints[chunk >> 2] === 0 ? tail : chunk + CHUNK;
        for (let entry = chunk + 4; entry < end; entry += 4) {
          const word = ints[ints[entry >> 2]! >> 2]!;
          if (word >>> DAY === slot && ((word >> TARGET) & BITS) !== ((word >> VALUE) & BITS))
            return this.timeOf(places);
        }
      }
    }
    return Number.POSITIVE_INFINITY;
  }

  moveTo(now: number): boolean {
    if (this.get(HEADER.usedDays) === 0) {
      if (now !== this.today) this.flush();
      this.today = now;
      if (this.get(HEADER.elapsed) === 0) this.logFrom = now;
      return now < EXACT_UNTIL;
    }
    const days = (now - this.today) / this.grid.day;
    if (!Number.isInteger(days) || now >= EXACT_UNTIL) return false;
    this.put(HEADER.today, (this.get(HEADER.today) + days) & (this.at.slots - 1));
    this.put(HEADER.elapsed, this.get(HEADER.elapsed) + days);
    this.today = now;
    return true;
  }

  meet(now: number): boolean {
    const days = (now - this.today) / this.grid.day;
    if (this.get(HEADER.usedDays) > 0 && Number.isInteger(days) && days > 0 && days < this.at.slots) {
      const slot = (this.get(HEADER.today) + days) & (this.at.slots - 1);
      if (this.ints[(this.at.heads >> 2) + 2 * slot + 1] !== 0) {
        this.begins = BEGIN_DUE;
        return now < EXACT_UNTIL;
      }
    }
    return this.moveTo(now);
  }

  takeDue(): void {
    this.meet(this.time);
  }

  /** In slices. */
  stretch(limit: number, isBefore: boolean, steps: number, bound: number): Stretch {
    for (let left = steps; ; ) {
      if (this.get(HEADER.elapsed) > MOST_DAYS / 2 || this.isFull) this.flush();
      const whole = (Math.min(limit, EXACT_UNTIL) - this.today) / this.grid.day;
      const days = Math.floor(whole) - (isBefore && Number.isInteger(whole) ? 1 : 0);
      if (days < 1) return 'done';
      this.put(HEADER.days, Math.min(days, MOST_DAYS / 2));
      this.put(HEADER.steps, Math.max(0, Math.min(SLICE, left)));
      const before = this.steps;
      const code = this.call(0, 0, bound);
      if (code === IN_INSTANT) return 'open';
      this.put(HEADER.begun, this.get(HEADER.logEnd));
      if (code === AT_REST) return 'done';
      left -= this.steps - before;
      if (left > 0) continue;
      const next = this.next();
      if (isBefore ? next < limit : next <= limit) return 'paused';
      // What is left until then are entries to pass over.
      left = 1;
    }
  }

  /** Times are no longer exact beyond today. */
  get isToBeLeft(): boolean {
    return this.today + this.grid.day >= EXACT_UNTIL;
  }

  private get steps(): number {
    return this.eventsMade + this.instants;
  }

  private get isFull(): boolean {
    return (
      this.get(HEADER.logEnd) >= this.get(HEADER.logFull) ||
      this.get(HEADER.endsEnd) >= this.get(HEADER.endsFull)
    );
  }

  private call(how: number, rounds: number, bound: number): number {
    this.put(HEADER.how, how);
    this.put(HEADER.rounds, rounds);
    this.put(HEADER.bound, bound);
    this.put(HEADER.events, 0);
    this.put(HEADER.instants, 0);
    const elapsed = this.get(HEADER.elapsed);
    this.put(HEADER.acted, elapsed);
    this.run(this.at.header);
    this.renew();
    this.time = this.today + (this.get(HEADER.acted) - elapsed) * this.grid.day;
    this.eventsMade += this.get(HEADER.events);
    this.instants += this.get(HEADER.instants);
    this.today += (this.get(HEADER.elapsed) - elapsed) * this.grid.day;
    return this.get(HEADER.code);
  }

  get planned(): number {
    return (this.get(HEADER.plannedEnd) - this.at.planned) >> 2;
  }

  plan(net: number, value: number): void {
    let end = this.get(HEADER.plannedEnd) >> 2;
    if (this.planned === this.at.mostPlanned)
      // So many are only planned if some net is planned more than once: its last value counts.
      for (end = this.at.planned >> 2; this.ints[end]! >> 4 !== net; ) end++;
    else this.put(HEADER.plannedEnd, 4 * end + 4);
    this.ints[end] = (CELL * net) | value;
  }

  dropPlanned(): void {
    this.put(HEADER.plannedEnd, this.at.planned);
  }

  eachPlanned(visit: (net: number) => void): void {
    for (let i = 0, count = this.planned; i < count; i++) visit(this.ints[(this.at.planned >> 2) + i]! >> 4);
  }

  settle(before: number, bound: number): number {
    let rounds = before;
    do {
      if (this.get(HEADER.logEnd) > this.get(HEADER.logMost)) {
        this.put(HEADER.logEnd, this.merge(this.get(HEADER.begun), this.get(HEADER.logEnd)));
        this.seenTo = 0;
      }
      const how = this.begins | BEGIN_PLANNED;
      this.begins = 0;
      this.call(how, rounds, bound);
      rounds = this.get(HEADER.rounds);
    } while (this.planned > 0 && rounds <= bound);
    return rounds;
  }

  get rounds(): number {
    return this.get(HEADER.rounds);
  }

  storageRead(into: Int32Array): number {
    const { ints, at } = this;
    let count = 0;
    for (let i = at.stored >> 2; i < this.get(HEADER.storedEnd) >> 2; i++) {
      const cell = ints[i]!;
      ints[cell >> 2] = ints[cell >> 2]! & ~(1 << WAITS);
      into[count++] = this.gateOf[cell / CELL]!;
    }
    this.put(HEADER.storedEnd, at.stored);
    return count;
  }

  valueBefore(net: number): number {
    if (!this.seen) {
      this.seen = new Int32Array(this.netlist.nets).fill(-1);
      this.before = new Uint8Array(this.netlist.nets);
    }
    // What watches the times of changes reads those of the instants before.
    if (this.get(HEADER.endsEnd) > this.at.ends) this.flush();
    const begun = this.get(HEADER.begun);
    const end = this.get(HEADER.logEnd);
    for (let at = Math.max(begun, this.seenTo); at < end; at += 4) {
      const word = this.ints[at >> 2]!;
      const changed = word >> 4;
      if (this.seen[changed] === this.instant) continue;
      this.seen[changed] = this.instant;
      this.before[changed] = (word >> 2) & BITS;
    }
    this.seenTo = end;
    return this.seen[net] === this.instant ? this.before[net]! : UNCHANGED;
  }

  endInstant(): void {
    if (this.notes) {
      const end = this.merge(this.get(HEADER.begun), this.get(HEADER.logEnd));
      this.put(HEADER.logEnd, end);
      const ends = this.get(HEADER.endsEnd) >> 2;
      this.ints[ends] = this.get(HEADER.elapsed);
      this.ints[ends + 1] = end;
      this.put(HEADER.endsEnd, 4 * ends + 8);
      this.put(HEADER.begun, end);
    }
    this.instant++;
    this.seenTo = 0;
    if (this.isFull) this.flush();
  }

  /** Makes one change of several of a net within an instant, and none of those that end where they began. @returns the new end. */
  private merge(from: number, to: number): number {
    const { ints, firstOf } = this;
    const begin = from >> 2;
    let end = begin;
    for (let at = begin; at < to >> 2; at++) {
      const word = ints[at]!;
      const first = firstOf[word >> 4]!;
      // Where an entry is left of an earlier instant, another net stands there now.
      if (first >= begin && first < end && ints[first]! >> 4 === word >> 4)
        ints[first] = (ints[first]! & ~BITS) | (word & BITS);
      else {
        firstOf[word >> 4] = end;
        ints[end++] = word;
      }
    }
    let kept = begin;
    for (let at = begin; at < end; at++)
      if ((ints[at]! & BITS) !== ((ints[at]! >> 2) & BITS)) ints[kept++] = ints[at]!;
    return 4 * kept;
  }

  flush(): void {
    const { at, notes } = this;
    const first = at.ends >> 2;
    const count = (this.get(HEADER.endsEnd) >> 2) - first;
    const begun = this.get(HEADER.begun);
    if (notes && count > 0) this.noteTo(notes, first, count / 2);
    // What an open instant has changed stays.
    const { ints } = this;
    const end = this.get(HEADER.logEnd);
    if (notes && begun > at.log) {
      ints.copyWithin(at.log >> 2, begun >> 2, end >> 2);
      this.put(HEADER.logEnd, at.log + end - begun);
      this.put(HEADER.begun, at.log);
      this.seenTo = Math.max(0, this.seenTo - (begun - at.log));
    }
    this.put(HEADER.endsEnd, at.ends);
    this.put(HEADER.elapsed, 0);
    this.logFrom = this.today;
  }

  private noteTo(notes: Notes, first: number, count: number): void {
    const { ints, at, grid } = this;
    const times = new Float64Array(count);
    const ends = new Int32Array(count);
    let begin = at.log;
    let kept = at.log;
    for (let i = 0; i < count; i++) {
      times[i] = this.logFrom + ints[first + 2 * i]! * grid.day;
      const mark = ints[first + 2 * i + 1]!;
      const end = mark & -4;
      // Several rounds may have changed a net more than once.
      const to = mark & 1 ? this.merge(begin, end) : end;
      if (kept !== begin) ints.copyWithin(kept >> 2, begin >> 2, to >> 2);
      kept += to - begin;
      ends[i] = (kept - at.log) >> 2;
      begin = end;
    }
    notes.note(ints.subarray(at.log >> 2, kept >> 2), times, ends, count);
  }
}
