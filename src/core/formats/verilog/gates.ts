import type { Params } from '../../circuit/sheet';
import { type Bit, C0, C1, type Cells } from './cells';

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Bits in one part; wider ones are cut. */
export const MOST_PART = 32;
/** Inputs of one gate. */
const MOST_INPUTS = 16;
/** Select bits of one multiplexer. */
export const MOST_SELECT = 4;
/** An explicit zero delay, so that a part does not take its kind's default. */
export const NOW: Params = { delayRise: 0, delayFall: 0 };

/** Bits, and the part that made them if it made nothing else, so that a delay can be given to it. */
export interface Value {
  readonly bits: Bit[];
  readonly delayed?: (delay: Params) => void;
}

/** Makes gates and multiplexers of bits. */
export class Gates {
  constructor(private readonly cells: Cells) {}

  fresh(width: number): Bit[] {
    return this.cells.fresh(width);
  }

  inParts(width: number, make: (from: number, to: number) => Bit[]): Bit[] {
    const bits: Bit[] = [];
    for (let from = 0; from < width; from += MOST_PART)
      bits.push(...make(from, Math.min(width, from + MOST_PART)));
    return bits;
  }

  /** A gate with its inputs, each of the same width. */
  gate(
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
    this.cells.add(kind, this.paramsOf(kind, width, inputs.length, delay), pins, wish);
    return Y;
  }

  /** Parameters of gates that take no time, which are the most by far. */
  private readonly prompt = new Map<string, Params>();

  private paramsOf(kind: string, width: number, inputs: number, delay: Params): Params {
    const own: Params = kind === 'not' || kind === 'buffer' ? { width } : { width, inputs };
    if (delay !== NOW) return { ...own, ...delay };
    const key = `${own.inputs ?? ''} ${width}`;
    let params = this.prompt.get(key);
    if (!params) {
      params = Object.freeze({ ...own, ...delay });
      this.prompt.set(key, params);
    }
    return params;
  }

  /** A gate with any number of inputs: beyond the limit of one part, gates before it gather them. */
  wide(kind: string, inputs: Bit[][], delay: Params, wish = '', out?: readonly Bit[]): Bit[] {
    if (inputs.length === 1)
      return this.gate(
        kind === 'and' || kind === 'or' || kind === 'xor' ? 'buffer' : 'not',
        inputs,
        delay,
        wish,
        out,
      );
    let list = inputs;
    const gathering = { nand: 'and', nor: 'or', xnor: 'xor' }[kind] ?? kind;
    while (list.length > MOST_INPUTS) {
      const next: Bit[][] = [];
      for (let at = 0; at < list.length; at += MOST_INPUTS) {
        const some = list.slice(at, at + MOST_INPUTS);
        next.push(some.length === 1 ? some[0]! : this.gate(gathering, some, NOW));
      }
      list = next;
    }
    return this.gate(kind, list, delay, wish, out);
  }

  made(bits: Bit[]): Value {
    const cell = this.cells.lastId;
    return { bits, delayed: (delay) => this.cells.setDelay(cell, delay) };
  }

  /** Bit by bit, in as many parts as the width needs. */
  bitwise(kind: string, inputs: readonly (readonly Bit[])[]): Value {
    const width = inputs[0]!.length;
    if (width <= MOST_PART && inputs.length <= MOST_INPUTS) return this.made(this.gate(kind, inputs, NOW));
    return {
      bits: this.inParts(width, (from, to) =>
        this.wide(
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
    return this.made(
      this.wide(
        kind,
        bits.map((b) => [b]),
        NOW,
      ),
    );
  }

  not(bit: Bit): Bit {
    if (bit === C0) return C1;
    return bit === C1 ? C0 : this.gate('not', [[bit]], NOW)[0]!;
  }

  and(a: Bit, b: Bit): Bit {
    if (a === C0 || b === C0) return C0;
    if (a === C1) return b;
    return b === C1 || a === b ? a : this.gate('and', [[a], [b]], NOW)[0]!;
  }

  or(a: Bit, b: Bit): Bit {
    if (a === C1 || b === C1) return C1;
    if (a === C0) return b;
    return b === C0 || a === b ? a : this.gate('or', [[a], [b]], NOW)[0]!;
  }

  /** Whether bits are those of a constant, of which some may be left open (-1): one gate with bubbles at its zeros. */
  equals(bits: readonly Bit[], wanted: readonly (0 | 1 | -1)[]): Bit {
    const asked: { bit: Bit; one: boolean }[] = [];
    for (const [i, bit] of bits.entries()) {
      const want = wanted[i] ?? -1;
      if (want === -1) continue;
      if (bit === C0 || bit === C1) {
        if ((bit === C1) !== (want === 1)) return C0;
      } else asked.push({ bit, one: want === 1 });
    }
    if (asked.length === 0) return C1;
    if (asked.length === 1) return asked[0]!.one ? asked[0]!.bit : this.not(asked[0]!.bit);
    if (asked.length > MOST_INPUTS) {
      const half = asked.length >> 1;
      const part = (some: typeof asked) =>
        this.equals(
          some.map((a) => a.bit),
          some.map((a) => (a.one ? 1 : 0)),
        );
      return this.and(part(asked.slice(0, half)), part(asked.slice(half)));
    }
    // A word is often asked for the same value in several places.
    const key = asked.map(({ bit, one }) => `${bit}${one ? '' : '-'}`).join();
    const known = this.asked.get(key);
    if (known !== undefined) return known;
    const Y = this.cells.fresh(1);
    this.asked.set(key, Y[0]!);
    const inverted = asked.flatMap(({ one }, i) => (one ? [] : [i]));
    const pins: Record<string, readonly Bit[]> = { Y };
    for (const [i, { bit }] of asked.entries()) pins[LETTERS[i]!] = [bit];
    this.cells.add('and', { width: 1, inputs: asked.length, inverted, ...NOW }, pins);
    return Y[0]!;
  }

  private readonly asked = new Map<string, Bit>();

  mux(select: Bit, no: readonly Bit[], yes: readonly Bit[]): Value {
    if (select === C0) return { bits: [...no] };
    if (select === C1) return { bits: [...yes] };
    if (no.every((bit, i) => bit === yes[i])) return { bits: [...no] };
    return this.choice([select], [no, yes]);
  }

  /** One of 2^n words, the select's lowest bit first. */
  choice(select: readonly Bit[], words: readonly (readonly Bit[])[]): Value {
    const width = words[0]!.length;
    const one = (from: number, to: number) => {
      const Y = this.cells.fresh(to - from);
      const pins: Record<string, readonly Bit[]> = { S: select, Y };
      for (const [i, word] of words.entries()) pins[`D${i}`] = word.slice(from, to);
      this.cells.add('mux', { select: select.length, width: to - from, ...NOW }, pins);
      return Y;
    };
    if (width > MOST_PART) return { bits: this.inParts(width, one) };
    return this.made(one(0, width));
  }

  /** The word at an address, in a tree of multiplexers. */
  indexed(address: readonly Bit[], words: readonly (readonly Bit[])[]): Bit[] {
    let level = words;
    for (let at = 0; at < address.length && level.length > 1; at += MOST_SELECT) {
      const select = address.slice(at, at + MOST_SELECT);
      const each = 2 ** select.length;
      const next: Bit[][] = [];
      for (let from = 0; from < level.length; from += each) {
        const some = level.slice(from, from + each);
        const isSame = some.every((word) => word.every((bit, i) => bit === some[0]![i]));
        next.push(isSame ? [...some[0]!] : this.choice(select, some).bits);
      }
      level = next;
    }
    return [...level[0]!];
  }
}
