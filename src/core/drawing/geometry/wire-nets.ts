import { type End, isPinEnd, type Sheet, type Wire } from '../../circuit/sheet';
import { UnionFind } from '../../netlist/union-find';
import { atOnce, type Steps } from '../../values/steps';

/** The connected wires and pins of a sheet, by stated connections alone (nothing is compiled). */
export interface WireNets {
  /** A number a net; undefined for a pin without wires. */
  ofEnd(end: End): number | undefined;
  ofWire(id: string): number | undefined;
}

const pinKey = (part: string, port: string) => `${part}\n${port}`;

interface Known {
  readonly wires: readonly Wire[];
  readonly nets: WireNets;
}
/** The nets that were found last: as long as the ends of all wires stay, other courses change nothing. */
const known: Known[] = [];
const MOST_KNOWN = 4;
const bySheet = new WeakMap<Sheet['wires'], WireNets>();

export const wireNets = (sheet: Pick<Sheet, 'wires'> & Partial<Sheet>): WireNets =>
  bySheet.get(sheet.wires) ?? atOnce(wireNetsSteps(sheet));

/** As `wireNets`, in steps. */
export function* wireNetsSteps(sheet: Pick<Sheet, 'wires'> & Partial<Sheet>): Steps<WireNets> {
  const wires = [...sheet.wires.values()];
  const same = known.find(
    (k) =>
      k.wires.length === wires.length &&
      k.wires.every((w, i) => {
        const now = wires[i]!;
        return w === now || (w.id === now.id && sameEnd(w.from, now.from) && sameEnd(w.to, now.to));
      }),
  );
  const nets = same?.nets ?? (yield* findNets(sheet));
  bySheet.set(sheet.wires, nets);
  if (!same) {
    known.unshift({ wires, nets });
    known.length = Math.min(known.length, MOST_KNOWN);
  }
  return nets;
}

/** Whether two ends are on the same object, possibly at different points of it. */
function sameEnd(a: End, b: End): boolean {
  if (a === b) return true;
  if (isPinEnd(a)) return isPinEnd(b) && a.part === b.part && a.port === b.port;
  return !isPinEnd(b) && a.wire === b.wire;
}

function* findNets(sheet: Pick<Sheet, 'wires'> & Partial<Sheet>): Steps<WireNets> {
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
  yield;
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
