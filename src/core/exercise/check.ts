import type { Expected } from '../circuit/exercise';
import type { Sheet } from '../circuit/sheet';
import { compile } from '../netlist/compile';
import { findKind, PLACEABLE, sheetIdInside, sheetInside } from '../parts/catalogue';
import { expectedKindOf } from './expected';
import type { Difference } from './expected/expected-kind';
import { isAsExpected } from './expected-rows';

const NONE: ReadonlySet<string> = new Set();

/** Every kind of part, where a task leaves the choice. */
export const EVERY_KIND: ReadonlySet<string> = new Set(PLACEABLE.map(({ kind }) => kind));

/** The result of holding a sheet against what is expected. */
export interface Check {
  readonly rows: number;
  /** Rows, or readings of a run, in which every output is as expected. */
  readonly right: number;
  /** Row by row whether it is right. */
  readonly rowIsRight: readonly boolean[];
  /** Row by row the names of the outputs that are not as expected. */
  readonly wrongOutputs: readonly (readonly string[])[];
  /**
   * The outputs of the sheet, one for each expected output, bits a row: 0, 1, X, Z, or - for a missing
   * output.
   */
  readonly given: readonly (string | readonly string[])[];
  /** Sentences for the student. */
  readonly complaints: readonly string[];
  /** Kinds of part on the sheet and how many of each, in the order of the catalogue. */
  readonly parts: readonly { readonly kind: string; readonly count: number }[];
  /** A counterexample, where a proof found one. */
  readonly difference: Difference | null;
  /** Everything right and nothing to complain about; null where that could not be decided. */
  readonly solved: boolean | null;
}

/**
 * Kinds of part on a sheet and how many of each, by name; a block counts as its content, each time it is
 * used, without its ports.
 * @param sheets the sheets of the blocks.
 * @param whole sheets whose blocks count as one part, and not as their content.
 */
export function partsUsed(
  sheet: Sheet,
  sheets: readonly Sheet[],
  whole: ReadonlySet<string> = NONE,
): { kind: string; count: number }[] {
  const known = new Map<string, ReadonlyMap<string, number>>();
  const countsOf = (at: Sheet): ReadonlyMap<string, number> => {
    const before = known.get(at.id);
    if (before) return before;
    const counts = new Map<string, number>();
    // A sheet that holds itself is none the larger for it; that is complained of elsewhere.
    known.set(at.id, counts);
    const add = (kind: string, count: number) => counts.set(kind, (counts.get(kind) ?? 0) + count);
    for (const part of at.parts.values()) {
      const inside = sheetInside(part, sheets);
      if (inside && !whole.has(inside.id))
        for (const [kind, count] of countsOf(inside)) if (!findKind(kind)?.boundary) add(kind, count);
      if (sheetIdInside(part) === undefined || (inside && whole.has(inside.id))) add(part.kind, 1);
    }
    return counts;
  };
  return [...countsOf(sheet)]
    .map(([kind, count]) => ({ kind, count }))
    .sort((a, b) => (a.kind < b.kind ? -1 : 1));
}

/**
 * Holds a sheet against what is expected, every row or reading of it. Inputs and outputs are matched by name.
 * @param allowed kinds of part that may be used, besides those that always can be.
 * @param sheets all sheets of the lesson, for blocks.
 * @param whole sheets whose blocks count as one part, whatever is inside them.
 */
export function check(
  sheet: Sheet,
  expected: Expected,
  allowed: ReadonlySet<string>,
  sheets: readonly Sheet[] = [sheet],
  whole: ReadonlySet<string> = NONE,
): Check {
  const kind = expectedKindOf(expected);
  const complaints: string[] = [];
  const parts = partsUsed(sheet, sheets, whole);
  for (const { kind: used, count } of parts)
    if (!allowed.has(used) && !findKind(used)?.alwaysAllowed && !findKind(used)?.insideSheet)
      complaints.push(
        `${findKind(used)!.name} is not allowed in this task, and ${count} of it ${count === 1 ? 'is' : 'are'} used.`,
      );

  const netlist = compile(sheet, sheets);
  if (kind.prove) {
    const isForbidden = complaints.length > 0;
    const proof = kind.prove(expected, netlist, complaints);
    const isSame = proof === 'same';
    const difference = typeof proof === 'string' ? null : proof;
    const wrong = Object.keys(difference?.wanted ?? {}).filter(
      (name) => difference!.wanted[name] !== difference!.given[name],
    );
    return {
      rows: 1,
      right: isSame ? 1 : 0,
      rowIsRight: [isSame],
      wrongOutputs: [wrong],
      given: [],
      complaints,
      parts,
      difference,
      solved: proof === 'undecided' && !isForbidden ? null : isSame && complaints.length === 0,
    };
  }
  const { words, hasAllInputs } = kind.given(expected, netlist, complaints);
  const { rows, outputs, output } = kind.rows(expected);
  const wrongOutputs = Array.from({ length: rows }, (_, row) =>
    outputs.filter((_, o) => !isAsExpected(output(o, row), words[o]![row]!)),
  );
  const rowIsRight = wrongOutputs.map((wrong) => hasAllInputs && wrong.length === 0);
  const right = rowIsRight.filter(Boolean).length;
  return {
    rows,
    right,
    rowIsRight,
    wrongOutputs,
    given: words,
    complaints,
    parts,
    difference: null,
    solved: right === rows && complaints.length === 0,
  };
}

/** Wrong rows that are told one by one. */
const MOST_NAMED = 6;

/**
 * Which rows are wrong, and in which outputs where there are several: `rows 5 (Drive), 6 (Drive, Warn)`; the first of many.
 * Null where none is wrong, or none is right.
 * @param word `row` or `reading`.
 */
export function wrongRowsText({ rowIsRight, wrongOutputs, given }: Check, word: string): string | null {
  const wrong = rowIsRight.flatMap((right, row) => (right ? [] : [row]));
  if (wrong.length === 0 || wrong.length === rowIsRight.length) return null;
  const told = wrong.slice(0, MOST_NAMED).map((row) => {
    const outputs = given.length > 1 ? wrongOutputs[row]!.join(', ') : '';
    return outputs ? `${row} (${outputs})` : String(row);
  });
  const more = wrong.length > MOST_NAMED ? ' …' : '';
  return `${wrong.length === 1 ? word : `${word}s`} ${told.join(', ')}${more}`;
}
