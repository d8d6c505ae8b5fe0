import type { Logic } from '../values/logic';
import type { ChangeBlock, ChangeRun, Trace } from './trace';

/** A stretch of a lane without changes, or, where it is busy, with more changes than can be drawn. */
export interface Stretch {
  /** Ps. */
  readonly from: number;
  readonly to: number;
  /** The values of its nets, in the order in which they were asked for. */
  readonly bits: readonly Logic[];
  readonly busy: boolean;
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

/** Lanes while they are being drawn: of each the stretch that has begun, in typed arrays, because every change comes here. */
class LanesDrawing {
  private readonly found: Mutable<Stretch>[][];
  private readonly begun: Float64Array;
  /** When the step ends in which each lane changed last. */
  private readonly ends: Float64Array;
  private readonly busy: Uint8Array;
  /** Where the bits of each lane begin in `bits`. */
  private readonly first: Int32Array;
  private readonly bits: Uint8Array;
  /** The places among `bits` that a net stands at: a list a net, by `next`; -1 ends it. */
  private readonly placeOf: Int32Array;
  private readonly next: Int32Array;
  private readonly laneOf: Int32Array;
  private readonly netOf: Int32Array;

  constructor(
    lanes: readonly (readonly number[])[],
    start: Uint8Array,
    private readonly from: number,
    private readonly grain: number,
  ) {
    const all = lanes.flat();
    this.found = lanes.map(() => []);
    this.begun = new Float64Array(lanes.length).fill(from);
    this.ends = new Float64Array(lanes.length).fill(Number.NEGATIVE_INFINITY);
    this.busy = new Uint8Array(lanes.length);
    this.first = new Int32Array(lanes.length + 1);
    this.bits = Uint8Array.from(all, (net) => start[net]!);
    this.placeOf = new Int32Array(start.length).fill(-1);
    this.next = new Int32Array(all.length);
    this.laneOf = new Int32Array(all.length);
    this.netOf = Int32Array.from(all);
    let place = 0;
    for (const [lane, nets] of lanes.entries()) {
      for (const net of nets) {
        this.laneOf[place] = lane;
        this.next[place] = this.placeOf[net]!;
        this.placeOf[net] = place++;
      }
      this.first[lane + 1] = place;
    }
  }

  take({ words, times, ends: instantEnds, instant: first, begin, end }: ChangeRun): void {
    const { placeOf, next, laneOf, bits, ends, begun, busy, from, grain } = this;
    for (let i = begin, instant = first; i < end; i++) {
      while (instantEnds[instant]! <= i) instant++;
      const value = words[i]! & 3;
      for (let place = placeOf[words[i]! >> 4]!; place !== -1; place = next[place]!) {
        const before = bits[place]!;
        if (before === value) continue;
        const lane = laneOf[place]!;
        const time = times[instant]!;
        bits[place] = value;
        // A change that is followed by another one within one step is one of several changes there.
        if (time < ends[lane]!) {
          if (time > begun[lane]!) busy[lane] = 1;
          continue;
        }
        bits[place] = before;
        if (time > begun[lane]!) this.close(lane, time);
        bits[place] = value;
        ends[lane] = from + (Math.floor((time - from) / grain) + 1) * grain;
      }
    }
  }

  /** Adds a block of changes within one step; their places in the step are too fine to show. */
  takeBlock({ first, nets, at }: ChangeBlock): void {
    const { laneOf, netOf, bits, ends, begun, busy, from, grain } = this;
    for (let place = 0; place < netOf.length; place++) {
      const is = nets[at + netOf[place]!]!;
      if (is === 0 || (is < 8 && bits[place] === (is & 3))) continue;
      const lane = laneOf[place]!;
      if (first >= ends[lane]!) {
        if (first > begun[lane]!) this.close(lane, first);
        ends[lane] = from + (Math.floor((first - from) / grain) + 1) * grain;
        busy[lane] = is >= 8 ? 1 : 0;
      } else busy[lane] = 1;
      bits[place] = is & 3;
    }
  }

  private close(lane: number, to: number): void {
    const begun = this.begun[lane]!;
    const found = this.found[lane]!;
    let busy = this.busy[lane] === 1;
    let end = busy ? Math.min(to, this.ends[lane]!) : to;
    // A remainder shorter than a step belongs to the burst around it.
    if (busy && to - end < this.grain) end = to;
    const last = found.at(-1);
    busy ||= last?.busy === true && to - begun < this.grain;
    if (busy && last?.busy) last.to = end;
    else found.push({ from: begun, to: end, bits: this.held(lane), busy });
    if (end < to) found.push({ from: end, to, bits: this.held(lane), busy: false });
    this.begun[lane] = to;
    this.busy[lane] = 0;
  }

  private held(lane: number): Logic[] {
    return Array.from(this.bits.subarray(this.first[lane]!, this.first[lane + 1]!)) as Logic[];
  }

  done(to: number): Stretch[][] {
    for (let lane = 0; lane < this.found.length; lane++) this.close(lane, to);
    return this.found;
  }
}

/**
 * How some nets go from `from` to `to` in ps, each lane all its nets together, drawn to steps of `grain` ps: a stretch
 * for each change, and one that is `busy` where a lane changes more than once within a step. Costs one pass over the
 * changes in the window, less where many lie within a step, and no more room than there are steps. Where an edge lies
 * within its step may be off by less than one where a thousand changes lie there with it.
 */
export function stretchesOf(
  trace: Trace,
  lanes: readonly (readonly number[])[],
  from: number,
  to: number,
  grain: number,
): Stretch[][] {
  const drawing = new LanesDrawing(lanes, trace.stateAt(from), from, grain);
  for (const run of trace.runs(from, to, grain))
    if ('begin' in run) drawing.take(run);
    else drawing.takeBlock(run);
  return drawing.done(to);
}
