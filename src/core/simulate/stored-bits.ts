import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { ONE, X, ZERO } from '../values/logic';
import { type Engine, UNCHANGED } from './engine';

const MOST_VIOLATIONS = 10_000;
/** In how a clock was at the last look: its level, and whether a preset or clear acted. */
const CLOCK = 3;
const FORCED = 4;

/** The data of a storage part moved too near to its clock edge. */
export interface Violation {
  readonly kind: 'setup' | 'hold';
  /** Index into the netlist's `storage`. */
  readonly store: number;
  /** When it was found out, in ps. */
  readonly time: number;
  /** By how much it was missed, in ps. */
  readonly short: number;
}

/** What storage remembers beside its values, as plain data. */
export interface SavedStorage {
  readonly lastClock: Uint8Array;
  readonly lastEdge: Float64Array;
  readonly changedAt: Float64Array;
  readonly valueBefore: Uint8Array;
  readonly violations: readonly Violation[];
}

/** The gates that remember: what a clock, a preset or a clear makes of each, and whether its data stood long enough. */
export class StoredBits {
  readonly violations: Violation[] = [];
  violationCount = 0;
  private readonly storeOf: Int32Array;
  private readonly setup: Float64Array;
  private readonly hold: Float64Array;
  /** How the clock of each gate that remembers was when it was last looked at, by `CLOCK` and `FORCED`. */
  private readonly lastClock: Uint8Array;
  /** Time in ps of the instant in which storage is looked at. */
  now = 0;
  /** Time of each storage bit's last active edge. */
  private readonly lastEdge: Float64Array;
  /** The last change of each net, and its value before; kept where timing is checked. */
  private readonly changedAt: Float64Array;
  private readonly valueBefore: Uint8Array;

  /** @param checksTiming whether setup and hold times are watched. */
  constructor(
    private readonly netlist: Netlist,
    private readonly checksTiming: boolean,
    saved?: SavedStorage,
  ) {
    const gates = netlist.storage.length > 0 ? netlist.op.length : 0;
    const nets = checksTiming ? netlist.nets : 0;
    this.storeOf = new Int32Array(gates).fill(-1);
    for (const [i, g] of netlist.storage.entries()) this.storeOf[g] = i;
    this.setup = Float64Array.from(netlist.stores, (s) => s.setup);
    this.hold = Float64Array.from(netlist.stores, (s) => s.hold);
    this.lastClock = saved?.lastClock.slice() ?? new Uint8Array(gates).fill(X);
    this.lastEdge =
      saved?.lastEdge.slice() ?? new Float64Array(netlist.storage.length).fill(Number.NEGATIVE_INFINITY);
    this.changedAt = saved?.changedAt.slice() ?? new Float64Array(nets).fill(Number.NEGATIVE_INFINITY);
    this.valueBefore = saved?.valueBefore.slice() ?? new Uint8Array(nets);
    this.violations.push(...(saved?.violations ?? []));
    this.violationCount = this.violations.length;
  }

  save(): SavedStorage {
    return {
      lastClock: this.lastClock.slice(),
      lastEdge: this.lastEdge.slice(),
      changedAt: this.changedAt.slice(),
      valueBefore: this.valueBefore.slice(),
      violations: [...this.violations],
    };
  }

  /** Takes all clocks as they are now for how they were. A clock that floats is unknown: that it is looked at is no edge. */
  standStill(values: Uint8Array): void {
    const { storage, inStart, ins } = this.netlist;
    for (const g of storage) {
      const clock = values[ins[inStart[g]! + 1]!]!;
      this.lastClock[g] = clock > 1 ? X : clock;
    }
  }

  /** As `Notes.note`. */
  note(words: Int32Array, times: Float64Array, ends: Int32Array, count: number): void {
    if (!this.checksTiming) return;
    for (let i = 0, at = 0; i < count; i++)
      for (; at < ends[i]!; at++) {
        const word = words[at]!;
        this.changedAt[word >> 4] = times[i]!;
        this.valueBefore[word >> 4] = (word >> 2) & 3;
      }
  }

  /**
   * The next state of a gate that remembers, from what its inputs are now.
   * @param state what it has.
   */
  next(g: number, state: number, engine: Engine): number {
    const { netlist } = this;
    const { values } = engine;
    const op = netlist.op[g]!;
    const from = netlist.inStart[g]!;
    const dataNet = netlist.ins[from]!;
    const data = values[dataNet]! > 1 ? X : values[dataNet]!;
    const clock = values[netlist.ins[from + 1]!]! > 1 ? X : values[netlist.ins[from + 1]!]!;
    const was = this.lastClock[g]! & CLOCK;
    // An edge that comes in the very step in which a preset or clear ends came while it still acted: as data do, it counts as
    // it stood before. So a counter that clears itself is not clocked by being cleared.
    const wasForced = this.lastClock[g]! >= FORCED;
    const withAsync = netlist.inStart[g + 1]! - from > 2;
    const preset = withAsync ? values[netlist.ins[from + 2]!]! : ZERO;
    const clear = withAsync ? values[netlist.ins[from + 3]!]! : ZERO;
    this.lastClock[g] = preset === ONE || clear === ONE ? clock | FORCED : clock;
    let next = state;
    if (op === Primitive.LATCH) {
      if (clock === ONE) next = data;
      else if (clock === X) next = data === state ? state : X;
      else if (was === ONE && this.checksTiming && preset === ZERO && clear === ZERO)
        next = this.checkSetup(g, dataNet, state, engine);
    } else if (was !== clock && !wasForced) {
      const [low, high] = op === Primitive.DFF_RISE ? [ZERO, ONE] : [ONE, ZERO];
      if (was !== high && clock !== low) {
        const certain = was === low && clock === high;
        next = certain || data === state ? data : X;
        if (certain && this.checksTiming && preset === ZERO && clear === ZERO) {
          next = this.checkSetup(g, dataNet, next, engine);
          this.lastEdge[this.storeOf[g]!] = this.now;
        }
      }
    } else if (was === clock && this.checksTiming && preset === ZERO && clear === ZERO)
      next = this.checkHold(g, dataNet, next, engine);
    if (!withAsync) return next;
    if (preset !== ZERO) next = preset === ONE || next === ONE ? ONE : X;
    if (clear !== ZERO) next = clear === ONE || next === ZERO ? ZERO : X;
    return next;
  }

  /** The value captured at an active edge: the data, or the previous data if they changed too late. */
  private checkSetup(g: number, dataNet: number, next: number, engine: Engine): number {
    const time = this.now;
    const store = this.storeOf[g]!;
    const before = engine.valueBefore(dataNet);
    const now = before !== UNCHANGED && before !== engine.values[dataNet];
    const changed = now ? time : this.changedAt[dataNet]!;
    const stood = time - changed;
    if (stood >= this.setup[store]! || changed <= this.lastEdge[store]!) return next;
    this.violate({ kind: 'setup', store, time, short: this.setup[store]! - stood });
    const late = now ? before : this.valueBefore[dataNet]!;
    return late > 1 ? X : late;
  }

  /**
   * The value held after an active edge: the captured one, or the new data if the old ones went too early.
   */
  private checkHold(g: number, dataNet: number, state: number, engine: Engine): number {
    const time = this.now;
    const store = this.storeOf[g]!;
    const since = time - this.lastEdge[store]!;
    if (since <= 0 || since >= this.hold[store]!) return state;
    const before = engine.valueBefore(dataNet);
    if (before === UNCHANGED || before === engine.values[dataNet]) return state;
    this.violate({ kind: 'hold', store, time, short: this.hold[store]! - since });
    return engine.values[dataNet]! > 1 ? X : engine.values[dataNet]!;
  }

  private violate(violation: Violation): void {
    this.violationCount++;
    if (this.violations.length < MOST_VIOLATIONS) this.violations.push(violation);
  }
}
