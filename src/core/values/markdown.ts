/*
 * Task texts come from others. A Markdown parser goes down by recursion, and takes a time that grows as the square of the
 * marks in a paragraph: a text that nests deeper than any author would is shown as it was typed.
 */

/** Quotes and list marks that may stand before the words of a line. */
export const MOST_NESTED = 16;
/** Marks in one paragraph. */
export const MOST_MARKS = 1000;
/** Blanks before a line: lists in lists. */
const MOST_INDENT = 64;

const BEFORE = /^(?:[ \t]|>|[-+*](?=[ \t])|\d{1,9}[.)](?=[ \t]))+/;
const NESTING = />|[-+*]|\d+[.)]/g;
const MARK = /[*_~`[\]()<>!&\\|]/g;

/** Whether a text can be read as Markdown within the bounds above. */
export function isModestMarkdown(text: string): boolean {
  let marks = 0;
  for (const line of text.split(/\r?\n|\r/)) {
    const before = BEFORE.exec(line)?.[0] ?? '';
    if ((before.match(NESTING)?.length ?? 0) > MOST_NESTED) return false;
    if (before.replaceAll('\t', '    ').length > MOST_INDENT) return false;
    if (line.trim() === '') marks = 0;
    marks += line.match(MARK)?.length ?? 0;
    if (marks > MOST_MARKS) return false;
  }
  return true;
}
