import { type Logic, letterOf, ONE, ZERO } from './logic';

export const RADICES = ['unsigned', 'signed', 'hexadecimal', 'binary'] as const;
export type Radix = (typeof RADICES)[number];

/**
 * A word as people read it, the least significant bit first in `bits`. Where a digit holds an unknown bit it is
 * `X`, or `Z` where all its bits float; a decimal number with an unknown bit is a single letter.
 */
export function wordText(bits: readonly Logic[], radix: Radix): string {
  if (radix === 'binary') return bits.map(letterOf).reverse().join('');
  if (radix === 'hexadecimal') {
    let text = '';
    for (let at = 0; at < bits.length; at += 4) text = digit(bits.slice(at, at + 4)) + text;
    return text;
  }
  if (bits.some((b) => b > 1)) return bits.every((b) => b === 3) ? 'Z' : 'X';
  const value = wordValue(bits)!;
  return String(radix === 'signed' && bits.at(-1) === 1 ? value - 2 ** bits.length : value);
}

function digit(bits: readonly Logic[]): string {
  if (bits.every((b) => b === 3)) return 'Z';
  const value = wordValue(bits);
  return value === null ? 'X' : value.toString(16).toUpperCase();
}

/** The unsigned number of a word, the least significant bit first; null where a bit is X or Z. */
export function wordValue(bits: readonly Logic[]): number | null {
  let value = 0;
  for (let i = bits.length - 1; i >= 0; i--) {
    if (bits[i]! > 1) return null;
    value = value * 2 + bits[i]!;
  }
  return value;
}

/** The bits of a number, the least significant first; negative ones in two's complement. */
export function bitsOf(value: number, width: number): Logic[] {
  const unsigned = ((value % 2 ** width) + 2 ** width) % 2 ** width;
  return Array.from({ length: width }, (_, i) => (Math.floor(unsigned / 2 ** i) % 2) as Logic);
}

/**
 * Reads `13`, `-3`, `0b1101`, `0xD`, `4'b11x0` or a row of `0 1 x z` as long as the word is wide.
 * @returns the bits, the least significant first, or null if it is no number or does not fit.
 */
export function readWord(text: string, width: number): Logic[] | null {
  // Most of a long file.
  if (width === 1 && (text === '0' || text === '1')) return [text === '1' ? ONE : ZERO];
  const said = text.trim().toLowerCase().replaceAll('_', '');
  const letters = said.startsWith('0x') ? null : /^(?:\d+'b|0b)?([01xz]+)$/.exec(said);
  const prefixed = said.startsWith('0b') || said.includes("'b");
  if (letters && (prefixed || letters[1]!.length === width)) {
    const digits = [...letters[1]!].reverse();
    if (digits.length > width) return null;
    return Array.from({ length: width }, (_, i) => Math.max(0, '01xz'.indexOf(digits[i] ?? '0')) as Logic);
  }
  if (said === 'x' || said === 'z') return Array(width).fill(said === 'x' ? 2 : 3);
  const number = /^(?:(?:\d+'h|0x)([0-9a-f]+)|(?:\d+'d)?(-?\d+))$/.exec(said);
  if (!number) return null;
  const value = number[1] !== undefined ? Number.parseInt(number[1], 16) : Number(number[2]);
  if (value >= 2 ** width || value < -(2 ** (width - 1))) return null;
  return bitsOf(value, width);
}
