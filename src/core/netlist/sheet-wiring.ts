import { type End, isPinEnd, type Part, type PinEnd, type Sheet } from '../circuit/sheet';
import { spokenName } from '../parts/catalogue';
import { wireFaultOf } from '../parts/fault';
import { type Template, templateOf } from '../parts/template';
import { atOnce, type Steps } from '../values/steps';
import { listed } from '../values/wording';
import type { Diagnostic } from './diagnostic';
import { UnionFind } from './union-find';

/**
 * The wiring of a sheet, independent of its place in the hierarchy: which pins and wires are connected, and
 * the width of each such group. Found once for each sheet and shared by all its uses as a block.
 */
export interface SheetWiring {
  readonly sheet: Sheet;
  readonly parts: readonly Part[];
  readonly templates: readonly Template[];
  readonly indexOf: ReadonlyMap<string, number>;
  /** Number of a part's first pin bit among all pin bits of the sheet; one more at the end. */
  readonly pinBits: Int32Array;
  /** The sheet's net bit of each pin bit. */
  readonly bitOf: Int32Array;
  /** Net bits of the sheet. */
  readonly bits: number;
  /** First net bit and width of a wire's group; undefined where the wire is not there. */
  groupOfWire(wire: string): readonly [first: number, width: number] | undefined;
  /** First net bit and width of the group at a port. */
  groupOfPin(part: number, port: number): readonly [first: number, width: number];
  /** Whether wires of it touch each other where the drawing does not show it. */
  readonly hasTiedWires: boolean;
  readonly diagnostics: readonly Diagnostic[];
}

const wirings = new WeakMap<Sheet, SheetWiring>();

export const wiringOf = (sheet: Sheet): SheetWiring => wirings.get(sheet) ?? atOnce(wiringSteps(sheet));

/** As `wiringOf`, in steps. */
export function* wiringSteps(sheet: Sheet): Steps<SheetWiring> {
  const wiring = wirings.get(sheet) ?? (yield* planSteps(sheet));
  wirings.set(sheet, wiring);
  return wiring;
}

function* planSteps(sheet: Sheet): Steps<SheetWiring> {
  const parts = [...sheet.parts.values()];
  const templates = parts.map(templateOf);
  const indexOf = new Map<string, number>();
  const pinStart = new Int32Array(parts.length + 1);
  const pinBits = new Int32Array(parts.length + 1);
  for (let i = 0; i < parts.length; i++) {
    indexOf.set(parts[i]!.id, i);
    pinStart[i + 1] = pinStart[i]! + templates[i]!.ports.length;
    pinBits[i + 1] = pinBits[i]! + templates[i]!.pinStart.at(-1)!;
  }
  yield;
  const pins = pinStart[parts.length]!;
  const wireIndex = new Map<string, number>();
  for (const id of sheet.wires.keys()) wireIndex.set(id, pins + wireIndex.size);

  const nodes = pins + wireIndex.size;
  const sets = new UnionFind(nodes);
  // What the drawing says, where faults of wires make the circuit another: problems are told of the drawing.
  const faulty = [...sheet.wires.values()].some(({ fault }) => fault !== undefined);
  const drawn = faulty ? new UnionFind(nodes) : sets;
  const joinIn = (sets: UnionFind, node: number, end: End) => {
    if (!isPinEnd(end)) {
      const host = wireIndex.get(end.wire);
      if (host !== undefined) sets.union(node, host);
      return;
    }
    const part = indexOf.get(end.part);
    const port = part === undefined ? undefined : templates[part]!.portIndex.get(end.port);
    if (port !== undefined) sets.union(node, pinStart[part!]! + port);
  };
  let next = pins;
  for (const wire of sheet.wires.values()) {
    const fault = wireFaultOf(wire);
    joinIn(sets, next, wire.from);
    if (fault?.is !== 'cut') joinIn(sets, next, wire.to);
    const other = fault?.is === 'tied' ? wireIndex.get(fault.to) : undefined;
    if (other !== undefined) sets.union(next, other);
    if (faulty) {
      joinIn(drawn, next, wire.from);
      joinIn(drawn, next, wire.to);
    }
    next++;
  }
  const labels = new Map<string, number>();
  for (let i = 0; i < parts.length; i++) {
    if (!templates[i]!.kind.joinsByLabel) continue;
    const name = parts[i]!.label.trim();
    const first = labels.get(name);
    if (first === undefined) labels.set(name, pinStart[i]!);
    else {
      sets.union(first, pinStart[i]!);
      if (faulty) drawn.union(first, pinStart[i]!);
    }
  }

  yield;
  // Groups in the order of their first pin or wire; as wide as their widest pin.
  const { groupAt, groups } = groupsOf(sets, nodes);
  const told = faulty ? groupsOf(drawn, nodes) : { groupAt, groups };
  const width = new Int32Array(groups);
  for (let i = 0; i < parts.length; i++) {
    const { ports } = templates[i]!;
    for (let port = 0; port < ports.length; port++) {
      const g = groupAt[pinStart[i]! + port]!;
      const bits = ports[port]!.width;
      if (bits > width[g]!) width[g] = bits;
    }
  }
  const first = new Int32Array(groups + 1);
  for (let g = 0; g < groups; g++) first[g + 1] = first[g]! + Math.max(1, width[g]!);
  const bitOf = new Int32Array(pinBits[parts.length]!);
  for (let i = 0; i < parts.length; i++) {
    const { ports, pinStart: starts } = templates[i]!;
    for (let port = 0; port < ports.length; port++) {
      const base = first[groupAt[pinStart[i]! + port]!]!;
      const at = pinBits[i]! + starts[port]!;
      for (let bit = 0; bit < ports[port]!.width; bit++) bitOf[at + bit] = base + bit;
    }
  }
  yield;
  const rangeOf = (node: number) => {
    const g = groupAt[node]!;
    return [first[g]!, first[g + 1]! - first[g]!] as const;
  };
  const pinAt = (end: PinEnd) => {
    const part = indexOf.get(end.part);
    const port = part === undefined ? undefined : templates[part]!.portIndex.get(end.port);
    return port === undefined ? undefined : pinStart[part!]! + port;
  };
  // A wire is where it begins, so that few have to be remembered.
  const loose = new Map<string, number>();
  for (const { id, from } of sheet.wires.values())
    if (isPinEnd(from) ? pinAt(from) === undefined : !wireIndex.has(from.wire))
      loose.set(id, wireIndex.get(id)!);
  wireIndex.clear();
  const nodeOfWire = (id: string): number | undefined => {
    const known = loose.get(id);
    if (known !== undefined) return known;
    const from = sheet.wires.get(id)?.from;
    return from && (isPinEnd(from) ? pinAt(from) : nodeOfWire(from.wire));
  };
  return {
    sheet,
    parts,
    templates,
    indexOf,
    pinBits,
    bitOf,
    bits: first[groups]!,
    groupOfWire: (wire) => {
      const node = nodeOfWire(wire);
      return node === undefined ? undefined : rangeOf(node);
    },
    groupOfPin: (part, port) => rangeOf(pinStart[part]! + port),
    hasTiedWires: faulty && [...sheet.wires.values()].some((wire) => wireFaultOf(wire)?.is === 'tied'),
    diagnostics: diagnose(parts, templates, (i, port) => told.groupAt[pinStart[i]! + port]!, told.groups),
  };
}

/** Numbers the sets of nodes in the order of their first one. */
function groupsOf(sets: UnionFind, nodes: number): { groupAt: Int32Array; groups: number } {
  const groupAt = new Int32Array(nodes);
  const groupOfRoot = new Int32Array(nodes).fill(-1);
  let groups = 0;
  for (let node = 0; node < nodes; node++) {
    const root = sets.find(node);
    if (groupOfRoot[root] === -1) groupOfRoot[root] = groups++;
    groupAt[node] = groupOfRoot[root]!;
  }
  return { groupAt, groups };
}

interface PlacedPin {
  readonly part: number;
  readonly port: number;
}

function diagnose(
  parts: readonly Part[],
  templates: readonly Template[],
  groupOf: (part: number, port: number) => number,
  groups: number,
): Diagnostic[] {
  // Counted first, so sheets without problems make no lists.
  const drivers = new Int32Array(groups);
  const narrow = new Int32Array(groups).fill(1 << 20);
  const wide = new Int32Array(groups);
  for (let i = 0; i < parts.length; i++)
    for (let port = 0; port < templates[i]!.ports.length; port++) {
      const { direction, width } = templates[i]!.ports[port]!;
      const g = groupOf(i, port);
      if (direction === 'out') drivers[g]!++;
      if (width < narrow[g]!) narrow[g] = width;
      if (width > wide[g]!) wide[g] = width;
    }
  const suspects = new Map<number, PlacedPin[]>();
  for (let i = 0; i < parts.length; i++)
    for (let port = 0; port < templates[i]!.ports.length; port++) {
      const g = groupOf(i, port);
      if (drivers[g]! > 0 && narrow[g] === wide[g]) continue;
      const list = suspects.get(g);
      if (list) list.push({ part: i, port });
      else suspects.set(g, [{ part: i, port }]);
    }
  const found: Diagnostic[] = [];
  const port = (p: PlacedPin) => templates[p.part]!.ports[p.port]!;
  const called = (p: PlacedPin) => spokenName(parts[p.part]!);
  const ends = (pins: readonly PlacedPin[]) =>
    pins.map((p) => ({ part: parts[p.part]!.id, port: port(p).name }));
  for (const [g, pins] of suspects) {
    const readers = pins.filter((p) => port(p).direction === 'in');
    const pulled = pins.some((p) => templates[p.part]!.pulls.length > 0);
    if (drivers[g] === 0 && !pulled && readers.length === 1 && pins.length === 1)
      found.push({
        code: 'loose-input',
        severity: 'problem',
        message: `Input ${port(readers[0]!).name} of ${called(readers[0]!)} is open. Wire it to a switch, a constant or an output.`,
        pins: ends(readers),
      });
    else if (drivers[g] === 0 && !pulled && readers.length > 0)
      found.push({
        code: 'undriven',
        severity: 'problem',
        message: `Nothing drives the wire between ${listed(pins.map(called))}. Lead an output or a switch to it.`,
        pins: ends(readers),
      });
    if (narrow[g] !== wide[g]) {
      const bits = (p: PlacedPin) =>
        `${called(p)} (${port(p).width} ${port(p).width === 1 ? 'bit' : 'bits'})`;
      found.push({
        code: 'width-mismatch',
        severity: 'problem',
        message: `The wire between ${listed(pins.map(bits))} joins unequal widths. ${remedy(
          pins.filter((p) => port(p).direction === 'out').map((p) => port(p).width),
          wide[g]!,
          narrow[g]!,
        )}`,
        pins: ends(pins),
      });
    }
  }
  return found;
}

/** The remedy for a wire of unequal widths, seen from its driver. */
function remedy(driving: readonly number[], wide: number, narrow: number): string {
  const from = driving[0] ?? wide;
  return from === wide
    ? `Take the bits that you need with a slice: ${wide - 1} down to 0 has ${wide}, ${narrow === 1 ? 'bit 0' : `${narrow - 1} down to 0`} fits.`
    : `Widen the ${from === 1 ? 'bit' : `${from} bits`} with an extension to ${wide} bits, or join them with others.`;
}
