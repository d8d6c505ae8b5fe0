import { type Bit, C1 } from './cells';
import { wordOfBits } from './scope';
import type { CaseItem } from './syntax';
import { digitsOf } from './word';

/** Select bits of a case that becomes one choice. */
const MOST_CHOSEN = 4;

/** What a label asks of each bit, -1 for nothing; or that no value has it, or that signals stand in it. */
export type Wanted = readonly (0 | 1 | -1)[] | 'never' | 'signals';

export function wantedBy(how: 'case' | 'casez' | 'casex', pattern: readonly Bit[]): Wanted {
  const word = wordOfBits(pattern, false);
  if (!word) return 'signals';
  const digits = [...digitsOf(word)].reverse();
  const isFree = (digit: string) => (how !== 'case' && digit === 'z') || (how === 'casex' && digit === 'x');
  if (digits.some((digit) => /[xz]/.test(digit) && !isFree(digit))) return 'never';
  return digits.map((digit) => (digit === '1' ? 1 : digit === '0' ? 0 : -1));
}

/** Whether every value of the bits is named by some label. */
export function coversAll(bits: readonly Bit[], wanted: readonly Wanted[]): boolean {
  const open = bits.flatMap((bit, i) => (bit < 0 ? [] : [i]));
  if (open.length > 12) return false;
  for (let value = 0; value < 2 ** open.length; value++) {
    const isNamed = wanted.some(
      (want) =>
        typeof want === 'object' &&
        bits.every(
          (bit, i) =>
            want[i] === -1 ||
            (bit < 0 ? (bit === C1) === (want[i] === 1) : want[i] === ((value >> open.indexOf(i)) & 1)),
        ),
    );
    if (!isNamed) return false;
  }
  return true;
}

/** The item for each value of a few select bits, where labels are constants; null where a chain is better. */
export function asOneChoice(
  items: readonly CaseItem[],
  bits: readonly Bit[],
  wanted: readonly (readonly Wanted[])[],
): { select: Bit[]; items: number[] } | null {
  const open = bits.flatMap((bit, i) => (bit < 0 ? [] : [i]));
  if (items.length < 3 || open.length < 2 || open.length > MOST_CHOSEN) return null;
  const which = Array<number>(2 ** open.length).fill(-1);
  for (const [item, list] of wanted.entries())
    for (const want of list) {
      if (want === 'signals') return null;
      if (want === 'never') continue;
      if (bits.some((bit, i) => bit < 0 && want[i] !== -1 && (want[i] === 1) !== (bit === C1))) continue;
      for (let value = 0; value < which.length; value++)
        if (which[value] === -1 && open.every((i, n) => want[i] === -1 || want[i] === ((value >> n) & 1)))
          which[value] = item;
    }
  return { select: open.map((i) => bits[i]!), items: which };
}
