import { type End, isPinEnd, type Sheet } from '../circuit/lesson';
import { UnionFind } from '../netlist/union-find';

/** Which wires and pins of a sheet hang together, by stated connections alone (nothing is compiled). */
export interface WireNets {
  /** A number a net; undefined for a pin without wires. */
  ofEnd(end: End): number | undefined;
  ofWire(id: string): number | undefined;
}

const pinKey = (part: string, port: string) => `${part}\n${port}`;

export function wireNets(sheet: Sheet): WireNets {
  const nodes = new Map<string, number>();
  const node = (key: string) => {
    let n = nodes.get(key);
    if (n === undefined) {
      n = nodes.size;
      nodes.set(key, n);
    }
    return n;
  };
  const joins: [number, number][] = [];
  for (const wire of sheet.wires.values())
    for (const end of [wire.from, wire.to])
      joins.push([node(wire.id), node(isPinEnd(end) ? pinKey(end.part, end.port) : end.wire)]);
  const sets = new UnionFind(nodes.size);
  for (const [a, b] of joins) sets.union(a, b);
  const at = (key: string) => {
    const n = nodes.get(key);
    return n === undefined ? undefined : sets.find(n);
  };
  return {
    ofEnd: (end) => at(isPinEnd(end) ? pinKey(end.part, end.port) : end.wire),
    ofWire: at,
  };
}
