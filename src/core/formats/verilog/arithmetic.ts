import { type Bit, C0, C1, type Cells } from './cells';
import { type Gates, MOST_PART, NOW, type Value } from './gates';
import { fail } from './scope';
import type { Place } from './tokens';

/** Widest factors of a product, and numbers that are divided, of which neither is a constant. */
const MOST_FACTOR = 32;
const MOST_DIVIDED = 32;

const zeros = (width: number): Bit[] => Array<Bit>(width).fill(C0);
/** How many bits of words matter: those above are 0 in all of them. */
const bitsThatMatter = (...words: readonly (readonly Bit[])[]): number =>
  1 + Math.max(-1, ...words.map((bits) => bits.findLastIndex((bit) => bit !== C0)));

/** Makes adders, comparators, multipliers, dividers and shifters of bits. */
export class Arithmetic {
  constructor(
    private readonly cells: Cells,
    private readonly gates: Gates,
  ) {}

  /** A sum or a difference modulo two to the width: adders or subtractors of as many bits as matter, carry passed on between them. */
  sum(a: readonly Bit[], b: readonly Bit[], isLess: boolean): Bit[] {
    const width = a.length;
    if (b.every((bit) => bit === C0)) return [...a];
    if (!isLess && a.every((bit) => bit === C0)) return [...b];
    const own = bitsThatMatter(a, b);
    const bits: Bit[] = [];
    let carry: Bit = C0;
    for (let from = 0; from < own; from += MOST_PART) {
      const to = Math.min(own, from + MOST_PART);
      const [S, over] = [this.cells.fresh(to - from), this.cells.fresh(1)];
      const pins = { A: a.slice(from, to), B: b.slice(from, to) };
      if (isLess)
        this.cells.add('subtractor', { width: to - from, ...NOW }, { ...pins, BI: [carry], D: S, BO: over });
      else this.cells.add('adder', { width: to - from, ...NOW }, { ...pins, CI: [carry], S, CO: over });
      bits.push(...S);
      carry = over[0]!;
    }
    // Above them is the carry alone, or the borrow in every place.
    for (let i = own; i < width; i++) bits.push(isLess || i === own ? carry : C0);
    return bits;
  }

  /** `<`, `<=`, `>` or `>=` of words of one width. */
  compared(operator: string, a: readonly Bit[], b: readonly Bit[], isSigned: boolean): Value {
    if (isSigned) {
      // With their highest bits turned, numbers with a sign stand in the order of those without.
      const turned = (bits: readonly Bit[]) => [...bits.slice(0, -1), this.gates.not(bits.at(-1)!)];
      return this.compared(operator, turned(a), turned(b), false);
    }
    const own = Math.max(1, bitsThatMatter(a, b));
    let less: Bit = C0;
    let more: Bit = C0;
    for (let from = 0; from < own; from += MOST_PART) {
      const to = Math.min(own, from + MOST_PART);
      const [LT, EQ, GT] = [this.cells.fresh(1), this.cells.fresh(1), this.cells.fresh(1)];
      this.cells.add(
        'comparator',
        { width: to - from, ...NOW },
        { A: a.slice(from, to), B: b.slice(from, to), LT, EQ, GT },
      );
      less = this.gates.or(LT[0]!, this.gates.and(EQ[0]!, less));
      more = this.gates.or(GT[0]!, this.gates.and(EQ[0]!, more));
    }
    if (operator === '<') return { bits: [less] };
    if (operator === '>') return { bits: [more] };
    return this.gates.made([this.gates.not(operator === '<=' ? more : less)]);
  }

  /** A product modulo two to the width: a row of gates and an adder for each bit of the shorter factor. */
  product(a: readonly Bit[], b: readonly Bit[], at: Place): Bit[] {
    const width = a.length;
    const count = (bits: readonly Bit[]) => bits.filter((bit) => bit !== C0).length;
    const [many, few] = count(a) >= count(b) ? [a, b] : [b, a];
    if (few.some((bit) => bit < 0 === false) && bitsThatMatter(few) > MOST_FACTOR)
      fail(
        `a product of words of more than ${MOST_FACTOR} bits is outside the part of Verilog that is read`,
        at,
      );
    let sum = zeros(width);
    for (const [i, bit] of few.entries()) {
      if (bit === C0) continue;
      const moved = [...zeros(i), ...many].slice(0, width);
      const row = bit === C1 ? moved : moved.map((one) => (one === C0 ? C0 : one));
      const own = bitsThatMatter(row);
      if (own === 0) continue;
      const low = row.slice(i, own);
      const gated =
        bit === C1 ? low : this.gates.bitwise('and', [low, Array<Bit>(low.length).fill(bit)]).bits;
      sum = this.sum(sum, [...zeros(i), ...gated, ...zeros(width - own)], false);
    }
    return sum;
  }

  /** Quotient and rest of numbers without sign: subtract where it fits, from the highest bit down. */
  divided(a: readonly Bit[], b: readonly Bit[], at: Place): { quotient: Bit[]; rest: Bit[] } {
    const width = a.length;
    const exponent = powerOfTwo(b);
    if (exponent !== null)
      return {
        quotient: [...a.slice(exponent), ...zeros(Math.min(exponent, width))].slice(0, width),
        rest: [...a.slice(0, exponent), ...zeros(width)].slice(0, width),
      };
    if (bitsThatMatter(a) > MOST_DIVIDED)
      fail(
        `division of words of more than ${MOST_DIVIDED} bits is outside the part of Verilog that is read`,
        at,
      );
    const divisor = [...b.slice(0, Math.max(1, bitsThatMatter(b))), C0];
    let rest = zeros(divisor.length);
    const quotient = zeros(width);
    for (let i = bitsThatMatter(a) - 1; i >= 0; i--) {
      rest = [a[i]!, ...rest.slice(0, -1)];
      const [D, BO] = [this.cells.fresh(rest.length), this.cells.fresh(1)];
      this.cells.add('subtractor', { width: rest.length, ...NOW }, { A: rest, B: divisor, BI: [C0], D, BO });
      quotient[i] = this.gates.not(BO[0]!);
      rest = this.gates.mux(BO[0]!, D, rest).bits;
    }
    return { quotient, rest: [...rest, ...zeros(width)].slice(0, width) };
  }

  /** A word without its sign, and the sign. */
  magnitude(bits: readonly Bit[]): { of: Bit[]; sign: Bit } {
    const sign = bits.at(-1)!;
    if (sign === C0) return { of: [...bits], sign };
    return { of: this.gates.mux(sign, bits, this.sum(zeros(bits.length), bits, true)).bits, sign };
  }

  negatedIf(sign: Bit, bits: readonly Bit[]): Bit[] {
    if (sign === C0) return [...bits];
    return this.gates.mux(sign, bits, this.sum(zeros(bits.length), bits, true)).bits;
  }

  /** A word moved by a number of places that signals say: a row of multiplexers for each bit of it. @param fill what comes in. */
  shifted(bits: readonly Bit[], by: readonly Bit[], isLeft: boolean, fill: Bit): Bit[] {
    const width = bits.length;
    let now = [...bits];
    const move = (places: number): Bit[] =>
      isLeft
        ? [...Array<Bit>(Math.min(places, width)).fill(fill), ...now].slice(0, width)
        : [...now.slice(places), ...Array<Bit>(Math.min(places, width)).fill(fill)];
    for (const [i, bit] of by.entries()) {
      if (bit === C0) continue;
      const moved = 2 ** i >= width ? Array<Bit>(width).fill(fill) : move(2 ** i);
      now = this.gates.mux(bit, now, moved).bits;
    }
    return now;
  }
}

/** The exponent of a constant power of two; null for other words. */
function powerOfTwo(bits: readonly Bit[]): number | null {
  if (!bits.every((bit) => bit === C0 || bit === C1)) return null;
  const ones = bits.flatMap((bit, i) => (bit === C1 ? [i] : []));
  return ones.length === 1 ? ones[0]! : null;
}
