import type { Lesson } from '../../circuit/lesson';
import type { Part, Sheet } from '../../circuit/sheet';
import { declaredInputs, declaredOutputs, terminalName } from '../../netlist/declared';
import { type SheetWiring, wiringOf } from '../../netlist/sheet-wiring';
import { boundaryOf, sheetInside } from '../../parts/catalogue';
import type { VerilogWires } from '../../parts/part-kind';
import { type Delay, Primitive } from '../../parts/primitive';
import { type Template, type TemplateGate, templateOf } from '../../parts/template';
import { KEYWORDS } from './keywords';

/** A name as the file needs it: escaped if it has other characters than a plain one. */
function identifier(name: string): string {
  if (/^[A-Za-z_][A-Za-z0-9_$]*$/.test(name) && !KEYWORDS.has(name)) return name;
  const printable = [...name]
    .map((c) => (/[!-~]/.test(c) ? c : `u${c.codePointAt(0)!.toString(16)}`))
    .join('');
  return `\\${printable} `;
}

/** Names that are given once each. */
class Names {
  private readonly taken = new Set<string>();

  give(preferred: string): string {
    const base = preferred.trim().replaceAll(/\s+/g, '_') || 'n';
    let name = base;
    for (let n = 2; this.taken.has(identifier(name)); n++) name = `${base}_${n}`;
    this.taken.add(identifier(name));
    return name;
  }
}

/** Ns with at most three decimals, or nothing for a zero delay. */
function delayText(delay: Delay | undefined): string {
  if (!delay || (delay.rise === 0 && delay.fall === 0)) return '';
  const ns = (ps: number) => String(ps / 1000);
  return delay.rise === delay.fall ? ` #(${ns(delay.rise)})` : ` #(${ns(delay.rise)}, ${ns(delay.fall)})`;
}

const vector = (width: number) => (width === 1 ? '' : `[${width - 1}:0] `);

const GATE_WORDS: Partial<Record<Primitive, string>> = {
  [Primitive.AND]: 'and',
  [Primitive.NAND]: 'nand',
  [Primitive.OR]: 'or',
  [Primitive.NOR]: 'nor',
  [Primitive.XOR]: 'xor',
  [Primitive.XNOR]: 'xnor',
  [Primitive.BUF]: 'buf',
  [Primitive.NOT]: 'not',
};

/**
 * Verilog (IEEE Std 1364-2005) of a sheet and of everything in its blocks: a module for each, gates as
 * primitives with their delays in ns, larger parts as modules of their own. Switches and clocks of the sheet
 * become inputs, lamps and numbers outputs. Setup and hold times have no counterpart and are left out.
 */
export function writeVerilog(lesson: Lesson, sheet: Sheet): string {
  return verilogLines(lesson, sheet)
    .map((line) => `${line.text}\n`)
    .join('');
}

/** A line of a file, and the part of the sheet that it stands for, where it stands for one. */
export interface VerilogLine {
  readonly text: string;
  readonly part?: string;
}

/** The lines of `writeVerilog`. Those of the sheet's own module say which part each stands for. */
export const verilogLines = (lesson: Lesson, sheet: Sheet): readonly VerilogLine[] =>
  new Writer(lesson).file(sheet);

class Writer {
  private readonly modules: (readonly VerilogLine[])[] = [];
  private readonly names = new Names();
  private readonly sheetNames = new Map<string, string>();
  private readonly partNames = new Map<string, string>();

  constructor(private readonly lesson: Lesson) {}

  file(sheet: Sheet): readonly VerilogLine[] {
    const title = this.lesson.title.replaceAll(/[\r\n]/g, ' ');
    this.sheet(sheet, true);
    const head = [`// ${title}`, '`timescale 1ns / 1ps'].map((text) => ({ text }));
    return [...head, ...this.modules.flatMap((module) => [{ text: '' }, ...module])];
  }

  /** Writes a sheet's module unless it exists, and returns its name. */
  private sheet(sheet: Sheet, isRoot: boolean): string {
    const known = this.sheetNames.get(sheet.id);
    if (known) return known;
    const name = this.names.give(sheet.name);
    this.sheetNames.set(sheet.id, name);
    const at = this.modules.push([]) - 1;
    this.modules[at] = new SheetModule(this, sheet, name, isRoot).written();
    return name;
  }

  /** The module of a block's sheet, or null where the lesson has none. */
  block(part: Part): string | null {
    const sheet = sheetInside(part, this.lesson.sheets);
    return sheet ? this.sheet(sheet, false) : null;
  }

  /** The module of a part that is no plain gate. */
  part(part: Part): string {
    const key = `${part.kind} ${JSON.stringify(part.params)}`;
    const known = this.partNames.get(key);
    if (known) return known;
    const template = templateOf(part);
    const { kind } = template;
    const called = kind.moduleName?.(part.params) ?? kind.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '_');
    const name = this.names.give(called);
    this.partNames.set(key, name);
    this.modules.push(
      partModule(name, part, template)
        .split('\n')
        .map((text) => ({ text })),
    );
    return name;
  }
}

/** The module of one part, made of its primitives. */
function partModule(name: string, part: Part, template: Template): string {
  const { ports, pinStart } = template;
  const names = new Names();
  const portNames = ports.map((p) => names.give(p.name));
  const stored = new Set(template.gates.filter((g) => g.store).map((g) => g.output));
  const inner = Array.from({ length: template.inner }, (_, i) =>
    identifier(names.give(stored.has(-1 - i) ? `state${i + 1}` : `n${i + 1}`)),
  );
  const ref = (r: number) => {
    if (r < 0) return inner[-1 - r]!;
    const port = ports.findLastIndex((_, i) => pinStart[i]! <= r);
    const base = identifier(portNames[port]!);
    return ports[port]!.width === 1 ? base : `${base}[${r - pinStart[port]!}]`;
  };
  const heads = ports.map(
    (p, i) =>
      `  ${p.direction === 'in' ? 'input' : 'output'} wire ${vector(p.width)}${identifier(portNames[i]!)}`,
  );
  const lines: string[] = [];
  const absent = absentControls(template);
  const wires = inner.filter((_, i) => !stored.has(-1 - i) && !absent.has(-1 - i));
  const regs = inner.filter((_, i) => stored.has(-1 - i));
  for (const [word, list] of [
    ['wire', wires],
    ['reg', regs],
  ] as const)
    for (let at = 0; at < list.length; at += 12)
      lines.push(`  ${word} ${list.slice(at, at + 12).join(', ')};`);
  for (const gate of template.gates)
    if (!absent.has(gate.output))
      lines.push(...primitiveLines(gate, ref, absent, names).map((l) => `  ${l}`));
  const said = template.kind.spoken(part.params).replaceAll(/[\r\n]/g, ' ');
  return `// ${said}\nmodule ${identifier(name)} (\n${heads.join(',\n')}\n);\n${lines.join('\n')}\nendmodule`;
}

/** Constants that stand for a preset or a clear which the part does not have. */
function absentControls({ gates }: Template): ReadonlySet<number> {
  const never = new Set(gates.filter((g) => g.op === Primitive.CONST_0).map((g) => g.output));
  for (const g of gates)
    for (const [i, ref] of g.inputs.entries()) if (!(g.store && i >= 2)) never.delete(ref);
  return never;
}

function primitiveLines(
  gate: TemplateGate,
  ref: (r: number) => string,
  absent: ReadonlySet<number>,
  names: Names,
): string[] {
  const { op } = gate;
  const out = ref(gate.output);
  const ins = gate.inputs.map((r) => (absent.has(r) ? '' : ref(r)));
  const delay = delayText(gate.delay);
  const word = GATE_WORDS[op];
  if (word) return [`${word}${delay} (${[out, ...ins].join(', ')});`];
  switch (op) {
    case Primitive.MUX:
      return [`assign${delay} ${out} = ${ins[0]} ? ${ins[2]} : ${ins[1]};`];
    case Primitive.TRI:
      return [`bufif1${delay} (${out}, ${ins[0]}, ${ins[1]});`];
    case Primitive.CONST_0:
    case Primitive.CONST_1:
    case Primitive.CONST_X:
      return [`assign ${out} = 1'b${op === Primitive.CONST_0 ? 0 : op === Primitive.CONST_1 ? 1 : 'x'};`];
    default:
      return storeLines(gate, out, ins, names);
  }
}

function storeLines(
  gate: TemplateGate,
  out: string,
  [data, clock, preset, clear]: readonly string[],
  names: Names,
): string[] {
  const latch = gate.op === Primitive.LATCH;
  const edge = gate.op === Primitive.DFF_FALL ? 'negedge' : 'posedge';
  // A block wakes when a control begins, not when it ends. So that a preset that outlasts the clear acts, as it does in a
  // flip-flop, the block waits for the preset without the clear.
  const both = !latch && preset && clear ? identifier(names.give('set')) : null;
  const controls = [
    [clear, 0],
    [both ?? preset, 1],
  ].filter(([signal]) => signal);
  const list = latch
    ? '@*'
    : `@(${[`${edge} ${clock}`, ...controls.map(([c]) => `posedge ${c}`)].join(' or ')})`;
  const is = latch ? '=' : '<=';
  const take = latch ? `if (${clock}) ${out} = ${data};` : `${out} <= ${data};`;
  const power = gate.store?.powerUp ?? 'lesson';
  const chain = controls.map(([signal, value]) => `if (${signal}) ${out} ${is} 1'b${value};`);
  return [
    ...(both ? [`wire ${both} = ${preset} & ~${clear};`] : []),
    ...(power === 'lesson' ? [] : [`initial ${out} = 1'b${power.toLowerCase()};`]),
    `always ${list}`,
    ...[...chain, take].map((line, i) => (i === 0 ? `  ${line}` : `  else ${line}`)),
  ];
}

interface PortLine {
  readonly direction: 'input' | 'output';
  readonly width: number;
  readonly name: string;
  /** Net bits of the sheet. */
  readonly first: number;
  readonly part: string;
}

class SheetModule {
  private readonly plan: SheetWiring;
  private readonly names = new Names();
  /** The name of each group of the sheet's nets, by its first bit. */
  private readonly groups = new Map<number, string>();
  private readonly ports: PortLine[] = [];
  private readonly lines: VerilogLine[] = [];

  constructor(
    private readonly writer: Writer,
    private readonly source: Sheet,
    private readonly name: string,
    private readonly isRoot: boolean,
  ) {
    this.plan = wiringOf(source);
  }

  written(): VerilogLine[] {
    this.namePorts();
    for (const [i, part] of this.plan.parts.entries()) this.part(part, this.plan.templates[i]!);
    const wires = [...this.groups]
      .filter(([first, name]) => !this.ports.some((p) => p.first === first && p.name === name))
      .map(([first, name]) => `  wire ${vector(this.widthAt(first))}${identifier(name)};`);
    const heads = this.ports.map((p, i) => {
      const comma = i < this.ports.length - 1 ? ',' : '';
      return this.said(`${p.direction} wire ${vector(p.width)}${identifier(p.name)}${comma}`, p.part);
    });
    return [
      { text: `module ${identifier(this.name)} (` },
      ...heads,
      { text: ');' },
      ...wires.map((text) => ({ text })),
      ...this.lines,
      { text: 'endmodule' },
    ];
  }

  /** A line within the module; only those of the outermost sheet stand for a part that is looked at. */
  private said(text: string, part: string): VerilogLine {
    return this.isRoot ? { text: `  ${text}`, part } : { text: `  ${text}` };
  }

  private widths = new Map<number, number>();
  private widthAt(first: number): number {
    return this.widths.get(first) ?? 1;
  }

  private groupAt(part: number, port: number): readonly [number, number] {
    const group = this.plan.groupOfPin(part, port);
    this.widths.set(group[0], group[1]);
    return group;
  }

  private namePorts(): void {
    const { plan: wiring, source } = this;
    const ofSheet = (p: Part) => this.isRoot || boundaryOf(p) !== undefined;
    for (const part of declaredInputs(source).filter(ofSheet)) {
      const i = wiring.indexOf.get(part.id)!;
      const [first, width] = this.groupAt(i, 0);
      const name = this.names.give(terminalName(part));
      const taken = this.groups.get(first);
      this.ports.push({ direction: 'input', width, name, first, part: part.id });
      // Two that drive one wire: the second is tied to it.
      if (taken === undefined) this.groups.set(first, name);
      else this.lines.push(this.said(`assign ${identifier(taken)} = ${identifier(name)};`, part.id));
    }
    for (const part of declaredOutputs(source).filter(ofSheet)) {
      const i = wiring.indexOf.get(part.id)!;
      const [first, width] = this.groupAt(i, 0);
      const own = wiring.templates[i]!.ports[0]!.width;
      const name = this.names.give(terminalName(part));
      this.ports.push({ direction: 'output', width: own, name, first, part: part.id });
      const taken = this.groups.get(first);
      if (taken === undefined && own === width) this.groups.set(first, name);
      else this.lines.push(this.said(`assign ${identifier(name)} = ${this.signal(first)};`, part.id));
    }
  }

  /** The name of a group of nets; new ones are called after a label on them or the part that drives them. */
  private signal(first: number, preferred = ''): string {
    let name = this.groups.get(first);
    if (name === undefined) {
      name = this.names.give(this.labels().get(first) ?? (preferred || `n${first}`));
      this.groups.set(first, name);
    }
    return identifier(name);
  }

  private labelled: Map<number, string> | null = null;
  private labels(): Map<number, string> {
    if (this.labelled) return this.labelled;
    this.labelled = new Map();
    const { plan: wiring } = this;
    // A net is called after its label, or else after the part that drives it.
    for (const [i, part] of wiring.parts.entries())
      for (const [p, port] of wiring.templates[i]!.ports.entries()) {
        const [first] = this.groupAt(i, p);
        if (wiring.templates[i]!.kind.joinsByLabel && part.label) this.labelled.set(first, part.label);
        else if (port.direction === 'out' && !this.labelled.has(first)) {
          const outputs = wiring.templates[i]!.ports.filter((o) => o.direction === 'out').length;
          this.labelled.set(first, outputs > 1 ? `${part.id}_${port.name}` : `${part.label || part.id}_out`);
        }
      }
    return this.labelled;
  }

  /** The expression for a pin: its whole group, or the low bits of a wider one. */
  private pin(part: number, port: number): string {
    const [first, width] = this.groupAt(part, port);
    const own = this.plan.templates[part]!.ports[port]!.width;
    const name = this.signal(first);
    return own < width ? `${name}[${own - 1}:0]` : name;
  }

  private part(part: Part, template: Template): void {
    const lines = this.linesOf(part, template);
    this.lines.push(...lines.map((text) => this.said(text, part.id)));
  }

  private linesOf(part: Part, template: Template): readonly string[] {
    if (template.kind.isNote) return [];
    const i = this.plan.indexOf.get(part.id)!;
    const pins = template.ports.map((_, p) => this.pin(i, p));
    const { role } = template;
    if (role && !(role.role === 'constant')) {
      if (this.isRoot || template.kind.boundary || role.role === 'output') return [];
      return [
        `assign ${pins[0]} = ${template.ports[0]!.width}'b0; // ${part.label || part.id}, by hand inside a block`,
      ];
    }
    if (role?.role === 'constant') {
      const letters = role.bits
        .map((b) => '01xz'[b])
        .reverse()
        .join('');
      return [`assign ${pins[0]} = ${role.bits.length}'b${letters};`];
    }
    if (template.kind.insideSheet) {
      const module = this.writer.block(part);
      if (!module) return [`// ${part.id}: its sheet is not in this lesson`];
      const ties = template.ports.map((p, k) => `.${identifier(p.name)}(${pins[k]})`);
      return [
        `${identifier(module)} ${identifier(this.names.give(part.label || part.id))} (${ties.join(', ')});`,
      ];
    }
    const own = template.kind.verilog?.(part.params, this.wiresOf(part, template, pins));
    if (own) return own;
    const module = this.writer.part(part);
    const portNames = new Names();
    const ties = template.ports.map((p, k) => `.${identifier(portNames.give(p.name))}(${pins[k]})`);
    return [
      `${identifier(module)} ${identifier(this.names.give(part.label || part.id))} (${ties.join(', ')});`,
    ];
  }

  private wiresOf(part: Part, template: Template, pins: readonly string[]): VerilogWires {
    const at = (port: string) => template.portIndex.get(port)!;
    const bits = (port: string, high: number, low: number) => {
      const all = pins[at(port)]!;
      if (template.ports[at(port)]!.width === 1) return all;
      return `${all.replace(/\[\d+:0\]$/, '')}[${high === low ? low : `${high}:${low}`}]`;
    };
    return {
      of: (port) => pins[at(port)]!,
      bits,
      bit: (port, bit) => bits(port, bit, bit),
      instance: (word, terminals) =>
        `${word}${delayText(template.gates.at(-1)!.delay)} ${identifier(this.names.give(part.id))} (${terminals.join(', ')});`,
    };
  }
}
