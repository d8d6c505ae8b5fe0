import type { Logic } from '../values/logic';

const CHUNK = 1 << 15;

interface Chunk {
  /** All values before the chunk's first change. */
  readonly start: Uint8Array;
  readonly times: Float64Array;
  readonly nets: Int32Array;
  readonly values: Uint8Array;
  count: number;
}

/** One change of a net: time in ps. */
export interface Change {
  readonly time: number;
  readonly value: Logic;
}

/** A part of a lane in which nothing changes, or, where it is busy, more than can be drawn. */
export interface Stretch {
  /** Ps. */
  readonly from: number;
  readonly to: number;
  /** The values of its nets, in the order in which they were asked for. */
  readonly bits: readonly Logic[];
  readonly busy: boolean;
}

/** One lane while it is being drawn. */
class LaneDrawing {
  private readonly found: Stretch[] = [];
  private readonly bits: Logic[];
  private begun: number;
  private step: number;
  private busy = false;

  constructor(
    nets: readonly number[],
    start: Uint8Array,
    private readonly from: number,
    private readonly grain: number,
  ) {
    this.bits = nets.map((net) => start[net] as Logic);
    this.begun = from;
    this.step = -1;
  }

  change(time: number, bit: number, value: number): void {
    if (this.bits[bit] === value) return;
    const step = Math.floor((time - this.from) / this.grain);
    if (time > this.begun) {
      // What began and ends within one step is one of several changes there.
      if (step === this.step) this.busy = true;
      else this.close(time);
    }
    this.step = step;
    this.bits[bit] = value as Logic;
  }

  private close(to: number): void {
    const end = this.busy ? Math.min(to, this.from + (this.step + 1) * this.grain) : to;
    this.found.push({ from: this.begun, to: end, bits: this.bits.slice(), busy: this.busy });
    if (end < to) this.found.push({ from: end, to, bits: this.bits.slice(), busy: false });
    this.begun = to;
    this.busy = false;
  }

  done(to: number): Stretch[] {
    this.close(to);
    return this.found;
  }
}

/**
 * All changes of a run in the order of time, in chunks that each begin with a snapshot, so that a state of the
 * past is looked up and not simulated again. When `mostChanges` is passed, the oldest chunk is let go.
 */
export class Trace {
  private readonly chunks: Chunk[] = [];
  private readonly now: Uint8Array;
  private last: Chunk | null = null;
  /** Time in ps from which on the trace knows everything. */
  begins: number;
  /** Whether the oldest part has been let go. */
  trimmed = false;

  constructor(
    initial: Uint8Array,
    from: number,
    private readonly mostChanges = 4_000_000,
  ) {
    this.now = initial.slice();
    this.begins = from;
  }

  /** Notes that `net` has `value` from `time` on; times never fall. */
  push(time: number, net: number, value: number): void {
    if (this.last === null || this.last.count === CHUNK) this.last = this.open();
    const { last } = this;
    const at = last.count++;
    last.times[at] = time;
    last.nets[at] = net;
    last.values[at] = value;
    this.now[net] = value;
  }

  private open(): Chunk {
    if (this.chunks.length > 0 && this.length + CHUNK > this.mostChanges) {
      this.chunks.shift();
      this.trimmed = true;
      this.begins = this.chunks[0]?.times[0] ?? this.begins;
    }
    const chunk: Chunk = {
      start: this.now.slice(),
      times: new Float64Array(CHUNK),
      nets: new Int32Array(CHUNK),
      values: new Uint8Array(CHUNK),
      count: 0,
    };
    this.chunks.push(chunk);
    return chunk;
  }

  /** Changes held. */
  get length(): number {
    return this.chunks.reduce((sum, c) => sum + c.count, 0);
  }

  /** The last chunk that begins not after a time, or -1. */
  private chunkAt(time: number): number {
    let at = -1;
    for (let low = 0, high = this.chunks.length - 1; low <= high; ) {
      const middle = (low + high) >> 1;
      if (this.chunks[middle]!.times[0]! <= time) {
        at = middle;
        low = middle + 1;
      } else high = middle - 1;
    }
    return at;
  }

  /** All values at a time in ps: those that hold once everything of that instant has taken effect. */
  stateAt(time: number): Uint8Array {
    const at = this.chunkAt(time);
    if (at === -1) return (this.chunks[0]?.start ?? this.now).slice();
    const chunk = this.chunks[at]!;
    const state = chunk.start.slice();
    for (let i = 0; i < chunk.count && chunk.times[i]! <= time; i++) state[chunk.nets[i]!] = chunk.values[i]!;
    return state;
  }

  /**
   * For each of the nets its changes within [from, to] in ps, led by one at `from` that says how it began.
   * Costs one pass over the chunks that lie in the window.
   */
  window(nets: readonly number[], from: number, to: number): Change[][] {
    const start = this.stateAt(from);
    const lanes = nets.map((n) => [{ time: from, value: start[n] as Logic }]);
    const lanesOf = new Map<number, Change[][]>();
    for (const [i, n] of nets.entries()) lanesOf.set(n, [...(lanesOf.get(n) ?? []), lanes[i]!]);
    for (const chunk of this.chunks) {
      if (chunk.times[chunk.count - 1]! <= from) continue;
      if (chunk.times[0]! > to) break;
      for (let i = 0; i < chunk.count; i++) {
        const time = chunk.times[i]!;
        if (time <= from) continue;
        if (time > to) break;
        for (const lane of lanesOf.get(chunk.nets[i]!) ?? [])
          lane.push({ time, value: chunk.values[i] as Logic });
      }
    }
    return lanes;
  }

  /**
   * How some nets go from `from` to `to` in ps, each lane all its nets together, drawn to steps of `grain` ps: a stretch
   * for each change, and one that is `busy` where a lane changes more than once within a step. Costs one pass over the
   * chunks that lie in the window, and no more room than there are steps.
   */
  stretches(lanes: readonly (readonly number[])[], from: number, to: number, grain: number): Stretch[][] {
    const start = this.stateAt(from);
    const drawing = lanes.map((nets) => new LaneDrawing(nets, start, from, grain));
    const reading = new Map<number, { lane: LaneDrawing; bit: number }[]>();
    for (const [l, nets] of lanes.entries())
      for (const [bit, net] of nets.entries())
        reading.set(net, [...(reading.get(net) ?? []), { lane: drawing[l]!, bit }]);
    const isRead = new Uint8Array(this.now.length);
    for (const net of reading.keys()) isRead[net] = 1;
    for (let c = Math.max(0, this.chunkAt(from)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      if (chunk.times[0]! > to) break;
      const end = this.upTo(chunk, to);
      for (let i = this.upTo(chunk, from); i < end; i++) {
        const net = chunk.nets[i]!;
        if (isRead[net] === 0) continue;
        for (const { lane, bit } of reading.get(net)!) lane.change(chunk.times[i]!, bit, chunk.values[i]!);
      }
    }
    return drawing.map((lane) => lane.done(to));
  }

  /** All changes within (from, to] in ps, one after the other. The object that is handed out is used again. */
  *changes(from: number, to: number): Generator<{ time: number; net: number; value: number }> {
    const change = { time: 0, net: 0, value: 0 };
    for (const chunk of this.chunks) {
      if (chunk.times[chunk.count - 1]! <= from) continue;
      for (let i = 0; i < chunk.count; i++) {
        change.time = chunk.times[i]!;
        if (change.time <= from) continue;
        if (change.time > to) return;
        change.net = chunk.nets[i]!;
        change.value = chunk.values[i]!;
        yield change;
      }
    }
  }

  /** The value of a net at a time in ps, once everything of that instant has taken effect. */
  valueAt(net: number, time: number): Logic {
    const at = this.chunkAt(time);
    if (at === -1) return (this.chunks[0]?.start[net] ?? this.now[net]) as Logic;
    const chunk = this.chunks[at]!;
    for (let i = this.upTo(chunk, time) - 1; i >= 0; i--)
      if (chunk.nets[i] === net) return chunk.values[i] as Logic;
    return chunk.start[net] as Logic;
  }

  /** Changes of a chunk that are not after a time. */
  private upTo(chunk: Chunk, time: number): number {
    let low = 0;
    for (let high = chunk.count; low < high; ) {
      const middle = (low + high) >> 1;
      if (chunk.times[middle]! <= time) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** How often each net went up and down again, or down and up, within less than `width` ps. */
  shortPulses(width: number): Map<number, number> {
    const last = new Map<number, number>();
    const found = new Map<number, number>();
    for (const { time, net } of this.changes(Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY)) {
      const before = last.get(net);
      if (before !== undefined && time - before < width) found.set(net, (found.get(net) ?? 0) + 1);
      last.set(net, time);
    }
    return found;
  }

  /** Time in ps of the last change before `time` of any of the nets, or of any net at all; null where there is none. */
  changeBefore(nets: ReadonlySet<number> | null, time: number): number | null {
    for (let c = this.chunkAt(time); c >= 0; c--) {
      const chunk = this.chunks[c]!;
      for (let i = this.upTo(chunk, time) - 1; i >= 0; i--)
        if (chunk.times[i]! < time && (!nets || nets.has(chunk.nets[i]!))) return chunk.times[i]!;
    }
    return null;
  }

  /** Time in ps of the first change after `time`, as `changeBefore`. */
  changeAfter(nets: ReadonlySet<number> | null, time: number): number | null {
    for (let c = Math.max(0, this.chunkAt(time)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      for (let i = this.upTo(chunk, time); i < chunk.count; i++)
        if (!nets || nets.has(chunk.nets[i]!)) return chunk.times[i]!;
    }
    return null;
  }
}
