import type { Params, Part, Sheet, Wire } from '../circuit/sheet';
import type { Delays } from '../circuit/time-setup';
import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { findKind } from '../parts/catalogue';
import { readParams } from '../parts/params';
import { Run } from '../simulate/run';
import type { RunOptions } from '../simulate/run-options';
import type { Logic } from '../values/logic';
import { bitsOf, wordText } from '../values/radix';
import { expectDone } from '../values/result';

/** A part made by hand, with an id of its own. */
export function partOf(kind: string, id: string, params: Params = {}, rank = 0, label = id): Part {
  const entry = findKind(kind)!;
  return {
    id,
    kind,
    at: { x: 0, y: 12 * rank },
    turn: 0,
    label,
    rank,
    params: expectDone(readParams(entry, params)),
  };
}

/** A sheet of parts and of wires `from.port-to.port`; nothing is laid out. */
export function sheetOfParts(parts: readonly Part[], joins: readonly string[], id = 'sheet1'): Sheet {
  const wires = joins.map((join, i): Wire => {
    const [from, to] = join.split('-').map((end) => {
      const dot = end.indexOf('.');
      return { part: end.slice(0, dot), port: end.slice(dot + 1) };
    });
    return { id: `w${i + 1}`, from: from!, to: to!, course: [] };
  });
  return {
    id,
    name: id,
    parts: new Map(parts.map((p, i) => [p.id, { ...p, at: { x: (i % 8) * 20, y: Math.floor(i / 8) * 20 } }])),
    wires: new Map(wires.map((w) => [w.id, w])),
  };
}

/** One part with a port of the sheet at each of its pins, called as the pin is. */
export function sheetAround(kind: string, params: Params = {}): Sheet {
  const part = partOf(kind, 'dut', params, 0, '');
  const parts = [part];
  const joins: string[] = [];
  for (const [i, port] of findKind(kind)!.ports(part.params).entries()) {
    const out = port.direction !== 'in';
    parts.push(partOf('port', `p${i}`, { direction: out ? 'out' : 'in', width: port.width }, i, port.name));
    joins.push(out ? `dut.${port.name}-p${i}.A` : `p${i}.Y-dut.${port.name}`);
  }
  return sheetOfParts(parts, joins);
}

/** A running circuit whose inputs and outputs are read and written as numbers or letters. */
export class Rig {
  readonly netlist: Netlist;
  readonly run: Run;

  constructor(sheet: Sheet, options: RunOptions & { delays?: Delays } = {}, sheets: readonly Sheet[] = []) {
    this.netlist = compile(sheet, sheets);
    this.run = new Run(this.netlist, { delays: 'zero', ...options });
  }

  static of(kind: string, params: Params = {}, options: RunOptions = {}): Rig {
    return new Rig(sheetAround(kind, params), options);
  }

  /** Puts inputs to numbers, or to words of letters with the highest bit first. */
  set(values: Readonly<Record<string, number | string>>): this {
    const changes: [number, Logic][] = [];
    for (const [name, value] of Object.entries(values)) {
      const terminal = this.netlist.inputs.find((t) => t.name === name);
      if (!terminal) throw new Error(`no input ${name}`);
      const width = terminal.nets.length;
      const bits =
        typeof value === 'number'
          ? bitsOf(value, width)
          : [...value].reverse().map((c) => '01XZ'.indexOf(c) as Logic);
      for (const [i, net] of terminal.nets.entries()) changes.push([net, bits[i]!]);
    }
    this.run.set(changes);
    return this;
  }

  /** The word at an output, the highest bit first. */
  word(name: string): string {
    return wordText(this.bits(name), 'binary');
  }

  /** The number at an output; NaN where a bit of it is unknown. */
  number(name: string): number {
    const word = this.word(name);
    return /^[01]+$/.test(word) ? Number.parseInt(word, 2) : Number.NaN;
  }

  private bits(name: string): Logic[] {
    const terminal = [...this.netlist.outputs, ...this.netlist.inputs].find((t) => t.name === name);
    if (!terminal) throw new Error(`no output ${name}`);
    return terminal.nets.map((net) => this.run.values[net] as Logic);
  }

  /** A whole pulse on an input. */
  pulse(name: string, values: Readonly<Record<string, number | string>> = {}): this {
    return this.set(values)
      .set({ [name]: 1 })
      .set({ [name]: 0 });
  }
}
