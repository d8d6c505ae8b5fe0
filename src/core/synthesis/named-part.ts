import { type Lesson, sheetOf } from '../circuit/lesson';
import type { PartKind } from '../parts/part-kind';
import { kindNamed, readTyped, type TypedPart } from '../parts/typed';
import { done, type Result, refused } from '../values/result';
import { readStatement } from './statement';
import { OPERATOR } from './unnamed-formula';

/** A name, and what is to have it: `Ride = mod-6 counter`. */
const SAID = /^([^=,()]+)=([^=]+)$/;

/** Whether a text can be nothing but what a part is called, though it could be a name too: `counter`, `D flip-flop`, not `Counter`. */
const isPhrase = (what: string, kind: PartKind): boolean =>
  !kind.isGate && !kind.role && !OPERATOR.test(what) && (/\s/.test(what) || /^[a-z]{4}/.test(what));

/**
 * A part that is given a name as a statement gives one to a formula, `Total = 8-bit register`, or the refusal of that part: where the
 * text is no formula, and nothing on the sheet is called so.
 * @returns null for any other text.
 */
export function namedPart(
  lesson: Lesson,
  sheetId: string,
  text: string,
  kinds: readonly PartKind[],
): Result<TypedPart> | null {
  const [, name = '', what = ''] = SAID.exec(text)?.map((piece) => piece.trim()) ?? [];
  const kind = name ? kindNamed(what, kinds) : null;
  if (!kind || kind.isNote) return null;
  const labels = [...sheetOf(lesson, sheetId)!.parts.values()].map(({ label }) => label);
  if (labels.includes(name) || labels.includes(what)) return null;
  if (!isPhrase(what, kind) && readStatement(lesson, sheetId, text).ok) return null;
  const read = readTyped(what, kinds);
  if (!read.ok) return read;
  const isOne = read.value.labels.length === 1 && read.value.labels[0] === '';
  if (name.length > 40) return refused('name-too-long', 'the name before the = is longer than 40 letters');
  return isOne ? done({ ...read.value, labels: [name] }) : null;
}
