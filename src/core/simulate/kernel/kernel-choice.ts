/** Steps after which a run is worth the kernel. */
const AFTER = 1000;
/** Gates of a circuit that begins with it. */
const AT_ONCE = 1000;
/** Stretches after which the kernel is judged, and the events that it must process in each to be worth it. */
const STRETCHES = 256;
const EVENTS_A_STRETCH = 12;

/**
 * When a run goes over to the kernel, or to strips. That costs as much as some steps a gate, and so does each stretch that ends at storage or at a
 * source: where there is little between them, the reference is quicker.
 */
export class KernelChoice {
  private at: number;
  private patience = 1;
  private stretches = 0;
  private eventsThen = 0;
  /** Whether strips are thought of; until too little changes for them. */
  mayBeStrips = true;

  /** @param after steps after which it is thought of; Infinity for never, 0 for always. */
  constructor(
    private readonly gates: number,
    private readonly after = AFTER,
  ) {
    this.at = after;
  }

  /** Whether a run begins with it. */
  get isAtOnce(): boolean {
    return this.gates >= AT_ONCE && this.after < Number.POSITIVE_INFINITY;
  }

  /** Whether it is time to go over. @param steps that the run has made. */
  isTime(steps: number): boolean {
    return steps >= this.at;
  }

  /** Tells that it was gone over, or back, or that it could not be. */
  changed(steps: number, events: number): void {
    this.at = steps + (this.after > 0 ? this.patience * Math.max(this.after, this.gates) : 0);
    this.stretches = 0;
    this.eventsThen = events;
  }

  /** Told of each stretch: whether to go on with it. Where it was not worth it, it is thought of ever more rarely. */
  isWorth(events: number): boolean {
    if (++this.stretches < STRETCHES) return true;
    const moved = events - this.eventsThen;
    this.eventsThen = events;
    this.stretches = 0;
    if (this.after === 0 || moved >= EVENTS_A_STRETCH * STRETCHES) return true;
    this.patience *= 4;
    return false;
  }
}
