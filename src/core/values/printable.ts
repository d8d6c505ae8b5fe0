/*
 * Text of others on a terminal: a name may hold characters that move the cursor, end the line, or turn the direction of
 * what follows. They are shown, not obeyed.
 */

/** Controls (C0, DEL, C1), line and paragraph separators, marks of direction, invisible blanks, tags. */
const ACTS = /[\p{Cc}\p{Cf}\u2028\u2029]/gu;

/** A text of one line in which characters that act on a terminal stand as escapes: `\n`, `\x1b`, `\u202e`. */
export const printable = (text: string): string => text.replaceAll(ACTS, escaped);

function escaped(character: string): string {
  if (character === '\n') return '\\n';
  if (character === '\t') return '\\t';
  const code = character.codePointAt(0)!;
  if (code < 0x100) return `\\x${code.toString(16).padStart(2, '0')}`;
  const digits = code.toString(16);
  return code < 0x1_0000 ? `\\u${digits.padStart(4, '0')}` : `\\u{${digits}}`;
}
