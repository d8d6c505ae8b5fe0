/** Nodes that a manager holds at most: 16 bytes each, and as much again for its tables. */
export const MOST_NODES = 6_000_000;

/** More nodes than may be held would be needed. */
export class TooLarge extends Error {}

/** The operation that combines two diagrams. */
const AND = 0;
const XOR = 1;

export const FALSE = 0;
export const TRUE = 1;

/**
 * Reduced ordered binary decision diagrams (Bryant, 1986, "Graph-based algorithms for Boolean function
 * manipulation"): two functions are equal exactly when their diagrams are the same node. Variables are
 * numbers, the lowest tested first. Nodes are stored in typed arrays and never freed, so a manager serves one
 * piece of work.
 */
export class Bdd {
  private variable = new Int32Array(1 << 12);
  private low = new Int32Array(1 << 12);
  private high = new Int32Array(1 << 12);
  private count = 2;
  /** Open addressing: node by variable, low and high. */
  private unique = new Int32Array(1 << 13).fill(-1);
  /** A cache of recent results: two operands with the operation, and the result. */
  private readonly cache = new Int32Array(4 << 18).fill(-1);

  constructor(private readonly most = MOST_NODES) {
    this.variable[FALSE] = this.variable[TRUE] = 0x7fffffff;
    this.low[TRUE] = this.high[TRUE] = TRUE;
  }

  get size(): number {
    return this.count;
  }

  /** The diagram of a variable. */
  of(variable: number): number {
    return this.node(variable, FALSE, TRUE);
  }

  not(a: number): number {
    return this.apply(XOR, a, TRUE);
  }

  and(a: number, b: number): number {
    return this.apply(AND, a, b);
  }

  or(a: number, b: number): number {
    return this.not(this.apply(AND, this.not(a), this.not(b)));
  }

  xor(a: number, b: number): number {
    return this.apply(XOR, a, b);
  }

  /**
   * Values of variables at which a diagram is 1, as few of them 1 as its shortest way; null for 0. Variables that are
   * not in it may be anything.
   */
  satisfied(a: number): Map<number, 0 | 1> | null {
    if (a === FALSE) return null;
    const values = new Map<number, 0 | 1>();
    for (let at = a; at !== TRUE; ) {
      const toLow = this.low[at] !== FALSE;
      values.set(this.variable[at]!, toLow ? 0 : 1);
      at = toLow ? this.low[at]! : this.high[at]!;
    }
    return values;
  }

  private node(variable: number, low: number, high: number): number {
    if (low === high) return low;
    let at = hash(variable, low, high) & (this.unique.length - 1);
    for (let found = this.unique[at]!; found !== -1; found = this.unique[at]!) {
      if (this.variable[found] === variable && this.low[found] === low && this.high[found] === high)
        return found;
      at = (at + 1) & (this.unique.length - 1);
    }
    if (this.count >= this.most) throw new TooLarge(`more than ${this.most} nodes`);
    if (this.count === this.variable.length) this.grow();
    const made = this.count++;
    this.variable[made] = variable;
    this.low[made] = low;
    this.high[made] = high;
    if (this.count * 2 > this.unique.length) this.rehash();
    else this.unique[at] = made;
    return made;
  }

  private grow(): void {
    const larger = (old: Int32Array) => {
      const made = new Int32Array(old.length * 2);
      made.set(old);
      return made;
    };
    this.variable = larger(this.variable);
    this.low = larger(this.low);
    this.high = larger(this.high);
  }

  private rehash(): void {
    this.unique = new Int32Array(this.unique.length * 2).fill(-1);
    const mask = this.unique.length - 1;
    for (let n = 2; n < this.count; n++) {
      let at = hash(this.variable[n]!, this.low[n]!, this.high[n]!) & mask;
      while (this.unique[at] !== -1) at = (at + 1) & mask;
      this.unique[at] = n;
    }
  }

  private apply(op: number, a: number, b: number): number {
    if (op === AND) {
      if (a === FALSE || b === FALSE) return FALSE;
      if (a === TRUE || a === b) return b;
      if (b === TRUE) return a;
    } else {
      if (a === b) return FALSE;
      if (a === FALSE) return b;
      if (b === FALSE) return a;
    }
    // Both are the same in either order.
    const [x, y] = a < b ? [a, b] : [b, a];
    const at = 4 * (hash(op, x, y) & 0x3ffff);
    const { cache } = this;
    if (cache[at] === x && cache[at + 1] === y && cache[at + 2] === op) return cache[at + 3]!;
    const [vx, vy] = [this.variable[x]!, this.variable[y]!];
    const top = Math.min(vx, vy);
    const low = this.apply(op, vx === top ? this.low[x]! : x, vy === top ? this.low[y]! : y);
    const high = this.apply(op, vx === top ? this.high[x]! : x, vy === top ? this.high[y]! : y);
    const made = this.node(top, low, high);
    cache[at] = x;
    cache[at + 1] = y;
    cache[at + 2] = op;
    cache[at + 3] = made;
    return made;
  }
}

function hash(a: number, b: number, c: number): number {
  let h = Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b) ^ Math.imul(c, 0xc2b2ae35);
  h ^= h >>> 15;
  h = Math.imul(h, 0x2c1b3c6d);
  return (h ^ (h >>> 13)) >>> 0;
}
