import FlatQueue from 'flatqueue';

/** What happens at one instant, in the order of IEEE Std 1364-2005, 11.3. */
interface Instant {
  readonly active: (() => void)[];
  readonly inactive: (() => void)[];
  readonly nonblocking: (() => void)[];
  readonly last: (() => void)[];
}

/** The event queue of clause 11: active, inactive (`#0`), nonblocking assignments, and what comes at the end of an instant. */
export class Schedule {
  /** Time in ps. */
  now = 0;
  isEnded = false;
  private readonly instants = new Map<number, Instant>();
  private readonly times = new FlatQueue<number>();

  private at(time: number): Instant {
    const known = this.instants.get(time);
    if (known) return known;
    const made: Instant = { active: [], inactive: [], nonblocking: [], last: [] };
    this.instants.set(time, made);
    this.times.push(time, time);
    return made;
  }

  /** @param after ps from now. */
  add(kind: keyof Instant, work: () => void, after = 0): void {
    this.at(this.now + after)[kind].push(work);
  }

  /** When something is to happen next; Infinity where nothing is. */
  get next(): number {
    return this.times.peekValue() ?? Number.POSITIVE_INFINITY;
  }

  /** Lets everything happen up to a time. @param atEnd is called at the end of each instant. */
  run(until: number, atEnd: () => void): void {
    while (!this.isEnded && this.next <= until) {
      const time = this.times.pop()!;
      this.now = time;
      const instant = this.instants.get(time)!;
      const { active, inactive, nonblocking, last } = instant;
      while (!this.isEnded) {
        if (active.length > 0) for (const work of active.splice(0)) this.isEnded || work();
        else if (inactive.length > 0) active.push(...inactive.splice(0));
        else if (nonblocking.length > 0) for (const work of nonblocking.splice(0)) work();
        else break;
      }
      atEnd();
      for (const work of last.splice(0)) work();
      this.instants.delete(time);
    }
    if (!this.isEnded && until < Number.POSITIVE_INFINITY) this.now = Math.max(this.now, until);
  }
}

/** `$random` (IEEE Std 1364-2005, 17.9.3): the same numbers everywhere. */
export class RandomNumbers {
  private seed = 0;

  next(): number {
    if (this.seed === 0) this.seed = 259341593;
    this.seed = (Math.imul(69069, this.seed) + 1) | 0;
    const bits = new DataView(new ArrayBuffer(4));
    bits.setUint32(0, (this.seed >>> 9) | 0x3f800000);
    const single = bits.getFloat32(0);
    const between = single + single * 0.00000011920928955078125;
    const uniform = (2147483647 + 2147483648) * (between - 1) - 2147483648;
    const spread = ((uniform + 2147483648) / 4294967295) * 4294967296 - 2147483648;
    return spread >= 0 ? Math.trunc(spread) : Math.trunc(spread - 1);
  }
}
