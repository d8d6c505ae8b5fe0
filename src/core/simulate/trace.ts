import type { Logic } from '../values/logic';

const CHUNK = 1 << 15;
const FEW_INSTANTS = 1 << 8;
const FEW_WORDS = 16;
/** Room for more instants than the chunk before had: lists that grow leave much behind. */
const MORE = 1.125;
/** Chunks after which the memory of all others is fetched at once. */
const LONG = 8;

/** Changes one after the other, four bytes each, in instants. */
interface Chunk {
  /** `net * 16 + value` in the lowest two bits; what is between says nothing here. */
  readonly words: Int32Array;
  count: number;
  /** The time in ps of each instant, and where in `words` its changes end. */
  times: Float64Array;
  ends: Int32Array;
  instants: number;
  /** All values before the chunk's first change, once they were asked for. */
  start: Uint8Array | null;
  /** The summary of each block, or memory for it; null until it was asked for. */
  blocks: Blocks | null;
}

interface Blocks {
  /** How many of the blocks are summed up. */
  ready: number;
  /** What `ChangeBlock` says of nets, block after block. */
  readonly nets: Uint8Array;
  /** Ps of the first and the last change of each block. */
  readonly edges: Float64Array;
}

const netIn = (word: number) => word >> 4;
const valueIn = (word: number) => (word & 3) as Logic;

/** Changes per chunk, unless many nets would make the summaries large. */
const BLOCK = 1 << 8;
const MOST_SUMMED = 2000;

/** The summary of some consecutive changes. */
export interface ChangeBlock {
  /** Ps of the first of them. */
  first: number;
  /** From `at` on for each net how often it changes, 2 for more than once, times four, and its value behind them. */
  nets: Uint8Array;
  at: number;
}

/** The changes `begin` to `end` of a list, each `net * 16 + value` in the lowest two bits. */
export interface ChangeRun {
  readonly words: Int32Array;
  readonly begin: number;
  readonly end: number;
  /** The time in ps of each instant, and where its changes end; the first that has changes here. */
  readonly times: Float64Array;
  readonly ends: Int32Array;
  readonly instant: number;
}

/** One change of a net: time in ps. */
export interface Change {
  readonly time: number;
  readonly value: Logic;
}

/**
 * All changes of a run in the order of time, in chunks before each of which all values can be known: a past state is
 * looked up and not simulated again. Beyond `mostChanges` the oldest chunk is dropped, and its memory used again. A long
 * trace fetches all its memory at once: it costs next to nothing before it is written to, and each time that memory grows, the
 * engine may look for garbage.
 */
export class Trace {
  private readonly chunks: Chunk[] = [];
  /** Chunks without changes. */
  private spare: Chunk[] = [];
  /** All values before the first chunk. */
  private first: Uint8Array;
  private last: Chunk | null = null;
  /** Time in ps from which on the trace knows everything. */
  begins: number;
  /** Whether the oldest part has been dropped. */
  trimmed = false;
  /** Whether somebody draws it: then each block is summed up as soon as it is full, and not many of them at the next drawing. */
  private isSummed = false;

  constructor(
    initial: Uint8Array,
    from: number,
    private readonly mostChanges = 4_000_000,
  ) {
    this.first = initial.slice();
    this.begins = from;
  }

  /** Takes in the changes of some instants, `net * 16 + value`, each instant up to one of `ends`; times never fall. */
  push(words: Int32Array, times: Float64Array, ends: Int32Array, count: number): void {
    for (let at = 0, instant = 0; instant < count; ) {
      const last = this.open();
      const begun = last.count;
      const taken = Math.min(CHUNK - begun, ends[count - 1]! - at);
      // A subarray costs as much as copying many words.
      if (taken <= FEW_WORDS) for (let i = 0; i < taken; i++) last.words[begun + i] = words[at + i]!;
      else last.words.set(words.subarray(at, at + taken), begun);
      last.count += taken;
      for (; instant < count && ends[instant]! <= at + taken; instant++)
        endInstant(last, times, instant, begun + ends[instant]! - at);
      // The rest of its last instant is in the next chunk.
      if (instant < count && last.ends[last.instants - 1] !== CHUNK) endInstant(last, times, instant, CHUNK);
      if (this.isSummed && this.first.length <= MOST_SUMMED) this.blocksOf(last);
      at += taken;
    }
  }

  /** The chunk that has room for a change. */
  private open(): Chunk {
    if (this.last !== null && this.last.count < CHUNK) return this.last;
    if (this.last !== null && this.length + CHUNK > this.mostChanges) {
      this.first = this.stateAfter(0);
      const dropped = this.chunks.shift()!;
      dropped.count = 0;
      dropped.instants = 0;
      dropped.start = null;
      if (dropped.blocks) dropped.blocks.ready = 0;
      this.spare.push(dropped);
      this.trimmed = true;
      this.begins = this.chunks[0]?.times[0] ?? this.begins;
    }
    if (this.spare.length === 0) {
      const most = Math.floor(this.mostChanges / CHUNK) - this.chunks.length;
      this.spare = emptyChunks(
        Math.max(1, this.chunks.length < LONG ? Math.min(this.chunks.length, most) : most),
        Math.max(FEW_INSTANTS, Math.min(CHUNK, Math.ceil((this.last?.instants ?? 0) * MORE))),
      );
    }
    this.last = this.spare.pop()!;
    this.chunks.push(this.last);
    return this.last;
  }

  /** Changes held. */
  get length(): number {
    return this.last === null ? 0 : (this.chunks.length - 1) * CHUNK + this.last.count;
  }

  /** All values before the first change of a chunk; not to be written to. */
  private stateBefore(at: number): Uint8Array {
    if (at <= 0) return this.first;
    const chunk = this.chunks[at]!;
    chunk.start ??= this.stateAfter(at - 1);
    return chunk.start;
  }

  private stateAfter(at: number): Uint8Array {
    // From the last one that is known, as a long trace has many chunks.
    let known = at;
    while (known > 0 && !this.chunks[known]!.start) known--;
    for (; known < at; known++)
      this.chunks[known + 1]!.start = stateBehind(this.stateBefore(known), this.chunks[known]!);
    return stateBehind(this.stateBefore(at), this.chunks[at]!);
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
    if (at === -1) return this.first.slice();
    const chunk = this.chunks[at]!;
    return stateBehind(this.stateBefore(at), chunk, this.upTo(chunk, time));
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
    for (const { time, net, value } of this.changes(from, to))
      for (const lane of lanesOf.get(net) ?? []) lane.push({ time, value });
    return lanes;
  }

  /**
   * The changes within (from, to] in ps for callers that read a million of them: as runs of typed arrays,
   * and, for a whole block within one step of `grain` ps, counted from `from`, as its summary. Summaries are handed out in one
   * object that is used again.
   */
  *runs(from: number, to: number, grain: number): Generator<ChangeRun | ChangeBlock> {
    this.isSummed = true;
    const summary: ChangeBlock = { first: 0, nets: this.first, at: 0 };
    const all = this.first.length;
    for (let c = Math.max(0, this.chunkAt(from)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      if (chunk.times[0]! > to) return;
      const { words, times, ends } = chunk;
      let begin = this.upTo(chunk, from);
      const end = this.upTo(chunk, to);
      const step = (time: number) => Math.floor((time - from) / grain);
      const isDense =
        chunk.count === CHUNK &&
        all <= MOST_SUMMED &&
        times[chunk.instants - 1]! - times[0]! < grain * (CHUNK / BLOCK);
      if (isDense) {
        const { nets, edges } = this.blocksOf(chunk);
        summary.nets = nets;
        for (let b = Math.ceil(begin / BLOCK); (b + 1) * BLOCK <= end; b++) {
          if (step(edges[2 * b]!) !== step(edges[2 * b + 1]!)) continue;
          const first = b * BLOCK;
          if (first > begin)
            yield { words, times, ends, instant: instantOf(chunk, begin), begin, end: first };
          summary.first = edges[2 * b]!;
          summary.at = b * all;
          yield summary;
          begin = first + BLOCK;
        }
      }
      if (begin < end) yield { words, times, ends, instant: instantOf(chunk, begin), begin, end };
    }
  }

  /** The summaries of all blocks of a chunk that are full. */
  private blocksOf(chunk: Chunk): Blocks {
    const all = this.first.length;
    chunk.blocks ??= {
      nets: new Uint8Array((CHUNK / BLOCK) * all),
      edges: new Float64Array((2 * CHUNK) / BLOCK),
      ready: 0,
    };
    const { blocks } = chunk;
    if ((blocks.ready + 1) * BLOCK > chunk.count) return blocks;
    const { nets, edges } = blocks;
    const { words, times, ends } = chunk;
    let instant = instantOf(chunk, blocks.ready * BLOCK);
    for (; (blocks.ready + 1) * BLOCK <= chunk.count; blocks.ready++) {
      const first = blocks.ready * BLOCK;
      const at = blocks.ready * all;
      nets.fill(0, at, at + all);
      edges[2 * blocks.ready] = times[instant]!;
      for (let i = first; i < first + BLOCK; i++) {
        const net = at + netIn(words[i]!);
        nets[net] = (Math.min(2, (nets[net]! >> 2) + 1) << 2) | valueIn(words[i]!);
      }
      // The last change of the block, and then the first of the next.
      while (ends[instant]! < first + BLOCK) instant++;
      edges[2 * blocks.ready + 1] = times[instant]!;
      if (ends[instant] === first + BLOCK) instant++;
    }
    return blocks;
  }

  /** All changes within (from, to] in ps, one after the other. The object that is handed out is used again. */
  *changes(from: number, to: number): Generator<{ time: number; net: number; value: Logic }> {
    const change = { time: 0, net: 0, value: 0 as Logic };
    for (let c = Math.max(0, this.chunkAt(from)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      const end = this.upTo(chunk, to);
      for (let i = this.upTo(chunk, from), instant = instantOf(chunk, i); i < end; i++) {
        while (chunk.ends[instant]! <= i) instant++;
        change.time = chunk.times[instant]!;
        change.net = netIn(chunk.words[i]!);
        change.value = valueIn(chunk.words[i]!);
        yield change;
      }
      if (end < chunk.count) return;
    }
  }

  /** The value of a net at a time in ps, once everything of that instant has taken effect. */
  valueAt(net: number, time: number): Logic {
    const at = this.chunkAt(time);
    if (at === -1) return this.first[net] as Logic;
    const chunk = this.chunks[at]!;
    for (let i = this.upTo(chunk, time) - 1; i >= 0; i--)
      if (netIn(chunk.words[i]!) === net) return valueIn(chunk.words[i]!);
    return this.stateBefore(at)[net] as Logic;
  }

  /** Changes of a chunk that are not after a time. */
  private upTo(chunk: Chunk, time: number): number {
    let low = 0;
    for (let high = chunk.instants; low < high; ) {
      const middle = (low + high) >> 1;
      if (chunk.times[middle]! <= time) low = middle + 1;
      else high = middle;
    }
    return low === 0 ? 0 : chunk.ends[low - 1]!;
  }

  /**
   * Time in ps of the last change before `time` of any of the nets, or of any net at all; null if there is
   * none.
   */
  changeBefore(nets: ReadonlySet<number> | null, time: number): number | null {
    for (let c = this.chunkAt(time); c >= 0; c--) {
      const chunk = this.chunks[c]!;
      for (let i = this.upTo(chunk, time) - 1; i >= 0; i--) {
        if (nets && !nets.has(netIn(chunk.words[i]!))) continue;
        const at = chunk.times[instantOf(chunk, i)]!;
        if (at < time) return at;
      }
    }
    return null;
  }

  /** Time in ps of the first change after `time`, as `changeBefore`. */
  changeAfter(nets: ReadonlySet<number> | null, time: number): number | null {
    for (let c = Math.max(0, this.chunkAt(time)); c < this.chunks.length; c++) {
      const chunk = this.chunks[c]!;
      for (let i = this.upTo(chunk, time); i < chunk.count; i++)
        if (!nets || nets.has(netIn(chunk.words[i]!))) return chunk.times[instantOf(chunk, i)]!;
    }
    return null;
  }
}

/** Chunks that share their memory, with room for some instants each. */
function emptyChunks(count: number, instants: number): Chunk[] {
  const words = new Int32Array(count * CHUNK);
  const times = new Float64Array(count * instants);
  const ends = new Int32Array(count * instants);
  return Array.from({ length: count }, (_, i) => ({
    words: words.subarray(i * CHUNK, (i + 1) * CHUNK),
    count: 0,
    times: times.subarray(i * instants, (i + 1) * instants),
    ends: ends.subarray(i * instants, (i + 1) * instants),
    instants: 0,
    start: null,
    blocks: null,
  }));
}

/** Ends instant `at` of `from` in a chunk; it joins the last one of the chunk if their times are equal. */
function endInstant(chunk: Chunk, from: Float64Array, at: number, end: number): void {
  if (chunk.instants > 0 && chunk.times[chunk.instants - 1] === from[at]) {
    chunk.ends[chunk.instants - 1] = end;
    return;
  }
  if (chunk.instants === chunk.times.length) {
    const { times, ends } = chunk;
    chunk.times = new Float64Array(2 * times.length);
    chunk.times.set(times);
    chunk.ends = new Int32Array(2 * ends.length);
    chunk.ends.set(ends);
  }
  chunk.times[chunk.instants] = from[at]!;
  chunk.ends[chunk.instants++] = end;
}

/** The values after the first changes of a chunk. */
function stateBehind(before: Uint8Array, { words, count }: Chunk, changes = count): Uint8Array {
  const state = before.slice();
  for (let i = 0; i < changes; i++) state[netIn(words[i]!)] = valueIn(words[i]!);
  return state;
}

/** The instant of a change: the first that ends behind it. */
function instantOf({ ends, instants }: Chunk, change: number): number {
  let low = 0;
  for (let high = instants; low < high; ) {
    const middle = (low + high) >> 1;
    if (ends[middle]! <= change) low = middle + 1;
    else high = middle;
  }
  return low;
}
