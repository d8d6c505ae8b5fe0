import { type Bit, C1 } from './cells';
import type { Logic } from './logic';
import { fail, type Signal, wordOfBits } from './scope';
import type { Expression, Select } from './syntax';
import { signedOf } from './types';
import { isKnown, numberIn } from './word';

/** The bits of a target in pieces, the lowest first: fixed ones, or some of those at a place that signals say. */
export type Target =
  | { readonly bits: readonly Bit[] }
  | {
      readonly width: number;
      readonly places: readonly { readonly when: Bit; readonly bits: readonly Bit[] }[];
    };

export const widthOfTarget = (piece: Target): number => ('bits' in piece ? piece.bits.length : piece.width);

/** Finds out which bits statements assign. */
export class Targets {
  constructor(private readonly logic: Logic) {}

  of(e: Expression): Target[] {
    const { scope } = this.logic;
    switch (e.is) {
      case 'name': {
        const signal = scope.signal(e.name, e, false);
        if (signal.isMemory) fail(`${e.name} is a memory: say which word of it, as in ${e.name}[0]`, e);
        return [{ bits: signal.bits }];
      }
      case 'concat':
        return [...e.items].reverse().flatMap((item) => this.of(item));
      case 'select':
        return this.selected(e, scope.signal(e.name, e, false));
      default:
        return fail('a signal, or some of its bits, is expected', e);
    }
  }

  private selected(e: Select, s: Signal): Target[] {
    const [address, ...rest] = s.isMemory ? e.path : [undefined, ...e.path];
    if (s.isMemory && !address) fail(`say which word of ${e.name}, as in ${e.name}[0]`, e);
    if (rest.length > (e.part ? 0 : 1)) fail(`${e.name} has no selects within selects`, e);
    const words = s.isMemory ? this.logic.selects.wordsOf(s) : [[...s.bits]];
    const whichWord = address ? this.whichOf(address, words.length, (index) => index - s.from) : FIRST;
    const inWord = this.placesIn(e, s, rest[0]);
    const width = inWord[0]?.width ?? 1;
    const places = whichWord.flatMap(({ when, place }) =>
      inWord.map((within) => ({
        when: this.logic.gates.and(when, within.when),
        bits: Array.from({ length: width }, (_, i) => words[place]?.[within.place + i] ?? -1),
      })),
    );
    const [only] = places;
    if (places.length === 1 && only!.when === C1 && only!.bits.every((bit) => bit >= 0))
      return [{ bits: only!.bits }];
    return [{ width, places }];
  }

  /** The places that an index may select, each with the bit that selects it; empty if it selects none. */
  private whichOf(index: Expression, count: number, placeOf: (index: number) => number | null): Which[] {
    const { logic } = this;
    const { bits } = logic.own(index);
    const word = wordOfBits(bits, signedOf(index, logic.scope));
    if (word) {
      const place = isKnown(word) ? placeOf(Number(numberIn(word))) : null;
      return place !== null && place >= 0 && place < count ? [{ when: C1, place }] : [];
    }
    const made: Which[] = [];
    const most = Math.min(2 ** bits.length, 4 * count + 64);
    for (let value = 0; value < most && made.length < count; value++) {
      const place = placeOf(value);
      if (place === null || place < 0 || place >= count) continue;
      const wanted = bits.map((_, i): 0 | 1 => (Math.floor(value / 2 ** i) % 2 ? 1 : 0));
      made.push({ when: logic.gates.equals(bits, wanted), place });
    }
    return made;
  }

  private placesIn(
    { part, ...e }: Select,
    s: Signal,
    index: Expression | undefined,
  ): (Which & { width: number })[] {
    const { logic } = this;
    const { scope } = logic;
    if (!part) {
      if (!index) return [{ when: C1, place: 0, width: s.width }];
      if (!s.isVector) fail(`${s.name} is a single bit`, e);
      const fixed = wordOfBits(logic.own(index).bits, signedOf(index, scope));
      if (fixed) {
        const place = scope.placeIn(s, index, fixed);
        return place === null ? [] : [{ when: C1, place, width: 1 }];
      }
      return this.whichOf(index, s.width, (i) => scope.placeOf(s, i)).map((one) => ({ ...one, width: 1 }));
    }
    if (part.how === ':') {
      const high = scope.position(s, scope.number(part.first), part.first);
      const low = scope.position(s, scope.number(part.second), part.second);
      if (high < low) fail(`the range of ${e.name} runs the other way: it is [${s.high}:${s.low}]`, e);
      return [{ when: C1, place: low, width: high - low + 1 }];
    }
    const width = scope.number(part.second);
    const { how } = part;
    return this.whichOf(part.first, s.width, (i) => logic.selects.lowestOf(s, i, how, width)).map((one) => ({
      ...one,
      width,
    }));
  }
}

interface Which {
  readonly when: Bit;
  readonly place: number;
}
const FIRST: readonly Which[] = [{ when: C1, place: 0 }];
