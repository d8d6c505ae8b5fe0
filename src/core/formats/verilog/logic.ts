import type { Params } from '../../circuit/sheet';
import { type Bit, C0, C1, type Cells, CX, CZ } from './cells';
import { fail, type Scope } from './scope';
import type { Expression, FileDelay } from './syntax';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Bits in one part; wider ones are cut. */
export const MOST_PART = 32;
/** An explicit zero delay, so that a part does not take its kind's default. */
export const NOW: Params = { delayRise: 0, delayFall: 0 };

/** Bits, and the part that made them if it made nothing else, so that a delay can be given to it. */
export interface Value {
  readonly bits: Bit[];
  readonly delayed?: (delay: Params) => void;
}

function extended(bits: readonly Bit[], width: number): Bit[] {
  return [...bits, ...Array<Bit>(Math.max(0, width - bits.length)).fill(C0)];
}

function padded(value: Value, width: number): Value {
  return width === value.bits.length ? value : { bits: extended(value.bits, width) };
}

/** Makes parts of expressions. */
export class Logic {
  constructor(
    private readonly scope: Scope,
    private readonly cells: Cells,
  ) {}

  /** Ties bits to a value; a delay goes to the part that makes it, or to a buffer. */
  connect(target: readonly Bit[], value: Value, delay: Params): void {
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

  delay(delay: FileDelay | null): Params {
    if (!delay) return { delayRise: 0, delayFall: 0 };
    const ps = (e: Expression) => {
      const value = Math.round(this.scope.constant(e) * this.scope.module.unit);
      return value >= 0 && value <= 1e9 ? value : fail('a delay is 0 to 1 ms', e);
    };
    return { delayRise: ps(delay.rise), delayFall: ps(delay.fall) };
  }

  inParts(width: number, make: (from: number, to: number) => Bit[]): Bit[] {
    const bits: Bit[] = [];
    for (let from = 0; from < width; from += MOST_PART)
      bits.push(...make(from, Math.min(width, from + MOST_PART)));
    return bits;
  }

  /** A gate with its inputs, each of the same width. */
  gateCell(
    kind: string,
    inputs: readonly (readonly Bit[])[],
    delay: Params,
    wish = '',
    out?: readonly Bit[],
  ): Bit[] {
    const width = inputs[0]!.length;
    const Y = out ? [...out] : this.cells.fresh(width);
    // Gates of two inputs are the most by far.
    const pins: Record<string, readonly Bit[]> =
      inputs.length === 2 ? { A: inputs[0]!, B: inputs[1]!, Y } : { Y };
    for (let i = 0; inputs.length !== 2 && i < inputs.length; i++) pins[LETTERS[i]!] = inputs[i]!;
    const params: Params =
      kind === 'not' || kind === 'buffer' ? { width, ...delay } : { width, inputs: inputs.length, ...delay };
    this.cells.add(kind, params, pins, wish);
    return Y;
  }

  /** A gate with any number of inputs: beyond the limit of one part, gates before it gather them. */
  wideGate(kind: string, inputs: Bit[][], delay: Params, wish = '', out?: readonly Bit[]): Bit[] {
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

  /** The bits of an expression where at least `least` are wanted (IEEE Std 1364-2005, 5.4: widths by context). */
  value(e: Expression, least: number, seen?: ReadonlyMap<Bit, Bit>): Value {
    const width = this.scope.wide(e, least);
    const read = (bits: readonly Bit[]) => bits.map((b) => seen?.get(b) ?? b);
    const plain = (bits: readonly Bit[]): Value => ({ bits: extended(read(bits), width) });
    switch (e.is) {
      case 'number': {
        const bits = [...e.digits].reverse().map((c) => ({ '0': C0, '1': C1, x: CX, z: CZ })[c as '0']);
        return { bits: extended(bits, width) };
      }
      case 'name': {
        const parameter = this.scope.constants.get(e.name);
        if (parameter === undefined) return plain(this.scope.signal(e.name, e, this.scope.implicit).bits);
        const number = parameter < 0 ? 2 ** 32 + parameter : parameter;
        return plain(Array.from({ length: 32 }, (_, i) => (Math.floor(number / 2 ** i) % 2 ? C1 : C0)));
      }
      case 'bit':
        return plain(
          this.scope.isConstant(e.index)
            ? this.scope.part(e, this.scope.signal(e.name, e, false))
            : this.chosenBit(e, seen),
        );
      case 'range':
        return plain(this.scope.part(e, this.scope.signal(e.name, e, false)));
      case 'concat':
        return {
          bits: extended(
            [...e.items].reverse().flatMap((item) => this.sized(item, seen)),
            width,
          ),
        };
      case 'repeat': {
        const item = this.sized(e.item, seen);
        return {
          bits: extended(Array.from({ length: this.scope.count(e) }, () => item).flat(), width),
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

  /** `a[i]` with a signal for i: a tree of multiplexers, unknown past the ends. */
  private chosenBit(e: Extract<Expression, { is: 'bit' }>, seen?: ReadonlyMap<Bit, Bit>): Bit[] {
    const s = this.scope.signal(e.name, e, false);
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

  /** Bit by bit, in as many parts as the width needs. */
  private bitwise(kind: string, inputs: readonly (readonly Bit[])[]): Value {
    const width = inputs[0]!.length;
    if (width <= MOST_PART && inputs.length <= 16) {
      const bits = this.gateCell(kind, inputs, NOW);
      return this.made(bits, this.cells.lastId);
    }
    return {
      bits: this.inParts(width, (from, to) =>
        this.wideGate(
          kind,
          inputs.map((bits) => bits.slice(from, to)),
          NOW,
        ),
      ),
    };
  }

  /** All bits of a word taken together: one bit. */
  reduced(kind: string, bits: readonly Bit[]): Value {
    if (bits.length === 1 && (kind === 'and' || kind === 'or' || kind === 'xor')) return { bits: [bits[0]!] };
    const made = this.wideGate(
      kind,
      bits.map((b) => [b]),
      NOW,
    );
    return this.made(made, this.cells.lastId);
  }

  truth(e: Expression, seen?: ReadonlyMap<Bit, Bit>): Bit {
    return this.reduced('or', this.value(e, 0, seen).bits).bits[0]!;
  }

  private unary(e: Extract<Expression, { is: 'unary' }>, width: number, seen?: ReadonlyMap<Bit, Bit>): Value {
    const { operator, of } = e;
    if (operator === '+') return this.value(of, width, seen);
    if (operator === '-') {
      const { bits } = this.value(of, width, seen);
      return this.sum(Array<Bit>(width).fill(C0), bits, true, width, e);
    }
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
    return padded(this.reduced(kind, this.value(of, 0, seen).bits), width);
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
      return padded(this.reduced(operator === '&&' ? 'and' : 'or', bits), width);
    }
    if (operator === '==' || operator === '!=') {
      const both = Math.max(this.scope.widthOf(left), this.scope.widthOf(right));
      const differ = this.bitwise('xor', [
        this.value(left, both, seen).bits,
        this.value(right, both, seen).bits,
      ]);
      return padded(this.reduced(operator === '==' ? 'nor' : 'or', differ.bits), width);
    }
    if (operator === '+' || operator === '-') {
      const [a, b] = [this.value(left, width, seen).bits, this.value(right, width, seen).bits];
      return this.sum(a, b, operator === '-', width, e);
    }
    if (['<', '<=', '>', '>='].includes(operator)) return padded(this.compared(e, seen), width);
    if ((operator === '<<' || operator === '>>') && this.scope.isConstant(right)) {
      const by = this.scope.constant(right);
      if (by < 0) return fail('a word is moved by 0 bits or more', right);
      const { bits } = this.value(left, width, seen);
      const moved =
        operator === '<<' ? [...Array<Bit>(Math.min(by, width)).fill(C0), ...bits] : bits.slice(by);
      return { bits: extended(moved.slice(0, width), width) };
    }
    return fail(`“${operator}” on signals is outside the part of Verilog that is read`, e);
  }

  /** A sum or a difference modulo two to the width: an adder or a subtractor of as many bits as matter. */
  private sum(a: readonly Bit[], b: readonly Bit[], isLess: boolean, width: number, at: Expression): Value {
    const own = this.ownWidth(a, b, at);
    const [S, over] = [this.cells.fresh(own), this.cells.fresh(1)];
    const pins = { A: a.slice(0, own), B: b.slice(0, own) };
    if (isLess) this.cells.add('subtractor', { width: own, ...NOW }, { ...pins, BI: [C0], D: S, BO: over });
    else this.cells.add('adder', { width: own, ...NOW }, { ...pins, CI: [C0], S, CO: over });
    // Above them are the carry alone, or the borrow in every place.
    const above = Array.from({ length: width - own }, (_, i) => (isLess || i === 0 ? over[0]! : C0));
    return { bits: [...S, ...above] };
  }

  private compared(e: Extract<Expression, { is: 'binary' }>, seen?: ReadonlyMap<Bit, Bit>): Value {
    const { operator, left, right } = e;
    const both = Math.max(this.scope.widthOf(left), this.scope.widthOf(right));
    const [a, b] = [this.value(left, both, seen).bits, this.value(right, both, seen).bits];
    const own = this.ownWidth(a, b, e);
    const [LT, EQ, GT] = [this.cells.fresh(1), this.cells.fresh(1), this.cells.fresh(1)];
    const pins = { A: a.slice(0, own), B: b.slice(0, own), LT, EQ, GT };
    this.cells.add('comparator', { width: own, ...NOW }, pins);
    if (operator === '<') return { bits: LT };
    if (operator === '>') return { bits: GT };
    return this.reduced('nor', operator === '<=' ? [...GT] : [...LT]);
  }

  /** How many bits of two words matter: those above are 0 in both. */
  private ownWidth(a: readonly Bit[], b: readonly Bit[], at: Expression): number {
    const own = 1 + Math.max(0, ...[a, b].map((bits) => bits.findLastIndex((bit) => bit !== C0)));
    if (own > MOST_PART)
      fail(`numbers of more than ${MOST_PART} bits are outside the part of Verilog that is read`, at);
    return own;
  }

  mux(select: Bit, no: readonly Bit[], yes: readonly Bit[]): Value {
    const width = no.length;
    const one = (from: number, to: number) => {
      const Y = this.cells.fresh(to - from);
      const pins = { D0: no.slice(from, to), D1: yes.slice(from, to), S: [select], Y };
      this.cells.add('mux', { select: 1, width: to - from, ...NOW }, pins);
      return Y;
    };
    if (width > MOST_PART) return { bits: this.inParts(width, one) };
    const bits = one(0, width);
    return this.made(bits, this.cells.lastId);
  }

  /** `c ? a : b`: a multiplexer, or a three-state buffer if a branch, at any depth, is all z. */
  private choice(
    e: Extract<Expression, { is: 'choose' }>,
    width: number,
    seen?: ReadonlyMap<Bit, Bit>,
  ): Value {
    const { data, enable, isLow } = this.enabledValue(e, width, seen);
    if (enable === C1) return data;
    const tri = (from: number, to: number) => {
      const Y = this.cells.fresh(to - from);
      const params = { enable: isLow ? 'low' : 'high', width: to - from, ...NOW };
      this.cells.add('tri', params, { A: data.bits.slice(from, to), EN: [enable], Y });
      return Y;
    };
    if (width > MOST_PART) return { bits: this.inParts(width, tri) };
    const bits = tri(0, width);
    return this.made(bits, this.cells.lastId);
  }

  /** The value of an expression, and the bit that enables it where a branch of the expression is z. */
  private enabledValue(e: Expression, width: number, seen?: ReadonlyMap<Bit, Bit>): EnabledValue {
    if (isFloating(e)) return { data: { bits: Array<Bit>(width).fill(CX) }, enable: C0 };
    if (e.is !== 'choose') return { data: this.value(e, width, seen), enable: C1 };
    const select = this.truth(e.condition, seen);
    if (!mayFloat(e))
      return {
        data: this.mux(select, this.value(e.no, width, seen).bits, this.value(e.yes, width, seen).bits),
        enable: C1,
      };
    const no = this.enabledValue(e.no, width, seen);
    const yes = this.enabledValue(e.yes, width, seen);
    const activeHigh = ({ enable, isLow }: EnabledValue) =>
      isLow ? this.gateCell('not', [[enable]], NOW)[0]! : enable;
    if (no.enable === C0)
      return { data: yes.data, enable: yes.enable === C1 ? select : this.both(select, activeHigh(yes)) };
    const inverted = () => this.gateCell('not', [[select]], NOW)[0]!;
    if (yes.enable === C0)
      return no.enable === C1
        ? { data: no.data, enable: select, isLow: true }
        : { data: no.data, enable: this.both(inverted(), activeHigh(no)) };
    return {
      data: this.mux(select, no.data.bits, yes.data.bits),
      enable: this.mux(select, [activeHigh(no)], [activeHigh(yes)]).bits[0]!,
    };
  }

  private both(a: Bit, b: Bit): Bit {
    return this.reduced('and', [a, b]).bits[0]!;
  }
}

/** A value with its enable: `C1` if it is always driven, `C0` if it always floats. */
interface EnabledValue {
  readonly data: Value;
  readonly enable: Bit;
  /** Whether the enable is active low. */
  readonly isLow?: boolean;
}

const isFloating = (of: Expression): boolean =>
  (of.is === 'number' && /^z+$/.test(of.digits)) ||
  (of.is === 'repeat' && isFloating(of.item)) ||
  (of.is === 'concat' && of.items.every(isFloating));

const mayFloat = (of: Expression): boolean =>
  isFloating(of) || (of.is === 'choose' && (mayFloat(of.yes) || mayFloat(of.no)));
