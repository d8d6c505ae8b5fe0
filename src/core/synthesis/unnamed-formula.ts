import { type Lesson, sheetOf } from '../circuit/lesson';
import { readStatement } from './statement';

/** What makes a text a formula, and not a name of several words. */
export const OPERATOR = /\b(?:and|or|not|xor|nand|nor|xnor)\b|[&|^~+*·⊕'!]|\s\.\s/i;

/** A formula without a name, as a statement with one that the sheet does not have yet; null for any other text. */
export function withName(lesson: Lesson, sheetId: string, text: string): string | null {
  if (text.includes('=') || !OPERATOR.test(text)) return null;
  const taken = [...sheetOf(lesson, sheetId)!.parts.values()].map(({ label }) => label);
  const name = ['Y', 'Z', 'Out'].find((free) => !taken.includes(free)) ?? `Y${taken.length}`;
  const named = `${name} = ${text.trim()}`;
  return readStatement(lesson, sheetId, named).ok ? named : null;
}
