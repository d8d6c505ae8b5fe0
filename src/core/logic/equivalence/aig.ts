import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { ONE } from '../../values/logic';
import { needed } from '../table/table-pieces';

/** A signal of a graph: twice its node, plus one if it is inverted. */
export type AigEdge = number;

export const AIG_FALSE: AigEdge = 0;
export const AIG_TRUE: AigEdge = 1;
export const negated = (edge: AigEdge): AigEdge => edge ^ 1;

/**
 * A circuit of ANDs and inverters (Kuehlmann and Krohm, 1997): node 0 is constant 0, then come the inputs,
 * then ANDs, each after its operands. Two ANDs with the same operands are one node.
 */
export class Aig {
  /** The operands of the ANDs, two edges a node, the smaller one first. */
  private reads = new Int32Array(1 << 10);
  private count = 1;
  private inputCount = 0;
  /** Open addressing: node by its edges. */
  private known = new Int32Array(1 << 11).fill(-1);

  get nodes(): number {
    return this.count;
  }

  /** Inputs are the nodes 1 to so many. */
  get inputs(): number {
    return this.inputCount;
  }

  isAnd(node: number): boolean {
    return node > this.inputCount;
  }

  first(node: number): AigEdge {
    return this.reads[2 * node]!;
  }

  second(node: number): AigEdge {
    return this.reads[2 * node + 1]!;
  }

  /** @throws RangeError once there are ANDs. */
  input(): AigEdge {
    if (this.count > this.inputCount + 1) throw new RangeError('inputs come before ANDs');
    this.inputCount++;
    return 2 * this.count++;
  }

  and(a: AigEdge, b: AigEdge): AigEdge {
    const [p, q] = a < b ? [a, b] : [b, a];
    if (p === AIG_FALSE || p === negated(q)) return AIG_FALSE;
    if (p === AIG_TRUE || p === q) return q;
    if (4 * this.count >= this.known.length) this.grow();
    let at = this.placeOf(p, q);
    for (let node = this.known[at]!; node !== -1; node = this.known[at]!) {
      if (this.reads[2 * node] === p && this.reads[2 * node + 1] === q) return 2 * node;
      at = (at + 1) & (this.known.length - 1);
    }
    const node = this.count++;
    this.reads[2 * node] = p;
    this.reads[2 * node + 1] = q;
    this.known[at] = node;
    return 2 * node;
  }

  or(a: AigEdge, b: AigEdge): AigEdge {
    return negated(this.and(negated(a), negated(b)));
  }

  xor(a: AigEdge, b: AigEdge): AigEdge {
    return this.or(this.and(a, negated(b)), this.and(negated(a), b));
  }

  private placeOf(a: AigEdge, b: AigEdge): number {
    return (Math.imul(a, 0x9e3779b1) ^ Math.imul(b, 0x85ebca6b)) & (this.known.length - 1);
  }

  private grow(): void {
    const reads = new Int32Array(2 * this.reads.length);
    reads.set(this.reads);
    this.reads = reads;
    this.known = new Int32Array(2 * this.known.length).fill(-1);
    for (let node = this.inputCount + 1; node < this.count; node++) {
      let at = this.placeOf(this.first(node), this.second(node));
      while (this.known[at] !== -1) at = (at + 1) & (this.known.length - 1);
      this.known[at] = node;
    }
  }
}

/**
 * Puts a netlist of plain gates, in which no net can be unknown, into a graph.
 * @param inputs the edge of each input column.
 * @returns the edge of each output column.
 */
export function intoAig(aig: Aig, netlist: Netlist, inputs: readonly AigEdge[]): AigEdge[] {
  const edges = new Int32Array(netlist.nets);
  for (const s of netlist.sources)
    if (s.kind === 'constant') edges[s.net] = s.value === ONE ? AIG_TRUE : AIG_FALSE;
  for (const [i, column] of netlist.inputColumns.entries()) edges[column.nets[0]] = inputs[i]!;
  for (const g of needed(netlist)) edges[netlist.out[g]!] = gateEdge(aig, netlist, g, edges);
  return netlist.outputColumns.map((column) => edges[column.nets[0]]!);
}

const INVERTS: ReadonlySet<number> = new Set([Primitive.NOT, Primitive.NAND, Primitive.NOR, Primitive.XNOR]);

function gateEdge(aig: Aig, netlist: Netlist, g: number, edges: Int32Array): AigEdge {
  const op = netlist.op[g]!;
  if (op === Primitive.CONST_0 || op === Primitive.CONST_1)
    return op === Primitive.CONST_1 ? AIG_TRUE : AIG_FALSE;
  const reads = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)].map(
    (net) => edges[net]!,
  );
  if (op === Primitive.MUX) {
    const [select, low, high] = reads as [AigEdge, AigEdge, AigEdge];
    return aig.or(aig.and(negated(select), low), aig.and(select, high));
  }
  const both =
    op === Primitive.AND || op === Primitive.NAND
      ? (a: AigEdge, b: AigEdge) => aig.and(a, b)
      : op === Primitive.OR || op === Primitive.NOR
        ? (a: AigEdge, b: AigEdge) => aig.or(a, b)
        : (a: AigEdge, b: AigEdge) => aig.xor(a, b);
  const all = reads.reduce(both);
  return INVERTS.has(op) ? negated(all) : all;
}
