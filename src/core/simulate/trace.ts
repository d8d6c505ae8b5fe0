import type { Logic } from '../values/logic';

const CHUNK = 1 << 15;

interface Chunk {
  /** All values before the chunk's first change. */
  readonly start: Uint8Array;
  readonly times: Float64Array;
  readonly nets: Int32Array;
  readonly values: Uint8Array;
  count: number;
  /** The summary of each block of a full chunk, once it was asked for. */
  blocks?: Uint8Array;
}

/** Changes that are summed up together, where there are not so many nets that this takes much room. */
const BLOCK = 1 << 8;
const MOST_SUMMED = 2000;

/** The summary of some consecutive changes. */
export interface ChangeBlock {
  /** Ps of the first and the last of them. */
  readonly first: number;
  readonly last: number;
  /** For each net how often it changes, 2 for more than once, times four, and its value behind them. */
  readonly nets: Uint8Array;
}

/** The changes `begin` to `end` of three arrays that belong together. */
export interface ChangeRun {
  readonly times: Float64Array;
  readonly nets: Int32Array;
  readonly values: Uint8Array;
  readonly begin: number;
  readonly end: number;
}

/** One change of a net: time in ps. */
export interface Change {
  readonly time: number;
  readonly value: Logic;
}

/**
 * All changes of a run in the order of time, in chunks that each begin with a snapshot: a past state is
 * looked up and not simulated again. Beyond `mostChanges` the oldest chunk is dropped.
 */
export class Trace {
  private readonly chunks: Chunk[] = [];
  private readonly now: Uint8Array;
  private last: Chunk | null = null;
  /** Time in ps from which on the trace knows everything. */
  begins: number;
  /** Whether the oldest part has been dropped. */
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
   * The changes within (from, to] in ps for callers that read a million of them: as runs of typed arrays,
   * and, for a whole block within one step of `grain` ps, counted from `from`, as its summary.
   */
  *runs(from: number, to: number, grain: number): Generator<ChangeRun | ChangeBlock> {
    for (let c = Math.max(0, this.chunkAt(from)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      if (chunk.times[0]! > to) return;
      const { times, nets, values } = chunk;
      let begin = this.upTo(chunk, from);
      const end = this.upTo(chunk, to);
      const step = (i: number) => Math.floor((times[i]! - from) / grain);
      const isDense =
        chunk.count === CHUNK &&
        this.now.length <= MOST_SUMMED &&
        times[CHUNK - 1]! - times[0]! < grain * (CHUNK / BLOCK);
      for (let b = 0; isDense && b < CHUNK / BLOCK; b++) {
        const [first, past] = [b * BLOCK, (b + 1) * BLOCK];
        if (first < begin || past > end || step(first) !== step(past - 1)) continue;
        if (first > begin) yield { times, nets, values, begin, end: first };
        const all = this.now.length;
        yield {
          first: times[first]!,
          last: times[past - 1]!,
          nets: this.blocksOf(chunk).subarray(b * all, (b + 1) * all),
        };
        begin = past;
      }
      if (begin < end) yield { times, nets, values, begin, end };
    }
  }

  private blocksOf(chunk: Chunk): Uint8Array {
    if (chunk.blocks) return chunk.blocks;
    const all = this.now.length;
    const blocks = new Uint8Array((CHUNK / BLOCK) * all);
    for (let i = 0; i < CHUNK; i++) {
      const at = Math.floor(i / BLOCK) * all + chunk.nets[i]!;
      blocks[at] = (Math.min(2, (blocks[at]! >> 2) + 1) << 2) | chunk.values[i]!;
    }
    chunk.blocks = blocks;
    return blocks;
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

  /**
   * Time in ps of the last change before `time` of any of the nets, or of any net at all; null if there is
   * none.
   */
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
