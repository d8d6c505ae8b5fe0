import { type Done, done, type Problem, type Refused, refusal } from '../../values/result';
import type { Expression, Operator } from './expression';
import { Misreading, type Token, tokensOf } from './expression-tokens';

/** An error in a text, and the number of characters before it. */
export type Misread = Refused<Problem & { readonly place: { readonly offset: number } }>;

export const misread = (code: string, message: string, offset: number): Misread =>
  refusal({ code, message, place: { offset } });

/** One operator within another without parentheses, where the intended order may be doubtful. */
export interface Precedence {
  readonly first: Operator | 'not';
  readonly then: Operator;
}

export interface ReadExpression {
  readonly expression: Expression;
  /**
   * The decisions made by precedence alone, each once; products in a sum are so common that they are left
   * out.
   */
  readonly decided: readonly Precedence[];
}

/** Parentheses and negations go no deeper than this. */
export const MOST_DEEP = 200;
/** Most names and operators in the condition of a choice: it is copied into both products. */
const MOST_ASKED = 100;

/**
 * Reads an expression in any of the usual notations, mixed as one likes: `A'B + C`, `~A & B | C`, `not A and B or C`,
 * `\overline{A} B`, `A nand B`. NOT binds first, then AND (its sign may be left out), then XOR, OR and last a choice, `S ? A : B`, read
 * as `S A + S' B`. A run of capitals is a known name or else a product: `AB` is `A and B`.
 */
export function readExpression(text: string, known: readonly string[] = []): Done<ReadExpression> | Misread {
  try {
    const reader = new Reader(tokensOf(text, new Set(known)));
    return done({ expression: reader.whole(), decided: reader.decided });
  } catch (misreading) {
    if (misreading instanceof Misreading) return misread('bad-formula', misreading.message, misreading.at);
    throw misreading;
  }
}

/** How tightly operators bind; those of one row may follow each other only if they are the same. */
const ROWS: readonly (readonly Operator[])[] = [
  ['or', 'nor'],
  ['xor', 'xnor'],
  ['and', 'nand'],
];
const CHAINED: ReadonlySet<Operator> = new Set(['and', 'or', 'xor']);
/** Comparisons bind otherwise in programs than XOR does here. */
const COMPARISONS: ReadonlySet<string> = new Set(['==', '===', '!=', '!==']);
/** Signs of a product and of a sum that leave no doubt which comes first. */
const PLAIN_SIGNS: ReadonlySet<string> = new Set(['', '*', '·', '⋅', '+', '\\cdot', '\\times']);

/** The last operand, if no parentheses surround it: an operator with its sign, or the word `not`. */
interface Bare {
  readonly op: Operator | 'not';
  readonly sign: string;
}

class Reader {
  readonly decided: Precedence[] = [];
  private at = 0;
  private deep = 0;
  private bare: Bare | null = null;

  constructor(private readonly tokens: readonly Token[]) {}

  private get token(): Token {
    return this.tokens[this.at]!;
  }

  whole(): Expression {
    const read = this.choice();
    this.mustBeNoComma();
    if (this.token.is === 'else') throw new Misreading('“:” needs a “?” before it: S ? A : B', this.token.at);
    if (this.token.is === 'close') throw new Misreading('this parenthesis closes nothing', this.token.at);
    if (this.token.is !== 'end') throw new Misreading('an operator is missing before this', this.token.at);
    return read;
  }

  private mustBeNoComma(): void {
    if (this.token.is === 'comma') throw new Misreading('“,” means nothing here', this.token.at);
  }

  /** A sum, or a choice whose condition is a sum. */
  private choice(): Expression {
    const asked = this.row(0);
    const { token } = this;
    if (token.is !== 'chooses') return asked;
    if (sizeOf(asked) > MOST_ASKED)
      throw new Misreading('what comes before “?” is too long: name it in a statement of its own', token.at);
    if (++this.deep > MOST_DEEP) throw new Misreading('this goes too deep', token.at);
    this.at++;
    const then = this.choice();
    if (this.token.is !== 'else') throw new Misreading('“:” is missing after “?”: S ? A : B', this.token.at);
    this.at++;
    const other = this.choice();
    this.deep--;
    this.bare = null;
    return {
      op: 'or',
      of: [
        { op: 'and', of: [asked, then] },
        { op: 'and', of: [{ op: 'not', of: asked }, other] },
      ],
    };
  }

  private row(level: number): Expression {
    const operators = ROWS[level];
    if (!operators) return this.negated();
    const first = this.row(level + 1);
    const parts = [first];
    const within = [this.bare];
    let op: Operator | null = null;
    let sign = '';
    for (;;) {
      const { token } = this;
      const next =
        token.is === 'operator' && operators.includes(token.op)
          ? token.op
          : operators.includes('and') && this.beginsFactor()
            ? 'and'
            : null;
      if (!next) break;
      if (op && (op !== next || !CHAINED.has(next)))
        throw new Misreading(
          `parentheses are needed: it is not clear what ${op} and ${next} here take together`,
          token.at,
        );
      op = next;
      if (token.is === 'operator') {
        sign = token.text;
        this.at++;
      }
      parts.push(this.row(level + 1));
      within.push(this.bare);
      if (COMPARISONS.has(sign)) this.mustStandAlone(sign, within, token.at);
    }
    if (!op) return first;
    // A `not` that stands last has nothing more that it could take.
    for (const [i, inner] of within.entries())
      if (inner && (inner.op !== 'not' || i + 1 < within.length)) this.decide(inner.op, inner.sign, op, sign);
    this.bare = { op, sign };
    return { op, of: parts };
  }

  /**
   * A comparison takes its two sides as they stand; where programming languages would differ, parentheses are
   * required.
   */
  private mustStandAlone(sign: string, within: readonly (Bare | null)[], at: number): void {
    if (within.some((b) => b && b.op !== 'not'))
      throw new Misreading(`parentheses are needed around what ${sign} compares`, at);
  }

  private decide(first: Bare['op'], inner: string, then: Operator, outer: string): void {
    if (first === 'and' && then === 'or' && PLAIN_SIGNS.has(inner) && PLAIN_SIGNS.has(outer)) return;
    if (!this.decided.some((d) => d.first === first && d.then === then)) this.decided.push({ first, then });
  }

  private beginsFactor(): boolean {
    return ['name', 'constant', 'not', 'open'].includes(this.token.is);
  }

  private negated(): Expression {
    if (++this.deep > MOST_DEEP) throw new Misreading('this goes too deep', this.token.at);
    let read: Expression;
    const { token } = this;
    if (token.is === 'not') {
      this.at++;
      read = { op: 'not', of: this.negated() };
      // `not (A and B)` leaves no doubt, `not A and B` does.
      const isDoubtful = token.isWord && this.tokens[this.at - 1]!.is !== 'close';
      this.bare = isDoubtful ? { op: 'not', sign: 'not' } : null;
    } else {
      read = this.factor();
      this.bare = null;
      for (let primes = 1; this.token.is === 'prime'; primes++) {
        if (primes > MOST_DEEP) throw new Misreading('this goes too deep', this.token.at);
        this.at++;
        read = { op: 'not', of: read };
      }
    }
    this.deep--;
    return read;
  }

  /** `nand(A, B, C)`: a gate with its inputs in brackets. */
  private gate(op: Operator, word: string): Expression {
    const opened = this.token;
    const of: Expression[] = [];
    do {
      this.at++;
      of.push(this.choice());
    } while (this.token.is === 'comma');
    if (this.token.is !== 'close') throw new Misreading('this parenthesis is never closed', opened.at);
    if (of.length < 2) throw new Misreading(`${word} has two inputs or more: ${word}(A, B)`, opened.at);
    this.at++;
    return { op, of };
  }

  private factor(): Expression {
    const { token } = this;
    this.at++;
    switch (token.is) {
      case 'name':
        return { op: 'name', name: token.text, at: token.at };
      case 'constant':
        return { op: 'constant', value: token.value };
      case 'open': {
        const inside = this.choice();
        this.mustBeNoComma();
        const end = this.token;
        if (end.is !== 'close' || end.brace !== token.brace)
          throw new Misreading('this parenthesis is never closed', token.at);
        this.at++;
        return inside;
      }
      case 'operator':
        if (this.token.is === 'open' && /^[a-z]/i.test(token.text)) return this.gate(token.op, token.text);
        throw new Misreading('a name is missing before this', token.at);
      case 'end':
        throw new Misreading('something is missing at the end', token.at);
      default:
        throw new Misreading('a name is missing before this', token.at);
    }
  }
}

/** Names, constants and operators of an expression. */
function sizeOf(e: Expression): number {
  if (e.op === 'name' || e.op === 'constant') return 1;
  return e.op === 'not' ? 1 + sizeOf(e.of) : e.of.reduce((sum, part) => sum + sizeOf(part), 1);
}
