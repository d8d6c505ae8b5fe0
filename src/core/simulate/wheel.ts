/** Slots at most: 4 bytes each. */
const MOST_SLOTS = 1 << 16;

function greatestCommonDivisor(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y !== 0) [x, y] = [y, x % y];
  return x;
}

/**
 * Which gates are due when: a calendar queue (Brown, 1988) of one lap, its days as long as the greatest common
 * divisor of all delays, so that those of one day are mostly due together. Each gate is in it at most once, in a
 * doubly linked list over typed arrays; nothing is allocated while it runs.
 */
export class Wheel {
  /** When each gate is due in ps; Infinity while it is not. */
  readonly due: Float64Array;
  /** Gates that are due. */
  count = 0;
  private readonly head: Int32Array;
  private readonly next: Int32Array;
  private readonly previous: Int32Array;
  private readonly used: Uint32Array;
  private readonly day: number;
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
    this.due = new Float64Array(gates).fill(Number.POSITIVE_INFINITY);
  }

  /** Makes a gate that is not due so; no later after now than its longest delay. */
  add(gate: number, time: number): void {
    const slot = Math.floor(time / this.day) & this.mask;
    const first = this.head[slot]!;
    this.due[gate] = time;
    this.next[gate] = first;
    this.previous[gate] = -1 - slot;
    if (first !== -1) this.previous[first] = gate;
    else this.used[slot >> 5] = this.used[slot >> 5]! | (1 << (slot & 31));
    this.head[slot] = gate;
    this.count++;
  }

  remove(gate: number): void {
    const after = this.next[gate]!;
    const before = this.previous[gate]!;
    this.due[gate] = Number.POSITIVE_INFINITY;
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
    const slot = this.firstSlot(Math.floor(now / this.day) & this.mask);
    let least = Number.POSITIVE_INFINITY;
    for (let g = this.head[slot]!; g !== -1; g = this.next[g]!)
      if (this.due[g]! < least) least = this.due[g]!;
    return least;
  }

  /** Takes out all that are due at that time, which is the earliest. @returns how many `into` now holds. */
  take(time: number, into: Int32Array): number {
    let taken = 0;
    const slot = Math.floor(time / this.day) & this.mask;
    for (let g = this.head[slot]!; g !== -1; ) {
      const after = this.next[g]!;
      if (this.due[g] === time) {
        into[taken++] = g;
        this.remove(g);
      }
      g = after;
    }
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
