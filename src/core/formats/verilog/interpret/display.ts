import type { Expression } from '../syntax';
import { digitsOf, isKnown, numberIn, type Word } from '../word';

/** What stands among the arguments of `$display`: a text, or a value with the way in which it is written by itself. */
export type Shown =
  | { readonly is: 'text'; readonly text: string }
  | { readonly is: 'word'; readonly word: Word }
  | { readonly is: 'blank' };

export const isText = (e: Expression): e is Extract<Expression, { is: 'text' }> => e.is === 'text';

/** How wide the largest number of so many bits is. */
const decimals = (width: number, signed: boolean): number =>
  signed ? (1n << BigInt(width - 1)).toString().length + 1 : ((1n << BigInt(width)) - 1n).toString().length;

function inBase(word: Word, bits: 1 | 3 | 4): string {
  const digits = digitsOf(word);
  const whole = digits.padStart(
    Math.ceil(digits.length / bits) * bits,
    /[xz]/.test(digits[0]!) ? digits[0] : '0',
  );
  let text = '';
  for (let at = 0; at < whole.length; at += bits) {
    const some = whole.slice(at, at + bits);
    if (/^[01]+$/.test(some)) text += Number.parseInt(some, 2).toString(16);
    else if (/^x+$/.test(some) || /^z+$/.test(some)) text += some[0];
    else text += some.includes('x') ? 'X' : 'Z';
  }
  return text;
}

/** A value in decimal; `x` or `z` if all bits are, `X` or `Z` if some are. */
function inDecimal(word: Word): string {
  if (isKnown(word)) return numberIn(word).toString();
  const digits = digitsOf(word);
  if (/^x+$/.test(digits)) return 'x';
  if (/^z+$/.test(digits)) return 'z';
  return digits.includes('x') ? 'X' : 'Z';
}

export function textInWord(word: Word): string {
  let text = '';
  for (let rest = word.ones & ~word.unknown; rest > 0n; rest >>= 8n)
    text = String.fromCharCode(Number(rest & 255n)) + text;
  return text;
}

/**
 * The line that `$display` prints (IEEE Std 1364-2005, 17.1).
 * @param usual the format of a value that a text does not ask for.
 * @param path what `%m` stands for.
 * @param timeText writes a time, and says how wide it is by itself.
 */
export function displayed(
  list: readonly Shown[],
  usual: 'd' | 'b' | 'h' | 'o',
  path: string,
  timeText: (word: Word) => { text: string; width: number },
): string {
  let line = '';
  for (let i = 0; i < list.length; i++) {
    const one = list[i]!;
    if (one.is === 'blank') line += ' ';
    else if (one.is === 'word') line += written(one.word, usual, null);
    else
      line += one.text.replaceAll(
        /%(-?\d+(?:\.\d+)?)?([a-zA-Z%])/g,
        (whole, width: string | undefined, letter: string) => {
          const kind = letter.toLowerCase();
          if (kind === '%') return '%';
          if (kind === 'm') return path;
          const next = list[i + 1];
          if (!next || next.is === 'blank') return whole;
          i++;
          if (next.is === 'word' && kind === 't') {
            const { text, width: usualWidth } = timeText(next.word);
            return text.padStart(width === undefined ? usualWidth : Number.parseInt(width, 10));
          }
          if (next.is === 'text') return kind === 's' ? next.text : whole;
          return written(next.word, kind, width === undefined ? null : Number.parseInt(width, 10));
        },
      );
  }
  return line;
}

function written(word: Word, kind: string, width: number | null): string {
  const padded = (text: string, usual: number) => text.padStart(width ?? usual);
  switch (kind) {
    case 'b':
      return shortened(inBase(word, 1), width);
    case 'o':
      return shortened(inBase(word, 3), width);
    case 'h':
    case 'x':
      return shortened(inBase(word, 4), width);
    case 's':
      return padded(textInWord(word), 0);
    case 'c':
      return String.fromCharCode(Number(word.ones & 255n));
    default:
      return padded(inDecimal(word), decimals(word.width, word.signed));
  }
}

/** Without the zeros that lead, if the width asks for that. */
const shortened = (digits: string, width: number | null): string =>
  width === null ? digits : digits.replace(/^0+(?=.)/, '').padStart(width, '0');
