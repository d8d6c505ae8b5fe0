import {
  MOST_TOKENS,
  type Place,
  Token,
  Tokenizer,
  type TokenSource,
  tokensOf,
  VerilogError,
} from './tokens';

/** Files that may be included, by the name that stands in the quotes. */
export type Includes = ReadonlyMap<string, string>;

interface Macro {
  /** Names of its arguments with what stands for one that is left out; null for a macro without brackets. */
  readonly arguments: readonly { readonly name: string; readonly usual: readonly Token[] | null }[] | null;
  readonly body: readonly Token[];
}

/** Macros and files in one another. */
const MOST_DEEP = 40;

/** Directives that change nothing for one who builds the circuit. */
const PASSED = /^(resetall|celldefine|endcelldefine|default_nettype\s+(wire|none)|line\b.*|pragma\b.*)$/;

/**
 * The tokens of a file with macros and conditions carried out and files put in (IEEE Std 1364-2005, clause 19). Tokens of a macro stand
 * where it is used; `timescale` stays, for the parser.
 */
export function preprocessed(source: string, includes: Includes = new Map()): TokenSource {
  return new Preprocessor(source, includes);
}

/** For each open condition: whether it is taken now, and whether any of its branches was. */
interface Condition {
  readonly at: Token;
  isTaken: boolean;
  wasTaken: boolean;
}

/** A file that is being read, or put into another. */
interface Open {
  readonly tokens: TokenSource;
  readonly conditions: Condition[];
}

class Preprocessor implements TokenSource {
  private readonly macros = new Map<string, Macro>();
  /** Files in one another, the innermost last. */
  private readonly files: Open[];
  /** The tokens of the last macro, and how many of them were given out. */
  private made: Token[] = [];
  private given = 0;
  private count = 0;

  constructor(
    source: string,
    private readonly includes: Includes,
  ) {
    this.files = [{ tokens: new Tokenizer(source), conditions: [] }];
  }

  next(): Token {
    for (;;) {
      if (this.given < this.made.length) return this.counted(this.made[this.given++]!);
      const { tokens, conditions } = this.files.at(-1)!;
      const token = tokens.next();
      if (token.kind === 'end') {
        if (conditions.length > 0) fail('`endif is expected, and the file ends', conditions[0]!.at);
        if (this.files.length === 1) return token;
        this.files.pop();
        continue;
      }
      const isTaken = conditions.length === 0 || conditions.every((one) => one.isTaken);
      if (token.kind === 'directive') {
        const [, name, rest] = /^(\w+)\s*(.*)$/s.exec(token.text)!;
        if (this.condition(name!, rest!.trim(), token, conditions) || !isTaken) continue;
        if (name === 'timescale') return this.counted(token);
        this.directive(name!, rest!, token);
      } else if (!isTaken) continue;
      else if (token.kind === 'macro') {
        this.made = [];
        this.given = 0;
        this.expand(token, tokens, this.files.length - 1, new Set());
      } else return this.counted(token);
    }
  }

  private counted(token: Token): Token {
    if (++this.count > MOST_TOKENS) fail(TOO_MANY, token);
    return token;
  }

  /** Carries out a directive that opens or closes a branch. @returns whether it is one. */
  private condition(name: string, rest: string, at: Token, open: Condition[]): boolean {
    switch (name) {
      case 'ifdef':
      case 'ifndef': {
        const holds = this.macros.has(rest) === (name === 'ifdef');
        open.push({ at, isTaken: holds, wasTaken: holds });
        return true;
      }
      case 'elsif':
      case 'else': {
        const last = open.at(-1) ?? fail(`\`${name} without an \`ifdef before it`, at);
        last.isTaken = !last.wasTaken && (name === 'else' || this.macros.has(rest));
        last.wasTaken ||= last.isTaken;
        return true;
      }
      case 'endif':
        if (!open.pop()) fail('`endif without an `ifdef before it', at);
        return true;
      default:
        return false;
    }
  }

  private directive(name: string, rest: string, at: Token): void {
    switch (name) {
      case 'define':
        this.define(rest, at);
        return;
      case 'undef':
        this.macros.delete(rest.trim());
        return;
      case 'include': {
        const file =
          /^"([^"]+)"$/.exec(rest.trim())?.[1] ?? fail('the name of a file in quotes is expected', at);
        const text = this.includes.get(file) ?? this.includes.get(file.replace(/^.*\//, ''));
        if (text === undefined) fail(`there is no file ${file} beside this one: open both together`, at);
        if (this.files.length > MOST_DEEP)
          fail(`files are included in one another deeper than ${MOST_DEEP} levels`, at);
        this.files.push({ tokens: new ListSource(placed(text!, at), at), conditions: [] });
        return;
      }
      default:
        if (!PASSED.test(at.text))
          fail(`the directive \`${name} is outside the part of Verilog that is read`, at);
    }
  }

  private define(rest: string, at: Token): void {
    const [whole, name] = /^([A-Za-z_]\w*)/.exec(rest) ?? fail('the name of a macro is expected', at);
    let body = rest.slice(whole.length);
    let names: Macro['arguments'] = null;
    if (body.startsWith('(')) {
      const end = body.indexOf(')');
      if (end === -1) fail('“)” is expected behind the arguments of a macro', at);
      names = body
        .slice(1, end)
        .split(',')
        .map((text) => {
          const [argument, usual] = text.split('=');
          return { name: argument!.trim(), usual: usual === undefined ? null : placed(usual, at) };
        });
      body = body.slice(end + 1);
    }
    this.macros.set(name!, { arguments: names, body: placed(body, at) });
  }

  /** Expands a macro. @param behind the source of its arguments. @param open the macros being expanded. */
  private expand(at: Token, behind: TokenSource, deep: number, open: ReadonlySet<string>): void {
    const macro = this.macros.get(at.text) ?? fail(`there is no macro \`${at.text}: \`define it before`, at);
    if (open.has(at.text) || deep >= MOST_DEEP) fail(`the macro \`${at.text} holds itself`, at);
    const given = macro.arguments ? argumentsOf(at, macro.arguments, behind) : null;
    const replaced: Token[] = [];
    for (const token of macro.body) {
      const argument = token.kind === 'name' ? given?.get(token.text) : undefined;
      if (argument) replaced.push(...argument);
      else replaced.push(new Token(token.kind, token.text, at.line, at.column, token.escaped));
    }
    const inside = new Set(open).add(at.text);
    const source = new ListSource(replaced, at);
    for (let token = source.next(); token.kind !== 'end'; token = source.next()) {
      if (token.kind === 'macro') this.expand(token, source, deep + 1, inside);
      else if (this.made.push(token) > MOST_TOKENS) fail(TOO_MANY, token);
    }
  }
}

const TOO_MANY = `the file has more than ${MOST_TOKENS} words and signs`;

/** The tokens of each argument of a macro that is used. */
function argumentsOf(
  at: Token,
  names: NonNullable<Macro['arguments']>,
  behind: TokenSource,
): Map<string, readonly Token[]> {
  const list: Token[][] = [[]];
  for (let depth = 0; ; ) {
    const token = behind.next();
    const { text, kind } = token;
    const isSign = kind === 'symbol';
    if (depth === 0 && !(isSign && text === '('))
      fail(`“(” is expected behind the macro \`${at.text}`, token);
    if (kind === 'end') fail(`“)” is expected behind the macro \`${at.text}`, at);
    if (isSign && (text === '(' || text === '[' || text === '{') && depth++ === 0) continue;
    if (isSign && (text === ')' || text === ']' || text === '}') && --depth === 0) break;
    if (isSign && text === ',' && depth === 1) list.push([]);
    else list.at(-1)!.push(token);
  }
  return new Map(
    names.map(({ name, usual }, i) => {
      const value = list[i]?.length ? list[i]! : usual;
      return [name, value ?? fail(`the macro \`${at.text} has ${names.length} arguments`, at)];
    }),
  );
}

/** Tokens that are there already. */
class ListSource implements TokenSource {
  private at = 0;

  /** @param end where they stand. */
  constructor(
    private readonly tokens: readonly Token[],
    private readonly end: Place,
  ) {}

  next(): Token {
    return this.tokens[this.at++] ?? new Token('end', 'the end of the text', this.end.line, this.end.column);
  }
}

/** The tokens of a text that stands in a directive, or of a file, at the place of the directive. */
const placed = (text: string, { line, column }: Place): Token[] =>
  tokensAt(text, { line, column })
    .slice(0, -1)
    .map((token) => new Token(token.kind, token.text, line, column, token.escaped));

/** The tokens of a text; what is wrong with one of them is told at another place. */
function tokensAt(text: string, at: Place): Token[] {
  try {
    return tokensOf(text);
  } catch (error) {
    if (error instanceof VerilogError)
      fail(`in the file or text that is put in here, line ${error.place.line}: ${error.message}`, at);
    throw error;
  }
}

function fail(message: string, { line, column }: Place): never {
  throw new VerilogError(message, { line, column });
}
