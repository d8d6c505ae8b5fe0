import type { Point } from '../../circuit/geometry';
import type { Params, Part, PinEnd, Sheet, Wire } from '../../circuit/sheet';
import { UnionFind } from '../../netlist/union-find';
import { findKind, kindOf } from '../../parts/catalogue';
import { MOST_WIRES } from '../../parts/limits';
import { defaultParams, sharedParams } from '../../parts/params';
import type { PartKind, Port } from '../../parts/part-kind';
import { templateOf } from '../../parts/template';

/** A single-bit net of a module, or a constant. */
export type Bit = number;
export const C0: Bit = -1;
export const C1: Bit = -2;
export const CX: Bit = -3;
export const CZ: Bit = -4;

/** The parts to be made, in order. Pins hold plain numbers in one list: an object for each would cost more than all the rest. */
interface Tied {
  readonly parts: Map<string, Part>;
  /** The pins of each. */
  readonly ports: (readonly Port[])[];
  /** The bits of all pins of all parts, in the order of the parts and of their pins, the least significant first. */
  readonly bits: Bit[];
}

/** Marks the bits of a pin to which nothing is tied. */
const OPEN: Bit = -9;

/** One pin of a part as a whole, and how wide it is; all wires from it have this end. */
interface Bundle {
  readonly end: PinEnd;
  readonly width: number;
  /** The place of its bits in the list of tied bits; -1 for a slice or a join. */
  readonly at: number;
}

const bundleOf = (part: string, port: string, width: number, at = -1): Bundle => ({
  end: { part, port },
  width,
  at,
});
const nameOf = ({ end }: Bundle) => `${end.part}.${end.port}`;

/** Where a bit comes from: a bundle's bit. */
interface Origin {
  readonly bundle: Bundle;
  readonly bit: number;
}

/** Parts have no places yet, and wires no courses. */
const ORIGIN: Point = { x: 0, y: 0 };
const NO_CORNERS: readonly Point[] = [];

const GOOD_ID = /^[A-Za-z][A-Za-z0-9_-]{0,48}$/;

/**
 * Parts tied together by single-bit nets, which become a sheet with wires: where bits of several pins meet at
 * one, slices and joins are put between them.
 */
export class Cells {
  private readonly tied: Tied = { parts: new Map(), ports: [], bits: [] };
  private readonly joined: [Bit, Bit][] = [];
  /** For names that several parts would like: the number that may be free behind it. */
  private readonly numbers = new Map<string, number>();
  private bits = 0;
  /** The part that was added last. */
  lastId = '';

  constructor(
    private readonly id: string,
    private readonly name: string,
  ) {}

  /** New nets. */
  fresh(width: number): Bit[] {
    const bits = new Array<Bit>(width);
    for (let i = 0; i < width; i++) bits[i] = this.bits++;
    return bits;
  }

  /** Makes two bits one; a constant drives the other. */
  join(a: Bit, b: Bit): void {
    if (a >= 0 && b >= 0) this.joined.push([a, b]);
    else if (a >= 0) this.drive(a, b);
    else if (b >= 0) this.drive(b, a);
  }

  private drive(bit: Bit, constant: Bit): void {
    if (constant !== CZ) this.constant([bit], [constant]);
  }

  /** A part that has these values on its output, for bits that are wires. */
  private constant(bits: readonly Bit[], values: readonly Bit[]): void {
    for (let at = 0; at < bits.length; at += 32) {
      const some = values.slice(at, at + 32);
      const number = (of: Bit) => some.reduce((sum, v, i) => sum + (v === of ? 2 ** i : 0), 0);
      const params = { width: some.length, value: number(C1), unknown: number(CX) };
      this.add('constant', params, { Y: bits.slice(at, at + 32) });
    }
  }

  /** Adds a part. @param wish an id that it would like, as the file calls it; storage is labelled with it too. */
  add(
    kind: string,
    params: Params,
    pins: Readonly<Record<string, readonly Bit[]>>,
    wish = '',
    label = '',
    rank = 0,
  ): string {
    const entry = findKind(kind)!;
    const id = this.freeId(wish || kind);
    const part: Part = {
      id,
      // Not the word of the file: that is another string at each gate.
      kind: entry.kind,
      at: ORIGIN,
      turn: 0,
      label: label || (entry.stores ? wish : ''),
      rank,
      params: this.paramsOf(entry, params),
    };
    const { tied } = this;
    // Its id is taken before those of constants, which come before it.
    tied.parts.set(id, part);
    const { ports } = templateOf(part);
    let given = pins;
    for (const name in pins) {
      const bits = pins[name]!;
      const port = ports.find((p) => p.name === name);
      if (!port || port.width !== bits.length)
        throw new Error(`${kind} has no pin ${name} of ${bits.length}`);
      // Constants become parts of their own beside their readers.
      if (port.direction === 'in' && bits.some((bit) => bit < 0))
        given = { ...given, [name]: this.withConstants(bits) };
    }
    if (given !== pins) {
      tied.parts.delete(id);
      tied.parts.set(id, part);
    }
    this.lastId = id;
    tied.ports.push(ports);
    for (const { name, width } of ports) {
      const bits = given[name];
      for (let i = 0; i < width; i++) tied.bits.push(bits ? bits[i]! : OPEN);
    }
    return id;
  }

  /** For parameters that were given before, the same object: all parameters of the part. */
  private readonly known = new Map<PartKind, Map<Params, Params>>();

  /** All parameters of a part of which some are given. */
  private paramsOf(entry: PartKind, given: Params): Params {
    let known = this.known.get(entry);
    if (!known) {
      known = new Map();
      this.known.set(entry, known);
    }
    let params = known.get(given);
    if (!params) {
      params = sharedParams(entry, { ...defaultParams(entry), ...given });
      if (Object.isFrozen(given)) known.set(given, params);
    }
    return params;
  }

  /** How many parts there are so far. */
  get count(): number {
    return this.tied.parts.size;
  }

  /** Gives a part another delay. */
  setDelay(id: string, delay: Params): void {
    const { parts } = this.tied;
    const part = parts.get(id)!;
    parts.set(id, { ...part, params: sharedParams(kindOf(part), { ...part.params, ...delay }) });
  }

  /** The bits with new ones for the constants among them. */
  private withConstants(bits: readonly Bit[]): readonly Bit[] {
    const tied = bits.map((b) => (b >= 0 ? b : this.bits++));
    for (let from = 0; from < bits.length; from++) {
      if (bits[from]! >= 0 || bits[from] === CZ) continue;
      let to = from;
      while (to < bits.length && bits[to]! < 0 && bits[to] !== CZ) to++;
      this.constant(tied.slice(from, to), bits.slice(from, to));
      from = to;
    }
    return tied;
  }

  private freeId(wish: string): string {
    let base = wish;
    if (!GOOD_ID.test(wish)) {
      base = wish.replaceAll(/[^A-Za-z0-9_-]/g, '_').slice(0, 50);
      if (!/^[A-Za-z]/.test(base)) base = `g${base}`;
    }
    const { parts } = this.tied;
    let n = this.numbers.get(base) ?? (wish && !findKind(base) ? 0 : 1);
    let id = n === 0 ? base : base + n;
    while (parts.has(id)) id = base + ++n;
    if (n > 0) this.numbers.set(base, n + 1);
    return id;
  }

  /** The sheet; its parts have no places yet. */
  sheet(): Sheet {
    const sets = new UnionFind(this.bits);
    for (const [a, b] of this.joined) sets.union(a, b);
    return new Wiring(
      this.id,
      this.name,
      this.tied,
      this.bits,
      (bit) => sets.find(bit),
      (kind) => this.freeId(kind),
    ).sheet();
  }
}

class Wiring {
  private readonly wires = new Map<string, Wire>();
  /** The first driver of each net, to which readers are wired; and all of a net that has several. */
  private readonly firstOf: (Bundle | undefined)[];
  private readonly firstBit: Int32Array;
  private readonly several = new Map<Bit, Origin[]>();
  private readonly slices = new Map<string, Bundle>();
  private readonly joins = new Map<string, Bundle>();

  constructor(
    private readonly id: string,
    private readonly name: string,
    private readonly tied: Tied,
    bits: number,
    private readonly root: (bit: Bit) => Bit,
    private readonly freeId: (kind: string) => string,
  ) {
    this.firstOf = new Array<Bundle | undefined>(bits).fill(undefined);
    this.firstBit = new Int32Array(bits);
  }

  sheet(): Sheet {
    this.eachPin((part, { name, direction, width }, at) => {
      if (direction !== 'in') this.drives(bundleOf(part.id, name, width, at));
    });
    this.wireDrivers();
    this.eachPin((part, { name, direction, width }, at) => {
      if (direction !== 'in') return;
      const from = width === 1 ? this.bitOf(at) : this.source(at, width);
      if (from) this.wire(from, { part: part.id, port: name });
    });
    return { id: this.id, name: this.name, parts: this.tied.parts, wires: this.wires };
  }

  /** Visits the pins to which something is tied. @param each receives the place of their bits. */
  private eachPin(each: (part: Part, port: Port, at: number) => void): void {
    const { parts, ports, bits } = this.tied;
    let [i, at] = [0, 0];
    for (const part of parts.values()) {
      // Slices and joins, which are added on the way, are tied already.
      const own = ports[i++];
      if (!own) break;
      for (const port of own) {
        if (bits[at] !== OPEN) each(part, port, at);
        at += port.width;
      }
    }
  }

  private net(at: number): Bit {
    return this.root(this.tied.bits[at]!);
  }

  private drives(bundle: Bundle): void {
    for (let bit = 0; bit < bundle.width; bit++) {
      const net = this.net(bundle.at + bit);
      const first = this.firstOf[net];
      if (!first) {
        this.firstOf[net] = bundle;
        this.firstBit[net] = bit;
        continue;
      }
      const list = this.several.get(net) ?? [{ bundle: first, bit: this.firstBit[net]! }];
      list.push({ bundle, bit });
      this.several.set(net, list);
    }
  }

  private wire(from: Bundle, to: PinEnd): void {
    const id = `w${this.wires.size + 1}`;
    this.wires.set(id, { id, from: from.end, to, course: NO_CORNERS });
  }

  /** Where several drive a net, all of them are tied to the first. */
  private wireDrivers(): void {
    const done = new Set<string>();
    for (const list of this.several.values())
      for (const other of list.slice(1)) {
        const first = list[0]!;
        const whole =
          first.bit === other.bit &&
          first.bundle.width === other.bundle.width &&
          this.runsAlong(first.bundle, other.bundle);
        const key = [first, other].map((o) => `${nameOf(o.bundle)}${whole ? '' : o.bit}`).join();
        if (done.has(key)) continue;
        done.add(key);
        if (whole) this.wire(first.bundle, other.bundle.end);
        else
          this.wire(
            this.slice(first.bundle, first.bit, first.bit),
            this.slice(other.bundle, other.bit, other.bit).end,
          );
      }
  }

  /** Whether all bits of one pin meet those of the other in order. */
  private runsAlong(a: Bundle, b: Bundle): boolean {
    for (let bit = 0; bit < a.width; bit++) if (this.net(a.at + bit) !== this.net(b.at + bit)) return false;
    return true;
  }

  /** A pin that carries just one tied bit; null if the bit is undriven. */
  private bitOf(at: number): Bundle | null {
    const net = this.net(at);
    const bundle = this.firstOf[net];
    return bundle ? this.slice(bundle, this.firstBit[net]!, this.firstBit[net]!) : null;
  }

  /** A pin that carries the tied bits, the lowest first; null if none of them is driven. */
  private source(from: number, width: number): Bundle | null {
    const bits = Array.from({ length: width }, (_, i): Origin | undefined => {
      const net = this.net(from + i);
      const bundle = this.firstOf[net];
      return bundle && { bundle, bit: this.firstBit[net]! };
    });
    const runs: { from: Bundle | null; width: number }[] = [];
    for (let at = 0; at < bits.length; ) {
      const first = bits[at];
      let end = at + 1;
      while (
        end < bits.length &&
        bits[end]?.bundle === first?.bundle &&
        (first === undefined || bits[end]!.bit === first.bit + end - at)
      )
        end++;
      const width = end - at;
      runs.push({ from: first ? this.slice(first.bundle, first.bit, first.bit + width - 1) : null, width });
      at = end;
    }
    if (runs.length === 1) return runs[0]!.from;
    const key = runs.map((r) => (r.from ? nameOf(r.from) : `-${r.width}`)).join();
    const known = this.joins.get(key);
    if (known) return known;
    const widths = runs.map((r) => r.width).reverse();
    const id = this.place('join', { widths });
    for (const [i, { from }] of runs.entries()) if (from) this.wire(from, { part: id, port: `I${i}` });
    const made = bundleOf(id, 'Y', bits.length);
    this.joins.set(key, made);
    return made;
  }

  private slice(of: Bundle, low: number, high: number): Bundle {
    if (low === 0 && high === of.width - 1) return of;
    const key = `${nameOf(of)} ${high}:${low}`;
    const known = this.slices.get(key);
    if (known) return known;
    const id = this.place('slice', { width: of.width, high, low });
    this.wire(of, { part: id, port: 'A' });
    const made = bundleOf(id, 'Y', high - low + 1);
    this.slices.set(key, made);
    return made;
  }

  private place(kind: string, params: Params): string {
    const id = this.freeId(kind);
    const entry = findKind(kind)!;
    this.tied.parts.set(id, {
      id,
      kind,
      at: ORIGIN,
      turn: 0,
      label: '',
      rank: 0,
      params: sharedParams(entry, { ...defaultParams(entry), ...params }),
    });
    return id;
  }
}

/** Most bits of a vector. */
export const MOST_VECTOR = MOST_WIRES;
