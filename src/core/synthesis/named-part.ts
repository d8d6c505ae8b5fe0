import { type Lesson, sheetOf } from '../circuit/lesson';
import type { PartKind } from '../parts/part-kind';
import { kindNamed, readTyped, type TypedPart } from '../parts/typed';
import { done, type Result, refused } from '../values/result';
import { readStatement } from './statement';
import { OPERATOR } from './unnamed-formula';

/** A name, and what is to have it: `Ride = mod-6 counter`. */
const SAID = /^([^=,()]+)=([^=]+)$/;

/** Whether a text that could also be the name of a signal is rather a part: `counter` and `D flip-flop`, but not `Counter`. */
const isPhrase = (what: string, kind: PartKind): boolean =>
  !kind.isGate && !kind.role && !OPERATOR.test(what) && (/\s/.test(what) || /^[a-z]{4}/.test(what));

/**
 * Reads a part with its name in front, `Total = 8-bit register`.
 * @returns the part, or why there can be none such; null where the text is a formula, or where the sheet has that name already.
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
  const isStatement = readStatement(lesson, sheetId, text).ok;
  if (isStatement && !isPhrase(what, kind)) return null;
  const read = readTyped(what, kinds);
  // What is no part after all may still be a name of several words: `Y = counter done`.
  if (!read.ok) return isStatement ? null : read;
  const isOne = read.value.labels.length === 1 && read.value.labels[0] === '';
  if (name.length > 40) return refused('name-too-long', 'the name before the = is longer than 40 letters');
  return isOne ? done({ ...read.value, labels: [name] }) : null;
}
