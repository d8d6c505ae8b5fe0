import type { Params } from '../circuit/sheet';
import { done, type Result, refusal, refused, within } from '../values/result';
import { noSuchPackage } from './packages';
import { defaultParams, readParams } from './params';
import type { PartKind } from './part-kind';

import { distance, meaningOf, numberOfWord, spelt, TRADE_NAMES } from './trade-words';

/** A typed line that places parts: a kind, its parameters, and a label for each part. */
export interface TypedPart {
  readonly kind: PartKind;
  readonly params: Params;
  /** One part for each; a single empty label where none was typed. */
  readonly labels: readonly string[];
}

/** Names that differ from what was typed by no more letters than this are near. */
const NEAR = 2;

/** All names by which a kind is typed, as they are compared. */
function namesOf(kind: PartKind): string[] {
  const own = kind.typed.map(spelt);
  const trade = TRADE_NAMES.filter((name) => own.includes(spelt(meaningOf(name)[0]!)));
  return [...own, ...trade];
}

/**
 * Those kinds whose typed name begins with the text, or with its first word, best first; those of nearly that name where there
 * are none; all of them for an empty text.
 */
export function suggestions(text: string, kinds: readonly PartKind[]): PartKind[] {
  const typed = spelt(text.trim());
  const found = kindNamed(text, kinds);
  const first = spelt(typed.split(/[\s,]+/)[0] ?? '');
  const exact = kinds.filter((k) => k === found || k.typed.includes(first));
  exact.sort((a, b) => Number(b === found) - Number(a === found));
  const begins = (given: string) =>
    kinds.filter(
      (k) =>
        !exact.includes(k) &&
        (namesOf(k).some((name) => name.startsWith(given)) || (given !== '' && k.typedAs?.(given))),
    );
  const whole = begins(typed);
  const some = [...exact, ...whole, ...begins(first).filter((k) => !whole.includes(k))];
  return some.length > 0 ? some : nearest(typed, kinds);
}

/** Kinds with a name of a few letters more, fewer, or others; a name of two letters is too short to be near. */
function nearest(typed: string, kinds: readonly PartKind[]): PartKind[] {
  const far = (kind: PartKind) =>
    Math.min(...namesOf(kind).map((name) => (name.length > NEAR ? distance(name, typed) : NEAR + 1)));
  return kinds
    .map((kind) => ({ kind, by: far(kind) }))
    .filter(({ by }) => by <= Math.min(NEAR, typed.length / 2))
    .sort((x, y) => x.by - y.by)
    .map(({ kind }) => kind);
}

interface Named {
  readonly kind: PartKind;
  /** Words that belong to the name and set the part. */
  readonly set: readonly string[];
  readonly rest: string;
}

/** Splits a typed line into the kind's name and the rest; the longest name wins (`d flip-flop fall`). */
function kindAndRest(text: string, kinds: readonly PartKind[]): Named | null {
  const words = text.split(/\s+/);
  for (let count = words.length; count > 0; count--) {
    const head = words.slice(0, count).join(' ');
    const rest = words.slice(count).join(' ');
    const own = kindCalled(head, kinds);
    if (own) return { kind: own, set: [], rest };
    const [name = '', ...set] = meaningOf(head);
    const meant = name && kindCalled(name, kinds);
    if (meant) return { kind: meant, set, rest };
    const sort = head.replaceAll(' ', '');
    const sorted = kinds.find((k) => k.typedAs?.(sort) === 'whole');
    if (sorted) return { kind: sorted, set: [sort], rest };
  }
  return null;
}

function kindCalled(name: string, kinds: readonly PartKind[]): PartKind | undefined {
  const typed = spelt(name);
  const bare = typed.replace(/ gate$/, '');
  return (
    kinds.find((k) => k.typed.some((own) => spelt(own) === typed)) ??
    kinds.find((k) => k.isGate && k.typed.some((own) => spelt(own) === bare))
  );
}

function checkedText(kind: PartKind, text: string): Params {
  const params = readParams(kind, { [kind.typedText!]: text });
  return params.ok ? params.value : defaultParams(kind);
}

/**
 * `2 input and` and `three-input NAND` as `and 2` and `nand 3`, `8-bit register` as `register 8bit`: what is said before a name
 * comes after it.
 */
function countLast(text: string, kinds: readonly PartKind[]): string {
  const [, count, what, name] = /^(\w+)[\s-]*(inputs?|bits?)[\s-]+(\S.*)$/i.exec(text) ?? [];
  const number = count === undefined ? null : numberOfWord(count);
  const named = number === null ? null : kindAndRest(name!, kinds);
  if (!named) return text;
  const isBits = /^bit/i.test(what!);
  if (!isBits && !named.kind.isGate) return text;
  return [named.kind.typed[0], ...named.set, `${number}${isBits ? 'bit' : ''}`, named.rest].join(' ').trim();
}

/** `three inputs` as 3, where the word is a number. */
const spokenCount = (said: string, word: string) => `${numberOfWord(word) ?? said}`;

/** The width that a label names as a bus, `A[7:0]`, and the label without it. */
function widthInLabel(label: string): { label: string; width: number } | null {
  const [, name, high, low] = /^(.*\S)\s*\[(\d{1,2}):(\d{1,2})\]$/.exec(label) ?? [];
  return name === undefined ? null : { label: name, width: Math.abs(Number(high) - Number(low)) + 1 };
}

/** The kind of which a typed line has the whole name. */
export const kindNamed = (text: string, kinds: readonly PartKind[]): PartKind | null =>
  kindAndRest(countLast(text.trim(), kinds), kinds)?.kind ?? null;

/**
 * Reads `nand 3`, `clock 4 Hz`, `sw Key, Bars, Clear`: the name of a kind, words that set its parameters, and
 * the rest as labels with commas between. A refusal names the word that it did not understand.
 */
export function readTyped(text: string, kinds: readonly PartKind[]): Result<TypedPart> {
  const typed = countLast(text.trim(), kinds);
  const found = kindAndRest(typed, kinds);
  if (!found) {
    const [only, other] = suggestions(typed, kinds);
    const isBegun = only && namesOf(only).some((name) => name.startsWith(spelt(typed)));
    if (typed && isBegun && !other) return done({ kind: only, params: defaultParams(only), labels: [''] });
    if (!typed) return refused('empty', 'type the name of a part');
    const noPackage = noSuchPackage(typed);
    if (noPackage) return refused('no-such-package', noPackage);
    const near = only ? `; do you mean ${only.name}?` : '';
    return refused('no-such-part', `no part is called “${typed}”${near}`);
  }
  const { kind } = found;
  if (kind.typedText && found.rest)
    return done({ kind, params: checkedText(kind, found.rest), labels: [''] });
  const rest = kind.isGate
    ? found.rest.replace(/^(?:with\s+)?(\w+)[\s-]*inputs?\b/i, spokenCount)
    : found.rest;
  const words = [...found.set, rest]
    .join(' ')
    .replace(/([\d.])\s+(?=(?:[kKmMgG]?[hH][zZ]|[pnum]?s|min|h|d)\b)/g, '$1')
    .split(/\s+/)
    .filter(Boolean);
  let params: Partial<Params> = {};
  const left: string[] = [];
  for (const word of words) {
    const set = left.length === 0 ? kind.typedWord?.(word.toLowerCase()) : null;
    if (set) params = { ...params, ...set };
    else left.push(word);
  }
  let labels = left
    .join(' ')
    .split(',')
    .map((l) => l.trim())
    .filter(Boolean);
  const buses = labels.map(widthInLabel);
  if (buses.some(Boolean) && 'width' in defaultParams(kind)) {
    const width = buses[0]?.width;
    if (buses.some((bus) => bus?.width !== width))
      return refused(
        'widths-differ',
        'labels with brackets are all of one width: place the others by themselves',
      );
    params = { ...params, width: width! };
    labels = buses.map((bus) => bus!.label);
  }
  // Where a part has no label by itself, one begins with a capital, so that a word mistyped is none.
  const named = kind.labelled !== '' || (!kind.isNote && labels.every((l) => /^\p{Lu}/u.test(l)));
  if (labels.length > 0 && !named)
    return refused('not-understood', `${kind.name} does not understand “${labels.join(', ')}”`);
  const tooLong = labels.find((l) => l.length > 40);
  if (tooLong)
    return refused('label-too-long', `the label “${tooLong.slice(0, 20)}…” is longer than 40 letters`);
  const checked = readParams(kind, params);
  if (!checked.ok) return refusal(within(kind.name, checked.problem));
  return done({ kind, params: checked.value, labels: labels.length ? labels : [''] });
}
