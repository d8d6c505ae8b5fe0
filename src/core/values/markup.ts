/** A stretch of a text that is written in one way. */
export interface TextRun {
  readonly text: string;
  /** A subscript. */
  readonly low: boolean;
  /** With a bar over it. */
  readonly barred: boolean;
}

const NAME = /^[\p{L}\p{N}]+/u;
const MOST_DEEP = 8;
/** Characters that a mark can be about: names and terms are short. */
const MOST_LONG = 200;

/**
 * A text with its marks read: `A_0` and `A_{in}` have a subscript, `~Q` and `~{Q_0}` a bar. A mark without anything
 * that it could be about is written as it is.
 */
export function runsOf(text: string): TextRun[] {
  if (!/[_~]/.test(text)) return text ? [{ text, low: false, barred: false }] : [];
  return read(text, false, false, 0);
}

/** The text without its marks. */
export function plainText(text: string): string {
  return runsOf(text)
    .map((run) => run.text)
    .join('');
}

/** The text as it is said: a bar is a `not`. */
export function spokenText(text: string): string {
  return runsOf(text)
    .map((run, i, all) => (run.barred && !all[i - 1]?.barred ? `not ${run.text}` : run.text))
    .join('');
}

function read(text: string, low: boolean, barred: boolean, deep: number): TextRun[] {
  const runs: TextRun[] = [];
  const add = (more: readonly TextRun[]) => {
    for (const run of more) {
      const last = runs.at(-1);
      if (last && last.low === run.low && last.barred === run.barred)
        runs[runs.length - 1] = { ...last, text: last.text + run.text };
      else runs.push(run);
    }
  };
  for (let at = 0; at < text.length; ) {
    const mark = text[at]!;
    const about = mark === '_' || mark === '~' ? meant(text.slice(at + 1, at + 1 + MOST_LONG)) : null;
    const nothingBefore = mark === '_' && at === 0;
    if (!about || nothingBefore || deep > MOST_DEEP) {
      add([{ text: mark, low, barred }]);
      at++;
      continue;
    }
    add(read(about.text, low || mark === '_', barred || mark === '~', deep + 1));
    at += 1 + about.length;
  }
  return runs;
}

/** The scope of a mark: a group in braces, or the name that follows. */
function meant(rest: string): { text: string; length: number } | null {
  if (rest.startsWith('{')) {
    let open = 0;
    for (let i = 0; i < rest.length; i++) {
      if (rest[i] === '{') open++;
      else if (rest[i] === '}' && --open === 0)
        return i > 1 ? { text: rest.slice(1, i), length: i + 1 } : null;
    }
    return null;
  }
  const name = NAME.exec(rest)?.[0];
  return name ? { text: name, length: name.length } : null;
}
