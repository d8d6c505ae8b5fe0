import { type Done, done } from '../../values/result';
import type { Expression } from './expression';
import { type Misread, misread } from './read-expression';

/**
 * `Σm(1, 2)` and `ΠM(0, 3)` in the ways in which they are typed, the signs also as words or left out; and rows that do not matter
 * behind them.
 */
const LIST =
  /^\s*(?:(?:Σ|∑|[Ss]um|SUM)\s*_?\{?\s*m?\s*\}?|m|((?:Π|∏|[Pp]rod(?:uct)?|PROD)\s*_?\{?\s*M?\s*\}?|M))\s*\(([\d\s,]*)\)\s*(?:[+,·*]?\s*[dD]\s*(\([\d\s,]*\))\s*)?$/u;

/** Inputs of which rows are listed at most: 256 rows. */
const MOST_INPUTS = 8;

/**
 * Reads the rows at which a function is 1, or 0, as a sum of minterms, or a product of maxterms.
 * @param inputs in the order in which they count rows, the first one highest.
 * @returns null for a text that is no list of rows.
 */
export function readRowList(text: string, inputs: readonly string[]): Done<Expression> | Misread | null {
  const [whole, product, listed = '', free] = LIST.exec(text) ?? [];
  if (whole === undefined) return null;
  const from = text.length - text.trimStart().length;
  if (inputs.length === 0)
    return misread('no-order', 'say in which order the inputs are counted: F(A, B, C) = Σm(1, 2)', from);
  if (inputs.length > MOST_INPUTS)
    return misread(
      'too-many-inputs',
      `rows are listed of ${MOST_INPUTS} inputs at most, not of ${inputs.length}`,
      from,
    );
  if (free !== undefined)
    return misread(
      'rows-that-do-not-matter',
      'a formula has no rows that do not matter: fill in a table, with - for them',
      text.lastIndexOf(free) - 1,
    );
  const rows = listed
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  const most = 2 ** inputs.length - 1;
  const beyond = rows.find((row) => row > most);
  if (beyond !== undefined)
    return misread(
      'no-such-row',
      `there is no row ${beyond}: those of ${inputs.length} inputs go from 0 to ${most}`,
      text.indexOf(String(beyond), text.indexOf('(')),
    );
  const isProduct = product !== undefined;
  const terms = [...new Set(rows)].sort((a, b) => a - b).map((row) => term(row, inputs, isProduct));
  if (terms.length === 0) return done({ op: 'constant', value: isProduct ? 1 : 0 });
  return done(terms.length === 1 ? terms[0]! : { op: isProduct ? 'and' : 'or', of: terms });
}

/** The minterm of a row, or its maxterm. */
function term(row: number, inputs: readonly string[], isMaxterm: boolean): Expression {
  const literals = inputs.map((name, i): Expression => {
    const isOne = Math.floor(row / 2 ** (inputs.length - 1 - i)) % 2 === 1;
    const plain: Expression = { op: 'name', name, at: 0 };
    return isOne === isMaxterm ? { op: 'not', of: plain } : plain;
  });
  return literals.length === 1 ? literals[0]! : { op: isMaxterm ? 'or' : 'and', of: literals };
}
