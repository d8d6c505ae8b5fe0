import type { Params } from '../../circuit/sheet';
import { Arithmetic } from './arithmetic';
import { type Bit, C0, C1, type Cells, MOST_VECTOR } from './cells';
import type { Expressions } from './expressions';
import { Gates, NOW, type Value } from './gates';
import type { Includes } from './preprocess';
import { bitsOfWord, fail, type Scope, type Signal, wordOfBits } from './scope';
import { Selects } from './selects';
import type { Call, Expression, FileDelay } from './syntax';
import { mayFloat, threeState } from './three-state';
import type { Place } from './tokens';
import { isSystemFunction, ONE_BIT, SHIFTS, signedOf, widthOf } from './types';
import { binary, power, resized, shifted, unary, type Word, wordOf, wordOfDigits } from './word';

/** What signals hold where statements have assigned them before. */
export interface Env {
  readAll(bits: readonly Bit[]): Bit[];
}

const filled = (bits: readonly Bit[], width: number, fill: Bit): Bit[] =>
  bits.length >= width ? bits.slice(0, width) : [...bits, ...Array<Bit>(width - bits.length).fill(fill)];

/** Makes parts of expressions; what only constants lead to is computed. */
export class Logic implements Expressions {
  readonly gates: Gates;
  readonly selects: Selects;
  private readonly arithmetic: Arithmetic;
  scope!: Scope;
  env: Env | null = null;
  /** Makes the result of a function of the file. */
  callFunction: (e: Call) => Bit[] = (e) => fail('a function cannot be called here', e);

  constructor(
    private readonly cells: Cells,
    readonly includes: Includes = new Map(),
  ) {
    this.gates = new Gates(cells);
    this.arithmetic = new Arithmetic(cells, this.gates);
    this.selects = new Selects(this, cells);
  }

  /** Works among the names of a scope, with what was assigned before. */
  within<T>(scope: Scope, env: Env | null, work: () => T): T {
    const before = { scope: this.scope, env: this.env };
    this.scope = scope;
    this.env = env;
    try {
      return work();
    } finally {
      this.scope = before.scope;
      this.env = before.env;
    }
  }

  /** The word of an expression that is constant, else null. */
  constant(e: Expression, scope: Scope): Word | null {
    return this.within(scope, this.env, () => wordOfBits(this.own(e).bits, signedOf(e, this.scope)));
  }

  /** Bits that something outside of processes drives. */
  target(e: Expression, mayDeclare: boolean): Bit[] {
    switch (e.is) {
      case 'name': {
        const signal = this.scope.signal(e.name, e, mayDeclare);
        if (signal.isMemory) fail(`${e.name} is a memory, and a wire is expected`, e);
        return [...(signal.driven ?? signal.bits)];
      }
      case 'select': {
        const signal = this.scope.signal(e.name, e, false);
        if (signal.isMemory) fail(`${e.name} is a memory, and a wire is expected`, e);
        return this.selects.partOf(signal, signal.driven ?? signal.bits, e, e.path, true);
      }
      case 'concat':
        return [...e.items].reverse().flatMap((item) => this.target(item, mayDeclare));
      default:
        return fail('a signal, or some of its bits, is expected', e);
    }
  }

  /** Ties bits to a value; a delay goes to the part that makes it, or to a buffer. */
  connect(target: readonly Bit[], value: Value, delay: Params): void {
    let { bits } = value;
    if (delay.delayRise || delay.delayFall) {
      if (value.delayed) value.delayed(delay);
      else
        bits = this.gates.inParts(bits.length, (from, to) =>
          this.gates.gate('buffer', [bits.slice(from, to)], delay),
        );
    }
    for (const [i, bit] of target.entries()) this.cells.join(bit, bits[i]!);
  }

  delay(delay: FileDelay | null): Params {
    if (!delay) return NOW;
    const ps = (e: Expression) => {
      const value = Math.round(this.scope.quantity(e) * this.scope.unit);
      return value >= 0 && value <= 1e9 ? value : fail('a delay is 0 to 1 ms', e);
    };
    return { delayRise: ps(delay.rise), delayFall: ps(delay.fall) };
  }

  /** An expression by itself. */
  own(e: Expression): Value {
    return this.value(e, this.wide(e, 0), signedOf(e, this.scope));
  }

  /** An expression that is assigned to a number of bits (IEEE Std 1364-2005, 5.4: widths by context). */
  assigned(e: Expression, bits: number): Value {
    // Where only the lower bits of operands decide the lower bits of the result, those above are not made.
    const width = isLow(e) ? bits : this.wide(e, bits);
    return this.value(e, width, signedOf(e, this.scope));
  }

  private wide(e: Expression, least: number): number {
    const width = Math.max(least, widthOf(e, this.scope));
    return width <= 2 * MOST_VECTOR ? width : fail(`an expression of ${width} bits is too wide`, e);
  }

  truth(e: Expression): Bit {
    const { bits } = this.own(e);
    const word = wordOfBits(bits, false);
    if (word) return bitsOfWord(unary('|', word))[0]!;
    return this.gates.reduced(
      'or',
      bits.filter((bit) => bit !== C0),
    ).bits[0]!;
  }

  /** Bits of variables that are read outside of processes. */
  readonly readOutside = new Set<Bit>();

  noted(signal: Signal): Signal {
    if (!this.env && signal.type !== 'wire') for (const bit of signal.bits) this.readOutside.add(bit);
    return signal;
  }

  /** The contents of memories that nothing writes, by the first of their bits. */
  readonly fixed = new Map<Bit, readonly Word[]>();

  read(bits: readonly Bit[]): Bit[] {
    const { env } = this;
    return env ? env.readAll(bits) : [...bits];
  }

  /** The bits of an expression in a context of that width and sign. */
  value(e: Expression, width: number, signed: boolean): Value {
    switch (e.is) {
      case 'number':
        if (e.digits.startsWith('r')) fail('a whole number is expected', e);
        return this.word(wordOfDigits(e.digits, e.signed), width, signed);
      case 'text':
        return this.word(wordOfText(e.text), width, signed);
      case 'name': {
        const constant = this.scope.constant(e.name);
        if (constant?.real !== undefined) fail(`${e.name} is a real number, and a whole one is expected`, e);
        if (constant) return this.word(constant.word, width, signed);
        const signal = this.scope.signal(e.name, e, this.scope.implicit);
        if (signal.isMemory) fail(`${e.name} is a memory: say which word of it, as in ${e.name}[0]`, e);
        return this.extended(this.read(this.noted(signal).bits), width, signed);
      }
      case 'select':
        return this.extended(this.selects.selected(e), width, signed);
      case 'concat':
        return this.extended(
          [...e.items].reverse().flatMap((item) => this.sized(item)),
          width,
          false,
        );
      case 'repeat': {
        const item = this.sized(e.item);
        return this.extended(Array.from({ length: this.count(e) }, () => item).flat(), width, false);
      }
      case 'unary':
        return this.unary(e, width, signed);
      case 'binary':
        return this.binary(e, width, signed);
      case 'choose':
        return threeState(e, width, signed, this, this.cells);
      case 'call':
        return this.extended(this.call(e), width, signed);
    }
  }

  private word(word: Word, width: number, signed: boolean): Value {
    return { bits: bitsOfWord(resized(word, width, signed && word.signed)) };
  }

  private extended(bits: readonly Bit[], width: number, signed: boolean): Value {
    return { bits: filled(bits, width, signed ? bits.at(-1)! : C0) };
  }

  private count(e: Extract<Expression, { is: 'repeat' }>): number {
    const count = this.scope.number(e.count);
    if (!Number.isInteger(count) || count < 1 || count > MOST_VECTOR)
      fail(`1 to ${MOST_VECTOR} repetitions are expected`, e.count);
    return count;
  }

  /** A concatenation's item, which needs a width of its own. */
  private sized(e: Expression): Bit[] {
    if (e.is === 'number' && !e.sized) fail('a number in braces needs its width', e);
    return this.own(e).bits;
  }

  private call(e: Call): Bit[] {
    const given = (i: number) => e.arguments[i] ?? fail(`${e.name} is given too little`, e);
    switch (e.name) {
      case '$signed':
      case '$unsigned':
        return this.own(given(0)).bits;
      case '$clog2': {
        const value = this.scope.number(given(0));
        return bitsOfWord(wordOf(value <= 1 ? 0 : Math.ceil(Math.log2(value)), 32));
      }
      default:
        if (isSystemFunction(e.name)) fail(`${e.name} belongs in a test bench, not in a circuit`, e);
        return this.callFunction(e);
    }
  }

  private unary(e: Extract<Expression, { is: 'unary' }>, width: number, signed: boolean): Value {
    const { operator, of } = e;
    if (operator === '+') return this.value(of, width, signed);
    if (operator === '-' || operator === '~') {
      // The opposite of an and, or, xor is one gate.
      if (operator === '~' && of.is === 'binary' && ['&', '|', '^'].includes(of.operator)) {
        const inputs = this.operands(of, of.operator, width, signed);
        if (!inputs.every((bits) => wordOfBits(bits, false)))
          return this.gates.bitwise({ '&': 'nand', '|': 'nor', '^': 'xnor' }[of.operator as '&'], inputs);
      }
      const { bits } = this.value(of, width, signed);
      const word = wordOfBits(bits, signed);
      if (word) return { bits: bitsOfWord(unary(operator, word)) };
      if (operator === '~') return this.gates.bitwise('not', [bits]);
      return { bits: this.arithmetic.sum(Array<Bit>(width).fill(C0), bits, true) };
    }
    const kind = REDUCTIONS[operator];
    if (!kind) return fail(`“${operator}” is outside the part of Verilog that is read`, e);
    const { bits } = this.own(of);
    const word = wordOfBits(bits, false);
    if (word) return this.extended(bitsOfWord(unary(operator, word)), width, false);
    return this.oneBit(this.gates.reduced(kind, bits), width);
  }

  private oneBit(value: Value, width: number): Value {
    return width === 1 ? value : this.extended(value.bits, width, false);
  }

  /** The operands of a chain of one operator: `a & b & c` is one gate. */
  private operands(e: Expression, operator: string, width: number, signed: boolean): Bit[][] {
    if (e.is === 'binary' && e.operator === operator)
      return [
        ...this.operands(e.left, operator, width, signed),
        ...this.operands(e.right, operator, width, signed),
      ];
    return [this.value(e, width, signed).bits];
  }

  private binary(e: Extract<Expression, { is: 'binary' }>, width: number, signed: boolean): Value {
    const { operator, left, right } = e;
    if (operator === '&&' || operator === '||')
      return this.both(operator, this.truth(left), this.truth(right), width);
    if (ONE_BIT.has(operator)) return this.oneBit(this.relation(e), width);
    if (SHIFTS.has(operator)) return this.shift(e, width, signed);
    if (operator === '**') return this.power(e, width, signed);
    const kind = { '&': 'and', '|': 'or', '^': 'xor', '~^': 'xnor', '^~': 'xnor' }[operator];
    if (kind && kind !== 'xnor') {
      const inputs = this.operands(e, operator, width, signed);
      const words = inputs.map((bits) => wordOfBits(bits, signed));
      if (words.every((word) => word !== null))
        return { bits: bitsOfWord(words.reduce((a, b) => binary(operator, a, b))) };
      return this.gates.bitwise(kind, inputs);
    }
    const [a, b] = [this.value(left, width, signed).bits, this.value(right, width, signed).bits];
    const known = this.computed(operator, a, b, signed);
    if (known) return { bits: known };
    if (kind) return this.gates.bitwise(kind, [a, b]);
    switch (operator) {
      case '+':
      case '-':
        return { bits: this.arithmetic.sum(a, b, operator === '-') };
      case '*':
        return { bits: this.arithmetic.product(a, b, e) };
      case '/':
      case '%':
        return { bits: this.quotient(operator, a, b, signed, e) };
      default:
        return fail(`“${operator}” on signals is outside the part of Verilog that is read`, e);
    }
  }

  private computed(operator: string, a: readonly Bit[], b: readonly Bit[], signed: boolean): Bit[] | null {
    const first = wordOfBits(a, signed);
    const other = first && wordOfBits(b, signed);
    return other ? bitsOfWord(binary(operator, first, other)) : null;
  }

  private both(operator: '&&' | '||', a: Bit, b: Bit, width: number): Value {
    const [first, other] = [wordOfBits([a], false), wordOfBits([b], false)];
    if (first && other) return this.extended(bitsOfWord(binary(operator, first, other)), width, false);
    const [decides, passes] = operator === '||' ? [C1, C0] : [C0, C1];
    if (a === decides || b === decides) return this.extended([decides], width, false);
    if (a === passes || b === passes) return this.extended([a === passes ? b : a], width, false);
    return this.oneBit(this.gates.reduced(operator === '&&' ? 'and' : 'or', [a, b]), width);
  }

  /** A comparison: its operands have the width and sign of each other. */
  private relation({ operator, left, right }: Extract<Expression, { is: 'binary' }>): Value {
    const width = Math.max(this.wide(left, 0), this.wide(right, 0));
    const signed = signedOf(left, this.scope) && signedOf(right, this.scope);
    const [a, b] = [this.value(left, width, signed).bits, this.value(right, width, signed).bits];
    const known = this.computed(operator, a, b, signed);
    if (known) return { bits: known };
    if (!operator.includes('=') || operator === '<=' || operator === '>=')
      return this.arithmetic.compared(operator, a, b, signed);
    const isEqual = operator.startsWith('=');
    const [constant, signals] = wordOfBits(b, false) ? [b, a] : [a, b];
    if (constant.every((bit) => bit === C0 || bit === C1)) {
      const same = this.gates.equals(
        signals,
        constant.map((bit) => (bit === C1 ? 1 : 0)),
      );
      return isEqual ? { bits: [same] } : { bits: [this.gates.not(same)] };
    }
    const differ = this.gates.bitwise('xor', [a, b]);
    return this.gates.reduced(isEqual ? 'nor' : 'or', differ.bits);
  }

  private shift(e: Extract<Expression, { is: 'binary' }>, width: number, signed: boolean): Value {
    const { bits } = this.value(e.left, width, signed);
    const by = this.own(e.right).bits;
    const amount = wordOfBits(by, false);
    const isLeft = e.operator.startsWith('<');
    const fill = e.operator === '>>>' && signed ? bits.at(-1)! : C0;
    if (amount) {
      const word = wordOfBits(bits, signed);
      if (word) return { bits: bitsOfWord(shifted(e.operator, word, amount)) };
      if (amount.unknown) fail('a number without x and z is expected', e.right);
      const places = Math.min(width, Number(amount.ones));
      const room = Array<Bit>(places).fill(fill);
      return { bits: isLeft ? [...room, ...bits].slice(0, width) : [...bits.slice(places), ...room] };
    }
    return { bits: this.arithmetic.shifted(bits, by, isLeft, fill) };
  }

  private power(e: Extract<Expression, { is: 'binary' }>, width: number, signed: boolean): Value {
    const base = this.value(e.left, width, signed).bits;
    const exponent = this.own(e.right).bits;
    const [b, x] = [wordOfBits(base, signed), wordOfBits(exponent, signedOf(e.right, this.scope))];
    if (b && x) return { bits: bitsOfWord(power(b, x)) };
    if (b && !b.unknown && b.ones === 2n) {
      const one = [C1, ...Array<Bit>(width - 1).fill(C0)];
      return { bits: this.arithmetic.shifted(one, exponent, true, C0) };
    }
    if (x && !x.unknown && x.ones === 2n) return { bits: this.arithmetic.product(base, base, e) };
    return fail('“**” on signals is outside the part of Verilog that is read: a power of 2, or a square', e);
  }

  private quotient(operator: '/' | '%', a: Bit[], b: Bit[], signed: boolean, at: Place): Bit[] {
    if (!signed) {
      const { quotient, rest } = this.arithmetic.divided(a, b, at);
      return operator === '/' ? quotient : rest;
    }
    // Rounds towards zero; the remainder has the sign of the dividend.
    const [x, y] = [this.arithmetic.magnitude(a), this.arithmetic.magnitude(b)];
    const { quotient, rest } = this.arithmetic.divided(x.of, y.of, at);
    if (operator === '%') return this.arithmetic.negatedIf(x.sign, rest);
    const differ =
      x.sign === C0 ? y.sign : y.sign === C0 ? x.sign : this.gates.gate('xor', [[x.sign], [y.sign]], NOW)[0]!;
    return this.arithmetic.negatedIf(differ, quotient);
  }
}

const LOW: ReadonlySet<string> = new Set(['+', '-', '*', '&', '|', '^', '~^', '^~', '~', '<<', '<<<']);

/** Whether the lower bits of an expression depend only on the lower bits of its operands. */
function isLow(e: Expression): boolean {
  switch (e.is) {
    case 'unary':
      return e.operator in REDUCTIONS || isLow(e.of);
    case 'binary':
      if (e.operator === '<<' || e.operator === '<<<') return isLow(e.left);
      return ONE_BIT.has(e.operator) || (LOW.has(e.operator) && isLow(e.left) && isLow(e.right));
    case 'choose':
      return isLow(e.yes) && isLow(e.no) && !mayFloat(e);
    default:
      return true;
  }
}

const REDUCTIONS: Readonly<Record<string, string>> = {
  '&': 'and',
  '|': 'or',
  '^': 'xor',
  '~&': 'nand',
  '~|': 'nor',
  '~^': 'xnor',
  '^~': 'xnor',
  '!': 'nor',
};

/** A text as a number: a character a byte, the last one lowest. */
export function wordOfText(text: string): Word {
  let digits = '';
  for (const c of text || '\0') digits += (c.charCodeAt(0) & 255).toString(2).padStart(8, '0');
  return wordOfDigits(digits);
}
