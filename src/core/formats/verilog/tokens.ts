/** A place in a file, both from 1. */
export interface Place {
  readonly line: number;
  readonly column: number;
}

/** An error in a file, with its place; `message` names the expected token. */
export class VerilogError extends Error {
  constructor(
    message: string,
    readonly place: Place,
  ) {
    super(message);
  }
}

export interface Token extends Place {
  readonly kind: 'name' | 'number' | 'symbol' | 'text' | 'directive' | 'end';
  /** Escaped names without their backslash; directives with the rest of their line. */
  readonly text: string;
  /** Whether a name was escaped, so that it is no keyword. */
  readonly escaped?: boolean;
}

const SYMBOLS = [
  '>>>',
  '<<<',
  '===',
  '!==',
  '&&',
  '||',
  '==',
  '!=',
  '<=',
  '>=',
  '<<',
  '>>',
  '~&',
  '~|',
  '~^',
  '^~',
  '**',
  '(*',
  '*)',
  '(',
  ')',
  '[',
  ']',
  '{',
  '}',
  ',',
  ';',
  ':',
  '.',
  '#',
  '@',
  '=',
  '?',
  '~',
  '!',
  '&',
  '|',
  '^',
  '+',
  '-',
  '*',
  '/',
  '%',
  '<',
  '>',
];

const NUMBER = /(?:\d[\d_]*\s*)?'[sS]?[bodhBODH]\s*[0-9a-fA-FxXzZ?_]+|\d[\d_]*(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
const NAME = /[A-Za-z_][A-Za-z0-9_$]*/y;
const ESCAPED = /\\(\S+)/y;
const SPACE = /\s/;
const NEWLINE = 10;
const DIRECTIVE = /`[A-Za-z_]\w*[^\n]*/y;
const TEXT = /"(?:[^"\\\n]|\\.)*"/y;

/** Some 80 bytes each. */
export const MOST_TOKENS = 1_000_000;

/** Where the blanks and comments that begin at a place end; a comment that never ends is left standing. */
function afterBlanks(source: string, from: number): number {
  for (let at = from; ; ) {
    const c = source[at];
    if (c === undefined) return source.length;
    if (SPACE.test(c)) at++;
    else if (c === '/' && source[at + 1] === '/') {
      const end = source.indexOf('\n', at);
      at = end === -1 ? source.length : end;
    } else if (c === '/' && source[at + 1] === '*') {
      const end = source.indexOf('*/', at + 2);
      if (end === -1) return at;
      at = end + 2;
    } else return at;
  }
}

/** Splits Verilog into its lexical tokens (IEEE Std 1364-2005, clause 3); the last is of kind `end`. */
export function tokensOf(source: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  let line = 1;
  let lineStart = 0;
  const passTo = (end: number) => {
    for (; at < end; at++) {
      if (source.charCodeAt(at) !== NEWLINE) continue;
      line++;
      lineStart = at + 1;
    }
  };
  const match = (pattern: RegExp) => {
    pattern.lastIndex = at;
    return pattern.exec(source);
  };
  for (;;) {
    passTo(afterBlanks(source, at));
    const place = { line, column: at - lineStart + 1 };
    if (at >= source.length) {
      tokens.push({ kind: 'end', text: 'the end of the file', ...place });
      return tokens;
    }
    if (tokens.length >= MOST_TOKENS)
      throw new VerilogError(`the file has more than ${MOST_TOKENS} words and signs`, place);
    const c = source[at]!;
    let found: RegExpExecArray | null;
    if (c === '/' && source.startsWith('/*', at))
      throw new VerilogError('a comment begins here and never ends', place);
    if (/[A-Za-z_]/.test(c)) {
      found = match(NAME)!;
      tokens.push({ kind: 'name', text: found[0], ...place });
    } else if (c === '\\') {
      found = match(ESCAPED);
      if (!found) throw new VerilogError('a name is expected after the backslash', place);
      tokens.push({ kind: 'name', text: found[1]!, escaped: true, ...place });
    } else if (/[\d']/.test(c)) {
      found = match(NUMBER);
      if (!found) throw new VerilogError("a number such as 4'b1010 is expected", place);
      tokens.push({ kind: 'number', text: found[0].replaceAll(/\s/g, ''), ...place });
    } else if (c === '`') {
      found = match(DIRECTIVE);
      if (!found) throw new VerilogError('a directive is expected after `', place);
      tokens.push({
        kind: 'directive',
        text: found[0]
          .slice(1)
          .replace(/\/\/.*$/, '')
          .trim(),
        ...place,
      });
    } else if (c === '"') {
      found = match(TEXT);
      if (!found) throw new VerilogError('a text begins here and does not end on this line', place);
      tokens.push({ kind: 'text', text: found[0], ...place });
    } else {
      const symbol = SYMBOLS.find((s) => source.startsWith(s, at));
      if (!symbol) throw new VerilogError(`the character “${c}” is not part of Verilog here`, place);
      // `@(*)` is not the begin of an attribute.
      const star = symbol === '(*' && source[at + 2] === ')';
      found = [star ? '(' : symbol] as unknown as RegExpExecArray;
      tokens.push({ kind: 'symbol', text: star ? '(' : symbol, ...place });
    }
    passTo(at + found[0].length);
  }
}
