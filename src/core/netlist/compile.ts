import type { Part, Sheet } from '../circuit/lesson';
import { kindOf, sheetIdInside, spokenName } from '../parts/catalogue';
import { Primitive } from '../parts/primitive';
import type { Store, Template, TemplateGate } from '../parts/template';
import { declaredInputs, declaredOutputs, terminalName } from './declared';
import type { Diagnostic } from './diagnostic';
import { fanOut, levelled, onLoops } from './levels';
import { type Netlist, type SheetNets, type Source, type Terminal, terminalColumns } from './netlist';
import { listed, type SheetWiring, wiringOf } from './sheet-wiring';
import { UnionFind } from './union-find';

/** Blocks inside blocks, at most. */
const MOST_DEPTH = 100;
/** Parts with everything inside their blocks, at most: a few nested blocks can make endlessly many. */
const MOST_PARTS = 2_000_000;

/** One use of a sheet: the compiled one itself, or a block somewhere in it. */
interface Instance {
  readonly plan: SheetWiring;
  /** '' for the compiled sheet, else ids of blocks with slashes between. */
  readonly path: string;
  /** Number of its first net bit, pin bit and part among those of all instances. */
  readonly bits: number;
  readonly pinBits: number;
  readonly parts: number;
}

/**
 * Compiles a sheet with all its blocks to its flat netlist. Costs time proportional to parts and wires. Never
 * fails: what is wrong is in `diagnostics`, and the rest of the circuit runs.
 * @param sheets where the sheets of its blocks are.
 */
export function compile(sheet: Sheet, sheets: readonly Sheet[] = []): Netlist {
  return new Flattening(sheet, sheets).netlist();
}

/** By the sheets of a lesson's version, for as long as anyone has that. */
const compiledOf = new WeakMap<readonly Sheet[], Map<string, Netlist>>();

/** `compile` for a sheet of a lesson that is shown in several places: done once for this version of the lesson. */
export function compileOnce(sheet: Sheet, sheets: readonly Sheet[]): Netlist {
  const compiled = compiledOf.get(sheets) ?? new Map<string, Netlist>();
  compiledOf.set(sheets, compiled);
  const netlist = compiled.get(sheet.id) ?? compile(sheet, sheets);
  compiled.set(sheet.id, netlist);
  return netlist;
}

class Flattening {
  private readonly instances: Instance[] = [];
  private readonly seen = new Set<SheetWiring>();
  private readonly diagnostics: Diagnostic[] = [];
  private readonly library: ReadonlyMap<string, Sheet>;
  private readonly joins: [number, number][] = [];
  private bits = 0;
  private pinBits = 0;
  private parts = 0;
  /** The net of each net bit. */
  private netOfBit = new Int32Array(0);
  /** Nets that are a driver's own, where several meet on one wire, by pin bit. */
  private readonly own = new Map<number, number>();
  private nets = 0;

  constructor(
    private readonly sheet: Sheet,
    sheets: readonly Sheet[],
  ) {
    this.library = new Map(sheets.map((s) => [s.id, s]));
  }

  netlist(): Netlist {
    this.unfold(wiringOf(this.sheet), '', [this.sheet.id]);
    this.numberNets();
    const packed = this.pack();
    const wiring = { ...packed, ...fanOut(packed.nets, packed.inStart, packed.ins) };
    const order = levelled(wiring);
    const root = this.viewOf(this.instances[0]!);
    const netlist: Netlist = {
      ...wiring,
      ...order,
      ...root,
      partName: (owner) => this.partName(owner),
      inputs: this.terminals(declaredInputs(this.sheet), 'Y'),
      outputs: this.terminals(declaredOutputs(this.sheet), 'A'),
      inputColumns: [],
      outputColumns: [],
      diagnostics: this.diagnostics,
      at: (path) => {
        const found = this.instances.find((i) => i.path === path);
        return found && this.viewOf(found);
      },
    };
    this.diagnoseNames(netlist);
    this.diagnoseLoops(netlist);
    this.diagnoseClocks(netlist);
    return {
      ...netlist,
      inputColumns: terminalColumns(netlist.inputs),
      outputColumns: terminalColumns(netlist.outputs),
    };
  }

  /** Adds an instance and, block by block, those inside it. */
  private unfold(wiring: SheetWiring, path: string, above: readonly string[]): Instance {
    const instance = { plan: wiring, path, bits: this.bits, pinBits: this.pinBits, parts: this.parts };
    this.instances.push(instance);
    this.bits += wiring.bits;
    this.pinBits += wiring.bitOf.length;
    this.parts += wiring.parts.length;
    const inside = above.length > 1 ? { inside: wiring.sheet.id } : {};
    if (!this.seen.has(wiring))
      for (const d of wiring.diagnostics) this.diagnostics.push({ ...d, ...inside });
    this.seen.add(wiring);
    for (let i = 0; i < wiring.parts.length; i++) {
      const template = wiring.templates[i]!;
      for (const [a, b] of template.joins)
        this.joins.push([this.bitAt(instance, i, a), this.bitAt(instance, i, b)]);
      if (template.kind.insideSheet) this.enter(instance, i, above);
    }
    return instance;
  }

  private bitAt(instance: Instance, part: number, ref: number): number {
    const { plan: wiring } = instance;
    return instance.bits + wiring.bitOf[wiring.pinBits[part]! + ref]!;
  }

  /** What a block holds, its ports tied to the pins of the block. */
  private enter(instance: Instance, index: number, above: readonly string[]): void {
    const { plan: wiring } = instance;
    const part = wiring.parts[index]!;
    const at = {
      pins: [{ part: part.id, port: '' }],
      severity: 'problem' as const,
      ...this.insideOf(instance),
    };
    const id = sheetIdInside(part) ?? '';
    const sheet = this.library.get(id);
    if (!sheet) {
      this.diagnostics.push({
        ...at,
        code: 'unknown-block',
        message: `${spokenName(part)} is a block of a sheet that this lesson does not have (${id || 'none named'}). Bring the sheet into the lesson, or take the block away.`,
      });
      return;
    }
    if (above.includes(id) || above.length > MOST_DEPTH || this.parts > MOST_PARTS) {
      const names = [...above.slice(Math.max(0, above.indexOf(id))), id].map(
        (s) => this.library.get(s)?.name ?? this.sheet.name,
      );
      this.diagnostics.push({
        ...at,
        code: 'recursion',
        message: above.includes(id)
          ? `A sheet cannot hold itself: ${names.map((n) => `“${n}”`).join(' holds ')}. Take ${spokenName(part)} away.`
          : `Blocks inside blocks have become too many: the rest inside ${spokenName(part)} is left out.`,
      });
      return;
    }
    const path = instance.path ? `${instance.path}/${part.id}` : part.id;
    const inner = this.unfold(wiringOf(sheet), path, [...above, id]);
    const template = wiring.templates[index]!;
    const tied = new Set<string>();
    for (let p = 0; p < inner.plan.parts.length; p++) {
      const port = inner.plan.parts[p]!;
      if (!inner.plan.templates[p]!.kind.boundary) continue;
      const pin = template.portIndex.get(port.label);
      if (pin === undefined) continue;
      tied.add(port.label);
      const start = template.pinStart[pin]!;
      const width = template.ports[pin]!.width;
      const innerWidth = inner.plan.templates[p]!.ports[0]!.width;
      for (let bit = 0; bit < Math.min(width, innerWidth); bit++)
        this.joins.push([this.bitAt(instance, index, start + bit), this.bitAt(inner, p, bit)]);
      if (width !== innerWidth)
        this.diagnostics.push({
          ...at,
          code: 'width-mismatch',
          pins: [{ part: part.id, port: port.label }],
          message: `${port.label} of ${spokenName(part)} has ${width} ${width === 1 ? 'bit' : 'bits'}, but ${innerWidth} inside “${sheet.name}”. Take the block's ports from its sheet anew.`,
        });
    }
    for (const { name } of template.ports)
      if (!tied.has(name))
        this.diagnostics.push({
          ...at,
          code: 'missing-port',
          pins: [{ part: part.id, port: name }],
          message: `${spokenName(part)} has a pin ${name}, but “${sheet.name}” has no port of that name. Name a port so inside, or take the block's ports from its sheet anew.`,
        });
  }

  private insideOf(instance: Instance) {
    return instance.path ? { inside: instance.plan.sheet.id } : {};
  }

  private numberNets(): void {
    this.netOfBit = new Int32Array(this.bits);
    if (this.joins.length === 0) {
      for (let b = 0; b < this.bits; b++) this.netOfBit[b] = b;
      this.nets = this.bits;
      return;
    }
    const sets = new UnionFind(this.bits);
    for (const [a, b] of this.joins) sets.union(a, b);
    const number = new Int32Array(this.bits).fill(-1);
    for (let b = 0; b < this.bits; b++) {
      const root = sets.find(b);
      if (number[root] === -1) number[root] = this.nets++;
      this.netOfBit[b] = number[root]!;
    }
  }

  /** Calls back for all that drives a pin bit: gates with their template, sources without. */
  private eachDriver(
    seen: (instance: Instance, part: number, ref: number, gate: TemplateGate | null) => void,
  ): void {
    for (const instance of this.instances) {
      const { parts, templates } = instance.plan;
      for (let i = 0; i < parts.length; i++) {
        for (const gate of templates[i]!.gates) if (gate.output >= 0) seen(instance, i, gate.output, gate);
        if (isSource(templates[i]!, instance.path === ''))
          for (let bit = 0; bit < templates[i]!.ports[0]!.width; bit++) seen(instance, i, bit, null);
      }
    }
  }

  private pack() {
    const { nets: wires } = this;
    const drivers = new Int32Array(wires);
    const strong = new Int32Array(wires);
    this.eachDriver((instance, part, ref, gate) => {
      const net = this.netOfBit[this.bitAt(instance, part, ref)]!;
      drivers[net]!++;
      if (gate?.op !== Primitive.TRI) strong[net]!++;
    });
    const pulled = new Map<number, 0 | 1>();
    let gates = 0;
    let inputs = 0;
    for (const instance of this.instances) {
      const { templates } = instance.plan;
      for (let i = 0; i < templates.length; i++) {
        const template = templates[i]!;
        gates += template.gates.length;
        for (const gate of template.gates) inputs += gate.inputs.length;
        for (const [pin, to] of template.pulls) pulled.set(this.netOfBit[this.bitAt(instance, i, pin)]!, to);
      }
    }
    // Where several meet, each has a net of its own, and one primitive more makes the wire's value of them.
    const meeting = new Map<number, { nets: number[]; owner: number; drivers: Driver[] }>();
    for (let net = 0; net < wires; net++)
      if (drivers[net]! > 1 || pulled.has(net)) {
        meeting.set(net, { nets: [], owner: 0, drivers: [] });
        gates += pulled.has(net) ? 2 : 1;
        inputs += drivers[net]! + (pulled.has(net) ? 1 : 0);
      }
    if (meeting.size > 0)
      this.eachDriver((instance, part, ref) => {
        const met = meeting.get(this.netOfBit[this.bitAt(instance, part, ref)]!);
        if (!met) return;
        met.nets.push(this.nets);
        met.owner = instance.parts + part;
        const { id } = instance.plan.parts[part]!;
        met.drivers.push({
          way: instance.path ? [...instance.path.split('/'), id] : [id],
          port: portOf(instance, part, ref),
        });
        this.own.set(instance.pinBits + instance.plan.pinBits[part]! + ref, this.nets++);
      });

    const op = new Uint8Array(gates);
    const out = new Int32Array(gates);
    const inStart = new Int32Array(gates + 1);
    const ins = new Int32Array(inputs);
    const rise = new Float64Array(gates);
    const fall = new Float64Array(gates);
    const delayed = new Uint8Array(gates);
    const owner = new Int32Array(gates);
    const stores: Store[] = [];
    const sources: Source[] = [];
    let g = 0;
    let k = 0;
    const end = (output: number, by: number) => {
      out[g] = output;
      owner[g] = by;
      inStart[++g] = k;
    };
    for (const [net, { nets, owner: by }] of meeting) {
      op[g] = Primitive.WIRED;
      for (const n of nets) ins[k++] = n;
      const pull = pulled.get(net);
      if (pull === undefined) {
        end(net, by);
        continue;
      }
      const undecided = this.nets++;
      end(undecided, by);
      op[g] = pull ? Primitive.PULL_UP : Primitive.PULL_DOWN;
      ins[k++] = undecided;
      end(net, by);
    }
    for (const instance of this.instances) {
      const { plan: wiring } = instance;
      const { bitOf } = wiring;
      for (let i = 0; i < wiring.parts.length; i++) {
        const template = wiring.templates[i]!;
        const pins = wiring.pinBits[i]!;
        const inner = this.nets - 1;
        this.nets += template.inner;
        for (const gate of template.gates) {
          op[g] = gate.op;
          for (const ref of gate.inputs)
            ins[k++] = ref >= 0 ? this.netOfBit[instance.bits + bitOf[pins + ref]!]! : inner - ref;
          if (gate.delay) {
            delayed[g] = 1;
            rise[g] = gate.delay.rise;
            fall[g] = gate.delay.fall;
          }
          if (gate.store) stores.push(gate.store);
          end(
            gate.output >= 0 ? this.drivenNet(instance, i, gate.output) : inner - gate.output,
            instance.parts + i,
          );
        }
        if (isSource(template, instance.path === '')) this.addSources(instance, i, sources);
      }
    }
    this.diagnoseTied(meeting, strong, drivers);
    return { nets: this.nets, op, out, inStart, ins, rise, fall, delayed, owner, stores, sources };
  }

  /** The net that a pin bit drives: its own where several meet. */
  private drivenNet(instance: Instance, part: number, ref: number): number {
    const { plan: wiring } = instance;
    const own = this.own.size > 0 ? this.own.get(instance.pinBits + wiring.pinBits[part]! + ref) : undefined;
    return own ?? this.netOfBit[this.bitAt(instance, part, ref)]!;
  }

  private addSources(instance: Instance, index: number, sources: Source[]): void {
    const part = instance.plan.parts[index]!;
    const role = instance.plan.templates[index]!.role!;
    const path = instance.path ? `${instance.path}/${part.id}` : part.id;
    const { width } = instance.plan.templates[index]!.ports[0]!;
    for (let bit = 0; bit < width; bit++) {
      const at = { part: path, bit, net: this.drivenNet(instance, index, bit) };
      if (role.role === 'constant') sources.push({ ...at, kind: 'constant', value: role.bits[bit]! });
      else if (role.role === 'input' && role.by === 'clock')
        sources.push({ ...at, kind: 'clock', wave: role.wave });
      else if (role.role === 'input' && role.by === 'stimulus')
        sources.push({ ...at, kind: 'stimulus', levels: role.levels });
      else if (role.role === 'input') sources.push({ ...at, kind: role.by });
    }
  }

  private partName(owner: number): string {
    let low = 0;
    for (let high = this.instances.length - 1; low < high; ) {
      const middle = (low + high + 1) >> 1;
      if (this.instances[middle]!.parts <= owner) low = middle;
      else high = middle - 1;
    }
    const { plan: wiring, path, parts } = this.instances[low]!;
    const id = wiring.parts[owner - parts]?.id ?? '';
    return path ? `${path}/${id}` : id;
  }

  private viewOf(instance: Instance): SheetNets {
    const { plan: wiring } = instance;
    const nets = ([first, width]: readonly [number, number]) =>
      Array.from({ length: width }, (_, bit) => this.netOfBit[instance.bits + first + bit]!);
    const portOf = (part: string, port: string) => {
      const index = wiring.indexOf.get(part);
      const at = index === undefined ? undefined : wiring.templates[index]!.portIndex.get(port);
      return at === undefined ? undefined : ([index!, at] as const);
    };
    return {
      netsOfPin: (part, port) => {
        const at = portOf(part, port);
        return at && nets(wiring.groupOfPin(...at));
      },
      netsOfWire: (wire) => {
        const group = wiring.groupOfWire(wire);
        return group && nets(group);
      },
      ownNet: (part, port, bit = 0) => {
        const at = portOf(part, port);
        if (!at || bit >= wiring.templates[at[0]]!.ports[at[1]]!.width) return undefined;
        return this.drivenNet(instance, at[0], wiring.templates[at[0]]!.pinStart[at[1]]! + bit);
      },
    };
  }

  private terminals(parts: readonly Part[], port: string): Terminal[] {
    const root = this.instances[0]!;
    return parts.map((p) => {
      const index = root.plan.indexOf.get(p.id)!;
      const template = root.plan.templates[index]!;
      const at = template.portIndex.get(port)!;
      const nets = Array.from({ length: template.ports[at]!.width }, (_, bit) => {
        const ref = template.pinStart[at]! + bit;
        return port === 'Y' ? this.drivenNet(root, index, ref) : this.netOfBit[this.bitAt(root, index, ref)]!;
      });
      return { part: p.id, name: terminalName(p), nets };
    });
  }

  /** Told on the sheet that holds all who drive the net: what drives from inside a block is told of the block. */
  private diagnoseTied(
    meeting: ReadonlyMap<number, { drivers: readonly Driver[] }>,
    strong: Int32Array,
    counts: Int32Array,
  ): void {
    const told = new Set<string>();
    for (const [net, { drivers }] of meeting) {
      if (counts[net]! < 2 || strong[net] === 0) continue;
      const depth = sharedDepth(drivers.map((d) => d.way));
      const path = drivers[0]!.way.slice(0, depth).join('/');
      const instance = this.instances.find((i) => i.path === path)!;
      const pins = new Map(
        drivers.map(({ way, port }) => [
          way[depth]!,
          { part: way[depth]!, port: way.length === depth + 1 ? port : '' },
        ]),
      );
      const key = `${instance.plan.sheet.id} ${[...pins.keys()].join()}`;
      if (told.has(key)) continue;
      told.add(key);
      const names = [...pins.keys()].map((id) => spokenName(instance.plan.sheet.parts.get(id)!));
      this.diagnostics.push({
        code: 'outputs-tied',
        severity: 'problem',
        message: `The outputs of ${listed(names)} are tied together. Where one drives 0 and the other 1, neither wins: combine them with a gate instead.`,
        pins: [...pins.values()],
        ...this.insideOf(instance),
      });
    }
  }

  private diagnoseNames({ inputs, outputs }: Netlist): void {
    const { parts } = this.sheet;
    for (const [word, group] of [
      ['inputs', inputs],
      ['outputs', outputs],
    ] as const) {
      const byName = new Map<string, string[]>();
      for (const t of group) byName.set(t.name, [...(byName.get(t.name) ?? []), t.part]);
      for (const [name, same] of byName)
        if (same.length > 1)
          this.diagnostics.push({
            code: 'duplicate-name',
            severity: 'problem',
            message: `${same.length} ${word} are called “${name}”. Give each a name of its own, or tables cannot tell them apart.`,
            pins: same.map((part) => ({
              part,
              port: kindOf(parts.get(part)!).ports(parts.get(part)!.params)[0]!.name,
            })),
          });
    }
  }

  private diagnoseLoops(netlist: Netlist): void {
    if (netlist.looped.length === 0) return;
    const names = new Set(onLoops(netlist, netlist.looped).map((g) => this.partName(netlist.owner[g]!)));
    const here = [...names].filter((n) => !n.includes('/'));
    const called = here.map((id) => spokenName(this.sheet.parts.get(id)!));
    const shown = called.length > 8 ? [...called.slice(0, 7), `${called.length - 7} more`] : called;
    this.diagnostics.push({
      code: 'loop',
      severity: 'note',
      message: here.length
        ? `The signal goes round through ${listed(shown)} without a flip-flop. That is how a latch remembers; anything else may never come to rest.`
        : 'Inside a block the signal goes round without a flip-flop. That is how a latch remembers; anything else may never come to rest.',
      pins: here.map((part) => ({ part, port: 'Y' })),
    });
  }

  /** A clock that has come through a gate is late, and may have spikes. */
  private diagnoseClocks(netlist: Netlist): void {
    if (netlist.storage.length === 0) return;
    const driver = new Int32Array(netlist.nets).fill(-1);
    for (let g = 0; g < netlist.op.length; g++) driver[netlist.out[g]!] = g;
    const told = new Set<number>();
    for (const s of netlist.storage) {
      if (netlist.op[s] === Primitive.LATCH) continue;
      const g = driver[netlist.ins[netlist.inStart[s]! + 1]!]!;
      if (g === -1 || netlist.op[g]! < Primitive.NOT || netlist.op[g]! > Primitive.XNOR) continue;
      const owner = netlist.owner[s]!;
      if (netlist.owner[g] === owner || told.has(owner)) continue;
      told.add(owner);
      const [part, gate] = [this.partName(owner), this.partName(netlist.owner[g]!)];
      const here = this.sheet.parts.get(part);
      const by = this.sheet.parts.get(gate);
      if (!here || !by || kindOf(by).stores) continue;
      this.diagnostics.push({
        code: 'gated-clock',
        severity: 'note',
        message: `The clock of ${spokenName(here)} comes out of ${spokenName(by)}: it arrives late, and a glitch there counts as an edge. An enable does the same without the risk.`,
        pins: [{ part, port: 'C' }],
      });
    }
  }
}

/** Who drives a net: ids of blocks and at last of the part, and its port. */
interface Driver {
  readonly way: readonly string[];
  readonly port: string;
}

/** How many blocks all ways lead into together. */
function sharedDepth(ways: readonly (readonly string[])[]): number {
  const shortest = Math.min(...ways.map((way) => way.length)) - 1;
  let depth = 0;
  while (depth < shortest && ways.every((way) => way[depth] === ways[0]![depth])) depth++;
  return depth;
}

/** Whether a part drives its port `Y` from outside the circuit; a port does on the compiled sheet alone. */
function isSource({ role }: Template, onTop: boolean): boolean {
  if (!role || role.role === 'output') return false;
  return onTop || role.role !== 'input' || role.by !== 'port';
}

function portOf(instance: Instance, part: number, ref: number): string {
  const { ports, pinStart } = instance.plan.templates[part]!;
  return ports.findLast((_, i) => pinStart[i]! <= ref)!.name;
}
