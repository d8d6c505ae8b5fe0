import type { Params } from '../circuit/lesson';
import { done, type Result, refusal, refused, within } from '../values/result';
import { defaultParams, readParams } from './params';
import type { PartKind } from './part-kind';

/** A typed line that places parts: a kind, its parameters, and a label for each part. */
export interface TypedPart {
  readonly kind: PartKind;
  readonly params: Params;
  /** One part for each; a single empty label where none was typed. */
  readonly labels: readonly string[];
}

/** Those kinds whose typed name begins with the text's first word, best first; all of them for an empty text. */
export function suggestions(text: string, kinds: readonly PartKind[]): PartKind[] {
  const typed = text.trim().toLowerCase();
  const first = typed.split(/[\s,]+/)[0] ?? '';
  const exact = kinds.filter((k) => k.typed.includes(typed) || k.typed.includes(first));
  const begins = kinds.filter((k) => !exact.includes(k) && k.typed.some((t) => t.startsWith(first)));
  return [...exact, ...begins];
}

/** Splits a typed line into the kind's name and the rest; the longest name wins (`d flip-flop fall`). */
function kindAndRest(text: string, kinds: readonly PartKind[]): { kind: PartKind; rest: string } | null {
  const lower = text.toLowerCase();
  let best: { kind: PartKind; rest: string; length: number } | null = null;
  for (const kind of kinds) {
    for (const name of kind.typed)
      if ((lower === name || lower.startsWith(`${name} `)) && name.length > (best?.length ?? 0))
        best = { kind, rest: text.slice(name.length).trim(), length: name.length };
  }
  return best;
}

function checkedText(kind: PartKind, text: string): Params {
  const params = readParams(kind, { [kind.typedText!]: text });
  return params.ok ? params.value : defaultParams(kind);
}

/** `2 input and` and `3-input NAND` as `and 2` and `nand 3`: how many inputs comes after the gate. */
function countLast(text: string, kinds: readonly PartKind[]): string {
  const found = /^(\d+)[\s-]*inputs?\s+(\S.*)$/i.exec(text);
  const gate = found && kindAndRest(found[2]!, kinds);
  return gate?.kind.isGate ? `${gate.kind.typed[0]} ${found![1]} ${gate.rest}`.trim() : text;
}

/**
 * Reads `nand 3`, `clock 4 Hz`, `sw Key, Bars, Clear`: the name of a kind, words that set its parameters, and
 * the rest as labels with commas between. A refusal names the word that it did not understand.
 */
export function readTyped(text: string, kinds: readonly PartKind[]): Result<TypedPart> {
  const typed = countLast(text.trim(), kinds);
  const found = kindAndRest(typed, kinds);
  if (!found) {
    const [only, other] = suggestions(typed, kinds);
    if (typed && only && !other) return done({ kind: only, params: defaultParams(only), labels: [''] });
    return typed
      ? refused('no-such-part', `no part is called “${typed}”`)
      : refused('empty', 'type the name of a part');
  }
  const { kind } = found;
  if (kind.typedText && found.rest)
    return done({ kind, params: checkedText(kind, found.rest), labels: [''] });
  const words = found.rest
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
  const labels = left
    .join(' ')
    .split(',')
    .map((l) => l.trim())
    .filter(Boolean);
  const named = kind.labelled !== '' || (kind.named === true && labels.every((l) => /^\p{Lu}/u.test(l)));
  if (labels.length > 0 && !named)
    return refused('not-understood', `${kind.name} does not understand “${labels.join(', ')}”`);
  const tooLong = labels.find((l) => l.length > 40);
  if (tooLong)
    return refused('label-too-long', `the label “${tooLong.slice(0, 20)}…” is longer than 40 letters`);
  const checked = readParams(kind, params);
  if (!checked.ok) return refusal(within(kind.name, checked.problem));
  return done({ kind, params: checked.value, labels: labels.length ? labels : [''] });
}
