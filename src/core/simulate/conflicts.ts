import type { Netlist } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';

/** A net on which a 0 and a 1 are driven against each other, and the parts that do. */
export interface Conflict {
  readonly net: number;
  readonly drivers: readonly string[];
}

/** The conflicts among these values of all nets. */
export function conflictsOf(netlist: Netlist, values: Uint8Array): Conflict[] {
  const found: Conflict[] = [];
  for (let g = 0; g < netlist.op.length; g++) {
    if (netlist.op[g] !== Primitive.WIRED) continue;
    const driving = new Set<number>();
    let seen = 0;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) {
      const v = values[netlist.ins[i]!]!;
      if (v > 1) continue;
      seen |= 1 << v;
      driving.add(netlist.ins[i]!);
    }
    if (seen === 3) found.push({ net: netlist.out[g]!, drivers: partsDriving(netlist, driving) });
  }
  return found;
}

function partsDriving(netlist: Netlist, nets: ReadonlySet<number>): string[] {
  const parts = new Set<string>();
  for (const s of netlist.sources) if (nets.has(s.net)) parts.add(s.part);
  for (let g = 0; g < netlist.op.length; g++)
    if (nets.has(netlist.out[g]!)) parts.add(netlist.partName(netlist.owner[g]!));
  return [...parts];
}
