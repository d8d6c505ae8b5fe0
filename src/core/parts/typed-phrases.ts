import type { Params } from '../circuit/sheet';
import { readFrequency, readTime } from '../values/time';
import type { PartKind } from './part-kind';
import { meaningOf, numberOfWord, spaced, spelt } from './trade-words';

/*
 * Parts as people ask for them: `three-input nand`, `2 to 4 decoder`, `falling edge jk`, `four lamps`, `register 8 bit with enable`.
 */

/** A kind that is named in a line. */
export interface Phrase {
  readonly kind: PartKind;
  /** The name as it was typed. */
  readonly name: string;
  /** How many are asked for: `four lamps`. */
  readonly count: number;
  /** Whether that name is a plural: `switches`. */
  readonly isPlural: boolean;
  /** Words before its name, or of a trade name, that set it. */
  readonly set: readonly string[];
  /** The text behind its name: further settings, then labels. */
  readonly rest: string;
}

type Named = Omit<Phrase, 'count' | 'isPlural'>;

/** `a` lamp, not `A` lamp: that is a name. */
const ARTICLE = /^(?:an?|the|one)\s+(?=\S)/;

/** Finds the name of a kind in a line, and the words around it; null where there is none. */
export function phraseIn(line: string, kinds: readonly PartKind[]): Phrase | null {
  const text = line.replace(ARTICLE, '');
  const whole = nameAtStart(text, kinds);
  if (whole) return { ...whole, count: 1, isPlural: isPlural(whole) };
  const words = text.split(/\s+/);
  // From the end: in `2 input and` the name is `and`, though `input` is one, too.
  for (let at = words.length - 1; at > 0; at--) {
    const named = nameAtStart(words.slice(at).join(' '), kinds);
    if (!named) continue;
    const before = words.slice(0, at);
    const plural = isPlural(named);
    const count = at === 1 && plural ? numberOfWord(before[0]!) : null;
    if (count !== null) return { ...named, count, isPlural: plural };
    const { used, problem } = readWords(named.kind, before);
    if (used === at || problem)
      return { ...named, set: [...named.set, ...before], count: 1, isPlural: plural };
  }
  return null;
}

/** Whether a name is the plural of another: `lamps`, and neither `bus` nor `bits`. */
function isPlural({ kind, name }: Named): boolean {
  const singular = spelt(name);
  if (singular === spaced(name)) return false;
  const bare = singular.replace(/ gate$/, '');
  return (
    kind.typed.some((own) => spaced(own) === singular || spaced(own) === bare) || meaningOf(singular) !== null
  );
}

/** Splits a line behind each of its words, the last one first. */
function* beginnings(text: string): Generator<[name: string, rest: string]> {
  const words = text.split(/\s+/);
  for (let count = words.length; count > 0; count--)
    yield [words.slice(0, count).join(' '), words.slice(count).join(' ')];
}

/** The longest name of a kind with which a line begins: `d flip-flop fall`. */
function nameAtStart(text: string, kinds: readonly PartKind[]): Named | null {
  for (const [name, rest] of beginnings(text)) {
    const own = kindCalled(name, kinds);
    if (own) return { kind: own, set: [], rest, name };
    // A number alone is a constant; before something else it is not.
    const meant = /^[01]$/.test(name) && rest ? null : meaning(name, kinds);
    if (meant) return { ...meant, rest, name };
    const sort = name.replaceAll(' ', '');
    const sorted = kinds.find((k) => k.typedAs?.(sort) === 'whole');
    if (sorted) return { kind: sorted, set: [sort], rest, name };
    const joined = withNumber(name, kinds);
    if (joined) return { ...joined, rest, name };
  }
  return null;
}

/** The kind and the settings of a trade name; null if that kind is not among `kinds`. */
export function meaning(name: string, kinds: readonly PartKind[]): Pick<Phrase, 'kind' | 'set'> | null {
  for (const [own, rest] of beginnings(meaningOf(name) ?? '')) {
    const kind = kindCalled(own, kinds);
    if (kind) return { kind, set: rest.split(' ').filter(Boolean) };
  }
  return null;
}

/** `nand3` and `3nand`: a name with the number that sets it; not `3-input`, which stands before a name. */
function withNumber(word: string, kinds: readonly PartKind[]): { kind: PartKind; set: string[] } | null {
  const [, before, , after] = /^(?:(\d+)([a-z]+)|[a-z]+-?(\d+))$/i.exec(word) ?? [];
  const number = before ?? after;
  if (number === undefined || /^\d+(?:inputs?|bits?)$/i.test(word)) return null;
  const kind = kindCalled(word.replace(number, '').replace(/-$/, ''), kinds);
  const sets = kind?.typedWord?.(number) ?? null;
  return kind && sets !== null && typeof sets !== 'string' ? { kind, set: [number] } : null;
}

const spelled = new WeakMap<PartKind, readonly string[]>();
/** The typed names of a kind, as they are compared. */
export function namesOf(kind: PartKind): readonly string[] {
  let names = spelled.get(kind);
  if (!names) {
    names = kind.typed.map(spelt);
    spelled.set(kind, names);
  }
  return names;
}

export function kindCalled(name: string, kinds: readonly PartKind[]): PartKind | undefined {
  const typed = spelt(name);
  const found = kinds.find((k) => namesOf(k).includes(typed));
  if (found || !typed.endsWith(' gate')) return found;
  const bare = typed.slice(0, -' gate'.length);
  return kinds.find((k) => k.isGate && namesOf(k).includes(bare));
}

/** The settings that words make. */
export interface WordsRead {
  readonly params: Partial<Params>;
  /** How many of them were understood, from the first on. */
  readonly used: number;
  /** One of them that cannot be, and what could, as a clause. */
  readonly problem: { readonly word: string; readonly why: string } | null;
}

/** Words that mean nothing by themselves: of an edge, last before a name too, `rising edge triggered`; and before a word that does. */
const OF_AN_EDGE: readonly string[] = ['with', 'edge', 'triggered', 'edge-triggered'];
const BEFORE_MORE: readonly string[] = ['and', 'of', 'at', 'every', 'period', 'frequency'];
const isEdgeWord = (word: string) => OF_AN_EDGE.includes(word.toLowerCase());
/** `A` is a name. */
const isFiller = (word: string | undefined) =>
  word !== undefined && (word === 'a' || isEdgeWord(word) || BEFORE_MORE.includes(word.toLowerCase()));

/** Reads words for as long as they set something of the kind. */
export function readWords(kind: PartKind, words: readonly string[]): WordsRead {
  let params: Partial<Params> = {};
  let used = 0;
  while (used < words.length) {
    let said = used;
    let found = readOne(kind, words, said);
    while (!found && isFiller(words[said])) found = readOne(kind, words, ++said);
    const isEnd = words.slice(used).every(isEdgeWord);
    if (!found && used > 0 && isEnd) return { params, used: words.length, problem: null };
    if (!found) break;
    if (typeof found.sets === 'string')
      return {
        params,
        used,
        problem: { word: words.slice(found.begin, found.end).join(' '), why: found.sets },
      };
    params = { ...params, ...found.sets };
    used = found.end;
  }
  return { params, used, problem: null };
}

/** Reads one word, or several that belong together, as many as make sense. */
function readOne(
  kind: PartKind,
  words: readonly string[],
  at: number,
): { readonly sets: Partial<Params> | string; readonly begin: number; readonly end: number } | null {
  for (const [text, count] of together(words, at)) {
    const sets = kind.typedWord?.(text.toLowerCase()) ?? null;
    if (sets !== null) return { sets, begin: at, end: at + count };
  }
  return null;
}

/** The ways to take words from a place on as one, the longest first: `4 to 1`, `20 ms`, `3 inputs`, `mod 10`, `negative edge`. */
function together(words: readonly string[], at: number): [text: string, count: number][] {
  const [word = '', next = '', third = ''] = words.slice(at, at + 3).map((one) => one.replace(/,$/, ''));
  if (word === '') return [];
  const ways: [string, number][] = [];
  if (/^(?:to|x|by)$/i.test(next) && /^\d+$/.test(word) && /^\d+$/.test(third))
    ways.push([`${word}:${third}`, 3]);
  const number = numberOfWord(word);
  if (number !== null && /^inputs?$/i.test(next)) ways.push([`${number}`, 2]);
  if (number !== null && /^bits?$/i.test(next)) ways.push([`${number}bit`, 2]);
  const isUnit = readTime(`1 ${next}`) !== null || readFrequency(`1 ${next}`) !== null;
  if (/^[\d.]+$/.test(word) && isUnit) ways.push([`${word} ${next}`, 2]);
  if (/^mod(?:ulo)?$/i.test(word) && /^\d+$/.test(next)) ways.push([word + next, 2]);
  ways.push([word, 1]);
  const [, count, what] = /^(\w+)-(input|bit)s?$/i.exec(word) ?? [];
  const counted = count === undefined ? null : numberOfWord(count);
  if (counted !== null) ways.push([/^b/i.test(what!) ? `${counted}bit` : `${counted}`, 1]);
  const [, one, other] = /^(\d+)-?(?:to|x|by)-?(\d+)$/i.exec(word) ?? [];
  if (one !== undefined) ways.push([`${one}:${other}`, 1]);
  return ways;
}
