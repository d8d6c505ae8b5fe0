import { type Bit, C0, C1, type Cells, CX, CZ, MOST_VECTOR } from './cells';
import type { Body, Call, Declaration, Direction, Expression, Range, Routine } from './syntax';
import { type Place, VerilogError } from './tokens';
import { implicitWire, type Names, type Shape } from './types';
import { digitsOf, isKnown, numberIn, resized, type Word, wordOfDigits } from './word';

export const fail = (message: string, at: Place): never => {
  throw new VerilogError(message, { line: at.line, column: at.column });
};

/** Bits of all words of a memory: registers of that many parts. */
const MOST_MEMORY = 16_384;

/** The declaration of a signal, without its name and bits. */
interface Form {
  readonly width: number;
  readonly signed: boolean;
  readonly isVector: boolean;
  readonly isMemory: boolean;
  /** The index of the most and of the least significant bit. */
  readonly high: number;
  readonly low: number;
  /** The addresses of a memory. */
  readonly from: number;
  readonly to: number;
  readonly type: Declaration['type'];
}

const SINGLE: Form = {
  width: 1,
  signed: false,
  isVector: false,
  isMemory: false,
  high: 0,
  low: 0,
  from: 0,
  to: 0,
  type: 'wire',
};

/** Netlists declare a hundred thousand single wires: those have one form between them. */
export class Signal implements Shape {
  /**
   * @param bits the lowest first; of a memory word by word.
   * @param driven of a port of both directions: the bits that are driven from inside; `bits` are what everybody makes of it.
   */
  constructor(
    readonly name: string,
    readonly bits: readonly Bit[],
    private readonly form: Form,
    readonly at: Place,
    readonly driven: readonly Bit[] | null = null,
  ) {}

  get width(): number {
    return this.form.width;
  }
  get signed(): boolean {
    return this.form.signed;
  }
  get isVector(): boolean {
    return this.form.isVector;
  }
  get isMemory(): boolean {
    return this.form.isMemory;
  }
  get high(): number {
    return this.form.high;
  }
  get low(): number {
    return this.form.low;
  }
  get from(): number {
    return this.form.from;
  }
  get to(): number {
    return this.form.to;
  }
  get type(): Declaration['type'] {
    return this.form.type;
  }

  /** A constant as a signal, for selects. */
  static ofWord(name: string, bits: readonly Bit[], at: Place): Signal {
    const width = bits.length;
    return new Signal(name, bits, { ...SINGLE, width, high: width - 1, isVector: true }, at);
  }

  /** Declared once more, with a sign or as a variable. */
  declaredAlso({ signed, type }: Declaration): Signal {
    const { form } = this;
    const also = { signed: form.signed || signed, type: type === 'wire' ? form.type : type };
    return new Signal(this.name, this.bits, { ...form, ...also }, this.at, this.driven);
  }
}

/** A parameter, or the variable of a generate loop. */
export interface Constant {
  readonly word: Word;
  /** Where it is a real number. */
  readonly real?: number;
}

const BITS: Readonly<Record<string, Bit>> = { '0': C0, '1': C1, x: CX, z: CZ };
const DIGITS: Readonly<Record<number, string>> = { [C0]: '0', [C1]: '1', [CX]: 'x', [CZ]: 'z' };

/** The bits of a word, the lowest first. */
export const bitsOfWord = (word: Word): Bit[] => [...digitsOf(word)].reverse().map((digit) => BITS[digit]!);

/** The word of bits that are all constants; null where one is not. */
export function wordOfBits(bits: readonly Bit[], signed: boolean): Word | null {
  let digits = '';
  for (let i = bits.length - 1; i >= 0; i--) {
    const digit = DIGITS[bits[i]!];
    if (digit === undefined) return null;
    digits += digit;
  }
  return wordOfDigits(digits, signed);
}

/** Evaluates a constant expression in a scope, with its width and sign; null where it is not constant. */
export type Evaluate = (e: Expression, scope: Scope) => Word | null;

/** The names of a module, of a generated block, or of a routine that is called. */
export class Scope implements Names {
  readonly constants = new Map<string, Constant>();
  readonly signals = new Map<string, Signal>();
  readonly routines = new Map<string, Routine>();
  readonly directions = new Map<string, Direction>();

  /** Whether a name that is not declared is a wire: among the terminals of gates and instances. */
  implicit = false;

  constructor(
    private readonly cells: Cells,
    private readonly evaluate: Evaluate,
    readonly parent: Scope | null,
    /** Of the module that it belongs to: ps in a unit of time. */
    readonly unit: number,
  ) {}

  /** A scope within this one. */
  inner(): Scope {
    return new Scope(this.cells, this.evaluate, this, this.unit);
  }

  /** Parameters, in order: each may use those before it. @param given those that are set from outside. */
  addParameters({ parameters }: Pick<Body, 'parameters'>, given?: ReadonlyMap<string, Constant>): void {
    for (const parameter of parameters) {
      const { name, value, local, range, signed } = parameter;
      const own = (local ? undefined : given?.get(name)) ?? this.constantOf(value);
      if (own.real !== undefined || !range) {
        this.constants.set(name, signed ? { ...own, word: { ...own.word, signed: true } } : own);
        continue;
      }
      const { width } = this.extent(range, name, parameter);
      this.constants.set(name, { word: { ...resized(own.word, width), signed } });
    }
  }

  /** The value of a constant expression, as parameters are given on. */
  constantOf(e: Expression): Constant {
    if (e.is === 'number' && e.digits.startsWith('r'))
      return { word: wordOfDigits('x'), real: Number(e.digits.slice(1)) };
    const known = e.is === 'name' ? this.constant(e.name) : undefined;
    if (known) return known;
    if (e.is === 'binary' || e.is === 'unary') {
      const real = this.real(e);
      if (real !== null) return { word: wordOfDigits('x'), real };
    }
    const word = this.evaluate(e, this) ?? this.notConstant(e);
    return { word };
  }

  private notConstant(e: Expression): never {
    return fail(
      e.is === 'name' ? `${e.name} is not a parameter, and a constant is expected` : 'a constant is expected',
      e,
    );
  }

  /** A product, sum or quotient in which a real number stands; null where none does. */
  private real(e: Expression): number | null {
    const value = (of: Expression): number | null => {
      if (of.is === 'number' && of.digits.startsWith('r')) return Number(of.digits.slice(1));
      if (of.is === 'name') return this.constant(of.name)?.real ?? null;
      return of.is === 'binary' || of.is === 'unary' ? this.real(of) : null;
    };
    if (e.is === 'unary') {
      const of = value(e.of);
      return of === null ? null : e.operator === '-' ? -of : of;
    }
    if (e.is !== 'binary') return null;
    const [a, b] = [value(e.left), value(e.right)];
    if (a === null && b === null) return null;
    const [l, r] = [a ?? this.number(e.left), b ?? this.number(e.right)];
    return e.operator === '+'
      ? l + r
      : e.operator === '-'
        ? l - r
        : e.operator === '*'
          ? l * r
          : e.operator === '/'
            ? l / r
            : null;
  }

  /** A whole number, or a real one, as delays are. */
  quantity(e: Expression): number {
    if (e.is === 'number' && e.digits.startsWith('r')) return Number(e.digits.slice(1));
    return this.constantOf(e).real ?? this.number(e);
  }

  number(e: Expression): number {
    if (e.is === 'number') {
      if (e.digits.startsWith('r')) return fail('a whole number is expected', e);
      if (/[xz]/.test(e.digits)) return fail('a number without x and z is expected', e);
      if (e.digits.length <= 32)
        return (
          Number.parseInt(e.digits, 2) |
          (e.signed && e.sized && e.digits[0] === '1' ? -(2 ** e.digits.length) : 0)
        );
    }
    const word =
      (e.is === 'name' ? this.constant(e.name)?.word : undefined) ??
      this.evaluate(e, this) ??
      this.notConstant(e);
    if (!isKnown(word)) return fail('the constant has bits that are x or z', e);
    const value = numberIn(word);
    // Unsigned words of all bits are what negative numbers of 32 bits have become.
    return Number(value);
  }

  declare(declarations: readonly Declaration[]): void {
    for (const d of declarations) {
      if (d.type === 'genvar') continue;
      if (d.direction) this.directions.set(d.name, d.direction);
      const extent =
        d.type === 'integer'
          ? { high: 31, low: 0, width: 32 }
          : d.type === 'time'
            ? { high: 63, low: 0, width: 64 }
            : d.range
              ? this.extent(d.range, d.name, d)
              : null;
      const before = this.signals.get(d.name);
      if (before) {
        if (extent && (before.high !== extent.high || before.low !== extent.low))
          fail(`${d.name} is declared with another range in line ${before.at.line}`, d);
        if (before.signed >= d.signed && d.type === 'wire') continue;
        this.signals.set(d.name, before.declaredAlso(d));
        continue;
      }
      this.add(d, extent ?? { high: 0, low: 0, width: 1 });
    }
  }

  private add(d: Declaration, { high, low, width }: Extent): void {
    const [from, to] = d.words ? [this.number(d.words.high), this.number(d.words.low)] : [0, 0];
    const words = Math.abs(to - from) + 1;
    if (d.words && words * width > MOST_MEMORY)
      fail(`${d.name} has ${words * width} bits in all, and ${MOST_MEMORY} are the most of a memory`, d);
    const bits = this.cells.fresh(words * width);
    const isPlain = width === 1 && d.type === 'wire' && !d.range && !d.words && !d.signed;
    const form: Form = isPlain
      ? SINGLE
      : {
          width,
          signed: d.signed,
          isVector: d.range !== null || d.type === 'integer' || d.type === 'time',
          isMemory: d.words !== null,
          high,
          low,
          from: Math.min(from, to),
          to: Math.max(from, to),
          type: d.type,
        };
    const driven = d.direction === 'inout' ? this.cells.fresh(width) : null;
    this.signals.set(d.name, new Signal(d.name, bits, form, d, driven));
    if (d.type === 'supply0' || d.type === 'supply1')
      for (const bit of bits) this.cells.join(bit, d.type === 'supply1' ? C1 : C0);
  }

  extent(range: Range, name: string, at: Place): Extent {
    const [high, low] = [this.number(range.high), this.number(range.low)];
    const width = Math.abs(high - low) + 1;
    if (!Number.isInteger(width) || width > MOST_VECTOR)
      fail(`${name} has ${width} bits, and ${MOST_VECTOR} are the most`, at);
    return { high, low, width };
  }

  constant(name: string): Constant | undefined {
    for (let scope: Scope | null = this; scope; scope = scope.parent) {
      const found = scope.constants.get(name);
      if (found) return found;
      if (scope.signals.has(name)) return undefined;
    }
    return undefined;
  }

  find(name: string): Signal | undefined {
    for (let scope: Scope | null = this; scope; scope = scope.parent) {
      const found = scope.signals.get(name);
      if (found) return found;
    }
    return undefined;
  }

  routine(name: string): Routine | undefined {
    return this.routines.get(name) ?? this.parent?.routine(name);
  }

  /** The scope in which a routine stands. */
  homeOf(name: string): Scope {
    return this.routines.has(name) || !this.parent ? this : this.parent.homeOf(name);
  }

  signal(name: string, at: Place, mayDeclare: boolean): Signal {
    const found = this.find(name);
    if (found) return found;
    if (name.includes('.')) fail(`${name} lies inside of another module: only a test bench looks there`, at);
    if (!mayDeclare) fail(`${name} is not declared`, at);
    // Left of an assign and at ports an unknown name is a wire of its own (IEEE Std 1364-2005, 4.5).
    this.add(implicitWire(name, at), { high: 0, low: 0, width: 1 });
    return this.signals.get(name)!;
  }

  shape(e: { readonly name: string } & Place): Shape {
    const constant = this.constant(e.name);
    return constant ? { ...constant.word, isVector: true } : this.signal(e.name, e, this.implicit);
  }

  resultOf(e: Call): Shape {
    const routine = this.routine(e.name);
    if (!routine?.result)
      return fail(
        e.name.startsWith('$') ? `${e.name} gives no value here` : `there is no function called ${e.name}`,
        e,
      );
    const { range, signed, isInteger } = routine.result;
    return { width: isInteger ? 32 : range ? this.homeOf(e.name).extent(range, e.name, e).width : 1, signed };
  }

  /** The place of a bit within a word; null where there is none of that index. */
  placeOf({ high, low, width }: Pick<Signal, 'high' | 'low' | 'width'>, index: number): number | null {
    const place = high >= low ? index - low : low - index;
    return Number.isInteger(place) && place >= 0 && place < width ? place : null;
  }

  /**
   * The place of a bit at an index that is known; null where there is none, as may come of a loop.
   * @throws VerilogError where the file itself names a bit that is not there.
   */
  placeIn(s: Signal, index: Expression, word: Word): number | null {
    if (this.isWrittenOut(index)) return this.position(s, this.number(index), index);
    if (!s.isVector) fail(`${s.name} is a single bit`, index);
    return isKnown(word) ? this.placeOf(s, Number(numberIn(word))) : null;
  }

  /** Whether an expression is one of numbers and parameters. */
  private isWrittenOut(e: Expression): boolean {
    if (e.is === 'number') return true;
    if (e.is === 'name') return this.constant(e.name) !== undefined;
    if (e.is === 'unary') return this.isWrittenOut(e.of);
    return e.is === 'binary' && this.isWrittenOut(e.left) && this.isWrittenOut(e.right);
  }

  position(s: Signal, index: number, at: Place): number {
    if (!s.isVector) fail(`${s.name} is a single bit`, at);
    return this.placeOf(s, index) ?? fail(`${s.name} has no bit ${index}: it is [${s.high}:${s.low}]`, at);
  }
}

interface Extent {
  readonly high: number;
  readonly low: number;
  readonly width: number;
}
