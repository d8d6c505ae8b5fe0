import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';

/** 1 for each net from which gates, but no storage, lead to the clock of storage or to the enable of a latch. */
export function clockNets({ nets, op, out, inStart, ins, storage }: Netlist): Uint8Array {
  const leads = new Uint8Array(nets);
  const gateOf = new Int32Array(nets).fill(-1);
  for (let g = 0; g < op.length; g++) if (op[g]! < Primitive.DFF_RISE) gateOf[out[g]!] = g;
  const ahead: number[] = [];
  const meet = (net: number) => {
    if (leads[net] === 0) ahead.push(net);
    leads[net] = 1;
  };
  for (const g of storage) meet(ins[inStart[g]! + 1]!);
  for (let net = ahead.pop(); net !== undefined; net = ahead.pop()) {
    const g = gateOf[net]!;
    if (g !== -1) for (let k = inStart[g]!; k < inStart[g + 1]!; k++) meet(ins[k]!);
  }
  return leads;
}
