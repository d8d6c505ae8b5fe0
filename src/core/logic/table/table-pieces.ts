import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { ONE } from '../../values/logic';

/** A compiled netlist as straight-line WebAssembly that derives 128 rows of its truth table at a time. */
export interface TableMachine {
  /** Whether all nets are 0 or 1 in every row, so that each takes one word and not two. */
  readonly binary: boolean;
  /** Blocks of 128 rows that its memory holds at once: a power of two. */
  readonly span: number;
  /** Blocks that lie together in memory and in the table. */
  readonly stretch: number;
  /**
   * Derives the next span, which begins after `first` blocks; it overwrites the previous one. Call it for each span in order.
   * @returns the block of the table with which each stretch of the memory begins.
   */
  run(first: number): readonly number[];
  /** The memory of an output: rows at 1, or at X or Z, or at Z; 32 rows a word. */
  column(output: number, what: 'ones' | 'unknown' | 'floating'): Uint32Array;
}

/** Rows in a block, which is one 128-bit word of each net. */
export const ROWS_A_BLOCK = 128;

/** Gates in one function: larger ones take their compiler too long. */
export const GATES_A_FUNCTION = 2000;

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
