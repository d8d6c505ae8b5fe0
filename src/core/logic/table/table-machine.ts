import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { type Logic, ONE, X, ZERO } from '../../values/logic';
import { Code, moduleOf, type WasmFunction } from './wasm';

/** Rows in one 128-bit word. */
const ROWS = 128;
/** Bytes of results that the machine's memory holds at most; larger tables are derived in several spans. */
const MOST_BYTES = 1 << 28;
/** Gates in one function: larger ones take their compiler too long. */
const GATES_A_FUNCTION = 2000;
const WORD = 16;
const PAGE = 65_536;

/** A compiled netlist as straight-line WebAssembly that derives 128 rows of its truth table at a time. */
export interface TableMachine {
  /** Whether all nets are 0 or 1 in every row, so that each takes one word and not two. */
  readonly binary: boolean;
  /** Blocks of 128 rows that its memory holds at once. */
  readonly span: number;
  /** Derives blocks from row 128 * `first` on into the memory from block `at` on. */
  run(first: number, blocks: number, at: number): void;
  /** The memory of an output: rows at 1, or at X or Z, or at Z; 32 rows a word. */
  column(output: number, what: 'ones' | 'unknown' | 'floating'): Uint32Array;
}

/** Gates that some output depends on, in order. */
export function needed(netlist: Netlist): number[] {
  const wanted = new Uint8Array(netlist.nets);
  for (const c of netlist.outputColumns) wanted[c.nets[0]] = 1;
  const gates: number[] = [];
  for (let k = netlist.order.length - 1; k >= 0; k--) {
    const g = netlist.order[k]!;
    if (!wanted[netlist.out[g]!]) continue;
    gates.push(g);
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) wanted[netlist.ins[i]!] = 1;
  }
  return gates.reverse();
}

/** Whether no net that an output depends on can be anything but 0 or 1. */
export function isBinary(netlist: Netlist, gates: readonly number[]): boolean {
  const driven = new Uint8Array(netlist.nets);
  for (const s of netlist.sources) if (s.kind !== 'constant' || s.value <= ONE) driven[s.net] = 1;
  for (const g of gates) {
    const op = netlist.op[g]!;
    if (op > Primitive.XNOR && op !== Primitive.MUX && op !== Primitive.CONST_0 && op !== Primitive.CONST_1)
      return false;
    driven[netlist.out[g]!] = 1;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++)
      if (!driven[netlist.ins[i]!]) return false;
  }
  return netlist.outputColumns.every((c) => driven[c.nets[0]]);
}

/** Whether this machine has WebAssembly with 128-bit words. */
export function hasWideWords(): boolean {
  if (typeof WebAssembly === 'undefined') return false;
  const code = new Code().i32(0).lanes([0, 0, 0, 0]).store(0);
  return WebAssembly.validate(moduleOf([{ parameters: 0, i32Locals: 0, v128Locals: 0, code }], 1));
}

/**
 * Makes the machine of a netlist without storage and loops; see `whyNoTable`.
 * @param most bytes of results that are held at once.
 */
export function tableMachine(netlist: Netlist, most = MOST_BYTES): TableMachine {
  const gates = needed(netlist);
  const binary = isBinary(netlist, gates);
  const blocks = Math.max(1, 2 ** netlist.inputColumns.length / ROWS);
  const columns = netlist.outputColumns.length * (binary ? 1 : 3);
  const span = Math.min(blocks, Math.max(1, Math.floor(most / (columns * WORD))));
  const writer = new Writer(netlist, gates, binary, span);
  const functions = writer.functions();
  const pages = Math.ceil(writer.memoryBytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages });
  const instance = new WebAssembly.Instance(new WebAssembly.Module(moduleOf(functions, pages)), {
    env: { memory },
  });
  const run = instance.exports.run as (first: number, end: number, at: number) => void;
  const kinds = { ones: 0, unknown: 1, floating: 2 };
  return {
    binary,
    span,
    run: (first, blocks, at) => run(first, first + blocks, at * WORD),
    column: (output, what) =>
      new Uint32Array(memory.buffer, writer.columnAt(output, kinds[what]), span * (ROWS / 32)),
  };
}

class Writer {
  /** Where a net's words lie in memory, for nets that more than one function uses; one or two words each. */
  private readonly slot: Int32Array;
  private slots = 0;
  private readonly rails: number;

  constructor(
    private readonly netlist: Netlist,
    private readonly gates: readonly number[],
    private readonly binary: boolean,
    private readonly span: number,
  ) {
    this.rails = binary ? 1 : 2;
    this.slot = new Int32Array(netlist.nets).fill(-1);
  }

  private get slotBytes(): number {
    return this.slots * this.rails * WORD;
  }

  get memoryBytes(): number {
    return this.slotBytes + this.netlist.outputColumns.length * (this.binary ? 1 : 3) * this.span * WORD;
  }

  columnAt(output: number, kind: number): number {
    return this.slotBytes + (output * (this.binary ? 1 : 3) + kind) * this.span * WORD;
  }

  /** Pieces of the circuit one after the other, and last the loop over the blocks that calls them. */
  functions(): WasmFunction[] {
    const { netlist, gates } = this;
    const pieces: number[][] = [];
    for (let at = 0; at < gates.length; at += GATES_A_FUNCTION)
      pieces.push(gates.slice(at, at + GATES_A_FUNCTION));
    if (pieces.length === 0) pieces.push([]);
    const last = pieces.length - 1;
    // A net that another piece than its own reads goes through memory; the outputs are written by the last.
    const home = new Int32Array(netlist.nets).fill(-1);
    for (const [p, piece] of pieces.entries()) for (const g of piece) home[netlist.out[g]!] = p;
    const shared = (net: number, reader: number) => {
      if (home[net] !== -1 && home[net] !== reader && this.slot[net] === -1) this.slot[net] = this.slots++;
    };
    for (const [p, piece] of pieces.entries())
      for (const g of piece)
        for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) shared(netlist.ins[i]!, p);
    for (const c of netlist.outputColumns) shared(c.nets[0], last);
    // Addresses are fixed only now that the number of slots is known.
    const functions = pieces.map((piece, p) =>
      new Piece(netlist, this.binary, this.slot, this, p === last).write(piece),
    );
    const loop = new Code();
    loop.loop(() => {
      for (let p = 0; p < pieces.length; p++) loop.localGet(0).localGet(2).call(p);
      loop.localGet(2).i32(WORD).i32Add().localSet(2);
      loop.localGet(0).i32(1).i32Add().localSet(0).localGet(0).localGet(1).i32LtU();
    });
    return [...functions, { parameters: 3, i32Locals: 0, v128Locals: 0, code: loop }];
  }
}

/** What 32 rows hold at the five lowest inputs, and which lanes are 1 at the next two. */
const WITHIN = [0xaaaaaaaa, 0xcccccccc, 0xf0f0f0f0, 0xff00ff00, 0xffff0000];
const LANES = [
  [0, -1, 0, -1],
  [0, 0, -1, -1],
] as const;
const ALL: readonly [number, number, number, number] = [-1, -1, -1, -1];
const NONE: readonly [number, number, number, number] = [0, 0, 0, 0];

/** Where a net's word is, and whether it is the opposite. */
interface Held {
  readonly at: number;
  readonly opposite: boolean;
}

/** One function: parameter 0 is the number of the block, parameter 1 where its words go in the columns. */
class Piece {
  private readonly code = new Code();
  private readonly local = new Map<number, number>();
  /** Nets whose local holds the opposite. */
  private readonly opposite = new Set<number>();
  private locals = 0;
  private readonly inputAt = new Map<number, number>();
  private readonly constants = new Map<number, Logic>();

  constructor(
    private readonly netlist: Netlist,
    private readonly binary: boolean,
    private readonly slot: Int32Array,
    private readonly writer: Writer,
    private readonly isLast: boolean,
  ) {
    const { inputColumns } = netlist;
    for (const [i, c] of inputColumns.entries()) this.inputAt.set(c.nets[0], inputColumns.length - 1 - i);
    for (const s of netlist.sources)
      if (!this.inputAt.has(s.net)) this.constants.set(s.net, s.kind === 'constant' ? s.value : ZERO);
  }

  write(gates: readonly number[]): WasmFunction {
    const { netlist, code } = this;
    for (const g of gates) {
      const inputs = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)];
      for (const net of inputs) this.fetch(net);
      const out = netlist.out[g]!;
      if (this.binary) this.single(netlist.op[g]!, inputs, out);
      else this.double(netlist.op[g]!, inputs, this.newLocal(out));
      this.keep(out);
    }
    if (this.isLast)
      for (const [i, c] of netlist.outputColumns.entries()) {
        this.fetch(c.nets[0]);
        this.writeColumn(i, c.nets[0]);
      }
    return { parameters: 2, i32Locals: 0, v128Locals: this.locals, code };
  }

  private newLocal(net: number): number {
    const at = 2 + this.locals;
    this.locals += this.binary ? 1 : 2;
    this.local.set(net, at);
    return at;
  }

  /** Has a net in a local: made of the row number, a constant, or loaded. */
  private fetch(net: number): void {
    if (this.local.has(net)) return;
    const { code } = this;
    const bit = this.inputAt.get(net);
    const at = this.newLocal(net);
    if (bit !== undefined) {
      if (bit < 5) code.lanes([WITHIN[bit]!, WITHIN[bit]!, WITHIN[bit]!, WITHIN[bit]!]);
      else if (bit < 7) code.lanes(LANES[bit - 5]!);
      else
        code
          .i32(0)
          .localGet(0)
          .i32(bit - 7)
          .i32ShrU()
          .i32(1)
          .i32And()
          .i32Sub()
          .splat();
      code.localSet(at);
      if (!this.binary)
        code
          .localGet(at)
          .not()
          .localSet(at + 1);
      return;
    }
    const constant = this.constants.get(net);
    const slot = this.slot[net]!;
    if (constant === undefined && slot !== -1) {
      for (let rail = 0; rail < (this.binary ? 1 : 2); rail++)
        code
          .i32(0)
          .load((slot * (this.binary ? 1 : 2) + rail) * WORD)
          .localSet(at + rail);
      return;
    }
    // What nobody drives may be neither: Z.
    code.lanes(constant === ONE || constant === X ? ALL : NONE).localSet(at);
    if (!this.binary) code.lanes(constant === ZERO || constant === X ? ALL : NONE).localSet(at + 1);
  }

  private keep(net: number): void {
    const slot = this.slot[net]!;
    if (slot === -1) return;
    const at = this.local.get(net)!;
    const rails = this.binary ? 1 : 2;
    for (let rail = 0; rail < rails; rail++) {
      this.code.i32(0).localGet(at + rail);
      if (this.opposite.has(net)) this.code.not();
      this.code.store((slot * rails + rail) * WORD);
    }
  }

  private writeColumn(output: number, net: number): void {
    const { code } = this;
    const at = this.local.get(net)!;
    const to = (kind: number) => this.writer.columnAt(output, kind);
    code.localGet(1).localGet(at);
    if (!this.binary) code.localGet(at + 1).andNot();
    else if (this.opposite.has(net)) code.not();
    code.store(to(0));
    if (this.binary) return;
    code
      .localGet(1)
      .localGet(at)
      .localGet(at + 1)
      .xor()
      .not()
      .store(to(1));
    code
      .localGet(1)
      .localGet(at)
      .localGet(at + 1)
      .or()
      .not()
      .store(to(2));
  }

  /**
   * One word a net. A local may hold the opposite of its net (`inverted`), so that no gate costs an instruction
   * for its bubble: what reads it takes that into account.
   */
  /**
   * One word a net. A local may hold the opposite of its net, so that no bubble costs an instruction: what reads
   * it takes that into account.
   */
  private single(op: number, inputs: readonly number[], net: number): void {
    const { code } = this;
    const read = (from: number): Held => ({ at: this.local.get(from)!, opposite: this.opposite.has(from) });
    let opposite = inverts(op);
    if (op === Primitive.CONST_0 || op === Primitive.CONST_1)
      code.lanes(op === Primitive.CONST_1 ? ALL : NONE);
    else if (op === Primitive.MUX) {
      const [s, a, b] = inputs.map(read) as [Held, Held, Held];
      const [at0, at1] = s.opposite ? [b, a] : [a, b];
      code.localGet(at1.at);
      if (at1.opposite !== at0.opposite) code.not();
      code.localGet(at0.at).localGet(s.at).select();
      opposite = at0.opposite;
    } else {
      const [first, ...others] = inputs.map(read) as [Held, ...Held[]];
      code.localGet(first.at);
      let sofar = first.opposite;
      for (const other of others) sofar = this.combine(op, sofar, other);
      opposite = opposite !== sofar;
    }
    code.localSet(this.newLocal(net));
    if (opposite) this.opposite.add(net);
  }

  /** Takes one more input to what is on the stack, which may be the opposite. @returns whether the result is. */
  private combine(op: number, sofar: boolean, other: Held): boolean {
    const { code } = this;
    if (op === Primitive.XOR || op === Primitive.XNOR) {
      code.localGet(other.at).xor();
      return sofar !== other.opposite;
    }
    // By De Morgan an OR is the opposite of an AND of opposites.
    const isOr = op === Primitive.OR || op === Primitive.NOR;
    const [p, q] = [sofar !== isOr, other.opposite !== isOr];
    if (p && !q) {
      const was = this.scratch();
      code.localSet(was).localGet(other.at).localGet(was).andNot();
    } else {
      code.localGet(other.at);
      if (!p && !q) code.and();
      else if (p && q) code.or();
      else code.andNot();
    }
    return (p && q) !== isOr;
  }

  /** `may` be 1 in local `at`, `may` be 0 in the next one. At the input of a gate Z counts as X: both. */
  private double(op: number, inputs: readonly number[], out: number): void {
    const { code } = this;
    const rails = inputs.map((net) => this.local.get(net)!);
    const [q1, q0] = inverts(op) ? [out + 1, out] : [out, out + 1];
    switch (op) {
      case Primitive.CONST_0:
      case Primitive.CONST_1:
      case Primitive.CONST_X:
        code.lanes(op === Primitive.CONST_0 ? NONE : ALL).localSet(out);
        code.lanes(op === Primitive.CONST_1 ? NONE : ALL).localSet(out + 1);
        return;
      case Primitive.WIRED:
        for (const rail of [0, 1]) {
          code.lanes(NONE);
          for (const at of rails) code.localGet(at + rail).or();
          code.localSet(out + rail);
        }
        return;
      case Primitive.PULL_UP:
      case Primitive.PULL_DOWN: {
        const at = rails[0]!;
        const pulled = op === Primitive.PULL_UP ? 0 : 1;
        code
          .localGet(at + pulled)
          .localGet(at)
          .localGet(at + 1)
          .or()
          .not()
          .or()
          .localSet(out + pulled);
        code.localGet(at + 1 - pulled).localSet(out + 1 - pulled);
        return;
      }
      case Primitive.TRI: {
        const [d, e] = [this.certain(rails[0]!), this.certain(rails[1]!)];
        for (const rail of [0, 1])
          code
            .localGet(d + rail)
            .localGet(e + 1)
            .or()
            .localGet(e)
            .and()
            .localSet(out + rail);
        return;
      }
      case Primitive.MUX: {
        const [s, a, b] = rails.map((r) => this.certain(r)) as [number, number, number];
        for (const rail of [0, 1])
          code
            .localGet(s + 1)
            .localGet(a + rail)
            .and()
            .localGet(s)
            .localGet(b + rail)
            .and()
            .or()
            .localSet(out + rail);
        return;
      }
    }
    const certain = rails.map((r) => this.certain(r));
    let at = certain[0]!;
    code
      .localGet(at)
      .localSet(q1)
      .localGet(at + 1)
      .localSet(q0);
    for (const next of certain.slice(1)) {
      at = next;
      if (op === Primitive.XOR || op === Primitive.XNOR) {
        const was = this.scratch();
        code.localGet(q1).localSet(was);
        code
          .localGet(q1)
          .localGet(at + 1)
          .and()
          .localGet(q0)
          .localGet(at)
          .and()
          .or()
          .localSet(q1);
        code
          .localGet(was)
          .localGet(at)
          .and()
          .localGet(q0)
          .localGet(at + 1)
          .and()
          .or()
          .localSet(q0);
        continue;
      }
      const both = op === Primitive.AND || op === Primitive.NAND;
      code.localGet(q1).localGet(at);
      if (both) code.and();
      else code.or();
      code
        .localSet(q1)
        .localGet(q0)
        .localGet(at + 1);
      if (both) code.or();
      else code.and();
      code.localSet(q0);
    }
  }

  /** The same net with Z made X, in two locals of their own. */
  private certain(at: number): number {
    const found = this.madeCertain.get(at);
    if (found !== undefined) return found;
    const to = 2 + this.locals;
    this.locals += 2;
    const { code } = this;
    const none = this.scratch();
    code
      .localGet(at)
      .localGet(at + 1)
      .or()
      .not()
      .localSet(none);
    code.localGet(at).localGet(none).or().localSet(to);
    code
      .localGet(at + 1)
      .localGet(none)
      .or()
      .localSet(to + 1);
    this.madeCertain.set(at, to);
    return to;
  }
  private readonly madeCertain = new Map<number, number>();

  private scratch(): number {
    this.scratchLocal ??= 2 + this.locals++;
    return this.scratchLocal;
  }
  private scratchLocal: number | null = null;
}

function inverts(op: number): boolean {
  return op === Primitive.NOT || op === Primitive.NAND || op === Primitive.NOR || op === Primitive.XNOR;
}
