/** Slots at most: 4 bytes each. */
const MOST_SLOTS = 1 << 16;

export function greatestCommonDivisor(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return x;
}

/**
 * The queue of due gates: a calendar queue (Brown, 1988) of one lap, its days as long as the greatest common
 * divisor of all delays, so the gates of one day are mostly due together. Each gate is in it at most once, in
 * a doubly linked list over typed arrays; nothing is allocated while it runs.
 */
export class Wheel {
  /** When each gate that is in it is due, in ps. */
  readonly due: Float64Array;
  /** Gates that are due. */
  count = 0;
  private readonly head: Int32Array;
  /** The due time of a slot's gates, unless they are mixed. */
  private readonly slotTime: Float64Array;
  private readonly mixed: Uint8Array;
  private readonly next: Int32Array;
  private readonly previous: Int32Array;
  private readonly used: Uint32Array;
  /** Length of a day in ps. */
  readonly day: number;
  private readonly mask: number;

  /** @param delays all that may be asked for, in ps. */
  constructor(gates: number, delays: readonly Float64Array[]) {
    let common = 0;
    let longest = 0;
    for (const list of delays)
      for (let i = 0; i < list.length; i++) {
        const d = list[i]!;
        if (d === 0) continue;
        if (d > longest) longest = d;
        if (common !== 1 && d !== common) common = greatestCommonDivisor(d, common);
      }
    this.day = Math.max(1, common, Math.ceil(longest / (MOST_SLOTS / 2)));
    let slots = 32;
    while (slots < longest / this.day + 2) slots *= 2;
    this.mask = slots - 1;
    this.head = new Int32Array(slots).fill(-1);
    this.used = new Uint32Array(slots / 32);
    this.next = new Int32Array(gates);
    this.previous = new Int32Array(gates);
    this.due = new Float64Array(gates);
    this.slotTime = new Float64Array(slots);
    this.mixed = new Uint8Array(slots);
  }

  /** Makes a gate that is not due so, on the day that is `time / day`; no later than one lap from now. */
  add(gate: number, time: number, day: number): void {
    const slot = day & this.mask;
    const first = this.head[slot]!;
    this.due[gate] = time;
    if (first === -1) {
      this.slotTime[slot] = time;
      this.mixed[slot] = 0;
    } else if (this.slotTime[slot] !== time) this.mixed[slot] = 1;
    this.next[gate] = first;
    this.previous[gate] = -1 - slot;
    if (first !== -1) this.previous[first] = gate;
    else this.used[slot >> 5] = this.used[slot >> 5]! | (1 << (slot & 31));
    this.head[slot] = gate;
    this.count++;
  }

  /** The day of a time, within some laps: days are counted in 31 bits. */
  dayOf(time: number): number {
    return Math.floor(time / this.day) & 0x3fffffff;
  }

  remove(gate: number): void {
    const after = this.next[gate]!;
    const before = this.previous[gate]!;
    if (after !== -1) this.previous[after] = before;
    if (before >= 0) this.next[before] = after;
    else {
      const slot = -1 - before;
      this.head[slot] = after;
      if (after === -1) this.used[slot >> 5] = this.used[slot >> 5]! & ~(1 << (slot & 31));
    }
    this.count--;
  }

  /** The earliest time at which a gate is due, looked for from `now` on; Infinity where none is. */
  earliest(now: number): number {
    if (this.count === 0) return Number.POSITIVE_INFINITY;
    const slot = this.firstSlot(this.dayOf(now) & this.mask);
    if (!this.mixed[slot]) return this.slotTime[slot]!;
    let least = Number.POSITIVE_INFINITY;
    for (let g = this.head[slot]!; g !== -1; g = this.next[g]!)
      if (this.due[g]! < least) least = this.due[g]!;
    return least;
  }

  /** Takes out the gates due at that time, the earliest one. @returns how many `into` now holds. */
  take(time: number, into: Int32Array): number {
    const { head, next, due } = this;
    const slot = this.dayOf(time) & this.mask;
    let taken = 0;
    if (this.mixed[slot]) {
      for (let g = head[slot]!; g !== -1; ) {
        const after = next[g]!;
        if (due[g] === time) {
          into[taken++] = g;
          this.remove(g);
        }
        g = after;
      }
      return taken;
    }
    if (head[slot] === -1 || this.slotTime[slot] !== time) return 0;
    for (let g = head[slot]!; g !== -1; g = next[g]!) into[taken++] = g;
    head[slot] = -1;
    this.used[slot >> 5] = this.used[slot >> 5]! & ~(1 << (slot & 31));
    this.count -= taken;
    return taken;
  }

  private firstSlot(from: number): number {
    const { used } = this;
    let word = from >> 5;
    let bits = used[word]! & (-1 << (from & 31));
    while (bits === 0) {
      word = word + 1 === used.length ? 0 : word + 1;
      bits = used[word]!;
    }
    return (word << 5) + 31 - Math.clz32(bits & -bits);
  }
}
