import { isPinEnd, type PinEnd, type Sheet } from '../circuit/lesson';
import { kindOf, roleOf, spokenName } from '../parts/catalogue';
import type { Port } from '../parts/part-kind';
import { type Delay, NO_DELAY, Primitive, remembers } from '../parts/primitive';
import { declaredInputs, declaredOutputs, terminalName } from './declared';
import type { Diagnostic } from './diagnostic';
import type { Netlist, Source, Terminal } from './netlist';
import { UnionFind } from './union-find';

interface Pin extends PinEnd {
  readonly node: number;
  readonly info: Port;
}

/** What hangs together on the sheet: its pins, and its nets, one a bit. */
interface Group {
  readonly pins: Pin[];
  width: number;
  base: number;
}

/** Grows the primitives one by one and packs them into typed arrays at the end. */
class Primitives {
  nets = 0;
  private readonly op: number[] = [];
  private readonly out: number[] = [];
  private readonly inStart: number[] = [0];
  private readonly ins: number[] = [];
  private readonly rise: number[] = [];
  private readonly fall: number[] = [];
  private readonly owner: number[] = [];

  add(op: Primitive, inputs: readonly number[], output: number, delay: Delay, owner: number): void {
    this.op.push(op);
    this.out.push(output);
    for (const net of inputs) this.ins.push(net);
    this.inStart.push(this.ins.length);
    this.rise.push(delay.rise);
    this.fall.push(delay.fall);
    this.owner.push(owner);
  }

  packed() {
    const op = Uint8Array.from(this.op);
    const out = Int32Array.from(this.out);
    const inStart = Int32Array.from(this.inStart);
    const ins = Int32Array.from(this.ins);
    const { fanStart, fan } = fanOut(this.nets, inStart, ins);
    return {
      nets: this.nets,
      op,
      out,
      inStart,
      ins,
      fanStart,
      fan,
      rise: Float64Array.from(this.rise),
      fall: Float64Array.from(this.fall),
      owner: Int32Array.from(this.owner),
    };
  }
}

/** Readers of each net as compressed rows, by counting. */
function fanOut(nets: number, inStart: Int32Array, ins: Int32Array) {
  const fanStart = new Int32Array(nets + 1);
  for (const net of ins) fanStart[net + 1]!++;
  for (let n = 0; n < nets; n++) fanStart[n + 1]! += fanStart[n]!;
  const next = fanStart.slice();
  const fan = new Int32Array(ins.length);
  for (let g = 0; g + 1 < inStart.length; g++)
    for (let i = inStart[g]!; i < inStart[g + 1]!; i++) fan[next[ins[i]!]!++] = g;
  return { fanStart, fan };
}

type Packed = ReturnType<Primitives['packed']>;

/** Kahn's topological order (1962) over the gates that remember nothing. */
function levelled(p: Packed) {
  const gates = p.op.length;
  const driver = new Int32Array(p.nets).fill(-1);
  for (let g = 0; g < gates; g++) if (!remembers(p.op[g]!)) driver[p.out[g]!] = g;
  const waits = new Int32Array(gates);
  const level = new Int32Array(gates);
  const order: number[] = [];
  const storage: number[] = [];
  for (let g = 0; g < gates; g++) {
    if (remembers(p.op[g]!)) {
      storage.push(g);
      continue;
    }
    for (let i = p.inStart[g]!; i < p.inStart[g + 1]!; i++) if (driver[p.ins[i]!] !== -1) waits[g]!++;
    if (waits[g] === 0) {
      level[g] = 1;
      order.push(g);
    }
  }
  for (let at = 0; at < order.length; at++) {
    const g = order[at]!;
    for (let f = p.fanStart[p.out[g]!]!; f < p.fanStart[p.out[g]! + 1]!; f++) {
      const reader = p.fan[f]!;
      if (remembers(p.op[reader]!)) continue;
      level[reader] = Math.max(level[reader]!, level[g]! + 1);
      if (--waits[reader]! === 0) order.push(reader);
    }
  }
  const looped: number[] = [];
  for (let g = 0; g < gates; g++)
    if (!remembers(p.op[g]!) && waits[g]! > 0) {
      looped.push(g);
      level[g] = 0;
    }
  return {
    order: Int32Array.from(order),
    level,
    storage: Int32Array.from(storage),
    looped: Int32Array.from(looped),
  };
}

function listed(names: readonly string[]): string {
  return names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}

/**
 * Compiles one sheet to its flat netlist. Costs time proportional to parts and wires. Never fails: what is
 * wrong is in `diagnostics`, and the rest of the circuit runs.
 */
export function compile(sheet: Sheet): Netlist {
  const pins = new Map<string, Map<string, Pin>>();
  const wireNode = new Map<string, number>();
  let nodes = 0;
  for (const part of sheet.parts.values()) {
    const ports = new Map<string, Pin>();
    for (const info of kindOf(part).ports(part.params))
      ports.set(info.name, { part: part.id, port: info.name, node: nodes++, info });
    pins.set(part.id, ports);
  }
  for (const id of sheet.wires.keys()) wireNode.set(id, nodes++);

  const sets = new UnionFind(nodes);
  for (const wire of sheet.wires.values())
    for (const end of [wire.from, wire.to]) {
      const node = isPinEnd(end) ? pins.get(end.part)?.get(end.port)?.node : wireNode.get(end.wire);
      if (node !== undefined) sets.union(wireNode.get(wire.id)!, node);
    }

  const built = new Primitives();
  const groups = new Map<number, Group>();
  const groupAt = (node: number): Group => {
    const root = sets.find(node);
    let group = groups.get(root);
    if (!group) {
      group = { pins: [], width: 1, base: -1 };
      groups.set(root, group);
    }
    return group;
  };
  for (const ports of pins.values())
    for (const pin of ports.values()) {
      const group = groupAt(pin.node);
      group.pins.push(pin);
      group.width = Math.max(group.width, pin.info.width);
    }
  for (const node of wireNode.values()) groupAt(node);

  const partIds = [...sheet.parts.keys()];
  const partIndex = new Map(partIds.map((id, i) => [id, i]));
  const ownNets = new Map<Pin, number>();
  const diagnostics: Diagnostic[] = [];
  for (const group of groups.values()) {
    group.base = built.nets;
    built.nets += group.width;
    const drivers = group.pins.filter((p) => p.info.direction === 'out');
    if (drivers.length > 1) {
      for (const pin of drivers) {
        ownNets.set(pin, built.nets);
        built.nets += pin.info.width;
      }
      for (let bit = 0; bit < group.width; bit++) {
        const nets = drivers.filter((p) => bit < p.info.width).map((p) => ownNets.get(p)! + bit);
        built.add(Primitive.WIRED, nets, group.base + bit, NO_DELAY, partIndex.get(drivers[0]!.part)!);
      }
    }
    diagnose(sheet, group.pins, drivers, diagnostics);
  }

  const netAt = (pin: Pin, bit: number) => (ownNets.get(pin) ?? groupAt(pin.node).base) + bit;
  const sources: Source[] = [];
  for (const [index, part] of [...sheet.parts.values()].entries()) {
    const ports = pins.get(part.id)!;
    kindOf(part).build(part.params, {
      pin: (port, bit = 0) => netAt(ports.get(port)!, bit),
      inner: () => built.nets++,
      add: (op, inputs, output, delay) => built.add(op, inputs, output, delay, index),
    });
    const role = roleOf(part);
    if (!role || role.role === 'output') continue;
    const net = netAt(ports.get('Y')!, 0);
    if (role.role === 'constant') sources.push({ kind: 'constant', part: part.id, net, value: role.value });
    else if (role.by === 'clock') sources.push({ kind: 'clock', part: part.id, net, halves: role.halves });
    else sources.push({ kind: role.by, part: part.id, net });
  }

  const netsOf = (node: number | undefined) => {
    if (node === undefined) return undefined;
    const group = groupAt(node);
    return Array.from({ length: group.width }, (_, bit) => group.base + bit);
  };
  const netsOfPin = (part: string, port: string) => netsOf(pins.get(part)?.get(port)?.node);
  const terminals = (parts: ReturnType<typeof declaredInputs>, port: string): Terminal[] =>
    parts.map((p) => {
      const pin = pins.get(p.id)!.get(port)!;
      const own = pin.info.direction === 'out' ? [netAt(pin, 0)] : netsOfPin(p.id, port)!;
      return { part: p.id, name: terminalName(p), nets: own };
    });

  const packed = built.packed();
  return {
    ...packed,
    ...levelled(packed),
    parts: partIds,
    sources,
    inputs: terminals(declaredInputs(sheet), 'Y'),
    outputs: terminals(declaredOutputs(sheet), 'A'),
    diagnostics,
    netsOfPin,
    netsOfWire: (wire) => netsOf(wireNode.get(wire)),
    ownNet: (part, port) => {
      const pin = pins.get(part)?.get(port);
      return pin && netAt(pin, 0);
    },
  };
}

function diagnose(sheet: Sheet, pins: readonly Pin[], drivers: readonly Pin[], found: Diagnostic[]): void {
  const called = (pin: Pin) => spokenName(sheet.parts.get(pin.part)!);
  const readers = pins.filter((p) => p.info.direction === 'in');
  const ends = (some: readonly Pin[]) => some.map(({ part, port }) => ({ part, port }));
  if (drivers.length > 1)
    found.push({
      code: 'outputs-tied',
      message: `The outputs of ${listed(drivers.map(called))} are tied together. Where one says 0 and the other 1, nobody wins: lead them through a gate instead.`,
      pins: ends(drivers),
    });
  if (drivers.length === 0 && readers.length === 1)
    found.push({
      code: 'loose-input',
      message: `Input ${readers[0]!.port} of ${called(readers[0]!)} is loose. Wire it to a switch, a constant or an output.`,
      pins: ends(readers),
    });
  if (drivers.length === 0 && readers.length > 1)
    found.push({
      code: 'undriven',
      message: `Nothing drives the wire between ${listed(readers.map(called))}. Lead an output or a switch to it.`,
      pins: ends(readers),
    });
  const widths = new Set(pins.map((p) => p.info.width));
  if (widths.size > 1)
    found.push({
      code: 'width-mismatch',
      message: `The wire between ${listed(pins.map(called))} joins ${listed([...widths].map((w) => `${w} bit`))}.`,
      pins: ends(pins),
    });
}
