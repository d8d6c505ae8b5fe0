import { type Expression, evaluate, type Operator } from './expression';

/** How an expression is written: as in class, or as code that runs. */
export const NOTATIONS = ['prime', 'bar', 'sign', 'words', 'verilog', 'c', 'python', 'javascript'] as const;
export type Notation = (typeof NOTATIONS)[number];

/** How tightly a written operator binds; a looser one inside it is put in parentheses. */
const OR = 1;
const XOR = 2;
const AND = 3;
const NOT = 4;
const WHOLE = 5;

interface Style {
  readonly and: string;
  readonly or: string;
  readonly xor: string;
  readonly zero: string;
  readonly one: string;
  not(text: string, tight: boolean): string;
  /** Whether XOR always stands in parentheses, because it binds otherwise there. */
  readonly guarded?: boolean;
}

const before = (sign: string) => (text: string, tight: boolean) =>
  tight ? `${sign}${text}` : `${sign}(${text})`;

const STYLES: Record<Exclude<Notation, 'bar'>, Style> = {
  prime: {
    and: ' ',
    or: ' + ',
    xor: ' ⊕ ',
    zero: '0',
    one: '1',
    not: (text, tight) => (tight ? `${text}'` : `(${text})'`),
  },
  sign: { and: ' ∧ ', or: ' ∨ ', xor: ' ⊕ ', zero: '0', one: '1', not: before('¬') },
  words: { and: ' and ', or: ' or ', xor: ' xor ', zero: '0', one: '1', not: before('not ') },
  verilog: { and: ' & ', or: ' | ', xor: ' ^ ', zero: "1'b0", one: "1'b1", not: before('~') },
  c: { and: ' && ', or: ' || ', xor: ' != ', zero: '0', one: '1', not: before('!'), guarded: true },
  python: {
    and: ' and ',
    or: ' or ',
    xor: ' != ',
    zero: 'False',
    one: 'True',
    not: before('not '),
    guarded: true,
  },
  javascript: {
    and: ' && ',
    or: ' || ',
    xor: ' !== ',
    zero: 'false',
    one: 'true',
    not: before('!'),
    guarded: true,
  },
};

const PLAIN: Record<Operator, 'and' | 'or' | 'xor'> = {
  and: 'and',
  nand: 'and',
  or: 'or',
  nor: 'or',
  xor: 'xor',
  xnor: 'xor',
};
const BINDS = { and: AND, or: OR, xor: XOR };

/** The notations that are programs. */
export const isCode = (notation: Notation): notation is 'verilog' | 'c' | 'python' | 'javascript' =>
  notation === 'verilog' || notation === 'c' || notation === 'python' || notation === 'javascript';

const isInverting = (op: Operator) => op === 'nand' || op === 'nor' || op === 'xnor';

const nameIn = (name: string, notation: Notation) => (isCode(notation) ? codeName(name) : name);

/** A name in code: words that a language takes for itself, and signs that it does not take, are written in another way. */
export function codeName(name: string): string {
  const plain = name.replaceAll(/[^A-Za-z0-9_]+/g, '_').replace(/_+$/, '');
  const named = /^[A-Za-z]/.test(plain) ? plain : `n${plain}`;
  return TAKEN.has(named.toLowerCase()) ? `${named}_` : named;
}
const TAKEN = new Set(
  (
    'and as assert assign begin bool break buf case char class const continue def default del do double elif else end ' +
    'enum export extern false finally float for from function global goto if import in inout input int is lambda let ' +
    'long module nand new none nor not null or output pass reg return short signed sizeof static struct switch this ' +
    'throw true try typeof union unsigned var void volatile while wire with xnor xor yield'
  ).split(' '),
);

/**
 * An expression as text. `bar` gives LaTeX with overlines; for the screen `pieces` gives the stretches under
 * bars. The text can be read again, given the names.
 */
export function written(expression: Expression, notation: Notation): string {
  if (notation === 'bar') return latex(pieces(expression));
  const style = STYLES[notation];
  const write = (e: Expression): { text: string; binds: number } => {
    switch (e.op) {
      case 'constant':
        return { text: e.value ? style.one : style.zero, binds: WHOLE };
      case 'name':
        return { text: nameIn(e.name, notation), binds: WHOLE };
      case 'not': {
        const inner = write(e.of);
        return { text: style.not(inner.text, inner.binds >= NOT), binds: NOT };
      }
      default: {
        const inner = plain(e.op, e.of);
        if (!isInverting(e.op)) return inner;
        return { text: style.not(inner.text, inner.binds >= NOT), binds: NOT };
      }
    }
  };
  const plain = (op: Operator, of: readonly Expression[]): { text: string; binds: number } => {
    if (of.length === 1) return write(of[0]!);
    const sign = PLAIN[op];
    const parts = of.map((e) => {
      const part = write(e);
      const loose = part.binds < BINDS[sign] || (style.guarded && sign === 'xor' && part.binds < WHOLE);
      return loose ? `(${part.text})` : part.text;
    });
    const text = parts.join(joint(parts, style, sign, notation));
    return style.guarded && sign === 'xor'
      ? { text: `(${chained(parts, style.xor)})`, binds: WHOLE }
      : { text, binds: BINDS[sign] };
  };
  return write(expression).text;
}

/** Comparisons chain otherwise in some languages: each pair stands in parentheses. */
function chained(parts: readonly string[], sign: string): string {
  return parts.reduce((all, part, i) => (i === 1 ? `${all}${sign}${part}` : `(${all})${sign}${part}`));
}

/** Single letters of a product stand side by side; longer names need room between them. */
function joint(
  parts: readonly string[],
  style: Style,
  sign: 'and' | 'or' | 'xor',
  notation: Notation,
): string {
  if (notation !== 'prime' || sign !== 'and') return style[sign];
  return parts.every(isShort) ? '' : ' ';
}

/** Whether a factor reads well without room around it: a capital, with its number and primes, or parentheses. */
const isShort = (text: string) => /^(?:\p{Lu}(?:_?\d+)?|\(.*\))'*$/u.test(text);

/** A stretch of an expression for the screen: text, or the pieces under a bar. */
export type Piece = string | { readonly name: string } | { readonly bar: readonly Piece[] };

/**
 * An expression in overbar notation, for whoever sets it.
 * @param isGrouped whether parentheses stand also where precedence would do without them.
 */
export function pieces(expression: Expression, isGrouped = false): Piece[] {
  const write = (e: Expression): { of: Piece[]; binds: number } => {
    switch (e.op) {
      case 'constant':
        return { of: [String(e.value)], binds: WHOLE };
      case 'name':
        return { of: [{ name: e.name }], binds: WHOLE };
      case 'not':
        return { of: [{ bar: write(e.of).of }], binds: WHOLE };
      default: {
        const sign = PLAIN[e.op];
        const joints = { and: e.of.every(isLetter) ? '' : ' ', or: ' + ', xor: ' ⊕ ' };
        const of = e.of.flatMap((part, i) => {
          const inner = write(part);
          const isLoose = isGrouped ? inner.binds < WHOLE : inner.binds < BINDS[sign];
          const within = isLoose ? ['(', ...inner.of, ')'] : inner.of;
          return i === 0 || joints[sign] === '' ? within : [joints[sign], ...within];
        });
        return isInverting(e.op)
          ? { of: [{ bar: of }], binds: WHOLE }
          : { of, binds: e.of.length > 1 ? BINDS[sign] : WHOLE };
      }
    }
  };
  return write(expression).of;
}

/** Whether a factor is a letter, be it under a bar, or stands in parentheses or under a bar of its own. */
function isLetter(e: Expression): boolean {
  if (e.op === 'name') return /^\p{Lu}(?:_?\d+)?$/u.test(e.name);
  if (e.op === 'not') return isLetter(e.of);
  return e.op === 'or';
}

function latex(all: readonly Piece[]): string {
  return all
    .map((piece) => {
      if (typeof piece === 'string') return piece.replace('⊕', '\\oplus').replace(/^ $/, '\\,');
      if ('bar' in piece) return `\\overline{${latex(piece.bar)}}`;
      return /^\p{L}$/u.test(piece.name) ? piece.name : `\\mathit{${piece.name.replaceAll('_', '\\_')}}`;
    })
    .join('');
}

/** One function to be written as code. */
export interface Coded {
  readonly name: string;
  readonly expression: Expression;
}

/** Rows of the test table that code carries along. */
const MOST_ROWS = 32;

/** Functions as code that runs, with a table to test them against in a comment. */
export function code(
  functions: readonly Coded[],
  inputs: readonly string[],
  notation: 'verilog' | 'c' | 'python' | 'javascript',
): string {
  const names = inputs.map((name) => nameIn(name, notation));
  const comment = notation === 'python' ? '# ' : '// ';
  const table = testTable(functions, inputs).map((line) => comment + line);
  const body = functions.map(({ name, expression }) => {
    const [called, text] = [nameIn(name, notation), written(expression, notation)];
    if (notation === 'verilog') return `  assign ${called} = ${text};`;
    if (notation === 'python') return `def ${called}(${names.join(', ')}):\n    return ${text}`;
    if (notation === 'javascript') return `const ${called} = (${names.join(', ')}) => ${text};`;
    return `bool ${called}(${names.map((n) => `bool ${n}`).join(', ') || 'void'}) {\n  return ${text};\n}`;
  });
  if (notation !== 'verilog')
    return [...(notation === 'c' ? ['#include <stdbool.h>', ''] : []), ...body, '', ...table, ''].join('\n');
  const outputs = functions.map(({ name }) => nameIn(name, notation));
  const ports = [...names.map((n) => `input ${n}`), ...outputs.map((n) => `output ${n}`)];
  return [`module formula(${ports.join(', ')});`, ...body, 'endmodule', '', ...table, ''].join('\n');
}

function testTable(functions: readonly Coded[], inputs: readonly string[]): string[] {
  const rows = 2 ** inputs.length;
  const lines = [[...inputs, '|', ...functions.map((f) => f.name)].join(' ')];
  for (let row = 0; row < Math.min(rows, MOST_ROWS); row++) {
    const values = new Map(inputs.map((n, i) => [n, ((row >> (inputs.length - 1 - i)) & 1) as 0 | 1]));
    const cells = [...values.values(), '|', ...functions.map((f) => evaluate(f.expression, values))];
    lines.push(
      cells
        .map((c, i) => String(c).padEnd(lines[0]!.split(' ')[i]!.length))
        .join(' ')
        .trimEnd(),
    );
  }
  if (rows > MOST_ROWS) lines.push(`and ${rows - MOST_ROWS} rows more`);
  return lines;
}
