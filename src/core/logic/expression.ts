/** A Boolean expression as it was written; `at` is the place of a name in the text. */
export type Expression =
  | { readonly op: 'constant'; readonly value: 0 | 1 }
  | { readonly op: 'name'; readonly name: string; readonly at: number }
  | { readonly op: 'not'; readonly of: Expression }
  | { readonly op: Operator; readonly of: readonly Expression[] };

export type Operator = 'and' | 'or' | 'xor' | 'nand' | 'nor' | 'xnor';

/** What is wrong with a text, and at which character (from 0). */
export interface Misread {
  readonly ok: false;
  readonly problem: string;
  readonly at: number;
}

export type ReadExpression = { readonly ok: true; readonly value: Expression } | Misread;

type Token =
  | { readonly is: 'name'; readonly text: string; readonly at: number }
  | { readonly is: 'constant'; readonly value: 0 | 1; readonly at: number }
  | { readonly is: 'operator'; readonly op: Operator; readonly at: number; readonly text: string }
  | { readonly is: 'not' | 'prime' | 'open' | 'close' | 'end'; readonly at: number };

const WORDS: Readonly<Record<string, Operator | 'not'>> = {
  not: 'not',
  and: 'and',
  or: 'or',
  xor: 'xor',
  nand: 'nand',
  nor: 'nor',
  xnor: 'xnor',
};
const SIGNS: Readonly<Record<string, Operator>> = {
  '&': 'and',
  '*': 'and',
  '·': 'and',
  '∧': 'and',
  '|': 'or',
  '+': 'or',
  '∨': 'or',
  '^': 'xor',
  '⊕': 'xor',
};
/** A name, or a part and one of its pins: `Q0`, `H1.Sum`. */
const NAME = /^[\p{L}][\p{L}\p{N}_]*(?:\.[\p{L}][\p{L}\p{N}_]*)?/u;
/** A letter with what belongs to it: `A`, `A1`, `A_0`. */
const LETTER = /^\p{Lu}(?:_?\d+)?/u;

class Misreading extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

/** Parentheses and negations go no deeper than this. */
const MOST_DEEP = 200;

/**
 * Reads an expression in any of the usual notations, mixed as one likes: `A'B + C`, `~A & B | C`, `not A and B or C`,
 * `A nand B`. A NOT binds first, then AND, which may be left out, then XOR, then OR. Names that are known are read as
 * such; a run of capitals that is not known is a product: `AB` is `A and B`.
 */
export function readExpression(text: string, known: readonly string[] = []): ReadExpression {
  try {
    return { ok: true, value: new Reader(tokensOf(text, new Set(known))).whole() };
  } catch (misreading) {
    if (misreading instanceof Misreading)
      return { ok: false, problem: misreading.message, at: misreading.at };
    throw misreading;
  }
}

function tokensOf(text: string, known: ReadonlySet<string>): Token[] {
  const tokens: Token[] = [];
  // Names with signs of their own, as “Count[3]” or “Bars down”, are known as a whole.
  const longest = [...known].filter((n) => n && NAME.exec(n)?.[0] !== n).sort((a, b) => b.length - a.length);
  for (let at = 0; at < text.length; ) {
    const rest = text.slice(at);
    const sign = rest[0]!;
    const whole = longest.find((n) => rest.startsWith(n) && !/^[\p{L}\p{N}_]/u.test(rest.slice(n.length)));
    const name = whole ?? NAME.exec(rest)?.[0];
    if (/\s/.test(sign)) at++;
    else if (whole) {
      tokens.push({ is: 'name', text: whole, at });
      at += whole.length;
    } else if (name) {
      const word = WORDS[name.toLowerCase()];
      if (word === 'not') tokens.push({ is: 'not', at });
      else if (word && !known.has(name)) tokens.push({ is: 'operator', op: word, at, text: name });
      else tokens.push(...namesIn(name, at, known));
      at += name.length;
    } else {
      const double = rest.startsWith('&&') || rest.startsWith('||');
      const op = SIGNS[sign];
      if (op) tokens.push({ is: 'operator', op, at, text: sign });
      else if (sign === '0' || sign === '1') tokens.push({ is: 'constant', value: sign === '1' ? 1 : 0, at });
      else if (sign === "'" || sign === '’') tokens.push({ is: 'prime', at });
      else if ('~!¬/'.includes(sign)) tokens.push({ is: 'not', at });
      else if (sign === '(') tokens.push({ is: 'open', at });
      else if (sign === ')') tokens.push({ is: 'close', at });
      else throw new Misreading(`“${sign}” means nothing here`, at);
      at += double ? 2 : 1;
    }
  }
  tokens.push({ is: 'end', at: text.length });
  return tokens;
}

/** A name as it is, or a run of capitals that nobody is called by as its letters. */
function namesIn(name: string, at: number, known: ReadonlySet<string>): Token[] {
  const letters: Token[] = [];
  for (let i = 0; i < name.length; ) {
    const letter = LETTER.exec(name.slice(i))?.[0];
    if (!letter) return [{ is: 'name', text: name, at }];
    letters.push({ is: 'name', text: letter, at: at + i });
    i += letter.length;
  }
  return known.has(name) || letters.length === 1 ? [{ is: 'name', text: name, at }] : letters;
}

/** How tightly operators bind; those of one row may follow each other only if they are the same. */
const ROWS: readonly (readonly Operator[])[] = [
  ['or', 'nor'],
  ['xor', 'xnor'],
  ['and', 'nand'],
];
const CHAINED: ReadonlySet<Operator> = new Set(['and', 'or', 'xor']);

class Reader {
  private at = 0;
  private deep = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  private get token(): Token {
    return this.tokens[this.at]!;
  }

  whole(): Expression {
    const read = this.row(0);
    if (this.token.is === 'close') throw new Misreading('this parenthesis closes nothing', this.token.at);
    if (this.token.is !== 'end') throw new Misreading('an operator is missing before this', this.token.at);
    return read;
  }

  private row(level: number): Expression {
    const operators = ROWS[level];
    if (!operators) return this.negated();
    const first = this.row(level + 1);
    const parts = [first];
    let op: Operator | null = null;
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
      if (token.is === 'operator') this.at++;
      parts.push(this.row(level + 1));
    }
    return op ? { op, of: parts } : first;
  }

  private beginsFactor(): boolean {
    return ['name', 'constant', 'not', 'open'].includes(this.token.is);
  }

  private negated(): Expression {
    if (++this.deep > MOST_DEEP) throw new Misreading('this goes too deep', this.token.at);
    let read: Expression;
    if (this.token.is === 'not') {
      this.at++;
      read = { op: 'not', of: this.negated() };
    } else {
      read = this.factor();
      while (this.token.is === 'prime') {
        this.at++;
        read = { op: 'not', of: read };
      }
    }
    this.deep--;
    return read;
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
        const inside = this.row(0);
        if (this.token.is !== 'close') throw new Misreading('this parenthesis is never closed', token.at);
        this.at++;
        return inside;
      }
      case 'end':
        throw new Misreading('something is missing at the end', token.at);
      default:
        throw new Misreading('a name is missing before this', token.at);
    }
  }
}

/** The names in an expression, each once, in the order in which they are first met. */
export function namesOf(expression: Expression): string[] {
  const names = new Set<string>();
  const visit = (e: Expression) => {
    if (e.op === 'name') names.add(e.name);
    else if (e.op === 'not') visit(e.of);
    else if (e.op !== 'constant') e.of.forEach(visit);
  };
  visit(expression);
  return [...names];
}

/** The value of an expression for values of its names. */
export function evaluated(expression: Expression, values: ReadonlyMap<string, 0 | 1>): 0 | 1 {
  switch (expression.op) {
    case 'constant':
      return expression.value;
    case 'name':
      return values.get(expression.name) ?? 0;
    case 'not':
      return evaluated(expression.of, values) ? 0 : 1;
    default: {
      const bits = expression.of.map((e) => evaluated(e, values));
      const ones = bits.filter(Boolean).length;
      const { op } = expression;
      const plain =
        op === 'and' || op === 'nand'
          ? ones === bits.length
          : op === 'or' || op === 'nor'
            ? ones > 0
            : ones % 2 === 1;
      return plain !== (op === 'nand' || op === 'nor' || op === 'xnor') ? 1 : 0;
    }
  }
}
