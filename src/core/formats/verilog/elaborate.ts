import type { Params, Sheet } from '../../circuit/lesson';
import { writePins } from '../../parts/block';
import { type Bit, C0, C1, Cells, CX, CZ, MOST_VECTOR } from './cells';
import type { Connection, Expression, FileDelay, Item, Module, Statement } from './syntax';
import { type Place, VerilogError } from './tokens';

/** Gates read at most, with all copies of modules for other parameters. */
const MOST_MODULES = 2000;
/** Bits in one part; wider ones are cut. */
const MOST_PART = 32;

const fail = (message: string, at: Place): never => {
  throw new VerilogError(message, { line: at.line, column: at.column });
};

/**
 * The sheets of a design, the one of the root module first. A module that is used with other parameters has a
 * sheet for each set of them.
 * @throws VerilogError
 */
export function elaborate(modules: readonly Module[], root: Module): Sheet[] {
  const design = new Design(modules);
  design.use(root, new Map());
  return design.sheets();
}

/** Modules that no other uses. */
export function rootsOf(modules: readonly Module[]): Module[] {
  const used = new Set(modules.flatMap((m) => m.items.map((i) => (i.is === 'instance' ? i.module : ''))));
  return modules.filter((m) => !used.has(m.name));
}

interface Signal {
  readonly bits: readonly Bit[];
  /** The index of the most and of the least significant bit. */
  readonly high: number;
  readonly low: number;
  readonly isVector: boolean;
}

interface PortOf {
  readonly name: string;
  readonly direction: 'input' | 'output';
  readonly width: number;
}

interface Use {
  readonly id: string;
  readonly ports: readonly PortOf[];
}

class Design {
  private readonly byName: ReadonlyMap<string, Module>;
  private readonly uses = new Map<string, Use>();
  private readonly made: (Sheet | null)[] = [];
  private readonly open: string[] = [];

  constructor(modules: readonly Module[]) {
    this.byName = new Map(modules.map((m) => [m.name, m]));
  }

  sheets(): Sheet[] {
    return this.made.filter((s) => s !== null);
  }

  /** The sheet of a module with these parameters. */
  use(module: Module, parameters: ReadonlyMap<string, number>): Use {
    const key = `${module.name} ${[...parameters].map(([n, v]) => `${n}=${v}`).join(' ')}`;
    const known = this.uses.get(key);
    if (known) return known;
    if (this.open.includes(module.name))
      fail(
        `module ${module.name} holds itself: ${[...this.open.slice(this.open.indexOf(module.name)), module.name].join(' holds ')}`,
        module,
      );
    if (this.made.length >= MOST_MODULES) fail('the modules with their parameters are too many', module);
    const at = this.made.push(null) - 1;
    this.open.push(module.name);
    const title = parameters.size ? `${module.name} ${[...parameters.values()].join(', ')}` : module.name;
    const reader = new ModuleReader(module, parameters, this, `m${at + 1}`, title.slice(0, 60));
    this.made[at] = reader.sheet();
    this.open.pop();
    const use = { id: `m${at + 1}`, ports: reader.ports() };
    this.uses.set(key, use);
    return use;
  }

  module(name: string): Module | undefined {
    return this.byName.get(name);
  }
}

/** Bits, and the part that has made them if it is theirs alone, so that a delay can be given to it. */
interface Value {
  readonly bits: Bit[];
  readonly delayed?: (delay: Params) => void;
}

interface Register {
  readonly edge: 'rising' | 'falling' | null;
  readonly clock: Bit;
}

/** An asynchronous condition, active at 1, and the bit of a signal that it comes from where it is a plain one. */
interface Asynchronous {
  readonly signal: Bit;
  readonly active: 0 | 1;
  readonly values: ReadonlyMap<Bit, Bit>;
}

class ModuleReader {
  private readonly cells: Cells;
  private readonly constants = new Map<string, number>();
  private readonly signals = new Map<string, Signal>();
  private readonly powerUp = new Map<Bit, Bit>();
  /** Whether a name that is not declared is a wire: among the terminals of gates and instances. */
  private implicit = false;
  private readonly latched = new Set<Bit>();
  private readonly directions = new Map<string, 'input' | 'output'>();

  constructor(
    private readonly module: Module,
    given: ReadonlyMap<string, number>,
    private readonly design: Design,
    id: string,
    name: string,
  ) {
    this.cells = new Cells(id, name);
    for (const { name: parameter, value, local } of module.parameters)
      this.constants.set(
        parameter,
        local ? this.constant(value) : (given.get(parameter) ?? this.constant(value)),
      );
    for (const p of given.keys())
      if (!module.parameters.some((m) => m.name === p && !m.local))
        fail(`module ${module.name} has no parameter ${p}`, module);
    this.declare();
  }

  ports(): PortOf[] {
    return this.module.ports.map((name) => ({
      name,
      direction: this.directions.get(name)!,
      width: this.signals.get(name)!.bits.length,
    }));
  }

  sheet(): Sheet {
    for (const [rank, { name, direction, width }] of this.ports().entries()) {
      const into = direction === 'input';
      const { bits } = this.signals.get(name)!;
      this.cells.add(
        'port',
        { direction: into ? 'in' : 'out', width },
        { [into ? 'Y' : 'A']: bits },
        `p_${name}`,
        name,
        rank,
      );
    }
    for (const item of this.module.items) if (item.is === 'initial') this.initial(item);
    for (const item of this.module.items) this.item(item);
    return this.cells.sheet();
  }

  private declare(): void {
    const { module } = this;
    const kinds = new Map<string, { range: Signal; at: Place }>();
    for (const d of module.declarations) {
      const high = d.range ? this.constant(d.range.high) : 0;
      const low = d.range ? this.constant(d.range.low) : 0;
      const width = Math.abs(high - low) + 1;
      if (!Number.isInteger(width) || width > MOST_VECTOR)
        fail(`${d.name} has ${width} bits, and ${MOST_VECTOR} are the most`, d);
      if (d.direction) {
        if (!module.ports.includes(d.name))
          fail(`${d.name} is not in the list of ports of ${module.name}`, d);
        this.directions.set(d.name, d.direction);
      }
      const before = kinds.get(d.name);
      if (before) {
        if (d.range && (before.range.high !== high || before.range.low !== low))
          fail(`${d.name} is declared with another range in line ${before.at.line}`, d);
        continue;
      }
      const signal = { bits: this.cells.fresh(width), high, low, isVector: d.range !== null };
      kinds.set(d.name, { range: signal, at: d });
      this.signals.set(d.name, signal);
      if (d.type === 'supply0' || d.type === 'supply1')
        for (const bit of signal.bits) this.cells.join(bit, d.type === 'supply1' ? C1 : C0);
    }
    for (const name of module.ports)
      if (!this.directions.has(name))
        fail(`port ${name} of ${module.name} is neither input nor output`, module);
    const twice = module.ports.find((p, i) => module.ports.indexOf(p) !== i);
    if (twice) fail(`port ${twice} is named twice`, module);
  }

  /** The value of an expression of numbers and parameters. */
  private constant(e: Expression): number {
    switch (e.is) {
      case 'number':
        if (e.digits.startsWith('r')) return Number(e.digits.slice(1));
        if (/[xz]/.test(e.digits)) return fail('a number without x and z is expected', e);
        return Number.parseInt(e.digits, 2);
      case 'name': {
        const value = this.constants.get(e.name);
        return value ?? fail(`${e.name} is not a parameter, and a constant is expected`, e);
      }
      case 'unary': {
        const of = this.constant(e.of);
        if (e.operator === '-') return -of;
        if (e.operator === '+') return of;
        if (e.operator === '!') return +(of === 0);
        return fail(`“${e.operator}” in a constant is outside the part of Verilog that is read`, e);
      }
      case 'binary': {
        const [a, b] = [this.constant(e.left), this.constant(e.right)];
        const done: Record<string, () => number> = {
          '+': () => a + b,
          '-': () => a - b,
          '*': () => a * b,
          '/': () => Math.trunc(a / b),
          '%': () => a % b,
          '<<': () => a * 2 ** b,
          '>>': () => Math.floor(a / 2 ** b),
          '<': () => +(a < b),
          '<=': () => +(a <= b),
          '>': () => +(a > b),
          '>=': () => +(a >= b),
          '==': () => +(a === b),
          '!=': () => +(a !== b),
          '&&': () => +(a !== 0 && b !== 0),
          '||': () => +(a !== 0 || b !== 0),
        };
        const value =
          done[e.operator]?.() ??
          fail(`“${e.operator}” in a constant is outside the part of Verilog that is read`, e);
        return Number.isFinite(value) ? value : fail('the constant is divided by zero or too large', e);
      }
      case 'choose':
        return this.constant(this.constant(e.condition) ? e.yes : e.no);
      default:
        return fail('a constant is expected', e);
    }
  }

  private item(item: Item): void {
    switch (item.is) {
      case 'assign': {
        const target = this.target(item.target, true);
        const value = this.value(item.value, target.length);
        this.connect(target, value, this.delay(item.delay));
        return;
      }
      case 'gate':
        this.implicit = true;
        this.gate(item);
        this.implicit = false;
        return;
      case 'instance':
        this.implicit = true;
        this.instance(item);
        this.implicit = false;
        return;
      case 'always':
        this.always(item);
        return;
      case 'initial':
        return;
    }
  }

  /** Ties bits to a value; a delay goes to the part that makes it, or to a buffer. */
  private connect(target: readonly Bit[], value: Value, delay: Params): void {
    let { bits } = value;
    if (delay.delayRise || delay.delayFall) {
      if (value.delayed) value.delayed(delay);
      else
        bits = this.inParts(bits.length, (from, to) =>
          this.gateCell('buffer', [bits.slice(from, to)], delay),
        );
    }
    for (const [i, bit] of target.entries()) this.cells.join(bit, bits[i]!);
  }

  private delay(delay: FileDelay | null): Params {
    if (!delay) return { delayRise: 0, delayFall: 0 };
    const ps = (e: Expression) => {
      const value = Math.round(this.constant(e) * this.module.unit);
      return value >= 0 && value <= 1e9 ? value : fail('a delay is 0 to 1 ms', e);
    };
    return { delayRise: ps(delay.rise), delayFall: ps(delay.fall) };
  }

  private inParts(width: number, make: (from: number, to: number) => Bit[]): Bit[] {
    const bits: Bit[] = [];
    for (let from = 0; from < width; from += MOST_PART)
      bits.push(...make(from, Math.min(width, from + MOST_PART)));
    return bits;
  }

  /** A gate with its inputs, each of the same width. */
  private gateCell(
    kind: string,
    inputs: readonly (readonly Bit[])[],
    delay: Params,
    wish = '',
    out?: readonly Bit[],
  ): Bit[] {
    const width = inputs[0]!.length;
    const Y = out ? [...out] : this.cells.fresh(width);
    const pins = Object.fromEntries(inputs.map((bits, i) => [String.fromCharCode(65 + i), bits]));
    const params: Params = kind === 'not' || kind === 'buffer' ? { width } : { width, inputs: inputs.length };
    this.cells.add(kind, { ...params, ...delay }, { ...pins, Y }, wish);
    return Y;
  }

  private gate(item: Extract<Item, { is: 'gate' }>): void {
    const { kind, terminals, name } = item;
    const delay = this.delay(item.delay);
    const single = (e: Expression) => {
      const { bits } = this.value(e, 0);
      return bits[0]!;
    };
    const output = (e: Expression) => {
      const bits = this.target(e, true);
      if (bits.length !== 1) fail(`the output of ${kind} has one bit, not ${bits.length}`, e);
      return bits[0]!;
    };
    if (kind === 'pullup' || kind === 'pulldown') {
      this.cells.add('pull', { to: kind === 'pullup' ? 'up' : 'down' }, { A: [output(terminals[0]!)] }, name);
      return;
    }
    if (kind === 'buf' || kind === 'not') {
      const from = single(terminals.at(-1)!);
      for (const e of terminals.slice(0, -1))
        this.gateCell(kind === 'buf' ? 'buffer' : 'not', [[from]], delay, name, [output(e)]);
      return;
    }
    if (kind.includes('if')) {
      const [data, enable] = [single(terminals[1]!), single(terminals[2]!)];
      const A = kind.startsWith('notif') ? this.gateCell('not', [[data]], { delayRise: 0 }) : [data];
      const level = kind.endsWith('1') ? 'high' : 'low';
      this.cells.add(
        'tri',
        { enable: level, ...delay },
        { A, EN: [enable], Y: [output(terminals[0]!)] },
        name,
      );
      return;
    }
    this.wideGate(
      kind,
      terminals.slice(1).map((e) => [single(e)]),
      delay,
      name,
      [output(terminals[0]!)],
    );
  }

  /** A gate with any number of inputs: beyond what one part has, gates before it gather them. */
  private wideGate(kind: string, inputs: Bit[][], delay: Params, wish = '', out?: readonly Bit[]): Bit[] {
    if (inputs.length === 1)
      return this.gateCell(
        kind === 'and' || kind === 'or' || kind === 'xor' ? 'buffer' : 'not',
        inputs,
        delay,
        wish,
        out,
      );
    let list = inputs;
    const gathering = { nand: 'and', nor: 'or', xnor: 'xor' }[kind] ?? kind;
    while (list.length > 16) {
      const next: Bit[][] = [];
      for (let at = 0; at < list.length; at += 16) {
        const some = list.slice(at, at + 16);
        next.push(
          some.length === 1 ? some[0]! : this.gateCell(gathering, some, { delayRise: 0, delayFall: 0 }),
        );
      }
      list = next;
    }
    return this.gateCell(kind, list, delay, wish, out);
  }

  private instance(item: Extract<Item, { is: 'instance' }>): void {
    const module = this.design.module(item.module) ?? fail(`there is no module called ${item.module}`, item);
    const parameters = new Map<string, number>();
    const open = module.parameters.filter((p) => !p.local);
    for (const [i, p] of item.parameters.entries()) {
      const name = p.port ?? open[i]?.name ?? fail(`${item.module} has ${open.length} parameters`, p);
      if (!p.to) continue;
      if (!open.some((o) => o.name === name)) fail(`${item.module} has no parameter ${name}`, p);
      parameters.set(name, this.constant(p.to));
    }
    const { id, ports } = this.design.use(module, parameters);
    const tied = new Map<string, Connection>();
    const byName = item.connections.some((c) => c.port !== null);
    for (const [i, c] of item.connections.entries()) {
      if (byName !== (c.port !== null)) fail('connections are all by name or all by position', c);
      const name = c.port ?? ports[i]?.name ?? fail(`${item.module} has ${ports.length} ports`, c);
      if (!ports.some((p) => p.name === name)) fail(`${item.module} has no port ${name}`, c);
      if (tied.has(name)) fail(`port ${name} is connected twice`, c);
      tied.set(name, c);
    }
    const pins: Record<string, Bit[]> = {};
    for (const { name, direction, width } of ports) {
      const c = tied.get(name);
      if (!c?.to) continue;
      if (direction === 'input') pins[name] = this.value(c.to, width).bits.slice(0, width);
      else {
        const bits = this.target(c.to, true).slice(0, width);
        pins[name] = [...bits, ...this.cells.fresh(width - bits.length)];
      }
    }
    const pinsOf = (direction: string) => writePins(ports.filter((p) => p.direction === direction));
    const params = {
      sheet: id,
      title: item.module.slice(0, 60),
      inputs: pinsOf('input'),
      outputs: pinsOf('output'),
    };
    this.cells.add('block', params, pins, item.name, item.name.slice(0, 60));
  }

  private initial(item: Extract<Item, { is: 'initial' }>): void {
    const bits = this.target(item.target, false);
    const value = this.value(item.value, bits.length).bits;
    for (const [i, bit] of bits.entries()) {
      if (value[i]! >= 0) fail('a constant is expected', item.value);
      this.powerUp.set(bit, value[i]!);
    }
  }

  private signal(name: string, at: Place, mayDeclare: boolean): Signal {
    const found = this.signals.get(name);
    if (found) return found;
    if (!mayDeclare) fail(`${name} is not declared`, at);
    // Left of an assign and at ports an unknown name is a wire of its own (IEEE Std 1364-2005, 4.5).
    const made = {
      bits: this.cells.fresh(1),
      high: 0,
      low: 0,
      isVector: false,
    };
    this.signals.set(name, made);
    return made;
  }

  private position(s: Signal, index: number, name: string, at: Place): number {
    const position = s.high >= s.low ? index - s.low : s.low - index;
    if (!s.isVector) fail(`${name} is a single bit`, at);
    if (!Number.isInteger(position) || position < 0 || position >= s.bits.length)
      fail(`${name} has no bit ${index}: it is [${s.high}:${s.low}]`, at);
    return position;
  }

  private part(e: Extract<Expression, { is: 'bit' | 'range' }>, s: Signal): Bit[] {
    if (e.is === 'bit') return [s.bits[this.position(s, this.constant(e.index), e.name, e)]!];
    const high = this.position(s, this.constant(e.high), e.name, e.high);
    const low = this.position(s, this.constant(e.low), e.name, e.low);
    if (high < low) fail(`the range of ${e.name} runs the other way: it is [${s.high}:${s.low}]`, e);
    return s.bits.slice(low, high + 1);
  }

  /** Bits that something is assigned to. */
  private target(e: Expression, mayDeclare: boolean): Bit[] {
    switch (e.is) {
      case 'name':
        return [...this.signal(e.name, e, mayDeclare).bits];
      case 'bit':
      case 'range':
        return this.part(e, this.signal(e.name, e, false));
      case 'concat':
        return [...e.items].reverse().flatMap((item) => this.target(item, mayDeclare));
      default:
        return fail('a signal, or some of its bits, is expected', e);
    }
  }

  /** Bits that an expression has by itself. */
  private widthOf(e: Expression): number {
    switch (e.is) {
      case 'number':
        return e.digits.startsWith('r') ? fail('a whole number is expected', e) : e.digits.length;
      case 'name':
        return this.constants.has(e.name) ? 32 : this.signal(e.name, e, this.implicit).bits.length;
      case 'bit':
        return 1;
      case 'range':
        return Math.abs(this.constant(e.high) - this.constant(e.low)) + 1;
      case 'concat':
        return e.items.reduce((sum, item) => sum + this.widthOf(item), 0);
      case 'repeat':
        return this.count(e) * this.widthOf(e.item);
      case 'unary':
        return e.operator === '~' || e.operator === '+' || e.operator === '-' ? this.widthOf(e.of) : 1;
      case 'binary':
        if (['&&', '||', '==', '!=', '<', '<=', '>', '>='].includes(e.operator)) return 1;
        if (e.operator === '<<' || e.operator === '>>') return this.widthOf(e.left);
        return Math.max(this.widthOf(e.left), this.widthOf(e.right));
      case 'choose':
        return Math.max(this.widthOf(e.yes), this.widthOf(e.no));
    }
  }

  private count(e: Extract<Expression, { is: 'repeat' }>): number {
    const count = this.constant(e.count);
    if (!Number.isInteger(count) || count < 1 || count > MOST_VECTOR)
      fail(`1 to ${MOST_VECTOR} repetitions are expected`, e.count);
    return count;
  }

  private wide(e: Expression, least: number): number {
    const width = Math.max(least, this.widthOf(e));
    return width <= 2 * MOST_VECTOR ? width : fail(`an expression of ${width} bits is too wide`, e);
  }

  private static extended(bits: readonly Bit[], width: number): Bit[] {
    return [...bits, ...Array<Bit>(Math.max(0, width - bits.length)).fill(C0)];
  }

  /** The bits of an expression where at least `least` are wanted (IEEE Std 1364-2005, 5.4: widths by context). */
  private value(e: Expression, least: number, seen?: ReadonlyMap<Bit, Bit>): Value {
    const width = this.wide(e, least);
    const read = (bits: readonly Bit[]) => bits.map((b) => seen?.get(b) ?? b);
    const plain = (bits: readonly Bit[]): Value => ({ bits: ModuleReader.extended(read(bits), width) });
    switch (e.is) {
      case 'number': {
        const bits = [...e.digits].reverse().map((c) => ({ '0': C0, '1': C1, x: CX, z: CZ })[c as '0']);
        return { bits: ModuleReader.extended(bits, width) };
      }
      case 'name': {
        const parameter = this.constants.get(e.name);
        if (parameter === undefined) return plain(this.signal(e.name, e, this.implicit).bits);
        const number = parameter < 0 ? 2 ** 32 + parameter : parameter;
        return plain(Array.from({ length: 32 }, (_, i) => (Math.floor(number / 2 ** i) % 2 ? C1 : C0)));
      }
      case 'bit':
        return plain(
          this.isConstant(e.index) ? this.part(e, this.signal(e.name, e, false)) : this.chosenBit(e, seen),
        );
      case 'range':
        return plain(this.part(e, this.signal(e.name, e, false)));
      case 'concat':
        return {
          bits: ModuleReader.extended(
            [...e.items].reverse().flatMap((item) => this.sized(item, seen)),
            width,
          ),
        };
      case 'repeat': {
        const item = this.sized(e.item, seen);
        return {
          bits: ModuleReader.extended(Array.from({ length: this.count(e) }, () => item).flat(), width),
        };
      }
      case 'unary':
        return this.unary(e, width, seen);
      case 'binary':
        return this.binary(e, width, seen);
      case 'choose':
        return this.choice(e, width, seen);
    }
  }

  /** A concatenation's item, which needs a width of its own. */
  private sized(e: Expression, seen?: ReadonlyMap<Bit, Bit>): Bit[] {
    if (e.is === 'number' && !e.sized) fail('a number in braces needs its width', e);
    return this.value(e, 0, seen).bits;
  }

  private isConstant(e: Expression): boolean {
    switch (e.is) {
      case 'number':
        return true;
      case 'name':
        return this.constants.has(e.name);
      case 'unary':
        return this.isConstant(e.of);
      case 'binary':
        return this.isConstant(e.left) && this.isConstant(e.right);
      default:
        return false;
    }
  }

  /** `a[i]` with a signal for i: a tree of multiplexers, unknown past the ends. */
  private chosenBit(e: Extract<Expression, { is: 'bit' }>, seen?: ReadonlyMap<Bit, Bit>): Bit[] {
    const s = this.signal(e.name, e, false);
    const index = this.value(e.index, 0, seen).bits;
    if (index.length > 8)
      fail('an index of more than 8 bits is outside the part of Verilog that is read', e.index);
    let level: Bit[] = Array.from({ length: 2 ** index.length }, (_, i) => {
      const position = s.high >= s.low ? i - s.low : s.low - i;
      const bit = s.bits[position];
      return bit === undefined ? CX : (seen?.get(bit) ?? bit);
    });
    for (const select of index)
      level = Array.from(
        { length: level.length / 2 },
        (_, i) => this.mux(select, [level[2 * i]!], [level[2 * i + 1]!]).bits[0]!,
      );
    return level;
  }

  private made(bits: Bit[], cell: string): Value {
    return { bits, delayed: (delay) => this.cells.setDelay(cell, delay) };
  }

  private static readonly NOW: Params = { delayRise: 0, delayFall: 0 };

  /** Bit by bit, in as many parts as the width needs. */
  private bitwise(kind: string, inputs: readonly (readonly Bit[])[]): Value {
    const width = inputs[0]!.length;
    if (width <= MOST_PART && inputs.length <= 16) {
      const bits = this.gateCell(kind, inputs, ModuleReader.NOW);
      return this.made(bits, this.cells.lastId);
    }
    return {
      bits: this.inParts(width, (from, to) =>
        this.wideGate(
          kind,
          inputs.map((bits) => bits.slice(from, to)),
          ModuleReader.NOW,
        ),
      ),
    };
  }

  /** All bits of a word taken together: one bit. */
  private reduced(kind: string, bits: readonly Bit[]): Value {
    if (bits.length === 1 && (kind === 'and' || kind === 'or' || kind === 'xor')) return { bits: [bits[0]!] };
    const made = this.wideGate(
      kind,
      bits.map((b) => [b]),
      ModuleReader.NOW,
    );
    return this.made(made, this.cells.lastId);
  }

  private truth(e: Expression, seen?: ReadonlyMap<Bit, Bit>): Bit {
    return this.reduced('or', this.value(e, 0, seen).bits).bits[0]!;
  }

  private static padded(value: Value, width: number): Value {
    return width === value.bits.length ? value : { bits: ModuleReader.extended(value.bits, width) };
  }

  private unary(e: Extract<Expression, { is: 'unary' }>, width: number, seen?: ReadonlyMap<Bit, Bit>): Value {
    const { operator, of } = e;
    if (operator === '+') return this.value(of, width, seen);
    if (operator === '~') {
      // The opposite of an and, or, xor is one gate.
      if (of.is === 'binary' && ['&', '|', '^'].includes(of.operator)) {
        const inputs = this.operands(of, of.operator, width, seen);
        return this.bitwise({ '&': 'nand', '|': 'nor', '^': 'xnor' }[of.operator as '&'], inputs);
      }
      return this.bitwise('not', [this.value(of, width, seen).bits]);
    }
    const kind = {
      '&': 'and',
      '|': 'or',
      '^': 'xor',
      '~&': 'nand',
      '~|': 'nor',
      '~^': 'xnor',
      '^~': 'xnor',
      '!': 'nor',
    }[operator];
    if (!kind) return fail(`“${operator}” is outside the part of Verilog that is read`, e);
    return ModuleReader.padded(this.reduced(kind, this.value(of, 0, seen).bits), width);
  }

  /** The operands of a chain of one operator: `a & b & c` is one gate. */
  private operands(e: Expression, operator: string, width: number, seen?: ReadonlyMap<Bit, Bit>): Bit[][] {
    if (e.is === 'binary' && e.operator === operator)
      return [
        ...this.operands(e.left, operator, width, seen),
        ...this.operands(e.right, operator, width, seen),
      ];
    return [this.value(e, width, seen).bits];
  }

  private binary(
    e: Extract<Expression, { is: 'binary' }>,
    width: number,
    seen?: ReadonlyMap<Bit, Bit>,
  ): Value {
    const { operator, left, right } = e;
    const kind = { '&': 'and', '|': 'or', '^': 'xor' }[operator];
    if (kind) return this.bitwise(kind, this.operands(e, operator, width, seen));
    if (operator === '~^' || operator === '^~')
      return this.bitwise('xnor', [this.value(left, width, seen).bits, this.value(right, width, seen).bits]);
    if (operator === '&&' || operator === '||') {
      const bits = [this.truth(left, seen), this.truth(right, seen)];
      return ModuleReader.padded(this.reduced(operator === '&&' ? 'and' : 'or', bits), width);
    }
    if (operator === '==' || operator === '!=') {
      const both = Math.max(this.widthOf(left), this.widthOf(right));
      const differ = this.bitwise('xor', [
        this.value(left, both, seen).bits,
        this.value(right, both, seen).bits,
      ]);
      return ModuleReader.padded(this.reduced(operator === '==' ? 'nor' : 'or', differ.bits), width);
    }
    return fail(`“${operator}” on signals is outside the part of Verilog that is read`, e);
  }

  private mux(select: Bit, no: readonly Bit[], yes: readonly Bit[]): Value {
    const width = no.length;
    const one = (from: number, to: number) => {
      const Y = this.cells.fresh(to - from);
      const pins = { D0: no.slice(from, to), D1: yes.slice(from, to), S: [select], Y };
      this.cells.add('mux', { select: 1, width: to - from, ...ModuleReader.NOW }, pins);
      return Y;
    };
    if (width > MOST_PART) return { bits: this.inParts(width, one) };
    const bits = one(0, width);
    return this.made(bits, this.cells.lastId);
  }

  /** `c ? a : b`; with a branch of nothing but z a three-state buffer. */
  private choice(
    e: Extract<Expression, { is: 'choose' }>,
    width: number,
    seen?: ReadonlyMap<Bit, Bit>,
  ): Value {
    const select = this.truth(e.condition, seen);
    const floats = (of: Expression) => of.is === 'number' && /^z+$/.test(of.digits);
    const floating = (of: Expression): boolean =>
      floats(of) ||
      ((of.is === 'repeat' || of.is === 'concat') &&
        (of.is === 'repeat' ? floating(of.item) : of.items.every(floating)));
    const [letsGo, data] = floating(e.no) ? ['high', e.yes] : floating(e.yes) ? ['low', e.no] : [null, e.no];
    if (!letsGo)
      return this.mux(select, this.value(e.no, width, seen).bits, this.value(e.yes, width, seen).bits);
    const A = this.value(data as Expression, width, seen).bits;
    const tri = (from: number, to: number) => {
      const Y = this.cells.fresh(to - from);
      const params = { enable: letsGo as string, width: to - from, ...ModuleReader.NOW };
      this.cells.add('tri', params, { A: A.slice(from, to), EN: [select], Y });
      return Y;
    };
    if (width > MOST_PART) return { bits: this.inParts(width, tri) };
    const bits = tri(0, width);
    return this.made(bits, this.cells.lastId);
  }

  private always(item: Extract<Item, { is: 'always' }>): void {
    const targets = this.assigned(item.body);
    if (targets.size === 0) return;
    const branches: Branch[] = [];
    let rest: Statement | null = sole(item.body);
    const isReset = (s: Statement | null): s is Extract<Statement, { is: 'if' }> =>
      s?.is === 'if' &&
      s.no !== null &&
      (item.edges === null ? this.isConstantAssign(s.yes) : branches.length < item.edges.length - 1);
    while (isReset(rest)) {
      branches.push({ condition: rest.condition, made: rest.yes });
      rest = sole(rest.no);
    }
    if (item.edges === null) {
      this.levelSensitive(item, branches, rest, targets);
      return;
    }
    const asynchronous = branches.map(({ condition, made }) =>
      this.asynchronous(condition, made, item.edges!),
    );
    const clocks = item.edges.filter(
      ({ signal }) => !asynchronous.some((a) => a.signal === this.value(signal, 0).bits[0]),
    );
    if (clocks.length !== 1)
      fail('one clock, and an “if” for each other edge in the list, is expected', item);
    const clock: Register = {
      edge: clocks[0]!.edge === 'posedge' ? 'rising' : 'falling',
      clock: this.value(clocks[0]!.signal, 0).bits[0]!,
    };
    this.store(rest, targets, clock, asynchronous, false);
  }

  /** A latch where something keeps its value, else plain logic. */
  private levelSensitive(
    item: Extract<Item, { is: 'always' }>,
    branches: readonly Branch[],
    rest: Statement | null,
    targets: ReadonlySet<Bit>,
  ): void {
    if (rest?.is === 'if' && rest.no === null && this.assignsAll(rest.yes, targets)) {
      const asynchronous = branches.map(({ condition, made }) => this.asynchronous(condition, made, null));
      const gate = this.truth(rest.condition);
      this.store(rest.yes, targets, { edge: null, clock: gate }, asynchronous, true);
      return;
    }
    const now = new Map<Bit, Bit>();
    this.run(item.body, now, true);
    for (const [bit, next] of now) this.cells.join(bit, next);
  }

  private assignsAll(s: Statement, targets: ReadonlySet<Bit>): boolean {
    const body = sole(s);
    const list = body?.is === 'block' ? body.statements : body ? [body] : [];
    const assigned = new Set(list.flatMap((a) => (a.is === 'assign' ? this.target(a.target, false) : [])));
    return [...targets].every((t) => assigned.has(t));
  }

  private isConstantAssign(s: Statement): boolean {
    const body = sole(s);
    if (!body) return false;
    if (body.is === 'block')
      return body.statements.length > 0 && body.statements.every((x) => this.isConstantAssign(x));
    return body.is === 'assign' && this.isConstant(body.value);
  }

  /** `if (clear)` or `if (!clear)` with constants, which agrees with its edge in the list. */
  private asynchronous(
    condition: Expression,
    then: Statement,
    edges: readonly { edge: string; signal: Expression }[] | null,
  ): Asynchronous {
    const { of, active } = this.level(condition);
    const signal = this.value(of, 0).bits[0]!;
    const edge = edges?.find((e) => this.value(e.signal, 0).bits[0] === signal);
    if (edges && !edge) fail('the signal of this “if” is not in the list of edges', condition);
    if (edge && (edge.edge === 'posedge' ? 1 : 0) !== active)
      fail(`“${edge.edge}” in the list and this “if” do not agree on the level`, condition);
    const values = new Map<Bit, Bit>();
    this.run(then, values, false);
    for (const value of values.values())
      if (value >= 0) fail('a constant is expected where a register is set or cleared', then);
    return { signal, active, values };
  }

  private level(e: Expression): { of: Expression; active: 0 | 1 } {
    if (e.is === 'unary' && (e.operator === '!' || e.operator === '~')) {
      const inner = this.level(e.of);
      return { of: inner.of, active: inner.active ? 0 : 1 };
    }
    if (e.is === 'binary' && (e.operator === '==' || e.operator === '!=') && this.isConstant(e.right)) {
      const same = this.constant(e.right) === 1;
      const inner = this.level(e.left);
      return same === (e.operator === '==') ? inner : { of: inner.of, active: inner.active ? 0 : 1 };
    }
    if (this.widthOf(e) !== 1) fail('a signal of one bit is expected', e);
    return { of: e, active: 1 };
  }

  /** Bits that a statement assigns somewhere. */
  private assigned(s: Statement, found = new Set<Bit>()): Set<Bit> {
    if (s.is === 'block') for (const inner of s.statements) this.assigned(inner, found);
    else if (s.is === 'if') {
      this.assigned(s.yes, found);
      if (s.no) this.assigned(s.no, found);
    } else for (const bit of this.target(s.target, false)) found.add(bit);
    return found;
  }

  /**
   * Runs a statement on what bits are to become. What is not assigned keeps its value.
   * @param inOrder whether what was assigned before is read already.
   */
  private run(s: Statement, now: Map<Bit, Bit>, inOrder: boolean): void {
    if (s.is === 'block') {
      for (const inner of s.statements) this.run(inner, now, inOrder);
      return;
    }
    const seen = inOrder ? now : undefined;
    if (s.is === 'assign') {
      const target = this.target(s.target, false);
      const { bits } = this.value(s.value, target.length, seen);
      for (const [i, bit] of target.entries()) now.set(bit, bits[i]!);
      if (s.delay) for (const bit of target) this.delays.set(bit, this.delay(s.delay));
      return;
    }
    const condition = this.truth(s.condition, seen);
    const [yes, no] = [new Map(now), new Map(now)];
    this.run(s.yes, yes, inOrder);
    if (s.no) this.run(s.no, no, inOrder);
    const differ = [...new Set([...yes.keys(), ...no.keys()])].filter(
      (b) => (yes.get(b) ?? b) !== (no.get(b) ?? b),
    );
    const { bits } = differ.length
      ? this.mux(
          condition,
          differ.map((b) => no.get(b) ?? b),
          differ.map((b) => yes.get(b) ?? b),
        )
      : { bits: [] };
    for (const b of new Set([...yes.keys(), ...no.keys()])) now.set(b, yes.get(b) ?? b);
    for (const [i, b] of differ.entries()) now.set(b, bits[i]!);
  }
  private readonly delays = new Map<Bit, Params>();

  private store(
    body: Statement | null,
    targets: ReadonlySet<Bit>,
    clock: Register,
    asynchronous: readonly Asynchronous[],
    latch: boolean,
  ): void {
    for (const bit of targets)
      if (this.latched.has(bit)) fail('a register is assigned in two always blocks', this.module);
      else this.latched.add(bit);
    const now = new Map<Bit, Bit>();
    let enable: Bit | null = null;
    const alone = body ? sole(body) : null;
    if (!latch && alone?.is === 'if' && alone.no === null && this.assignsAll(alone.yes, targets)) {
      enable = this.truth(alone.condition);
      this.run(alone.yes, now, false);
    } else if (body) this.run(body, now, latch);
    const order = [...targets];
    const controls = order.map((bit) => this.controls(bit, asynchronous));
    const usual = (i: number) =>
      JSON.stringify([controls[i], this.powerUp.get(order[i]!), this.delays.get(order[i]!)]);
    // Neighbours that are set, cleared and begin alike are one register.
    for (let from = 0; from < order.length; ) {
      let to = from + 1;
      const wide = !latch && controls[from]!.preset === null;
      while (wide && to < order.length && to - from < MOST_PART && usual(to) === usual(from)) to++;
      this.storage(order.slice(from, to), now, clock, enable, controls[from]!);
      from = to;
    }
  }

  /** Preset and clear of a bit, clear being the stronger. */
  private controls(
    bit: Bit,
    asynchronous: readonly Asynchronous[],
  ): { preset: Level | null; clear: Level | null } {
    const found = { preset: null as Level | null, clear: null as Level | null };
    for (const { signal, active, values } of asynchronous) {
      const value = values.get(bit);
      if (value === undefined) continue;
      const to = value === C1 ? 'preset' : 'clear';
      const first = to === 'clear' ? found.preset : null;
      const level = { bit: signal, active };
      const had = found[to];
      if (!had && !first) found[to] = level;
      else {
        // An earlier “if” is the stronger; what comes later acts only without it.
        const high = (l: Level) => (l.active ? l.bit : this.gateCell('not', [[l.bit]], ModuleReader.NOW)[0]!);
        const own = first
          ? this.gateCell(
              'and',
              [[high(level)], this.gateCell('not', [[high(first)]], ModuleReader.NOW)],
              ModuleReader.NOW,
            )[0]!
          : high(level);
        found[to] = {
          bit: had ? this.gateCell('or', [[high(had)], [own]], ModuleReader.NOW)[0]! : own,
          active: 1,
        };
      }
    }
    return found;
  }

  private storage(
    bits: readonly Bit[],
    now: ReadonlyMap<Bit, Bit>,
    { edge, clock }: Register,
    enable: Bit | null,
    { preset, clear }: { preset: Level | null; clear: Level | null },
  ): void {
    const named = (level: Level | null) => (level ? (level.active ? 'high' : 'low') : 'none');
    const begun = this.powerUp.get(bits[0]!);
    const params: Params = {
      ...(this.delays.get(bits[0]!) ?? ModuleReader.NOW),
      setup: 0,
      hold: 0,
      clear: named(clear),
      powerUp: begun === C1 ? '1' : begun === C0 ? '0' : begun === CX ? 'X' : 'lesson',
    };
    const D = bits.map((b) => now.get(b) ?? b);
    const controls = { ...(clear ? { CLR: [clear.bit] } : {}), ...(preset ? { PRE: [preset.bit] } : {}) };
    const wish = [...this.signals].find(([, s]) => s.bits.includes(bits[0]!))?.[0] ?? '';
    if (edge === null) {
      this.cells.add(
        'dlatch',
        { ...params, preset: named(preset) },
        { D, EN: [clock], Q: bits, ...controls },
        wish,
      );
      return;
    }
    const pins = { D, C: [clock], Q: bits, ...controls, ...(enable === null ? {} : { EN: [enable] }) };
    const clocked = { ...params, edge, enable: enable === null ? 'no' : 'yes' };
    if (bits.length === 1) this.cells.add('dff', { ...clocked, preset: named(preset) }, pins, wish);
    else this.cells.add('register', { ...clocked, width: bits.length }, pins, wish);
  }
}

/** One `if` of a chain and what it does. */
interface Branch {
  readonly condition: Expression;
  readonly made: Statement;
}

interface Level {
  readonly bit: Bit;
  readonly active: 0 | 1;
}

/** A statement without the begin and end around it, where it is the only one. */
function sole(s: Statement | null): Statement | null {
  let at = s;
  while (at?.is === 'block' && at.statements.length === 1) at = at.statements[0]!;
  return at;
}
