import { sameName } from '../../values/names';
import { type Done, done } from '../../values/result';
import type { Expression } from './expression';
import { codeName } from './notation';
import {
  type Misread,
  misread,
  type Precedence,
  type ReadExpression,
  readExpression,
} from './read-expression';
import { readRowList } from './row-list';

/** A formula as it was typed, `Drive = Key Bars`, or without a name. */
export interface TypedFormula {
  /** The name as it was typed, or that of the known output; null if there is no name. */
  readonly name: string | null;
  readonly expression: Expression;
  readonly decided: readonly Precedence[];
  /** Where the expression stands in the text. */
  readonly from: number;
  readonly to: number;
}

export type ReadFormulas = Done<readonly TypedFormula[]> | Misread;

/** A sign `=` that is no part of a comparison or an arrow. */
const EQUALS = /(?<![=!<>~^])=(?![=>])/;
const OUTPUT = /^\p{L}[\p{L}\p{N}_]*(?:\[\d+\])?$/u;
const COMMENT = /\/\*[\s\S]*?\*\/|(?:\/\/|#).*/g;
/** Lines of code that hold no formula. */
const FRAME = /^\s*(?:module\b[^;]*|endmodule|[{}])\s*$/;
/** The start of a function whose formula is its return value. */
const BEGINS = /^\s*(?:def|bool|_Bool|int|function)\s+([A-Za-z_]\w*)\s*\([^()]*\)\s*[:{]?\s*$/;
const RETURN = /^\s*return\b/;
const DECLARED = /^\s*(?:assign|const|let|var|wire|bool)\s+/;
/** The parameters of a function, before its result. */
const ARROW = /^\s*\([^()]*\)\s*=>/;

/**
 * Reads formulas with line ends or `;` between them, in any notation, also as the code that `code` writes.
 * @param inputs names that may stand in them; others are read as they are.
 * @param outputs names that may stand before a `=` though they have signs of their own.
 */
export function readFormulas(
  text: string,
  inputs: readonly string[] = [],
  outputs: readonly string[] = [],
): ReadFormulas {
  const plain = text.replace(COMMENT, (comment) => comment.replaceAll(/[^\n]/g, ' '));
  const formulas: TypedFormula[] = [];
  let begun: string | null = null;
  for (const { line, at } of linesOf(plain)) {
    if (line.trim() === '' || FRAME.test(line)) continue;
    const begins = BEGINS.exec(line)?.[1];
    if (begins) {
      begun = begins;
      continue;
    }
    const said = RETURN.test(line)
      ? { name: begun, from: RETURN.exec(line)![0].length, order: [] }
      : named(line, outputs);
    if (!said)
      return misread(
        'no-name',
        'before the = stands the name of one output',
        at + line.length - line.trimStart().length,
      );
    const { from } = said;
    const read = readSide(line.slice(from), inputs, said.order);
    if (!read.ok) {
      const { code, message, place } = read.problem;
      return misread(code, message, at + from + place.offset);
    }
    formulas.push({
      name:
        said.name && (outputs.find((o) => sameName(o, said.name!) || codeName(o) === said.name) ?? said.name),
      expression: withKnownNames(read.value.expression, inputs, outputs),
      decided: read.value.decided,
      from: at + from,
      to: at + line.length,
    });
  }
  return done(formulas);
}

/** Reads the right side of a formula: an expression, or a list of rows. @param order of the inputs; empty for that of `inputs`. */
function readSide(
  text: string,
  inputs: readonly string[],
  order: readonly string[],
): Done<ReadExpression> | Misread {
  const known = order.map((name) => inputs.find((i) => sameName(i, name)) ?? name);
  const rows = readRowList(text, known.length > 0 ? known : inputs);
  if (!rows) return readExpression(text, [...inputs, ...order, ...inputs.map(codeName)]);
  return rows.ok ? done({ expression: rows.value, decided: [] }) : rows;
}

/** A name with its arguments, `F(A, B, C)`, apart; no arguments where there are none. */
export function withArguments(text: string): { readonly name: string; readonly order: readonly string[] } {
  const [, name, inside] = /^\s*([^()=,]+?)\s*\(([^()]*)\)\s*$/.exec(text) ?? [];
  if (name === undefined) return { name: text.trim(), order: [] };
  return {
    name,
    order: inside!
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean),
  };
}

function* linesOf(text: string): Generator<{ line: string; at: number }> {
  let at = 0;
  // A `;` behind a backslash is a blank of LaTeX.
  for (const line of text.split(/\n|(?<!\\);/)) {
    yield { line, at };
    at += line.length + 1;
  }
}

interface Said {
  readonly name: string | null;
  /** The offset of the formula. */
  readonly from: number;
  /** Its inputs in the order of `F(A, B, C)`; empty where the line gives none. */
  readonly order: readonly string[];
}

/** The left side of a formula; null if it is no name. */
function named(line: string, outputs: readonly string[]): Said | null {
  const equals = EQUALS.exec(line)?.index;
  if (equals === undefined) return { name: null, from: 0, order: [] };
  const whole = line.slice(0, equals).replace(DECLARED, '').trim();
  const isKnown = outputs.some((o) => sameName(o, whole));
  const { name, order } = isKnown ? { name: whole, order: [] } : withArguments(whole);
  if (!OUTPUT.test(name) && !outputs.some((o) => sameName(o, name))) return null;
  const from = equals + 1;
  return { name, order, from: from + (ARROW.exec(line.slice(from))?.[0].length ?? 0) };
}

/**
 * An expression with the inputs as they are known: whatever their case, and as they are called in code.
 * @param outputs names that are no inputs, though they may differ from one by their case only.
 */
export function withKnownNames(
  expression: Expression,
  inputs: readonly string[],
  outputs: readonly string[] = [],
): Expression {
  switch (expression.op) {
    case 'constant':
      return expression;
    case 'name': {
      const said = expression.name;
      if (inputs.includes(said) || outputs.includes(said)) return expression;
      const name = inputs.find((i) => codeName(i) === said) ?? inputs.find((i) => sameName(i, said));
      return name ? { ...expression, name } : expression;
    }
    case 'not':
      return { op: 'not', of: withKnownNames(expression.of, inputs, outputs) };
    default:
      return { op: expression.op, of: expression.of.map((e) => withKnownNames(e, inputs, outputs)) };
  }
}

const WORDS = {
  and: 'AND',
  or: 'OR',
  xor: 'XOR',
  nand: 'NAND',
  nor: 'NOR',
  xnor: 'XNOR',
  not: 'NOT',
} as const;

/** The decisions made by precedence, in words: `AND before OR, NOT before AND`. Empty if there were none. */
export function precedenceWords(decided: readonly Precedence[]): string {
  return decided.map(({ first, then }) => `${WORDS[first]} before ${WORDS[then]}`).join(', ');
}
