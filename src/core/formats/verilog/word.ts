/*
 * Words of four values and what operators make of them, bit by bit as IEEE Std 1364-2005, 5.1 has it.
 */

/**
 * A word of `width` bits: a bit of `ones` and of `unknown` together say 0 (0, 0), 1 (1, 0), z (0, 1) or x (1, 1), the encoding of clause 26.
 */
export interface Word {
  readonly width: number;
  readonly signed: boolean;
  readonly ones: bigint;
  readonly unknown: bigint;
}

const MASKS = Array.from({ length: 130 }, (_, width) => (1n << BigInt(width)) - 1n);
const mask = (width: number): bigint => MASKS[width] ?? (1n << BigInt(width)) - 1n;

export const wordOf = (value: bigint | number, width: number, signed = false): Word => ({
  width,
  signed,
  ones: BigInt(value) & mask(width),
  unknown: 0n,
});
export const unknownWord = (width: number, signed = false): Word => ({
  width,
  signed,
  ones: mask(width),
  unknown: mask(width),
});
export const floatingWord = (width: number): Word => ({
  width,
  signed: false,
  ones: 0n,
  unknown: mask(width),
});
const bit = (value: boolean): Word => wordOf(value ? 1n : 0n, 1);
const X1 = unknownWord(1);

/** Digits `0 1 x z`, the highest first. */
export function wordOfDigits(digits: string, signed = false): Word {
  let [ones, unknown] = [0n, 0n];
  for (const c of digits) {
    ones = (ones << 1n) | (c === '1' || c === 'x' ? 1n : 0n);
    unknown = (unknown << 1n) | (c === 'x' || c === 'z' ? 1n : 0n);
  }
  return { width: digits.length, signed, ones, unknown };
}

/** The digits `0 1 x z` of a word, the highest first. */
export function digitsOf({ width, ones, unknown }: Word): string {
  let digits = '';
  for (let i = width - 1; i >= 0; i--) {
    const [a, b] = [(ones >> BigInt(i)) & 1n, (unknown >> BigInt(i)) & 1n];
    digits += b ? (a ? 'x' : 'z') : a ? '1' : '0';
  }
  return digits;
}

export const isKnown = (word: Word): boolean => word.unknown === 0n;
/** Whether it is 1 in any bit; null where that is unknown. */
export function truthOf({ ones, unknown }: Word): boolean | null {
  if ((ones & ~unknown) !== 0n) return true;
  return unknown === 0n ? false : null;
}

/** The number that a word of known bits is. */
export function numberIn({ width, signed, ones }: Word): bigint {
  return signed && (ones >> BigInt(width - 1)) & 1n ? ones - (1n << BigInt(width)) : ones;
}

/** A word in another width. @param signed whether its highest bit goes on above it. */
export function resized(word: Word, width: number, signed = word.signed): Word {
  const { ones, unknown } = word;
  if (width <= word.width) return { width, signed, ones: ones & mask(width), unknown: unknown & mask(width) };
  const above = mask(width) ^ mask(word.width);
  const top = BigInt(word.width - 1);
  const fill = (bits: bigint) => (signed && (bits >> top) & 1n ? bits | above : bits);
  return { width, signed, ones: fill(ones), unknown: fill(unknown) };
}

/** Some bits of a word, the lowest at `from`; those beyond its ends are x. */
export function bitsAt(word: Word, from: number, width: number): Word {
  const inside = mask(word.width);
  const outside = ~(from >= 0 ? inside >> BigInt(from) : inside << BigInt(-from)) & mask(width);
  const taken = (bits: bigint) =>
    ((from >= 0 ? bits >> BigInt(from) : bits << BigInt(-from)) & mask(width)) | outside;
  return { width, signed: false, ones: taken(word.ones), unknown: taken(word.unknown) };
}

/** A word with some of its bits replaced; those beyond its ends are dropped. */
export function withBits(word: Word, from: number, part: Word): Word {
  const moved = (bits: bigint) =>
    (from >= 0 ? bits << BigInt(from) : bits >> BigInt(-from)) & mask(word.width);
  const kept = ~moved(mask(part.width));
  return {
    ...word,
    ones: (word.ones & kept) | moved(part.ones),
    unknown: (word.unknown & kept) | moved(part.unknown),
  };
}

/** Words side by side, the highest first. */
export function joinedWords(words: readonly Word[]): Word {
  let made: Word = { width: 0, signed: false, ones: 0n, unknown: 0n };
  for (const { width, ones, unknown } of words)
    made = {
      width: made.width + width,
      signed: false,
      ones: (made.ones << BigInt(width)) | ones,
      unknown: (made.unknown << BigInt(width)) | unknown,
    };
  return made;
}

export const isSame = (a: Word, b: Word): boolean => a.ones === b.ones && a.unknown === b.unknown;

/** Bits that are surely 0, and surely 1. */
const zeros = ({ width, ones, unknown }: Word) => mask(width) & ~ones & ~unknown;
const sureOnes = ({ ones, unknown }: Word) => ones & ~unknown;
/** A word of which some bits are 0, some 1, all others x. */
const decided = (width: number, signed: boolean, isZero: bigint, isOne: bigint): Word => {
  const unknown = mask(width) & ~isZero & ~isOne;
  return { width, signed, ones: isOne | unknown, unknown };
};

export const not = (a: Word): Word => decided(a.width, a.signed, sureOnes(a), zeros(a));

function bitwise(operator: string, a: Word, b: Word): Word {
  const { width } = a;
  const signed = a.signed && b.signed;
  const [a0, a1, b0, b1] = [zeros(a), sureOnes(a), zeros(b), sureOnes(b)];
  if (operator === '&') return decided(width, signed, a0 | b0, a1 & b1);
  if (operator === '|') return decided(width, signed, a0 & b0, a1 | b1);
  const [same, differ] = [(a0 & b0) | (a1 & b1), (a0 & b1) | (a1 & b0)];
  return operator === '^' ? decided(width, signed, same, differ) : decided(width, signed, differ, same);
}

/** A reduction, or `!`. */
export function unary(operator: string, a: Word): Word {
  const all = mask(a.width);
  const flipped = (word: Word) => not(word);
  switch (operator) {
    case '+':
      return a;
    case '-':
      return isKnown(a) ? wordOf(-a.ones, a.width, a.signed) : unknownWord(a.width, a.signed);
    case '~':
      return not(a);
    case '!': {
      const truth = truthOf(a);
      return truth === null ? X1 : bit(!truth);
    }
    case '&':
      return zeros(a) !== 0n ? bit(false) : sureOnes(a) === all ? bit(true) : X1;
    case '|':
      return sureOnes(a) !== 0n ? bit(true) : zeros(a) === all ? bit(false) : X1;
    case '^': {
      if (!isKnown(a)) return X1;
      let parity = 0n;
      for (let rest = a.ones; rest; rest >>= 1n) parity ^= rest & 1n;
      return wordOf(parity, 1);
    }
    case '~&':
      return flipped(unary('&', a));
    case '~|':
      return flipped(unary('|', a));
    default:
      return flipped(unary('^', a));
  }
}

/** Quotient and rest as of whole numbers, towards zero; x where divided by zero. */
const ARITHMETIC: Readonly<Record<string, (a: bigint, b: bigint) => bigint | null>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => (b === 0n ? null : a / b),
  '%': (a, b) => (b === 0n ? null : a % b),
};
const COMPARED: Readonly<Record<string, (a: bigint, b: bigint) => boolean>> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
};

/** Operators whose operands have the width of the result or of each other. */
export function binary(operator: string, a: Word, b: Word): Word {
  const signed = a.signed && b.signed;
  const compute = ARITHMETIC[operator];
  if (compute) {
    const value = isKnown(a) && isKnown(b) ? compute(numberIn(a), numberIn(b)) : null;
    return value === null ? unknownWord(a.width, signed) : wordOf(value, a.width, signed);
  }
  const compare = COMPARED[operator];
  if (compare) return isKnown(a) && isKnown(b) ? bit(compare(numberIn(a), numberIn(b))) : X1;
  switch (operator) {
    case '==':
      if ((zeros(a) & sureOnes(b)) | (sureOnes(a) & zeros(b))) return bit(false);
      return isKnown(a) && isKnown(b) ? bit(true) : X1;
    case '!=':
      return not(binary('==', a, b));
    case '===':
      return bit(isSame(a, b));
    case '!==':
      return bit(!isSame(a, b));
    case '&&':
    case '||': {
      const [l, r] = [truthOf(a), truthOf(b)];
      const decides = operator === '||';
      if (l === decides || r === decides) return bit(decides);
      return l === null || r === null ? X1 : bit(!decides);
    }
    default:
      return bitwise(operator, a, b);
  }
}

/** `<<`, `>>`, `<<<`, `>>>`: the highest bit comes in from above with `>>>` on a signed word. */
export function shifted(operator: string, a: Word, by: Word): Word {
  if (!isKnown(by)) return unknownWord(a.width, a.signed);
  const n = by.ones > BigInt(a.width) ? BigInt(a.width) : by.ones;
  const { width, signed } = a;
  if (operator.startsWith('<'))
    return { width, signed, ones: (a.ones << n) & mask(width), unknown: (a.unknown << n) & mask(width) };
  const fills = operator === '>>>' && signed;
  const top = BigInt(width - 1);
  const above = mask(width) ^ (mask(width) >> n);
  const move = (bits: bigint) => (bits >> n) | (fills && (bits >> top) & 1n ? above : 0n);
  return { width, signed, ones: move(a.ones), unknown: move(a.unknown) };
}

/** A power of whole numbers (IEEE Std 1364-2005, table 5-6). */
export function power(a: Word, b: Word): Word {
  const { width, signed } = a;
  if (!isKnown(a) || !isKnown(b)) return unknownWord(width, signed);
  const [base, exponent] = [numberIn(a), numberIn(b)];
  if (exponent >= 0n) {
    let made = 1n;
    let square = base & mask(width);
    for (let rest = exponent; rest; rest >>= 1n) {
      if (rest & 1n) made = (made * square) & mask(width);
      square = (square * square) & mask(width);
    }
    return wordOf(made, width, signed);
  }
  if (base === 0n) return unknownWord(width, signed);
  if (base === 1n) return wordOf(1n, width, signed);
  if (base === -1n) return wordOf(exponent % 2n === 0n ? 1n : -1n, width, signed);
  return wordOf(0n, width, signed);
}

/** `c ? a : b` where c is unknown: what both agree on. */
export function either(a: Word, b: Word): Word {
  const signed = a.signed && b.signed;
  return decided(a.width, signed, zeros(a) & zeros(b), sureOnes(a) & sureOnes(b));
}

/** What several drivers make of a wire (table 4-2). */
export function resolvedWords(a: Word, b: Word): Word {
  const { width } = a;
  const [aFloats, bFloats] = [a.unknown & ~a.ones, b.unknown & ~b.ones];
  const both = mask(width) & ~aFloats & ~bFloats;
  // Where both drive and do not agree, it is x.
  const differ = both & ((a.ones ^ b.ones) | (a.unknown ^ b.unknown));
  const pick = (own: bigint, other: bigint) => (own & bFloats) | (other & aFloats & ~bFloats) | (own & both);
  return {
    width,
    signed: false,
    ones: pick(a.ones, b.ones) | differ,
    unknown: pick(a.unknown, b.unknown) | differ,
  };
}
