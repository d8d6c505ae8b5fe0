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

/** Some hundred thousand of them are made at once: all of one shape. */
export class Token implements Place {
  /**
   * @param text escaped names without their backslash; directives with the rest of their line.
   * @param escaped whether a name was escaped, so that it is no keyword; or whether a symbol follows the token before it
   * without a blank.
   */
  constructor(
    readonly kind: 'name' | 'system' | 'number' | 'symbol' | 'text' | 'directive' | 'macro' | 'end',
    readonly text: string,
    readonly line: number,
    readonly column: number,
    readonly escaped = false,
  ) {}
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
  '->',
  '+:',
  '-:',
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

/** The symbols by their first character, the longer ones first. */
const SYMBOLS_FROM: readonly (readonly string[] | undefined)[] = (() => {
  const from: string[][] = [];
  for (const symbol of SYMBOLS) {
    const first = symbol.charCodeAt(0);
    from[first] = [...(from[first] ?? []), symbol];
  }
  return from;
})();

const NUMBER = /(?:\d[\d_]*\s*)?'[sS]?[bodhBODH]\s*[0-9a-fA-FxXzZ?_]+|\d[\d_]*(?:\.\d+)?(?:[eE][+-]?\d+)?/y;
const ESCAPED = /\\(\S+)/y;
const SPACE = /\s/;
const NEWLINE = 10;
const MACRO = /`[A-Za-z_]\w*/y;
/** A directive goes on behind a backslash at the end of its line. */
const DIRECTIVE = /`[A-Za-z_]\w*(?:[^\n\\]|\\\r?\n|\\)*/y;
const SYSTEM = /\$[A-Za-z_][\w$]*/y;
/** Directives that take the rest of their line (IEEE Std 1364-2005, clause 19); every other name behind ` is a macro. */
const OF_A_LINE: ReadonlySet<string> = new Set(
  (
    'define undef ifdef ifndef elsif else endif include timescale default_nettype resetall celldefine endcelldefine line ' +
    'pragma unconnected_drive nounconnected_drive begin_keywords end_keywords'
  ).split(' '),
);
const TEXT = /"(?:[^"\\\n]|\\.)*"/y;

/** Whether an ASCII character may begin a name, go on with one, or begin a number. */
const STARTS = 1;
const GOES_ON = 2;
const DIGIT = 4;
const CLASS: Uint8Array = Uint8Array.from({ length: 128 }, (_, code) => {
  const c = String.fromCharCode(code);
  return (
    (/[A-Za-z_]/.test(c) ? STARTS : 0) |
    (/[A-Za-z0-9_$]/.test(c) ? GOES_ON : 0) |
    (/[\d']/.test(c) ? DIGIT : 0)
  );
});
const classOf = (code: number) => (code < 128 ? CLASS[code]! : 0);

/** Some hundred thousand gates, a statement each. */
export const MOST_TOKENS = 2_000_000;

/** The characters that a text stands for (IEEE Std 1364-2005, 3.6.3). */
const unescaped = (text: string): string =>
  text.replaceAll(/\\(n|t|\\|"|[0-7]{1,3}|.)/g, (_, c: string) =>
    c === 'n'
      ? '\n'
      : c === 't'
        ? '\t'
        : /^[0-7]+$/.test(c)
          ? String.fromCharCode(Number.parseInt(c, 8) & 255)
          : c,
  );

/** Gives tokens one after the other; at the end one of kind `end`, however often it is asked. */
export interface TokenSource {
  /** @throws VerilogError */
  next(): Token;
}

/** Lexical tokens of Verilog (IEEE Std 1364-2005, clause 3); the last is of kind `end`. @throws VerilogError */
export function tokensOf(source: string): Token[] {
  const tokenizer = new Tokenizer(source);
  const tokens: Token[] = [];
  do tokens.push(tokenizer.next());
  while (tokens.at(-1)!.kind !== 'end');
  return tokens;
}

/** The text of a directive without its comments, in one line. */
const withoutComments = (text: string): string =>
  text
    .replaceAll(/\\\r?\n/g, ' ')
    .replaceAll(/\/\*.*?\*\//g, ' ')
    .replace(/\/\/.*$/, '')
    .trim();

/** Splits Verilog into lexical tokens on demand, so that those of a large file never exist all at once. */
export class Tokenizer implements TokenSource {
  private count = 0;
  private at = 0;
  private line = 1;
  private lineStart = 0;

  constructor(private readonly source: string) {}

  next(): Token {
    const { source } = this;
    this.passBlanks();
    const column = this.at - this.lineStart + 1;
    if (this.at >= source.length) return new Token('end', 'the end of the file', this.line, column);
    if (++this.count > MOST_TOKENS) this.fail(`the file has more than ${MOST_TOKENS} words and signs`);
    const code = source.charCodeAt(this.at);
    const is = classOf(code);
    if (is & STARTS) {
      const from = this.at;
      while (classOf(source.charCodeAt(this.at)) & GOES_ON) this.at++;
      return new Token('name', source.slice(from, this.at), this.line, column);
    }
    if (is & DIGIT) {
      const number = this.match(NUMBER, "a number such as 4'b1010 is expected")[0];
      const token = new Token('number', number.replaceAll(/\s/g, ''), this.line, column);
      this.passTo(this.at + number.length);
      return token;
    }
    return this.other(source[this.at]!, code, column);
  }

  /** A symbol, an escaped name, a directive or a text. */
  private other(c: string, code: number, column: number): Token {
    const { source, line } = this;
    if (c === '\\') {
      const [whole, name] = this.match(ESCAPED, 'a name is expected after the backslash');
      this.at += whole.length;
      return new Token('name', name!, line, column, true);
    }
    if (c === '`') {
      const [name] = this.match(MACRO, 'a directive or a macro is expected after `');
      if (!OF_A_LINE.has(name.slice(1))) {
        this.at += name.length;
        return new Token('macro', name.slice(1), line, column);
      }
      const [whole] = this.match(DIRECTIVE, 'a directive is expected after `');
      this.passTo(this.at + whole.length);
      return new Token('directive', withoutComments(whole.slice(1)), line, column);
    }
    if (c === '$') {
      const [whole] = this.match(SYSTEM, 'a name is expected after $');
      this.at += whole.length;
      return new Token('system', whole, line, column);
    }
    if (c === '"') {
      const [whole] = this.match(TEXT, 'a text begins here and does not end on this line');
      this.passTo(this.at + whole.length);
      return new Token('text', unescaped(whole.slice(1, -1)), line, column);
    }
    if (c === '/' && source[this.at + 1] === '*') this.fail('a comment begins here and never ends');
    const symbol = this.symbolAt(code) ?? this.fail(`the character “${c}” is not part of Verilog here`);
    this.at += symbol.length;
    return new Token('symbol', symbol, line, column);
  }

  /** The longest symbol that begins here. */
  private symbolAt(code: number): string | undefined {
    for (const symbol of SYMBOLS_FROM[code] ?? []) {
      if (symbol.length === 1) return symbol;
      if (!this.source.startsWith(symbol, this.at)) continue;
      // `@(*)` is not the begin of an attribute.
      if (symbol === '(*' && /^\s*\)/.test(this.source.slice(this.at + 2, this.at + 20))) continue;
      return symbol;
    }
    return undefined;
  }

  private fail(message: string): never {
    throw new VerilogError(message, { line: this.line, column: this.at - this.lineStart + 1 });
  }

  private match(pattern: RegExp, expected: string): RegExpExecArray {
    pattern.lastIndex = this.at;
    return pattern.exec(this.source) ?? this.fail(expected);
  }

  /** Goes on to a place, and counts the lines up to there. */
  private passTo(end: number): void {
    const { source } = this;
    for (; this.at < end; this.at++) {
      if (source.charCodeAt(this.at) !== NEWLINE) continue;
      this.line++;
      this.lineStart = this.at + 1;
    }
  }

  /** Goes on behind blanks and comments; a comment that never ends is left standing. */
  private passBlanks(): void {
    const { source } = this;
    for (;;) {
      const code = source.charCodeAt(this.at);
      if (code === NEWLINE) this.passTo(this.at + 1);
      else if (code === 32 || code === 9 || code === 13) this.at++;
      else if (code === 47) {
        const next = source[this.at + 1];
        const isLine = next === '/';
        if (!isLine && next !== '*') return;
        const end = source.indexOf(isLine ? '\n' : '*/', this.at + 2);
        if (end === -1 && !isLine) return;
        this.passTo(end === -1 ? source.length : isLine ? end : end + 2);
      } else if (code > 126 || code < 32) {
        // Other blanks are rare. Behind the end there is none.
        if (!SPACE.test(source[this.at] ?? '')) return;
        this.at++;
      } else return;
    }
  }
}
