import { Primitive } from '../parts/primitive';
import type { Store, Template, TemplateGate } from '../parts/template';
import type { Steps } from '../values/steps';
import type { FlatSheet, Instance } from './flatten';
import type { Source } from './netlist';

/*
 * The second half of compiling: primitives with one output each, in typed arrays.
 */

/** A driver of a net where several meet: ids of blocks and at last of the part, and its port. */
export interface Driver {
  readonly way: readonly string[];
  readonly port: string;
}

/** A net on which several drivers meet, or which is pulled. */
export interface Meeting {
  /** The own net of each driver. */
  readonly nets: number[];
  owner: number;
  readonly drivers: Driver[];
  /** Whether one of its drivers always drives. */
  readonly isStrong: boolean;
}

/** Primitives and nets; see `Netlist` for the arrays. */
export interface Packed {
  readonly nets: number;
  readonly op: Uint8Array;
  readonly out: Int32Array;
  readonly inStart: Int32Array;
  readonly ins: Int32Array;
  /** Ps. */
  readonly rise: Float64Array;
  readonly fall: Float64Array;
  readonly delayed: Uint8Array;
  readonly owner: Int32Array;
  readonly stores: readonly Store[];
  readonly sources: readonly Source[];
}

/** Lays out the primitives of a flat sheet. Where several drivers meet, each has a net of its own. */
export class Packing {
  /** Nets with several drivers, or a pull, by number. */
  meetings: ReadonlyMap<number, Meeting> = new Map();
  packed!: Packed;
  /** Nets that are a driver's own, by pin bit. */
  private readonly own = new Map<number, number>();
  private nets: number;

  private constructor(private readonly flat: FlatSheet) {
    this.nets = flat.nets;
  }

  static *of(flat: FlatSheet): Steps<Packing> {
    const packing = new Packing(flat);
    const pulls = packing.pulls();
    yield;
    packing.meetings = packing.findMeetings(pulls);
    yield;
    packing.packed = packing.pack(pulls);
    return packing;
  }

  /** The net that a pin bit drives: its own where several meet. */
  drivenNet(instance: Instance, part: number, ref: number): number {
    const own =
      this.own.size > 0 ? this.own.get(instance.pinBits + instance.wiring.pinBits[part]! + ref) : undefined;
    return own ?? this.flat.netOfPin(instance, part, ref);
  }

  /** The level to which undriven nets are pulled. */
  private pulls(): ReadonlyMap<number, 0 | 1> {
    const pulls = new Map<number, 0 | 1>();
    for (const instance of this.flat.instances)
      for (const [i, template] of instance.wiring.templates.entries())
        for (const [pin, to] of template.pulls) pulls.set(this.flat.netOfPin(instance, i, pin), to);
    return pulls;
  }

  /** Calls back for all that drives a pin bit: gates with their template, sources without. */
  private eachDriver(
    seen: (instance: Instance, part: number, ref: number, gate: TemplateGate | null) => void,
  ): void {
    for (const instance of this.flat.instances) {
      const { parts, templates } = instance.wiring;
      for (let i = 0; i < parts.length; i++) {
        for (const gate of templates[i]!.gates) if (gate.output >= 0) seen(instance, i, gate.output, gate);
        if (isSource(templates[i]!, instance.path === ''))
          for (let bit = 0; bit < templates[i]!.ports[0]!.width; bit++) seen(instance, i, bit, null);
      }
    }
  }

  private findMeetings(pulls: ReadonlyMap<number, 0 | 1>): ReadonlyMap<number, Meeting> {
    const { flat } = this;
    const drivers = new Int32Array(flat.nets);
    const strong = new Int32Array(flat.nets);
    this.eachDriver((instance, part, ref, gate) => {
      const net = flat.netOfPin(instance, part, ref);
      drivers[net]!++;
      if (gate?.op !== Primitive.TRI) strong[net]!++;
    });
    const meetings = new Map<number, Meeting>();
    for (let net = 0; net < flat.nets; net++)
      if (drivers[net]! > 1 || pulls.has(net))
        meetings.set(net, { nets: [], owner: 0, drivers: [], isStrong: strong[net]! > 0 });
    if (meetings.size > 0)
      this.eachDriver((instance, part, ref) => {
        const meeting = meetings.get(flat.netOfPin(instance, part, ref));
        if (!meeting) return;
        meeting.nets.push(this.nets);
        meeting.owner = instance.parts + part;
        const { id } = instance.wiring.parts[part]!;
        meeting.drivers.push({
          way: instance.path ? [...instance.path.split('/'), id] : [id],
          port: portOf(instance, part, ref),
        });
        this.own.set(instance.pinBits + instance.wiring.pinBits[part]! + ref, this.nets++);
      });
    return meetings;
  }

  /** How many primitives there are, and how many inputs they have together. */
  private sizes(pulls: ReadonlyMap<number, 0 | 1>): { gates: number; inputs: number } {
    let gates = 0;
    let inputs = 0;
    for (const { wiring } of this.flat.instances)
      for (const template of wiring.templates) {
        gates += template.gates.length;
        for (const gate of template.gates) inputs += gate.inputs.length;
      }
    for (const [net, { drivers }] of this.meetings) {
      gates += pulls.has(net) ? 2 : 1;
      inputs += drivers.length + (pulls.has(net) ? 1 : 0);
    }
    return { gates, inputs };
  }

  private pack(pulls: ReadonlyMap<number, 0 | 1>): Packed {
    const { flat } = this;
    const { gates, inputs } = this.sizes(pulls);
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
    for (const [net, { nets, owner: by }] of this.meetings) {
      op[g] = Primitive.WIRED;
      for (const n of nets) ins[k++] = n;
      const pull = pulls.get(net);
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
    for (const instance of flat.instances) {
      const { wiring } = instance;
      const { bitOf } = wiring;
      for (let i = 0; i < wiring.parts.length; i++) {
        const template = wiring.templates[i]!;
        const pins = wiring.pinBits[i]!;
        const inner = this.nets - 1;
        this.nets += template.inner;
        for (const gate of template.gates) {
          op[g] = gate.op;
          for (const ref of gate.inputs)
            ins[k++] = ref >= 0 ? flat.netOf(instance, bitOf[pins + ref]!) : inner - ref;
          if (gate.delay) {
            delayed[g] = 1;
            rise[g] = gate.delay.rise;
            fall[g] = gate.delay.fall;
          }
          if (gate.store) stores.push(gate.store);
          const output = gate.output >= 0 ? this.drivenNet(instance, i, gate.output) : inner - gate.output;
          end(output, instance.parts + i);
        }
        if (isSource(template, instance.path === '')) this.addSources(instance, i, sources);
      }
    }
    return { nets: this.nets, op, out, inStart, ins, rise, fall, delayed, owner, stores, sources };
  }

  private addSources(instance: Instance, index: number, sources: Source[]): void {
    const part = instance.wiring.parts[index]!;
    const role = instance.wiring.templates[index]!.role!;
    const path = instance.path ? `${instance.path}/${part.id}` : part.id;
    const { width } = instance.wiring.templates[index]!.ports[0]!;
    for (let bit = 0; bit < width; bit++) {
      const net = this.drivenNet(instance, index, bit);
      if (role.role === 'constant')
        sources.push({ kind: 'constant', part: path, bit, net, value: role.bits[bit]! });
      else if (role.role === 'input' && role.by === 'clock')
        sources.push({ kind: 'clock', part: path, bit, net, wave: role.wave });
      else if (role.role === 'input' && role.by === 'stimulus')
        sources.push({ kind: 'stimulus', part: path, bit, net, levels: role.levels });
      else if (role.role === 'input') sources.push({ kind: role.by, part: path, bit, net });
    }
  }
}

/** Whether a part drives its port `Y` from outside the circuit; a port does on the compiled sheet alone. */
function isSource({ role }: Template, onTop: boolean): boolean {
  if (!role || role.role === 'output') return false;
  return onTop || role.role !== 'input' || role.by !== 'port';
}

function portOf(instance: Instance, part: number, ref: number): string {
  const { ports, pinStart } = instance.wiring.templates[part]!;
  return ports.findLast((_, i) => pinStart[i]! <= ref)!.name;
}
