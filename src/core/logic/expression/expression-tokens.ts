import type { Operator } from './expression';

/*
 * The signs and words of expressions, in all notations that people and programs use.
 */

export type Token =
  | { readonly is: 'name'; readonly text: string; readonly at: number }
  | { readonly is: 'constant'; readonly value: 0 | 1; readonly at: number }
  | { readonly is: 'operator'; readonly op: Operator; readonly at: number; readonly text: string }
  | { readonly is: 'open' | 'close'; readonly brace: boolean; readonly at: number }
  /** `isWord` marks the word `not`, whose scope may be doubtful. */
  | { readonly is: 'not'; readonly isWord: boolean; readonly at: number }
  | { readonly is: 'prime' | 'comma' | 'chooses' | 'else' | 'end'; readonly at: number };

/** An error in a text, and its offset in characters. */
export class Misreading extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

const WORDS: Readonly<Record<string, Operator>> = {
  and: 'and',
  or: 'or',
  xor: 'xor',
  nand: 'nand',
  nor: 'nor',
  xnor: 'xnor',
};
const CONSTANTS: Readonly<Record<string, 0 | 1>> = { true: 1, false: 0, True: 1, False: 0 };

/** Signs, the longer ones first. */
const SIGNS: readonly (readonly [sign: string, op: Operator])[] = [
  ['!==', 'xor'],
  ['===', 'xnor'],
  ['!=', 'xor'],
  ['==', 'xnor'],
  ['~^', 'xnor'],
  ['^~', 'xnor'],
  ['&&', 'and'],
  ['||', 'or'],
  ['&', 'and'],
  ['*', 'and'],
  ['·', 'and'],
  ['⋅', 'and'],
  ['∧', 'and'],
  ['|', 'or'],
  ['+', 'or'],
  ['∨', 'or'],
  ['^', 'xor'],
  ['⊕', 'xor'],
];
/** The same in LaTeX. */
const MACROS: Readonly<Record<string, Operator | 'not' | 'bar' | 'blank'>> = {
  overline: 'bar',
  bar: 'bar',
  neg: 'not',
  lnot: 'not',
  land: 'and',
  wedge: 'and',
  cdot: 'and',
  times: 'and',
  lor: 'or',
  vee: 'or',
  oplus: 'xor',
  quad: 'blank',
  ',': 'blank',
  ' ': 'blank',
  ';': 'blank',
};

/** A name, or a part and one of its pins: `Q0`, `H1.Sum`. */
const NAME = /^[\p{L}][\p{L}\p{N}_]*(?:\.\p{N}*[\p{L}][\p{L}\p{N}_]*)?/u;
/** A letter with its index: `A`, `A1`, `A_0`. */
const LETTER = /^\p{Lu}(?:_?\d+)?/u;
/** Letters with a line over each of them, by the combining overline or macron. */
const LINED = /^(?:[\p{L}\p{N}_][\u0304\u0305]|[ĀĒḠĪŌŪȲāēḡīōūȳ])+/u;
const LINE = /[\u0304\u0305]/gu;
/** Words that are no names: a choice is written with signs. */
const CHOOSING: ReadonlySet<string> = new Set(['if', 'then', 'else']);
/** A name that LaTeX sets as a word. */
const SET_NAME = /^\\(?:mathit|mathrm|text|mathsf|mathtt|operatorname)\s*\{([^{}]*)\}/;
const MACRO = /^\\([A-Za-z]+|[,; ])/;
const BIT = /^1'b([01])/;

/**
 * The tokens of a text, the last one `end`.
 * @param known names that are read as they are, also those with signs of their own; a run of capitals that is not
 *   known is a product.
 * @throws Misreading at a sign that means nothing.
 */
export function tokensOf(text: string, known: ReadonlySet<string>): Token[] {
  const tokens: Token[] = [];
  // Names with signs of their own, as “Count[3]” or “Bars down”, are known as a whole.
  const longest = [...known].filter((n) => n && NAME.exec(n)?.[0] !== n).sort((a, b) => b.length - a.length);
  for (let at = 0; at < text.length; ) {
    const rest = text.slice(at);
    const whole = longest.find((n) => rest.startsWith(n) && !/^[\p{L}\p{N}_]/u.test(rest.slice(n.length)));
    const taken = whole
      ? { length: whole.length, tokens: [{ is: 'name', text: whole, at } as const] }
      : (blank(rest) ??
        lined(rest, at, known) ??
        word(rest, at, known) ??
        latex(rest, at, known) ??
        sign(rest, at));
    tokens.push(...taken.tokens);
    at += taken.length;
  }
  tokens.push({ is: 'end', at: text.length });
  return tokens;
}

interface Taken {
  readonly length: number;
  readonly tokens: readonly Token[];
}

const one = (length: number, token: Token): Taken => ({ length, tokens: [token] });

function blank(rest: string): Taken | null {
  const length = /^\s+/.exec(rest)?.[0].length;
  return length ? { length, tokens: [] } : null;
}

function lined(rest: string, at: number, known: ReadonlySet<string>): Taken | null {
  const found = LINED.exec(rest)?.[0];
  if (!found) return null;
  const names = namesIn(found.normalize('NFD').replaceAll(LINE, ''), at, known);
  // A line over each of some letters is read as one over each factor.
  return {
    length: found.length,
    tokens: names.flatMap((name): Token[] => [name, { is: 'prime', at: name.at }]),
  };
}

function word(rest: string, at: number, known: ReadonlySet<string>): Taken | null {
  const name = NAME.exec(rest)?.[0];
  if (!name) return null;
  const { length } = name;
  const low = name.toLowerCase();
  if (known.has(name)) return one(length, { is: 'name', text: name, at });
  if (low === 'not') return one(length, { is: 'not', isWord: true, at });
  if (Object.hasOwn(WORDS, low)) return one(length, { is: 'operator', op: WORDS[low]!, at, text: name });
  if (Object.hasOwn(CONSTANTS, name)) return one(length, { is: 'constant', value: CONSTANTS[name]!, at });
  if (CHOOSING.has(low)) throw new Misreading(`“${name}” is no gate: write a choice as S ? A : B`, at);
  return { length, tokens: namesIn(name, at, known) };
}

function latex(rest: string, at: number, known: ReadonlySet<string>): Taken | null {
  if (!rest.startsWith('\\')) return null;
  const set = SET_NAME.exec(rest);
  if (set) {
    const name = set[1]!.replaceAll(/\\(.)/g, '$1').trim();
    const names = known.has(name)
      ? [{ is: 'name', text: name, at } as const]
      : tokensOf(name, known).slice(0, -1);
    return { length: set[0].length, tokens: names.map((token) => ({ ...token, at })) };
  }
  const [macro, called] = MACRO.exec(rest) ?? [];
  const means = called !== undefined && Object.hasOwn(MACROS, called) ? MACROS[called]! : null;
  if (!means) throw new Misreading(`“${macro ?? '\\'}” means nothing here`, at);
  const { length } = macro!;
  if (means === 'blank') return { length, tokens: [] };
  if (means === 'bar' || means === 'not') return one(length, { is: 'not', isWord: false, at });
  return one(length, { is: 'operator', op: means, at, text: macro! });
}

function sign(rest: string, at: number): Taken {
  const bit = BIT.exec(rest)?.[1];
  if (bit) return one(4, { is: 'constant', value: bit === '1' ? 1 : 0, at });
  const operator = SIGNS.find(([text]) => rest.startsWith(text));
  if (operator) return one(operator[0].length, { is: 'operator', op: operator[1], at, text: operator[0] });
  const first = String.fromCodePoint(rest.codePointAt(0)!);
  if (first === '0' || first === '1') return one(1, { is: 'constant', value: first === '1' ? 1 : 0, at });
  if ("'’\u0304\u0305".includes(first)) return one(1, { is: 'prime', at });
  if ('~!¬/'.includes(first)) return one(1, { is: 'not', isWord: false, at });
  if ('({'.includes(first)) return one(1, { is: 'open', brace: first === '{', at });
  if (first === ',') return one(1, { is: 'comma', at });
  if (first === '?') return one(1, { is: 'chooses', at });
  if (first === ':') return one(1, { is: 'else', at });
  if (')}'.includes(first)) return one(1, { is: 'close', brace: first === '}', at });
  throw new Misreading(`“${first}” means nothing here`, at);
}

/** A name as it is, or a run of capitals that nobody is called by as its letters. */
function namesIn(name: string, at: number, known: ReadonlySet<string>): Token[] {
  const letters: Token[] = [];
  for (let i = 0; i < name.length; ) {
    const letter = LETTER.exec(name.slice(i))?.[0];
    if (!letter) return [{ is: 'name', text: name, at }];
    letters.push({ is: 'name', text: letter, at: at + i });
    i += letter.length;
  }
  return known.has(name) || letters.length === 1 ? [{ is: 'name', text: name, at }] : letters;
}
