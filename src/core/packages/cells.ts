import type { Part, Sheet } from '../circuit/sheet';
import { terminalName } from '../netlist/declared';
import { FlatSheet, type Instance } from '../netlist/flatten';
import { kindOf, spokenName } from '../parts/catalogue';
import { faultOf, withFault, withWireFault } from '../parts/fault';
import type { LogicFamily } from '../parts/packages/package-type';
import { Primitive, remembers } from '../parts/primitive';
import type { Template, TemplateGate } from '../parts/template';
import { naturalOrder } from '../values/natural-order';
import { type Cell, CellBuilder, type Signal } from './cell-builder';
import { flipFlopOf } from './flip-flop-cells';
import { functionPackagesOf } from './function-cells';

/*
 * The first step of a plan: what a sheet, blocks unfolded, asks of logic packages. Each cell is one gate, one flip-flop, or one
 * larger package. Parts without a package of their own become gates.
 */

/** An input or output of the sheet, one bit: a switch or a lamp beside the board. */
export interface Terminal {
  readonly part: string;
  readonly bit: number;
  /** As in `Count[3]`. */
  readonly label: string;
  readonly direction: 'in' | 'out';
  /** `clock` and `button` where the input is one. */
  readonly by: string;
  readonly signal: Signal;
}

/** A part for which there is no package. */
export interface Unplaced {
  readonly part: string;
  readonly why: string;
}

export interface Cells {
  readonly cells: readonly Cell[];
  /** Inputs, then outputs, in declared order; the bits of a bus with the most significant first. */
  readonly terminals: readonly Terminal[];
  readonly unplaced: readonly Unplaced[];
}

/** Gates by the primitive of which they are. */
const GATE_SORTS: Readonly<Partial<Record<Primitive, string>>> = {
  [Primitive.AND]: 'and',
  [Primitive.OR]: 'or',
  [Primitive.NAND]: 'nand',
  [Primitive.NOR]: 'nor',
  [Primitive.XOR]: 'xor',
  [Primitive.XNOR]: 'xnor',
  [Primitive.NOT]: 'not',
};

/** What the parts of a sheet ask of packages of a family. A fault that is hidden in the drawing is not planned, nor told by it. */
export function cellsOf(sheet: Sheet, sheets: readonly Sheet[], family: LogicFamily): Cells {
  return new Extraction(new FlatSheet(sound(sheet), sheets.map(sound)), family).found();
}

/** The sheet as it is drawn, without the faults of its parts and wires. */
function sound(sheet: Sheet): Sheet {
  const isFaulty =
    [...sheet.parts.values()].some((part) => faultOf(part)) ||
    [...sheet.wires.values()].some((wire) => wire.fault);
  if (!isFaulty) return sheet;
  return {
    ...sheet,
    parts: new Map([...sheet.parts].map(([id, part]) => [id, faultOf(part) ? withFault(part, null) : part])),
    wires: new Map([...sheet.wires].map(([id, wire]) => [id, withWireFault(wire, null)])),
  };
}

class Extraction {
  private readonly terminals: Terminal[] = [];
  private readonly unplaced: Unplaced[] = [];
  private readonly build: CellBuilder;

  constructor(
    private readonly flat: FlatSheet,
    private readonly family: LogicFamily,
  ) {
    this.build = new CellBuilder(flat.nets, family);
  }

  found(): Cells {
    // Gates as they are drawn come first, so that an inverter that is drawn serves for a bubble, too.
    const drawn = (template: Template) => (template.kind.isGate ? 0 : 1);
    const parts = this.flat.instances.flatMap((instance) =>
      instance.wiring.parts.map((part, i) => ({
        instance,
        part,
        i,
        template: instance.wiring.templates[i]!,
      })),
    );
    // By ids, so that a sheet has the same plan after it was written and read again.
    const path = ({ instance, part }: (typeof parts)[number]) => `${instance.path}/${part.id}`;
    parts.sort((a, b) => drawn(a.template) - drawn(b.template) || naturalOrder(path(a), path(b)));
    for (const { instance, part, i, template } of parts) this.take(instance, part, i, template);
    return {
      cells: this.build.finished(this.terminals.map(({ signal }) => signal)),
      terminals: this.resolvedTerminals(),
      unplaced: this.unplaced,
    };
  }

  private take(instance: Instance, part: Part, index: number, template: Template): void {
    const netOf = (ref: number): Signal => this.flat.netOfPin(instance, index, ref);
    const { kind, role } = template;
    if (kind.isNote || kind.insideSheet) return;
    const path = instance.path ? `${instance.path}/${part.id}` : part.id;
    if (role?.role === 'constant') {
      for (const [bit, value] of role.bits.entries()) this.build.tie(netOf(bit), value === 1 ? '+' : '-');
      return;
    }
    if (role) {
      if (instance === this.flat.root && !kind.isProbe) this.terminal(part, template, netOf);
      return;
    }
    for (const [ref, to] of template.pulls) this.build.pull(netOf(ref), to ? '+' : '-');
    if (template.gates.length === 0) return;
    const pin = (port: string, bit = 0): Signal => {
      const at = template.portIndex.get(port);
      return at === undefined ? '-' : netOf(template.pinStart[at]! + bit);
    };
    if (kind.plannedAs) this.build.fixed(path, kind.plannedAs(part.params), pin);
    else if (kind.isGate && this.gate(path, part, template, netOf)) return;
    else if (!flipFlopOf(this.build, path, part, pin, this.family))
      if (!functionPackagesOf(this.build, path, part, pin, this.family))
        this.expand(path, part, template, netOf);
  }

  private terminal(part: Part, template: Template, netOf: (ref: number) => Signal): void {
    const role = template.role!;
    const isInput = role.role === 'input';
    const at = template.portIndex.get(isInput ? 'Y' : 'A')!;
    const { width } = template.ports[at]!;
    const name = terminalName(part);
    for (let bit = width - 1; bit >= 0; bit--)
      this.terminals.push({
        part: part.id,
        bit,
        label: width === 1 ? name : `${name}[${bit}]`,
        direction: isInput ? 'in' : 'out',
        by: role.role === 'input' ? role.by : part.kind,
        signal: netOf(template.pinStart[at]! + bit),
      });
  }

  private resolvedTerminals(): Terminal[] {
    const parts = this.flat.sheet.parts;
    const place = ({ part, direction }: Terminal) => ({ part: parts.get(part)!, out: direction === 'out' });
    return this.terminals
      .map((terminal) => ({ ...terminal, signal: this.build.resolved(terminal.signal) }))
      .sort((a, b) => {
        const [x, y] = [place(a), place(b)];
        return (
          Number(x.out) - Number(y.out) ||
          x.part.rank - y.part.rank ||
          naturalOrder(a.part, b.part) ||
          b.bit - a.bit
        );
      });
  }

  /** A gate as it is drawn, once for each bit of its width; a bubble at an input is an inverter. */
  private gate(path: string, part: Part, { gates }: Template, netOf: (ref: number) => Signal): boolean {
    const bubbles = new Map(
      gates
        .filter(({ op, output }) => op === Primitive.NOT && output < 0)
        .map((g) => [g.output, g.inputs[0]!]),
    );
    const outputs = gates.filter(({ output }) => output >= 0);
    if (outputs.some(({ op }) => !GATE_SORTS[op] && op !== Primitive.BUF)) {
      const why = `No package for ${spokenName(part)}: ${kindOf(part).name.toLowerCase()}s are not in the catalogue.`;
      this.unplaced.push({ part: path, why });
      return true;
    }
    for (const [bit, { op, inputs, output }] of outputs.entries()) {
      const pins = inputs.map((ref) => {
        const bubbled = bubbles.get(ref);
        return bubbled === undefined ? netOf(ref) : this.build.inverse(path, netOf(bubbled));
      });
      this.build.gate(path, GATE_SORTS[op] ?? 'buffer', pins, netOf(output), true, bit);
    }
    return true;
  }

  /** A part of several gates as the catalogue builds it, without what constants decide. */
  private expand(path: string, part: Part, template: Template, netOf: (ref: number) => Signal): void {
    if (template.gates.some(({ op }) => op === Primitive.TRI || op === Primitive.CONST_X)) {
      this.unplaced.push({ part: path, why: `No package for ${spokenName(part)}.` });
      return;
    }
    const inner = new Map<number, Signal>();
    const signalOf = (ref: number): Signal => {
      if (ref >= 0) return netOf(ref);
      const known = inner.get(ref);
      if (known !== undefined) return known;
      const made = this.build.net();
      inner.set(ref, made);
      return made;
    };
    for (const gate of template.gates) this.primitive(path, gate, signalOf);
  }

  private primitive(path: string, gate: TemplateGate, signalOf: (ref: number) => Signal): void {
    const { op } = gate;
    const inputs = gate.inputs.map(signalOf);
    const output = signalOf(gate.output);
    const { build } = this;
    if (op === Primitive.CONST_0 || op === Primitive.CONST_1)
      build.tie(output, op === Primitive.CONST_1 ? '+' : '-');
    else if (op === Primitive.BUF) build.join(output, inputs[0]!);
    else if (op === Primitive.MUX) build.choose(path, inputs as [Signal, Signal, Signal], output);
    else if (op === Primitive.LATCH) build.latch(path, inputs, output);
    else if (remembers(op)) {
      const [data, clock, preset, clear] = inputs as [Signal, Signal, Signal?, Signal?];
      build.dFlipFlop(path, { data, clock, isFalling: op === Primitive.DFF_FALL, preset, clear, q: output });
    } else if (GATE_SORTS[op]) build.gate(path, GATE_SORTS[op], inputs, output, false);
  }
}
