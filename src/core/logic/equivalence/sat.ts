/*
 * Satisfiability of clauses, by conflict-driven learning (Marques-Silva and Sakallah, 1996; Moskewicz and others, 2001;
 * Eén and Sörensson, 2003, "An extensible SAT-solver").
 *
 * A literal is 2 v for variable v and 2 v + 1 for its inverse. Clauses lie one behind the other in `arena`: how many
 * literals, how many decision levels they came from (0 for one that was given), then the literals.
 */

const UNKNOWN = 2;
const NONE = -1;
const HEAD = 2;

/** Conflicts after which the search restarts, times the sequence of Luby and others (1993). */
const RESTART = 64;
/** The initial number of learnt clauses beyond which the less useful ones are dropped. */
const MOST_LEARNT = 4000;
const DECAY = 0.95;
const LARGE = 1e100;

export const inverse = (literal: number) => literal ^ 1;

export class Sat {
  /** For each literal 0, 1 or unknown. */
  private values = new Uint8Array(64).fill(UNKNOWN);
  private level = new Int32Array(32);
  private reason = new Int32Array(32).fill(NONE);
  private activity = new Float64Array(32);
  /** The value that a variable had last. */
  private phase = new Uint8Array(32);
  private seen = new Uint8Array(32);
  private variables = 0;
  private arena = new Int32Array(1 << 12);
  private used = 0;
  private learnt: number[] = [];
  private mostLearnt = MOST_LEARNT;
  /** For each literal the clauses that look at its becoming 0: the clause, and another literal of it, in turn. */
  private readonly watches: number[][] = [];
  private trail = new Int32Array(32);
  private trailed = 0;
  private readonly begun: number[] = [];
  private propagated = 0;
  private increment = 1;
  private isSound = true;
  private readonly heap: Heap;
  private model = new Uint8Array(0);
  /** Work of all searches so far: how often a clause was looked at. */
  effort = 0;

  constructor() {
    this.heap = new Heap((a, b) => this.activity[a]! > this.activity[b]!);
  }

  /** @returns the number of a new variable. */
  variable(): number {
    const v = this.variables++;
    if (v >= this.level.length) this.grow();
    this.watches.push([], []);
    this.heap.put(v);
    return v;
  }

  private grow(): void {
    const size = 2 * this.level.length;
    const ints = (old: Int32Array, fill = 0) => {
      const made = new Int32Array(size).fill(fill);
      made.set(old);
      return made;
    };
    const values = new Uint8Array(2 * size).fill(UNKNOWN);
    values.set(this.values);
    this.values = values;
    this.level = ints(this.level);
    this.reason = ints(this.reason, NONE);
    this.trail = ints(this.trail);
    const activity = new Float64Array(size);
    activity.set(this.activity);
    this.activity = activity;
    for (const which of ['phase', 'seen'] as const) {
      const made = new Uint8Array(size);
      made.set(this[which]);
      this[which] = made;
    }
  }

  /** Adds a clause: one of its literals must hold. Searches have ended when it comes. */
  clause(literals: readonly number[]): void {
    if (!this.isSound) return;
    const kept = [...new Set(literals)].filter((l) => this.values[l] !== 0);
    if (kept.some((l) => this.values[l] === 1 || kept.includes(inverse(l)))) return;
    if (kept.length === 0) this.isSound = false;
    else if (kept.length === 1) {
      this.assign(kept[0]!, NONE);
      this.isSound = this.propagate() === NONE;
    } else this.store(kept, 0);
  }

  private store(literals: readonly number[], levels: number): number {
    const need = this.used + HEAD + literals.length;
    if (need > this.arena.length) {
      const made = new Int32Array(Math.max(need, 2 * this.arena.length));
      made.set(this.arena);
      this.arena = made;
    }
    const at = this.used;
    this.arena[at] = literals.length;
    this.arena[at + 1] = levels;
    this.arena.set(literals, at + HEAD);
    this.used = need;
    this.watch(at);
    return at;
  }

  private watch(at: number): void {
    const [a, b] = [this.arena[at + HEAD]!, this.arena[at + HEAD + 1]!];
    this.watches[a]!.push(at, b);
    this.watches[b]!.push(at, a);
  }

  private assign(literal: number, reason: number): void {
    this.values[literal] = 1;
    this.values[inverse(literal)] = 0;
    const v = literal >> 1;
    this.level[v] = this.begun.length;
    this.reason[v] = reason;
    this.trail[this.trailed++] = literal;
  }

  /** Propagates the assignments. @returns the clause without a literal left, or none. */
  private propagate(): number {
    const { values } = this;
    while (this.propagated < this.trailed) {
      const gone = inverse(this.trail[this.propagated++]!);
      const list = this.watches[gone]!;
      let kept = 0;
      this.effort += list.length / 2 + 1;
      for (let i = 0; i < list.length; i += 2) {
        const [at, other] = [list[i]!, list[i + 1]!];
        if (values[other] === 1) {
          list[kept++] = at;
          list[kept++] = other;
          continue;
        }
        const { arena } = this;
        const first = at + HEAD;
        if (arena[first] === gone) {
          arena[first] = arena[first + 1]!;
          arena[first + 1] = gone;
        }
        const lead = arena[first]!;
        if (values[lead] !== 1) {
          const end = first + arena[at]!;
          let k = first + 2;
          while (k < end && values[arena[k]!] === 0) k++;
          if (k < end) {
            const next = arena[k]!;
            arena[first + 1] = next;
            arena[k] = gone;
            this.watches[next]!.push(at, lead);
            continue;
          }
        }
        list[kept++] = at;
        list[kept++] = lead;
        if (values[lead] === 1) continue;
        if (values[lead] === 0) {
          for (let k = i + 2; k < list.length; k++) list[kept++] = list[k]!;
          list.length = kept;
          this.propagated = this.trailed;
          return at;
        }
        this.assign(lead, at);
      }
      list.length = kept;
    }
    return NONE;
  }

  private backTo(level: number): void {
    if (this.begun.length <= level) return;
    const end = this.begun[level]!;
    for (let i = this.trailed - 1; i >= end; i--) {
      const literal = this.trail[i]!;
      const v = literal >> 1;
      this.values[literal] = UNKNOWN;
      this.values[inverse(literal)] = UNKNOWN;
      this.phase[v] = literal & 1;
      this.heap.put(v);
    }
    this.trailed = end;
    this.propagated = end;
    this.begun.length = level;
  }

  private bump(v: number): void {
    this.activity[v]! += this.increment;
    if (this.activity[v]! > LARGE) {
      for (let i = 0; i < this.variables; i++) this.activity[i]! /= LARGE;
      this.increment /= LARGE;
    }
    this.heap.risen(v);
  }

  /**
   * The clause learned from a conflict at the first unique implication point, its asserting literal first,
   * and the level to return to.
   */
  private learn(conflict: number): { readonly literals: number[]; readonly level: number } {
    const { arena, seen, level, reason } = this;
    const literals = [0];
    const here = this.begun.length;
    let open = 0;
    let at = conflict;
    let i = this.trailed - 1;
    let lead = NONE;
    do {
      for (let k = at + HEAD + (lead === NONE ? 0 : 1), end = at + HEAD + arena[at]!; k < end; k++) {
        const literal = arena[k]!;
        const v = literal >> 1;
        if (seen[v] || level[v] === 0) continue;
        seen[v] = 1;
        this.bump(v);
        if (level[v] === here) open++;
        else literals.push(literal);
      }
      while (!seen[this.trail[i]! >> 1]) i--;
      lead = this.trail[i--]!;
      at = reason[lead >> 1]!;
      seen[lead >> 1] = 0;
      open--;
    } while (open > 0);
    literals[0] = inverse(lead);
    const marked = literals.slice(1);
    // A literal implied by the others adds nothing.
    const kept = literals.filter((literal, k) => k === 0 || !this.isImplied(literal));
    for (const literal of marked) seen[literal >> 1] = 0;
    let second = 1;
    for (let k = 2; k < kept.length; k++) if (level[kept[k]! >> 1]! > level[kept[second]! >> 1]!) second = k;
    if (kept.length > 1) [kept[1], kept[second]] = [kept[second]!, kept[1]!];
    return { literals: kept, level: kept.length > 1 ? level[kept[1]! >> 1]! : 0 };
  }

  private isImplied(literal: number): boolean {
    const at = this.reason[literal >> 1]!;
    if (at === NONE) return false;
    for (let k = at + HEAD + 1, end = at + HEAD + this.arena[at]!; k < end; k++) {
      const v = this.arena[k]! >> 1;
      if (!this.seen[v] && this.level[v] !== 0) return false;
    }
    return true;
  }

  /**
   * Searches for an assignment that satisfies all clauses and some assumptions.
   * @param effort how often it may visit a clause.
   * @returns whether there is one, which `holds` then gives; null if the effort did not suffice.
   */
  solve(assumed: readonly number[], effort: number): boolean | null {
    if (!this.isSound) return false;
    const found = this.search(assumed, this.effort + effort);
    if (found) this.model = this.values.slice(0, 2 * this.variables);
    this.backTo(0);
    return found;
  }

  /** Whether a literal holds at the values that were found last. */
  holds(literal: number): boolean {
    return this.model[literal] === 1;
  }

  private search(assumed: readonly number[], until: number): boolean | null {
    let met = 0;
    for (let round = 1; ; round++) {
      const pause = met + RESTART * luby(round);
      for (;;) {
        const conflict = this.propagate();
        if (conflict !== NONE) {
          met++;
          if (this.begun.length === 0) {
            this.isSound = false;
            return false;
          }
          this.take(this.learn(conflict));
          continue;
        }
        if (this.effort >= until) return null;
        if (met >= pause) break;
        const literal = this.next(assumed);
        if (literal === true || literal === false) return literal;
        this.begun.push(this.trailed);
        if (literal !== NONE) this.assign(literal, NONE);
      }
      this.backTo(0);
      if (this.learnt.length > this.mostLearnt) this.forget();
    }
  }

  private take({ literals, level }: { readonly literals: number[]; readonly level: number }): void {
    const levels = new Set(literals.map((l) => this.level[l >> 1])).size;
    this.backTo(level);
    this.increment /= DECAY;
    if (literals.length === 1) {
      this.assign(literals[0]!, NONE);
      return;
    }
    const at = this.store(literals, levels);
    this.learnt.push(at);
    this.assign(literals[0]!, at);
  }

  /**
   * The next decision: an assumption, or a variable; NONE for an assumption that holds already. True when
   * everything is assigned.
   */
  private next(assumed: readonly number[]): number | boolean {
    if (this.begun.length < assumed.length) {
      const literal = assumed[this.begun.length]!;
      if (this.values[literal] === 0) return false;
      return this.values[literal] === 1 ? NONE : literal;
    }
    for (let v = this.heap.take(); v !== NONE; v = this.heap.take())
      if (this.values[2 * v] === UNKNOWN) return 2 * v + this.phase[v]!;
    return true;
  }

  /** Lets the half of the learnt clauses go that came from many levels. Nothing is assigned but for good. */
  private forget(): void {
    const { arena } = this;
    const worth = (at: number) => arena[at + 1]! * 1000 + arena[at]!;
    const sorted = [...this.learnt].sort((a, b) => worth(a) - worth(b));
    const kept = sorted.filter((at, i) => i < sorted.length / 2 || arena[at + 1]! <= 2);
    const stays = new Set(kept);
    const gone = new Set(this.learnt.filter((at) => !stays.has(at)));
    for (const list of this.watches) {
      let k = 0;
      for (let i = 0; i < list.length; i += 2) {
        if (gone.has(list[i]!)) continue;
        list[k++] = list[i]!;
        list[k++] = list[i + 1]!;
      }
      list.length = k;
    }
    this.learnt = kept;
    this.mostLearnt *= 1.1;
  }
}

/** The sequence 1, 1, 2, 1, 1, 2, 4, …, from its first number on. */
function luby(n: number): number {
  let size = 1;
  while (size < n + 1) size *= 2;
  return size === n + 1 ? size / 2 : luby(n - size / 2 + 1);
}

/** Variables by their worth, the worthiest first; each is in it at most once. */
class Heap {
  private readonly items: number[] = [];
  private readonly places: number[] = [];

  constructor(private readonly isBefore: (a: number, b: number) => boolean) {}

  put(v: number): void {
    if ((this.places[v] ?? NONE) !== NONE) return;
    this.items.push(v);
    this.places[v] = this.items.length - 1;
    this.up(this.items.length - 1);
  }

  risen(v: number): void {
    const at = this.places[v] ?? NONE;
    if (at !== NONE) this.up(at);
  }

  /** Removes the element with the highest priority; NONE if it is empty. */
  take(): number {
    const first = this.items[0];
    if (first === undefined) return NONE;
    const last = this.items.pop()!;
    this.places[first] = NONE;
    if (this.items.length > 0) {
      this.items[0] = last;
      this.places[last] = 0;
      this.down(0);
    }
    return first;
  }

  private up(from: number): void {
    const v = this.items[from]!;
    let at = from;
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (!this.isBefore(v, this.items[parent]!)) break;
      this.move(this.items[parent]!, at);
      at = parent;
    }
    this.move(v, at);
  }

  private down(from: number): void {
    const v = this.items[from]!;
    let at = from;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= this.items.length) break;
      if (child + 1 < this.items.length && this.isBefore(this.items[child + 1]!, this.items[child]!)) child++;
      if (!this.isBefore(this.items[child]!, v)) break;
      this.move(this.items[child]!, at);
      at = child;
    }
    this.move(v, at);
  }

  private move(v: number, at: number): void {
    this.items[at] = v;
    this.places[v] = at;
  }
}
