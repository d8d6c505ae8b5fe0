import type { Lesson } from '../circuit/lesson';
import type { Part, Sheet } from '../circuit/sheet';
import { sheetsToAdd, sheetsUsedBy } from '../drawing/editing/paste-dependencies';
import { type Expression, namesOf } from '../logic/expression/expression';
import { readFormulas, withKnownNames } from '../logic/expression/typed-formulas';
import { declaredInputs, declaredOutputs, terminalName } from '../netlist/declared';
import { sameName } from '../values/names';
import { done, type Result, refused } from '../values/result';
import { drawFunctions } from './draw-functions';

/**
 * A sheet built from typed formulas, to be compared with another one: a line for each output, `Drive = Key
 * Bars Clear`. If the other sheet has a single output, its name may be left out. It has the other sheet's
 * inputs, read or not.
 */
export function sheetOfFormulas(text: string, like: Sheet): Result<Sheet> {
  const names = declaredInputs(like).map(terminalName);
  const outputs = declaredOutputs(like).map(terminalName);
  const functions: { name: string; expression: Expression }[] = [];
  const read = readFormulas(text, names, outputs);
  const lineAt = (at: number) =>
    text
      .slice(text.lastIndexOf('\n', at - 1) + 1)
      .split('\n')[0]!
      .trim();
  if (!read.ok) {
    const { code, message, place } = read.problem;
    return refused(
      code,
      `“${lineAt(place.offset)}”, character ${characterOf(text, place.offset)}: ${message}`,
      place,
    );
  }
  if (read.value.length === 0) return refused('empty', 'type a formula, such as Drive = Key Bars');
  for (const formula of read.value) {
    const name = formula.name ?? (outputs.length === 1 ? outputs[0]! : null);
    if (name === null)
      return refused(
        'no-name',
        `“${lineAt(formula.from)}” does not say which output it is: begin with ${outputs[0]} =`,
      );
    if (functions.some((f) => sameName(f.name, name))) return refused('twice', `“${name}” is there twice`);
    for (const input of namesOf(formula.expression))
      if (!names.some((n) => sameName(n, input))) names.push(input);
    functions.push({ name, expression: withKnownNames(formula.expression, names) });
  }
  return done(drawFunctions('formulas', 'the formulas', names, functions));
}

/** The place of a character in its line, from 1. */
const characterOf = (text: string, at: number) => at - text.lastIndexOf('\n', at - 1);

/** An input or output of one sheet, and the one of the other sheet that is taken for it. */
export interface Pair {
  readonly what: 'input' | 'output';
  readonly mine: string;
  /** Nothing where no one is. */
  readonly theirs: string | null;
}

const ports = (sheet: Sheet) =>
  [
    ['input', declaredInputs(sheet)],
    ['output', declaredOutputs(sheet)],
  ] as const;

/** The inputs and outputs of a sheet with those of the same name on another one. */
export function pairsByName(mine: Sheet, theirs: Sheet): Pair[] {
  const others = ports(theirs);
  return ports(mine).flatMap(([what, parts], i) => {
    const names = others[i]![1].map(terminalName);
    return parts.map((part) => {
      const name = terminalName(part);
      return { what, mine: name, theirs: names.find((n) => sameName(n, name)) ?? null };
    });
  });
}

/** The terminals of a sheet that no pair names. */
export function unpaired(theirs: Sheet, pairs: readonly Pair[], what: Pair['what']): string[] {
  const taken = new Set(pairs.filter((p) => p.what === what).map((p) => p.theirs));
  return ports(theirs)
    .flatMap(([kind, parts]) => (kind === what ? parts.map(terminalName) : []))
    .filter((name) => !taken.has(name));
}

/** The other sheet with its inputs and outputs called as the ones that they are taken for. */
export function calledAs(theirs: Sheet, pairs: readonly Pair[]): Sheet {
  const parts = new Map<string, Part>(theirs.parts);
  for (const [what, own] of ports(theirs))
    for (const part of own) {
      const pair = pairs.find((p) => p.what === what && p.theirs === terminalName(part));
      if (pair) parts.set(part.id, { ...part, label: pair.mine });
    }
  return { ...theirs, parts };
}

/**
 * A sheet of another lesson as it would stand in this one, with the sheets that its blocks need.
 * @returns the sheet, and all sheets that either of the two may read; nothing is added to the lesson.
 */
export function asGuest(
  lesson: Lesson,
  other: Lesson,
  sheetId: string,
): { readonly sheet: Sheet; readonly sheets: readonly Sheet[] } | null {
  const wanted = other.sheets.find((s) => s.id === sheetId);
  if (!wanted) return null;
  const held = sheetsUsedBy(other, wanted);
  const { added, ids } = sheetsToAdd(
    lesson,
    other.sheets.filter((s) => s === wanted || held.has(s.id)),
  );
  const sheets = [...lesson.sheets, ...added];
  const sheet = sheets.find((s) => s.id === ids.get(sheetId));
  return sheet ? { sheet: { ...sheet, name: wanted.name }, sheets } : null;
}
