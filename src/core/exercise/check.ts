import type { Exercise, Wanted } from '../circuit/exercise';
import type { Sheet } from '../circuit/lesson';
import { cell, truthTable, whyNoTable } from '../logic/truth-table';
import { compile } from '../netlist/compile';
import type { Terminal } from '../netlist/netlist';
import { findKind } from '../parts/catalogue';
import { letterOf } from '../values/logic';
import { sameName } from '../values/names';
import { isAllowed } from './allowed';

/** Most inputs of a sheet that is checked; far more than any wanted function has. */
const MOST_SHEET_INPUTS = 20;

/** How a sheet stands against what an exercise wants. */
export interface Check {
  readonly rows: number;
  /** Rows in which every output is as wanted. */
  readonly right: number;
  /** Row by row whether it is right. */
  readonly rowIsRight: readonly boolean[];
  /** For each wanted output what the sheet gives, a letter a row: 0, 1, X, Z, or - where the output is missing. */
  readonly given: readonly string[];
  /** Sentences for the student. */
  readonly complaints: readonly string[];
  /** Kinds of part on the sheet and how many of each, in the order of the catalogue. */
  readonly parts: readonly { readonly kind: string; readonly count: number }[];
  /** Everything right and nothing to complain about. */
  readonly solved: boolean;
}

export function partsUsed(sheet: Sheet): { kind: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const part of sheet.parts.values()) counts.set(part.kind, (counts.get(part.kind) ?? 0) + 1);
  return [...counts].map(([kind, count]) => ({ kind, count })).sort((a, b) => (a.kind < b.kind ? -1 : 1));
}

/** The terminals in the order in which they are wanted, -1 where one is missing, and what to say about it. */
function match(
  wanted: readonly string[],
  there: readonly Terminal[],
  word: string,
  complaints: string[],
): number[] {
  for (const [i, t] of there.entries())
    if (there.findIndex((o) => sameName(o.name, t.name)) < i)
      complaints.push(`Two ${word} parts are called “${t.name}”: give each a name of its own.`);
  for (const t of there)
    if (!wanted.some((name) => sameName(name, t.name)))
      complaints.push(`The task has no ${word} called “${t.name}”.`);
  return wanted.map((name) => {
    const at = there.findIndex((t) => sameName(t.name, name));
    if (at === -1) complaints.push(`The ${word} “${name}” is missing.`);
    return at;
  });
}

/** Holds a sheet against an exercise, every row of it. Inputs and outputs are matched by name. */
export function check(sheet: Sheet, exercise: Exercise, sheets: readonly Sheet[] = []): Check {
  const { wanted } = exercise;
  const complaints: string[] = [];
  const parts = partsUsed(sheet);
  for (const { kind, count } of parts)
    if (!isAllowed(exercise, kind))
      complaints.push(
        `${findKind(kind)!.name} is not allowed in this task, and ${count} of it ${count === 1 ? 'is' : 'are'} used.`,
      );

  const netlist = compile(sheet, sheets);
  const rows = 2 ** wanted.inputs.length;
  const inputs = match(wanted.inputs, netlist.inputColumns, 'input', complaints);
  const outputs = match(
    wanted.outputs.map((o) => o.name),
    netlist.outputColumns,
    'output',
    complaints,
  );
  for (const d of netlist.diagnostics) if (d.severity === 'problem') complaints.push(d.message);

  let given = wanted.outputs.map(() => '-'.repeat(rows));
  const tooMany = netlist.inputColumns.length > MOST_SHEET_INPUTS;
  const reason = tooMany
    ? `More than ${MOST_SHEET_INPUTS} inputs are more than can be checked.`
    : whyNoTable(netlist);
  const nothingYet = netlist.inputs.length === 0 || netlist.outputs.length === 0;
  if (reason && !nothingYet) complaints.push(reason);
  if (!reason) {
    const table = truthTable(netlist);
    const weight = (column: number) => 2 ** (netlist.inputColumns.length - 1 - column);
    given = outputs.map((output, o) => {
      if (output === -1) return given[o]!;
      let letters = '';
      for (let row = 0; row < rows; row++) {
        let at = 0;
        for (const [i, column] of inputs.entries())
          if (column !== -1 && (row >> (inputs.length - 1 - i)) & 1) at += weight(column);
        letters += letterOf(cell(table, output, at));
      }
      return letters;
    });
  }
  const inputsThere = !inputs.includes(-1);
  const rowIsRight = Array.from({ length: rows }, (_, row) => inputsThere && isRight(wanted, given, row));
  const right = rowIsRight.filter(Boolean).length;
  return {
    rows,
    right,
    rowIsRight,
    given,
    complaints,
    parts,
    solved: right === rows && complaints.length === 0,
  };
}

function isRight(wanted: Wanted, given: readonly string[], row: number): boolean {
  return wanted.outputs.every(({ rows }, o) => {
    const want = rows[row]!;
    const got = given[o]![row]!;
    return want === 'x' ? got !== '-' : want === got;
  });
}
