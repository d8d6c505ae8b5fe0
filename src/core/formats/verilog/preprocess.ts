import { MOST_TOKENS, type Place, Token, tokensOf, VerilogError } from './tokens';

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
 * where it is used; `timescale` stays, for whoever reads delays.
 * @throws VerilogError with the place.
 */
export function preprocessed(source: string, includes: Includes = new Map()): Token[] {
  const tokens = tokensOf(source);
  if (!tokens.some(({ kind }) => kind === 'macro' || kind === 'directive')) return tokens;
  return new Preprocessor(includes).file(tokens);
}

class Preprocessor {
  private readonly macros = new Map<string, Macro>();
  private readonly made: Token[] = [];

  constructor(private readonly includes: Includes) {}

  file(tokens: readonly Token[]): Token[] {
    this.run(tokens, 0);
    this.made.push(tokens.at(-1)!);
    return this.made;
  }

  /** Takes over tokens up to the end. */
  private run(tokens: readonly Token[], deep: number): void {
    /** For each open condition: whether it is taken now, and whether any of its branches was. */
    const open: { at: Token; isTaken: boolean; wasTaken: boolean }[] = [];
    for (let i = 0; i < tokens.length; i++) {
      const token = tokens[i]!;
      const isTaken = open.every((one) => one.isTaken);
      if (token.kind === 'directive') {
        const [, name, rest] = /^(\w+)\s*(.*)$/s.exec(token.text)!;
        if (name === 'ifdef' || name === 'ifndef') {
          const holds = this.macros.has(rest!.trim()) === (name === 'ifdef');
          open.push({ at: token, isTaken: holds, wasTaken: holds });
        } else if (name === 'elsif' || name === 'else') {
          const last = open.at(-1) ?? fail(`\`${name} without an \`ifdef before it`, token);
          last.isTaken = !last.wasTaken && (name === 'else' || this.macros.has(rest!.trim()));
          last.wasTaken ||= last.isTaken;
        } else if (name === 'endif') {
          if (!open.pop()) fail('`endif without an `ifdef before it', token);
        } else if (isTaken) this.directive(name!, rest!, token, deep);
      } else if (!isTaken || token.kind === 'end') continue;
      else if (token.kind === 'macro') i = this.expand(tokens, i, deep, this.made, new Set());
      else this.push(token);
    }
    if (open.length > 0) fail('`endif is expected, and the file ends', open[0]!.at);
  }

  private push(token: Token): void {
    if (this.made.length >= MOST_TOKENS) fail(`the file has more than ${MOST_TOKENS} words and signs`, token);
    this.made.push(token);
  }

  private directive(name: string, rest: string, at: Token, deep: number): void {
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
        if (deep >= MOST_DEEP) fail(`files are included in one another deeper than ${MOST_DEEP} levels`, at);
        this.run(placed(text!, at), deep + 1);
        return;
      }
      case 'timescale':
        this.push(at);
        return;
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

  /** Puts the text of a macro in its place. @returns the index of its last token. */
  private expand(
    tokens: readonly Token[],
    from: number,
    deep: number,
    into: Token[],
    open: ReadonlySet<string>,
  ): number {
    const at = tokens[from]!;
    const macro = this.macros.get(at.text) ?? fail(`there is no macro \`${at.text}: \`define it before`, at);
    if (open.has(at.text) || deep >= MOST_DEEP) fail(`the macro \`${at.text} holds itself`, at);
    let end = from;
    const given = new Map<string, readonly Token[]>();
    if (macro.arguments) {
      if (tokens[from + 1]?.text !== '(')
        fail(`“(” is expected behind the macro \`${at.text}`, tokens[from + 1] ?? at);
      const list: Token[][] = [[]];
      let depth = 0;
      for (end = from + 1; ; end++) {
        const token = tokens[end];
        if (!token || token.kind === 'end') fail(`“)” is expected behind the macro \`${at.text}`, at);
        const { text, kind } = token!;
        const isSign = kind === 'symbol';
        if (isSign && (text === '(' || text === '[' || text === '{') && depth++ === 0) continue;
        if (isSign && (text === ')' || text === ']' || text === '}') && --depth === 0) break;
        if (isSign && text === ',' && depth === 1) list.push([]);
        else list.at(-1)!.push(token!);
      }
      for (const [i, { name, usual }] of macro.arguments.entries()) {
        const value = list[i]?.length ? list[i]! : usual;
        given.set(name, value ?? fail(`the macro \`${at.text} has ${macro.arguments.length} arguments`, at));
      }
    }
    const replaced: Token[] = [];
    for (const token of macro.body) {
      const argument = token.kind === 'name' ? given.get(token.text) : undefined;
      if (argument) replaced.push(...argument);
      else replaced.push(new Token(token.kind, token.text, at.line, at.column, token.escaped));
    }
    const inside = new Set(open).add(at.text);
    for (let i = 0; i < replaced.length; i++) {
      if (replaced[i]!.kind === 'macro') i = this.expand(replaced, i, deep + 1, into, inside);
      else if (into === this.made) this.push(replaced[i]!);
      else into.push(replaced[i]!);
    }
    return end;
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
