import type { SpecTable } from '../../circuit/spec-table';
import { sameName } from '../../values/names';
import { done, type Refused, type Result, refused } from '../../values/result';
import { type Expression, evaluate, namesOf } from '../expression/expression';
import type { Misread } from '../expression/read-expression';
import { readFormulas, type TypedFormula, withKnownNames } from '../expression/typed-formulas';
import { inputAt } from '../table/truth-table';
import { specWithNames, withLetters } from './spec-edits';

/*
 * Columns of a table that is filled in, said by formulas or by lists of rows.
 */

/** Refuses a typed text, at `offset` characters plus the offset of the error. */
const notTaken = (code: string, message: string, offset: number | null = null): Refused =>
  refused(code, message, offset === null ? undefined : { offset });

/** A misreading, with the words at which it was found. */
function misreadAt(text: string, { problem: { code, message, place } }: Misread): Refused {
  return refused(code, `${excerptAt(text, place.offset)}: ${message}`, place);
}

/** Where in a text something is wrong, in words. */
export function excerptAt(text: string, offset: number): string {
  const there = text
    .slice(offset, offset + 12)
    .split('\n')[0]!
    .trim();
  return there ? `at “${there}”` : 'at the end';
}

/**
 * A typed column: a formula of the inputs, or a list of the rows of its ones, `1, 3, 5-7`, with don't-cares
 * behind a `d`: `1, 3 d 4-6`.
 */
export function columnFromText(plan: SpecTable, output: number, text: string): Result<SpecTable> {
  const said = text
    .trim()
    .replace(/^(?:Σ\s*)?m?\s*\(/, '')
    .replace(/\)$/, '');
  if (/^[\d\s,;–-]*(?:[dx+][\d\s,;–()-]*)?$/.test(said) && /\d/.test(said) && !/^[01]$/.test(said))
    return rowsSaid(plan, output, said);
  const { name } = plan.outputs[output]!;
  const read = readFormulas(text, plan.inputs, [name]);
  if (!read.ok) return misreadAt(text, read);
  const [only, ...more] = read.value;
  if (!only) return notTaken('empty', 'type a formula, or the rows in which it is 1');
  if (more.length > 0)
    return notTaken('several-formulas', `one formula is enough for ${name}`, more[0]!.from);
  if (only.name !== null && !sameName(only.name, name))
    return notTaken('other-output', `this is the column of ${name}, not of ${only.name}`, 0);
  const stray = firstStray(only, plan.inputs);
  if (stray)
    return notTaken(
      'unknown-input',
      `“${stray.name}” is no input of this table: ${plan.inputs.join(', ')}`,
      stray.at,
    );
  return done(withColumn(plan, output, only.expression));
}

/**
 * A table with columns by typed formulas, `Drive = Key Bars`, a line each. New names become inputs, after the
 * existing ones, single letters in alphabetical order; the name before a `=` is an output. Filled-in cells
 * stay, and hold for both values of a new input.
 * @param base the table to extend; null for none yet.
 * @param only the output for a formula without a name.
 */
export function specFromFormulas(
  base: SpecTable | null,
  text: string,
  only: string | null = null,
): Result<SpecTable> {
  const known = base?.inputs ?? [];
  const outputs = base?.outputs.map((o) => o.name) ?? [];
  const read = readFormulas(text, known, outputs);
  if (!read.ok) return misreadAt(text, read);
  if (read.value.length === 0) return notTaken('empty', 'type a formula, such as Drive = Key Bars');
  const single = only ?? (outputs.length === 1 ? outputs[0]! : null);
  const inputs = [...known];
  const said = new Map<string, TypedFormula>();
  for (const formula of read.value) {
    const name = formula.name ?? (read.value.length === 1 ? single : null);
    if (name === null)
      return notTaken('no-name', `say which output it is: ${outputs[0] ?? 'Y'} = …`, formula.from);
    if ([...said.keys()].some((other) => sameName(other, name)))
      return notTaken('twice', `“${name}” is there twice`, formula.from);
    if (inputs.includes(name))
      return notTaken(
        'input-as-output',
        `“${name}” is an input: it cannot be an output as well`,
        formula.from,
      );
    said.set(name, formula);
  }
  for (const formula of said.values())
    for (const name of namesOf(formula.expression)) {
      if (outputs.includes(name) || said.has(name))
        return notTaken(
          'reads-output',
          `“${name}” is an output: a formula here reads inputs only`,
          placeOf(formula, name),
        );
      if (!inputs.some((input) => sameName(input, name))) inputs.push(name);
    }
  const all = [...outputs, ...[...said.keys()].filter((name) => !outputs.includes(name))];
  // A function that reads nothing has a table all the same.
  const made = specWithNames(
    inputs.length ? [...known, ...inOrder(inputs.slice(known.length))] : ['A'],
    all,
    base,
  );
  if (!made.ok) return made;
  const plan = [...said].reduce(
    (so, [name, { expression }]) => withColumn(so, all.indexOf(name), withKnownNames(expression, inputs)),
    made.value,
  );
  return done(plan);
}

const LETTER = /^\p{L}(?:_?\d+)?$/u;

/** Letters in the order of the alphabet, `A0` before `A10`; other names as they were met. */
function inOrder(names: readonly string[]): readonly string[] {
  if (!names.every((name) => LETTER.test(name))) return names;
  return [...names].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
}

/** The table with a column by an expression over its inputs. */
export function withColumn(plan: SpecTable, output: number, expression: Expression): SpecTable {
  const { inputs } = plan;
  const letters = new Map<number, string>();
  for (let row = 0; row < 2 ** inputs.length; row++) {
    const values = new Map(inputs.map((n, i) => [n, inputAt(inputs.length, i, row)]));
    letters.set(row, String(evaluate(expression, values)));
  }
  return withLetters(plan, output, letters);
}

/** The offset at which a formula reads a name, in the whole text; null if it does not. */
function placeOf({ expression, from }: TypedFormula, name: string): number | null {
  let found: number | null = null;
  const visit = (e: Expression) => {
    if (e.op === 'name') {
      if (e.name === name) found ??= from + e.at;
    } else if (e.op === 'not') visit(e.of);
    else if (e.op !== 'constant') e.of.forEach(visit);
  };
  visit(expression);
  return found;
}

function firstStray(formula: TypedFormula, inputs: readonly string[]): { name: string; at: number } | null {
  const name = namesOf(formula.expression).find((n) => !inputs.includes(n));
  return name === undefined ? null : { name, at: placeOf(formula, name)! };
}

function rowsSaid(plan: SpecTable, output: number, said: string): Result<SpecTable> {
  const rows = 2 ** plan.inputs.length;
  const letters = new Map(Array.from({ length: rows }, (_, row) => [row, '0']));
  const [ones, either = ''] = said.split(/[dx+]/);
  for (const [list, letter] of [
    [ones!, '1'],
    [either.replaceAll(/[()]/g, ''), 'x'],
  ] as const)
    for (const word of list.split(/[\s,;]+/).filter(Boolean)) {
      const [from, to = from] = word.split(/[–-]/);
      const [a, b] = [Number(from), Number(to)];
      if (from === '' || to === '' || a > b || b >= rows)
        return notTaken('no-such-row', `“${word}” is no row of this table: it has rows 0 to ${rows - 1}`);
      for (let row = a; row <= b; row++) letters.set(row, letter);
    }
  return done(withLetters(plan, output, letters));
}
