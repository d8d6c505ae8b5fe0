import { KEYWORDS } from './keywords';
import { type Place, type Token, type TokenSource, VerilogError } from './tokens';

/** Levels of brackets, statements and operators in one another: what works on them goes down by recursion. */
export const MOST_DEPTH = 400;

/** Reads the tokens of a file in order, and reports what was expected where another one stands. */
export abstract class TokenReader {
  /** The one that is to be read next; at the end of the file the one that says so. */
  protected token: Token;
  private following: Token | null = null;
  protected depth = 0;

  constructor(private readonly source: TokenSource) {
    this.token = source.next();
  }

  /** The token behind the next one. */
  protected get ahead(): Token {
    this.following ??= this.token.kind === 'end' ? this.token : this.source.next();
    return this.following;
  }

  /** Goes on to the next token. */
  protected pass(): void {
    this.token = this.ahead;
    this.following = null;
  }

  protected fail(expected: string, at: Place = this.token, instead: Token = this.token): never {
    const found = instead.kind === 'end' ? 'the end of the file' : `“${instead.text.slice(0, 40)}”`;
    throw new VerilogError(`${expected} is expected, not ${found}`, { line: at.line, column: at.column });
  }

  /** @param instead what may stand there, as a sentence. */
  protected unsupported(what: string, at: Place = this.token, instead = ''): never {
    const more = instead === '' ? '' : `: ${instead}`;
    throw new VerilogError(`${what} is outside the part of Verilog that is read${more}`, {
      line: at.line,
      column: at.column,
    });
  }

  protected is(text: string): boolean {
    const t = this.token;
    return t.text === text && (t.kind === 'symbol' || (t.kind === 'name' && !t.escaped));
  }

  protected accept(text: string): boolean {
    if (!this.is(text)) return false;
    this.pass();
    return true;
  }

  protected expect(text: string): void {
    if (!this.accept(text)) this.fail(`“${text}”`);
  }

  protected name(what = 'a name'): string {
    const t = this.token;
    if (t.kind !== 'name' || (!t.escaped && KEYWORDS.has(t.text))) this.fail(what);
    this.pass();
    return t.text;
  }

  protected list<T>(one: () => T, end: string): T[] {
    const items: T[] = [];
    if (this.is(end)) return items;
    do items.push(one());
    while (this.accept(','));
    // A list that has grown keeps room for 17.
    return items.slice();
  }

  protected deeper<T>(work: () => T): T {
    if (++this.depth > MOST_DEPTH) this.unsupported('something nested so deeply');
    const result = work();
    this.depth--;
    return result;
  }

  /** Not weak: hundreds of thousands of weak entries cost a collector more than they hold. */
  private readonly depths = new Map<object, number>();

  /** Begins a new tree: the depths of earlier nodes are no longer needed. */
  protected beginTree(): void {
    if (this.depths.size > 0) this.depths.clear();
  }

  /** A node of the tree with those below it, refused where it makes the tree too deep: chains grow it without brackets. */
  protected above<T extends object>(node: T, ...below: readonly (object | null)[]): T {
    let depth = 1;
    for (const one of below) if (one) depth = Math.max(depth, 1 + (this.depths.get(one) ?? 0));
    if (depth > MOST_DEPTH) this.unsupported(`a chain of more than ${MOST_DEPTH} operators or cases`);
    this.depths.set(node, depth);
    return node;
  }

  protected skipAttributes(): void {
    while (this.accept('(*')) {
      while (!this.is('*)') && this.token.kind !== 'end') this.pass();
      this.expect('*)');
    }
  }
}
