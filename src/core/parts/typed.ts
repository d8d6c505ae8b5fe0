import type { Params } from '../circuit/sheet';
import { done, type Problem, problem, type Result, refusal, refused, within } from '../values/result';
import { noSuchPackage } from './packages';
import { defaultParams, readParams } from './params';
import type { PartKind } from './part-kind';
import { distance, insteadOf, spelt, TRADE_NAMES } from './trade-words';
import { kindCalled, meaning, namesOf, phraseIn, readWords } from './typed-phrases';

/** A typed line that places parts: a kind, its parameters, and a label for each part. */
export interface TypedPart {
  readonly kind: PartKind;
  readonly params: Params;
  /** One part for each; a single empty label where none was typed. */
  readonly labels: readonly string[];
}

/** Names that differ from what was typed by no more letters than this are near. */
const NEAR = 2;

/** All names by which kinds are typed, as they are compared. */
function namesIn(kinds: readonly PartKind[]): ReadonlyMap<PartKind, readonly string[]> {
  const known = namesKnown.get(kinds);
  if (known) return known;
  const names = new Map(kinds.map((kind) => [kind, [...namesOf(kind)]]));
  for (const name of TRADE_NAMES) {
    const meant = meaning(name, kinds);
    if (meant) names.get(meant.kind)!.push(name);
  }
  namesKnown.set(kinds, names);
  return names;
}
const namesKnown = new WeakMap<readonly PartKind[], ReadonlyMap<PartKind, readonly string[]>>();

/**
 * The kinds whose typed name begins with the text or its first word, best first. If there are none, kinds of a similar name;
 * for an empty text, all kinds.
 */
export function suggestions(text: string, kinds: readonly PartKind[]): PartKind[] {
  const typed = spelt(text.trim());
  const found = kindNamed(text, kinds);
  const first = spelt(typed.split(/[\s,]+/)[0] ?? '');
  const exact = kinds.filter((k) => k === found || k.typed.includes(first));
  exact.sort((a, b) => Number(b === found) - Number(a === found));
  const names = namesIn(kinds);
  const begins = (given: string) => {
    const isOwn = (k: PartKind) => namesOf(k).some((name) => name.startsWith(given));
    const found = kinds.filter(
      (k) =>
        !exact.includes(k) &&
        (names.get(k)!.some((name) => name.startsWith(given)) || (given !== '' && k.typedAs?.(given))),
    );
    return [...found.filter(isOwn), ...found.filter((k) => !isOwn(k))];
  };
  const whole = begins(typed);
  const some = [...exact, ...whole, ...begins(first).filter((k) => !whole.includes(k))];
  return some.length > 0 ? some : nearest(typed, kinds);
}

/** Kinds with a name of a few letters more, fewer, or others; a name of two letters is too short to be near. */
function nearest(typed: string, kinds: readonly PartKind[]): PartKind[] {
  const names = namesIn(kinds);
  const far = (kind: PartKind) =>
    Math.min(...names.get(kind)!.map((name) => (name.length > NEAR ? distance(name, typed) : NEAR + 1)));
  return kinds
    .map((kind) => ({ kind, by: far(kind) }))
    .filter(({ by }) => by <= Math.min(NEAR, typed.length / 2))
    .sort((x, y) => x.by - y.by)
    .map(({ kind }) => kind);
}

/** The kind of which a name stands among some words, the last one first: `ring counter`. */
function kindAmong(typed: string, kinds: readonly PartKind[]): PartKind | undefined {
  for (const word of typed.split(/\s+/).reverse()) {
    const kind = word.length > NEAR ? kindCalled(word, kinds) : undefined;
    if (kind) return kind;
  }
  return undefined;
}

function checkedText(kind: PartKind, text: string): Params {
  const params = readParams(kind, { [kind.typedText!]: text });
  return params.ok ? params.value : defaultParams(kind);
}

/** The width that a label names as a bus, `A[7:0]`, and the label without it. */
function widthInLabel(label: string): { label: string; width: number } | null {
  const [, name, high, low] = /^(.*\S)\s*\[(\d{1,2}):(\d{1,2})\]$/.exec(label) ?? [];
  return name === undefined ? null : { label: name, width: Math.abs(Number(high) - Number(low)) + 1 };
}

/** The kind of which a typed line has the whole name. */
export const kindNamed = (text: string, kinds: readonly PartKind[]): PartKind | null =>
  phraseIn(text.trim(), kinds)?.kind ?? null;

/** The first parameter that is a number outside the limits of its setting, with those limits. */
function outside(kind: PartKind, params: Partial<Params>): Problem | null {
  for (const setting of kind.settings ?? []) {
    const value = params[setting.param];
    if (setting.control !== 'number' || typeof value !== 'number') continue;
    const { label, least, most, unit } = setting;
    if (unit === undefined && (value < least || value > most))
      return problem(
        'not-understood',
        `${kind.name} does not understand “${value}”: ${label.toLowerCase()} from ${least} to ${most}`,
      );
  }
  return null;
}

/** Parts that are placed by one line. */
const MOST_AT_ONCE = 32;

/** `B` of `switch A, switch B`; `Light left` of `light Light left`. */
const withoutName = (label: string, name: string): string =>
  label.startsWith(`${name} `) ? label.slice(name.length).trim() : label;

/** The labels of a list, `A, B and C`; of several parts `A and B` and `A B` are two, of one they are one. */
function labelsIn(text: string, areSeveral: boolean): string[] {
  const said = text.replace(/^(?:called|named|labelled|labeled)\s+/i, '');
  const isListed = said.includes(',') || (areSeveral && /\sand\s/.test(said));
  const between = isListed ? /,|\sand\s/ : areSeveral ? /\s+/ : ',';
  return said
    .split(between)
    .map((label) => label.trim().replace(/^and\s+/, ''))
    .filter(Boolean);
}

function notFound(typed: string, kinds: readonly PartKind[]): Result<TypedPart> {
  const instead = insteadOf(typed);
  const [only, other] = suggestions(typed, kinds);
  const isBegun =
    !instead &&
    only &&
    namesIn(kinds)
      .get(only)!
      .some((name) => name.startsWith(spelt(typed)));
  if (typed && isBegun && !other) return done({ kind: only, params: defaultParams(only), labels: [''] });
  if (!typed) return refused('empty', 'type the name of a part');
  const noPackage = noSuchPackage(typed);
  if (noPackage) return refused('no-such-package', noPackage);
  const meant = only ?? kindAmong(typed, kinds);
  const near = instead ? `: ${instead}` : meant ? `; do you mean ${meant.name}?` : '';
  return refused('no-such-part', `no part is called “${typed}”${near}`);
}

/**
 * Reads `nand 3`, `clock 4 Hz`, `sw Key, Bars, Clear`: the name of a kind, words that set its parameters, and
 * the rest as labels with commas between. A refusal names the word that it did not understand.
 */
export function readTyped(text: string, kinds: readonly PartKind[]): Result<TypedPart> {
  const typed = text.trim();
  // A sheet of the lesson may be called `half adder`, and is a block then.
  const isNone = insteadOf(typed) !== null && !kindCalled(typed, kinds);
  const found = isNone ? null : phraseIn(typed, kinds);
  if (!found) return notFound(typed, kinds);
  const { kind, name, count } = found;
  if (kind.typedText && found.rest)
    return done({ kind, params: checkedText(kind, found.rest), labels: [''] });
  const words = [...found.set, ...found.rest.split(/\s+/).filter(Boolean)];
  const read = readWords(kind, words);
  if (read.problem) {
    const { word, why } = read.problem;
    return refused('not-understood', `${kind.name} does not understand “${word}”: ${why}`);
  }
  let { params } = read;
  let labels = labelsIn(words.slice(read.used).join(' '), found.isPlural).map((label, i) =>
    i === 0 ? label : withoutName(label, name),
  );
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
  const strange = labels.filter((label) => !named || /^[-+]\d/.test(label));
  if (strange.length > 0)
    return refused('not-understood', `${kind.name} does not understand “${strange.join(', ')}”`);
  const tooLong = labels.find((l) => l.length > 40);
  if (tooLong)
    return refused('label-too-long', `the label “${tooLong.slice(0, 20)}…” is longer than 40 letters`);
  const checked = readParams(kind, params);
  if (!checked.ok) return refusal(outside(kind, params) ?? within(kind.name, checked.problem));
  if (count > MOST_AT_ONCE)
    return refused('too-many', `${MOST_AT_ONCE} parts are placed at once, not ${count}`);
  if (count > 1 && labels.length > 0 && labels.length !== count)
    return refused('counts-differ', `${count} parts are asked for, and ${labels.length} named`);
  const all = labels.length > 0 ? labels : Array.from({ length: Math.max(1, count) }, () => '');
  return done({ kind, params: checked.value, labels: all });
}
