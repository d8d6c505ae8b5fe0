import { type Bit, type Cells, CX, MOST_VECTOR } from './cells';
import type { Expressions } from './expressions';
import { MOST_PART, NOW } from './gates';
import { bitsOfWord, fail, Signal, wordOfBits } from './scope';
import type { Expression, Select } from './syntax';
import type { Place } from './tokens';
import { signedOf } from './types';
import { isKnown, numberIn, type Word, wordOf } from './word';

/** Bits of an address that signals give. */
const MOST_ADDRESS = 12;
/** Bits of the address of one part that holds a table. */
const MOST_ROM = 8;

/** Makes the bits that a select names; those at a place that signals say come through multiplexers. */
export class Selects {
  constructor(
    private readonly logic: Expressions,
    private readonly cells: Cells,
  ) {}

  /** The bits that a select names; those at a place that signals say come through multiplexers. */
  selected(e: Select): Bit[] {
    const constant = this.logic.scope.constant(e.name);
    if (constant) {
      const bits = bitsOfWord(constant.word);
      return this.partOf(Signal.ofWord(e.name, bits, e), bits, e, e.path);
    }
    const signal = this.logic.scope.signal(e.name, e, false);
    this.logic.noted(signal);
    if (!signal.isMemory) return this.partOf(signal, this.logic.read(signal.bits), e, e.path);
    const [address, ...rest] = e.path;
    if (!address) return fail(`say which word of ${e.name}, as in ${e.name}[0]`, e);
    const { bits } = this.logic.own(address);
    const word = wordOfBits(bits, signedOf(address, this.logic.scope));
    const words = this.wordsOf(signal);
    if (word) {
      const at = isKnown(word) ? Number(numberIn(word)) - signal.from : -1;
      return this.partOf(
        signal,
        words[at] ? this.logic.read(words[at]) : Array<Bit>(signal.width).fill(CX),
        e,
        rest,
      );
    }
    const rom = this.logic.fixed.get(signal.bits[0]!);
    if (rom) return this.partOf(signal, this.fromRom(bits, signal, rom, address), e, rest);
    return this.partOf(
      signal,
      this.atAddress(
        bits,
        signal,
        words.map((w) => this.logic.read(w)),
        address,
      ),
      e,
      rest,
    );
  }

  /** The words of a memory in order of their addresses. */
  wordsOf({ bits, width, from, to }: Signal): Bit[][] {
    return Array.from({ length: to - from + 1 }, (_, i) => bits.slice(i * width, (i + 1) * width));
  }

  /** The word at an address of a memory that nothing writes. */
  private fromRom(
    address: readonly Bit[],
    { from, width }: Signal,
    words: readonly Word[],
    at: Place,
  ): Bit[] {
    const used = this.addressBits(address, from + words.length, at);
    const content = Array.from({ length: 2 ** used.length }, (_, i) => Number(words[i - from]?.ones ?? 0n));
    if (width > MOST_PART || used.length > MOST_ROM) {
      const bits = content.map((_, i) => bitsOfWord(words[i - from] ?? wordOf(0, width)));
      return this.logic.gates.indexed(used, bits);
    }
    const Q = this.cells.fresh(width);
    this.cells.add('rom', { address: used.length, width, content, ...NOW }, { A: used, Q });
    return Q;
  }

  private atAddress(
    address: readonly Bit[],
    { from, width }: Signal,
    words: readonly Bit[][],
    at: Place,
  ): Bit[] {
    const used = this.addressBits(address, from + words.length, at);
    const nothing = Array<Bit>(width).fill(CX);
    return this.logic.gates.indexed(
      used,
      Array.from({ length: 2 ** used.length }, (_, i) => words[i - from] ?? nothing),
    );
  }

  /** The bits of an address that can lead to one of so many places. */
  private addressBits(address: readonly Bit[], places: number, at: Place): Bit[] {
    const used = address.slice(0, Math.max(1, Math.ceil(Math.log2(places))));
    if (used.length > MOST_ADDRESS)
      fail(`an address of more than ${MOST_ADDRESS} bits is outside the part of Verilog that is read`, at);
    return used;
  }

  partOf(s: Signal, bits: readonly Bit[], e: Select, path: readonly Expression[], isFixed = false): Bit[] {
    const { part } = e;
    if (path.length > (part ? 0 : 1)) return fail(`${e.name} has no selects within selects`, e);
    if (!part) {
      const [index] = path;
      if (!index) return [...bits];
      const address = this.logic.own(index).bits;
      const word = wordOfBits(address, signedOf(index, this.logic.scope));
      if (word) {
        const place = this.logic.scope.placeIn(s, index, word);
        return [place === null ? CX : bits[place]!];
      }
      if (!s.isVector) fail(`${s.name} is a single bit`, e);
      if (isFixed)
        fail('a constant is expected: only statements of an “always” block choose a bit by signals', index);
      const used = this.addressBits(address, Math.max(s.high, s.low) + 1, index);
      const words = Array.from({ length: 2 ** used.length }, (_, i) => {
        const place = this.logic.scope.placeOf(s, i);
        return [place === null ? CX : bits[place]!];
      });
      return this.logic.gates.indexed(used, words);
    }
    if (part.how === ':') {
      const high = this.logic.scope.position(s, this.logic.scope.number(part.first), part.first);
      const low = this.logic.scope.position(s, this.logic.scope.number(part.second), part.second);
      if (high < low) fail(`the range of ${e.name} runs the other way: it is [${s.high}:${s.low}]`, e);
      return bits.slice(low, high + 1);
    }
    const width = this.logic.scope.number(part.second);
    if (!(width >= 1 && width <= MOST_VECTOR)) fail(`1 to ${MOST_VECTOR} bits are expected`, part.second);
    const first = this.logic.own(part.first).bits;
    const known = wordOfBits(first, signedOf(part.first, this.logic.scope));
    if (known) {
      if (!isKnown(known)) return Array<Bit>(width).fill(CX);
      const from = this.lowestOf(s, Number(numberIn(known)), part.how, width);
      return Array.from({ length: width }, (_, i) => bits[from + i] ?? CX);
    }
    if (isFixed)
      fail('a constant is expected: only statements of an “always” block choose bits by signals', part.first);
    const used = this.addressBits(first, Math.max(s.high, s.low) + 1, part.first);
    const { how } = part;
    const words = Array.from({ length: 2 ** used.length }, (_, index) => {
      const from = this.lowestOf(s, index, how, width);
      return Array.from({ length: width }, (_, i) => bits[from + i] ?? CX);
    });
    return this.logic.gates.indexed(used, words);
  }

  /** The place of the lowest bit of `[index +: width]`. */
  lowestOf(
    { high, low }: Pick<Signal, 'high' | 'low'>,
    index: number,
    how: '+:' | '-:',
    width: number,
  ): number {
    const lowest = how === '+:' ? index : index - width + 1;
    return high >= low ? lowest - low : low - (lowest + width - 1);
  }
}
