import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { type Logic, ONE, X, ZERO } from '../../values/logic';
import { Code, type WasmFunction } from '../../values/wasm/module';

/** The values of 32 rows at the five lowest inputs, and the lanes that are 1 at the next two. */
const WITHIN = [0xaaaaaaaa, 0xcccccccc, 0xf0f0f0f0, 0xff00ff00, 0xffff0000];
const LANES = [
  [0, -1, 0, -1],
  [0, 0, -1, -1],
] as const;
const ALL: readonly [number, number, number, number] = [-1, -1, -1, -1];
const NONE: readonly [number, number, number, number] = [0, 0, 0, 0];

/** Bytes of a 128-bit word. */
export const WORD = 16;

/** What a function does last, besides leaving its words to others. */
export type Ending =
  /** Writes the columns of all outputs; `columnAt` is the first byte of one, by its kind: rows at 1, at X or Z, at Z. */
  | { columnAt(output: number, kind: number): number }
  /** Adds the ones of some nets to four sums of 32 bits each in memory; only where all nets are 0 or 1. */
  | { readonly counts: readonly { readonly net: number; readonly at: number }[] }
  | null;

/** The place of each input in the number of a row, by its net: usually the last one counts fastest. */
export const rowBits = ({ inputColumns }: Netlist): ReadonlyMap<number, number> =>
  new Map(inputColumns.map((c, i) => [c.nets[0], inputColumns.length - 1 - i]));

/**
 * Writes one function of the machine, from a piece of the circuit: parameter 0 is the number of the block, parameter 1
 * where its words go in the columns.
 */
export class TableFunction {
  private readonly code = new Code();
  private readonly local = new Map<number, number>();
  /** Nets whose local holds the opposite. */
  private readonly opposite = new Set<number>();
  private locals = 0;
  private readonly constants = new Map<number, Logic>();

  constructor(
    private readonly netlist: Netlist,
    private readonly binary: boolean,
    private readonly slot: Int32Array,
    private readonly inputAt: ReadonlyMap<number, number>,
    private readonly ending: Ending,
  ) {
    for (const s of netlist.sources)
      if (!this.inputAt.has(s.net)) this.constants.set(s.net, s.kind === 'constant' ? s.value : ZERO);
  }

  /** Plain loops over the gates: this runs once before each table, while the code is still interpreted. */
  write(gates: readonly number[]): WasmFunction {
    const { netlist, code } = this;
    for (let k = 0; k < gates.length; k++) {
      const g = gates[k]!;
      const inputs = netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!);
      for (let i = 0; i < inputs.length; i++) this.fetch(inputs[i]!);
      const out = netlist.out[g]!;
      if (this.binary) this.single(netlist.op[g]!, inputs, out);
      else this.double(netlist.op[g]!, inputs, this.newLocal(out));
      this.keep(out);
    }
    const { ending } = this;
    if (ending && 'counts' in ending) for (const { net, at } of ending.counts) this.count(net, at);
    else if (ending)
      for (const [i, c] of netlist.outputColumns.entries()) {
        this.fetch(c.nets[0]);
        this.writeColumn(c.nets[0], (kind) => ending.columnAt(i, kind));
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
    // An undriven net can also be neither: Z.
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

  private count(net: number, to: number): void {
    this.fetch(net);
    const { code } = this;
    code.i32(0).i32(0).load(to).localGet(this.local.get(net)!);
    if (this.opposite.has(net)) code.not();
    code.popcnt8().pairs8().pairs16().add32().store(to);
  }

  private writeColumn(net: number, to: (kind: number) => number): void {
    const { code } = this;
    const at = this.local.get(net)!;
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
   * One word a net. A local may hold the inverse of its net, so no bubble costs an instruction: its readers
   * take the inversion into account.
   */
  private single(op: number, inputs: Int32Array, net: number): void {
    const { code } = this;
    let opposite = inverts(op);
    if (op === Primitive.CONST_0 || op === Primitive.CONST_1)
      code.lanes(op === Primitive.CONST_1 ? ALL : NONE);
    else if (op === Primitive.MUX) {
      const [s, a, b] = inputs as unknown as [number, number, number];
      const [from0, from1] = this.opposite.has(s) ? [b, a] : [a, b];
      opposite = this.opposite.has(from0);
      code.localGet(this.local.get(from1)!);
      if (this.opposite.has(from1) !== opposite) code.not();
      code.localGet(this.local.get(from0)!).localGet(this.local.get(s)!).select();
    } else {
      const first = inputs[0]!;
      code.localGet(this.local.get(first)!);
      let sofar = this.opposite.has(first);
      for (let i = 1; i < inputs.length; i++) sofar = this.combine(op, sofar, inputs[i]!);
      opposite = opposite !== sofar;
    }
    code.localSet(this.newLocal(net));
    if (opposite) this.opposite.add(net);
  }

  /**
   * Combines one more input with the value on the stack, which may be inverted.
   * @returns whether the result is inverted.
   */
  private combine(op: number, sofar: boolean, other: number): boolean {
    const { code } = this;
    const at = this.local.get(other)!;
    const opposite = this.opposite.has(other);
    if (op === Primitive.XOR || op === Primitive.XNOR) {
      code.localGet(at).xor();
      return sofar !== opposite;
    }
    // By De Morgan an OR is the opposite of an AND of opposites.
    const isOr = op === Primitive.OR || op === Primitive.NOR;
    const p = sofar !== isOr;
    const q = opposite !== isOr;
    if (p && !q) {
      const was = this.scratch();
      code.localSet(was).localGet(at).localGet(was).andNot();
    } else {
      code.localGet(at);
      if (!p && !q) code.and();
      else if (p && q) code.or();
      else code.andNot();
    }
    return (p && q) !== isOr;
  }

  /** `may` be 1 in local `at`, `may` be 0 in the next one. At the input of a gate Z counts as X: both. */
  private double(op: number, inputs: Int32Array, out: number): void {
    const { code } = this;
    const rails = Array.from(inputs, (net) => this.local.get(net)!);
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
