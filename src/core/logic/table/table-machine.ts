import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { ONE } from '../../values/logic';
import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import { rowBits, TableFunction, WORD } from './table-function';

/** Rows in one 128-bit word. */
const ROWS = 128;
/** Bytes of results that the machine's memory holds at most; larger tables are derived in several spans. */
const MOST_BYTES = 1 << 28;
/** Gates in one function: larger ones take their compiler too long. */
export const GATES_A_FUNCTION = 2000;
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

/**
 * Gives a slot in memory to each net that another piece than its own reads.
 * @param read nets that a piece reads besides.
 * @param slot by net, -1 for none.
 * @returns how many there are.
 */
export function shareNets(
  netlist: Netlist,
  pieces: readonly (readonly number[])[],
  read: readonly { readonly net: number; readonly piece: number }[],
  slot: Int32Array,
): number {
  let slots = 0;
  const home = new Int32Array(netlist.nets).fill(-1);
  for (const [p, piece] of pieces.entries()) for (const g of piece) home[netlist.out[g]!] = p;
  const shared = (net: number, reader: number) => {
    if (home[net] !== -1 && home[net] !== reader && slot[net] === -1) slot[net] = slots++;
  };
  for (const [p, piece] of pieces.entries())
    for (const g of piece)
      for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) shared(netlist.ins[i]!, p);
  for (const { net, piece } of read) shared(net, piece);
  return slots;
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
    // The outputs are written by the last.
    const outputs = netlist.outputColumns.map((c) => ({ net: c.nets[0], piece: last }));
    this.slots = shareNets(netlist, pieces, outputs, this.slot);
    // Addresses are fixed only now that the number of slots is known.
    const functions = pieces.map((piece, p) =>
      new TableFunction(netlist, this.binary, this.slot, rowBits(netlist), p === last ? this : null).write(
        piece,
      ),
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
