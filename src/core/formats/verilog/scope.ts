import { type Bit, C0, C1, type Cells, MOST_VECTOR } from './cells';
import type { Expression, Module } from './syntax';
import { type Place, VerilogError } from './tokens';

export const fail = (message: string, at: Place): never => {
  throw new VerilogError(message, { line: at.line, column: at.column });
};

export interface Signal {
  readonly bits: readonly Bit[];
  /** The index of the most and of the least significant bit. */
  readonly high: number;
  readonly low: number;
  readonly isVector: boolean;
}

/** The names of one module: its signals, its parameters, and which bits an expression names. */
export class Scope {
  constructor(
    readonly module: Module,
    given: ReadonlyMap<string, number>,
    private readonly cells: Cells,
  ) {
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

  readonly constants = new Map<string, number>();

  readonly signals = new Map<string, Signal>();

  /** Whether a name that is not declared is a wire: among the terminals of gates and instances. */
  implicit = false;

  readonly directions = new Map<string, 'input' | 'output'>();

  declare(): void {
    const { module } = this;
    const ports = new Set(module.ports);
    const kinds = new Map<string, { range: Signal; at: Place }>();
    for (const d of module.declarations) {
      const high = d.range ? this.constant(d.range.high) : 0;
      const low = d.range ? this.constant(d.range.low) : 0;
      const width = Math.abs(high - low) + 1;
      if (!Number.isInteger(width) || width > MOST_VECTOR)
        fail(`${d.name} has ${width} bits, and ${MOST_VECTOR} are the most`, d);
      if (d.direction) {
        if (!ports.has(d.name)) fail(`${d.name} is not in the list of ports of ${module.name}`, d);
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
    for (const port of module.ports) if (!ports.delete(port)) fail(`port ${port} is named twice`, module);
  }

  /** The value of an expression of numbers and parameters. */
  constant(e: Expression): number {
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

  isConstant(e: Expression): boolean {
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

  signal(name: string, at: Place, mayDeclare: boolean): Signal {
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

  position(s: Signal, index: number, name: string, at: Place): number {
    const position = s.high >= s.low ? index - s.low : s.low - index;
    if (!s.isVector) fail(`${name} is a single bit`, at);
    if (!Number.isInteger(position) || position < 0 || position >= s.bits.length)
      fail(`${name} has no bit ${index}: it is [${s.high}:${s.low}]`, at);
    return position;
  }

  part(e: Extract<Expression, { is: 'bit' | 'range' }>, s: Signal): Bit[] {
    if (e.is === 'bit') return [s.bits[this.position(s, this.constant(e.index), e.name, e)]!];
    const high = this.position(s, this.constant(e.high), e.name, e.high);
    const low = this.position(s, this.constant(e.low), e.name, e.low);
    if (high < low) fail(`the range of ${e.name} runs the other way: it is [${s.high}:${s.low}]`, e);
    return s.bits.slice(low, high + 1);
  }

  /** Bits that something is assigned to. */
  target(e: Expression, mayDeclare: boolean): Bit[] {
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
  widthOf(e: Expression): number {
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

  count(e: Extract<Expression, { is: 'repeat' }>): number {
    const count = this.constant(e.count);
    if (!Number.isInteger(count) || count < 1 || count > MOST_VECTOR)
      fail(`1 to ${MOST_VECTOR} repetitions are expected`, e.count);
    return count;
  }

  wide(e: Expression, least: number): number {
    const width = Math.max(least, this.widthOf(e));
    return width <= 2 * MOST_VECTOR ? width : fail(`an expression of ${width} bits is too wide`, e);
  }
}
