import type { Params, Part, Sheet, Wire } from '../../circuit/sheet';
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

/** A part to be, its pins tied to bits, the least significant first. */
interface Cell {
  readonly part: Part;
  /** In the order of the part's pins. */
  readonly pins: readonly TiedPin[];
}

interface TiedPin {
  /** Its place among the pins of the part. */
  readonly at: number;
  readonly port: Port;
  readonly bits: readonly Bit[];
}

/** One pin of a part as a whole, and how wide it is. */
interface Bundle {
  readonly part: string;
  readonly port: string;
  readonly width: number;
}

/** Where a bit comes from: a bundle's bit. */
interface Origin {
  readonly bundle: Bundle;
  readonly bit: number;
}

const GOOD_ID = /^[A-Za-z][A-Za-z0-9_-]{0,48}$/;

/**
 * Parts tied together by single-bit nets, which become a sheet with wires: where bits of several pins meet at
 * one, slices and joins are put between them.
 */
export class Cells {
  private readonly cells: Cell[] = [];
  private readonly joined: [Bit, Bit][] = [];
  private readonly ids = new Set<string>();
  private readonly numbers = new Map<string, number>();
  private readonly places = new Map<string, number>();
  private bits = 0;

  constructor(
    private readonly id: string,
    private readonly name: string,
  ) {}

  /** New nets. */
  fresh(width: number): Bit[] {
    return Array.from({ length: width }, () => this.bits++);
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
      kind,
      at: { x: 0, y: 0 },
      turn: 0,
      label: label || (entry.stores ? wish : ''),
      rank,
      params: this.paramsOf(entry, params),
    };
    const { ports } = templateOf(part);
    const tied: TiedPin[] = [];
    for (const name in pins) {
      const bits = pins[name]!;
      const at = ports.findIndex((p) => p.name === name);
      const port = ports[at];
      if (!port || port.width !== bits.length)
        throw new Error(`${kind} has no pin ${name} of ${bits.length}`);
      // Constants become parts of their own beside their readers.
      tied.push({ at, port, bits: port.direction === 'in' ? this.withConstants(bits) : bits });
    }
    this.places.set(id, this.cells.length);
    this.cells.push({ part, pins: tied.sort((a, b) => a.at - b.at) });
    return id;
  }

  private readonly known = new Map<string, Params>();

  /** All parameters of a part of which some are given. */
  private paramsOf(entry: PartKind, given: Params): Params {
    const key = entry.kind + JSON.stringify(given);
    const known = this.known.get(key) ?? sharedParams(entry, { ...defaultParams(entry), ...given });
    this.known.set(key, known);
    return known;
  }

  /** How many parts there are so far. */
  get count(): number {
    return this.cells.length;
  }

  /** The part that was added last. */
  get lastId(): string {
    return this.cells.at(-1)!.part.id;
  }

  /** Gives a part another delay. */
  setDelay(id: string, delay: Params): void {
    const at = this.places.get(id)!;
    const cell = this.cells[at]!;
    const params = sharedParams(kindOf(cell.part), { ...cell.part.params, ...delay });
    this.cells[at] = { ...cell, part: { ...cell.part, params } };
  }

  private withConstants(bits: readonly Bit[]): readonly Bit[] {
    if (bits.every((b) => b >= 0)) return bits;
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
    let id = base;
    let n = this.numbers.get(base) ?? (wish && !findKind(base) ? 0 : 1);
    do id = n === 0 ? base : base + n;
    while (this.ids.has(id) && n++ >= 0);
    this.numbers.set(base, n + 1);
    this.ids.add(id);
    return id;
  }

  /** The sheet; its parts have no places yet. */
  sheet(): Sheet {
    const sets = new UnionFind(this.bits);
    for (const [a, b] of this.joined) sets.union(a, b);
    return new Wiring(
      this.id,
      this.name,
      this.cells,
      this.bits,
      (bit) => sets.find(bit),
      (wish) => this.freeId(wish),
    ).sheet();
  }
}

class Wiring {
  private readonly parts = new Map<string, Part>();
  private readonly wires = new Map<string, Wire>();
  /** The first driver of each net, to which readers are wired; and all of a net that has several. */
  private readonly firstOf: (Origin | undefined)[];
  private readonly several = new Map<Bit, Origin[]>();
  /** The nets of each pin that drives, the least significant bit first. */
  private readonly netsOf = new Map<Bundle, readonly Bit[]>();
  private readonly slices = new Map<string, Bundle>();
  private readonly joins = new Map<string, Bundle>();

  constructor(
    private readonly id: string,
    private readonly name: string,
    private readonly cells: readonly Cell[],
    bits: number,
    private readonly root: (bit: Bit) => Bit,
    private readonly freeId: (wish: string) => string,
  ) {
    this.firstOf = new Array<Origin | undefined>(bits).fill(undefined);
  }

  sheet(): Sheet {
    for (const { part } of this.cells) this.parts.set(part.id, part);
    for (const { part, pins } of this.cells)
      for (const { port, bits } of pins) {
        if (port.direction === 'in') continue;
        const bundle = { part: part.id, port: port.name, width: port.width };
        const nets = bits.map(this.root);
        for (let bit = 0; bit < nets.length; bit++) {
          const net = nets[bit]!;
          const origin = { bundle, bit };
          const first = this.firstOf[net];
          if (!first) this.firstOf[net] = origin;
          else {
            const list = this.several.get(net);
            if (list) list.push(origin);
            else this.several.set(net, [first, origin]);
          }
        }
        this.netsOf.set(bundle, nets);
      }
    this.wireDrivers();
    for (const { part, pins } of this.cells)
      for (const { port, bits } of pins) {
        if (port.direction !== 'in') continue;
        const from = this.source(bits.map((b) => this.firstOf[this.root(b)]));
        if (from) this.wire(from, { part: part.id, port: port.name, width: port.width });
      }
    return { id: this.id, name: this.name, parts: this.parts, wires: this.wires };
  }

  private wire(from: Bundle, to: Bundle): void {
    const id = `w${this.wires.size + 1}`;
    const end = ({ part, port }: Bundle) => ({ part, port });
    this.wires.set(id, { id, from: end(from), to: end(to), course: [] });
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
        const key = [first, other]
          .map((o) => `${o.bundle.part}.${o.bundle.port}${whole ? '' : o.bit}`)
          .join();
        if (done.has(key)) continue;
        done.add(key);
        if (whole) this.wire(first.bundle, other.bundle);
        else
          this.wire(
            this.slice(first.bundle, first.bit, first.bit),
            this.slice(other.bundle, other.bit, other.bit),
          );
      }
  }

  /** Whether all bits of one pin meet those of the other in order. */
  private runsAlong(a: Bundle, b: Bundle): boolean {
    const [first, other] = [this.netsOf.get(a)!, this.netsOf.get(b)!];
    return first.every((net, i) => net === other[i]);
  }

  /** A pin that has these bits, the lowest first; null where nobody drives any of them. */
  private source(bits: readonly (Origin | undefined)[]): Bundle | null {
    if (bits.length === 1 && bits[0]?.bundle.width === 1) return bits[0].bundle;
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
    const key = runs.map((r) => (r.from ? `${r.from.part}.${r.from.port}` : `-${r.width}`)).join();
    const known = this.joins.get(key);
    if (known) return known;
    const widths = runs.map((r) => r.width).reverse();
    const id = this.place('join', { widths });
    for (const [i, { from, width }] of runs.entries())
      if (from) this.wire(from, { part: id, port: `I${i}`, width });
    const made = { part: id, port: 'Y', width: bits.length };
    this.joins.set(key, made);
    return made;
  }

  private slice(of: Bundle, low: number, high: number): Bundle {
    if (low === 0 && high === of.width - 1) return of;
    const key = `${of.part}.${of.port} ${high}:${low}`;
    const known = this.slices.get(key);
    if (known) return known;
    const id = this.place('slice', { width: of.width, high, low });
    this.wire(of, { part: id, port: 'A', width: of.width });
    const made = { part: id, port: 'Y', width: high - low + 1 };
    this.slices.set(key, made);
    return made;
  }

  private place(kind: string, params: Params): string {
    const id = this.freeId(kind);
    const entry = findKind(kind)!;
    this.parts.set(id, {
      id,
      kind,
      at: { x: 0, y: 0 },
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
