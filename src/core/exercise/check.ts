import type { Exercise, Wanted, WantedRun } from '../circuit/exercise';
import type { Sheet } from '../circuit/lesson';
import { cell, truthTable, whyNoTable } from '../logic/truth-table';
import { compile } from '../netlist/compile';
import type { Netlist, Terminal } from '../netlist/netlist';
import { findKind } from '../parts/catalogue';
import { drivenBy } from '../simulate/drive';
import { letterOf } from '../values/logic';
import { sameName } from '../values/names';
import { problem, sentence } from '../values/result';
import { isAllowed } from './allowed';
import { columnsOf, isAsWanted } from './wanted-columns';
import { readRun, stimulusOf } from './wanted-run';

/** Most inputs of a sheet that is checked; far more than any wanted function has. */
const MOST_SHEET_INPUTS = 20;

/** How a sheet stands against what an exercise wants. */
export interface Check {
  readonly rows: number;
  /** Rows, or readings of a run, in which every output is as wanted. */
  readonly right: number;
  /** Row by row whether it is right. */
  readonly rowIsRight: readonly boolean[];
  /** For each wanted output what the sheet gives, bits a row: 0, 1, X, Z, or - where the output is missing. */
  readonly given: readonly (string | readonly string[])[];
  /** Sentences for the student. */
  readonly complaints: readonly string[];
  /** Kinds of part on the sheet and how many of each, in the order of the catalogue. */
  readonly parts: readonly { readonly kind: string; readonly count: number }[];
  /** Everything right and nothing to complain about. */
  readonly solved: boolean;
}

/**
 * Kinds of part on a sheet and how many of each, by name; instead of a block what is in it, each time it is used, but for
 * its ports.
 * @param sheets where the sheets of blocks are found.
 */
export function partsUsed(sheet: Sheet, sheets: readonly Sheet[]): { kind: string; count: number }[] {
  const known = new Map<string, ReadonlyMap<string, number>>();
  const countsOf = (at: Sheet): ReadonlyMap<string, number> => {
    const before = known.get(at.id);
    if (before) return before;
    const counts = new Map<string, number>();
    // A sheet that holds itself is none the larger for it; that is complained of elsewhere.
    known.set(at.id, counts);
    const add = (kind: string, count: number) => counts.set(kind, (counts.get(kind) ?? 0) + count);
    for (const part of at.parts.values()) {
      const inside = part.kind === 'block' && sheets.find((s) => s.id === part.params.sheet);
      if (inside) {
        for (const [kind, count] of countsOf(inside)) if (kind !== 'port') add(kind, count);
      }
      if (part.kind !== 'block') add(part.kind, 1);
    }
    return counts;
  };
  return [...countsOf(sheet)]
    .map(([kind, count]) => ({ kind, count }))
    .sort((a, b) => (a.kind < b.kind ? -1 : 1));
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

/**
 * Holds a sheet against an exercise, every row or reading of it. Inputs and outputs are matched by name.
 * @param sheets all sheets of the lesson, for blocks.
 */
export function check(sheet: Sheet, exercise: Exercise, sheets: readonly Sheet[] = [sheet]): Check {
  const { wanted } = exercise;
  const complaints: string[] = [];
  const parts = partsUsed(sheet, sheets);
  for (const { kind, count } of parts)
    if (!isAllowed(exercise, kind))
      complaints.push(
        `${findKind(kind)!.name} is not allowed in this task, and ${count} of it ${count === 1 ? 'is' : 'are'} used.`,
      );

  const netlist = compile(sheet, sheets);
  const { given, hasAllInputs } =
    wanted.is === 'run' ? givenInRun(netlist, wanted, complaints) : givenInTable(netlist, wanted, complaints);
  const { rows, outputs, output } = columnsOf(wanted);
  const rowIsRight = Array.from(
    { length: rows },
    (_, row) => hasAllInputs && outputs.every((_, o) => isAsWanted(output(o, row), given[o]![row]!)),
  );
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

interface Given {
  readonly given: Check['given'];
  readonly hasAllInputs: boolean;
}

function complainOfParts(netlist: Netlist, complaints: string[]): void {
  for (const d of netlist.diagnostics) if (d.severity === 'problem') complaints.push(d.message);
}

function givenInTable(netlist: Netlist, wanted: Wanted, complaints: string[]): Given {
  const rows = 2 ** wanted.inputs.length;
  const inputs = match(wanted.inputs, netlist.inputColumns, 'input', complaints);
  const outputs = match(
    wanted.outputs.map((o) => o.name),
    netlist.outputColumns,
    'output',
    complaints,
  );
  complainOfParts(netlist, complaints);
  const nothing = '-'.repeat(rows);
  const tooMany = netlist.inputColumns.length > MOST_SHEET_INPUTS;
  const reason = tooMany
    ? problem('too-many-inputs', `more than ${MOST_SHEET_INPUTS} inputs are more than can be checked`)
    : whyNoTable(netlist);
  const nothingYet = netlist.inputs.length === 0 || netlist.outputs.length === 0;
  if (reason && !nothingYet) complaints.push(sentence(reason));
  if (reason) return { given: outputs.map(() => nothing), hasAllInputs: !inputs.includes(-1) };
  const table = truthTable(netlist);
  const weight = (column: number) => 2 ** (netlist.inputColumns.length - 1 - column);
  const given = outputs.map((output) => {
    if (output === -1) return nothing;
    let letters = '';
    for (let row = 0; row < rows; row++) {
      let at = 0;
      for (const [i, column] of inputs.entries())
        if (column !== -1 && (row >> (inputs.length - 1 - i)) & 1) at += weight(column);
      letters += letterOf(cell(table, output, at));
    }
    return letters;
  });
  return { given, hasAllInputs: !inputs.includes(-1) };
}

function givenInRun(netlist: Netlist, wanted: WantedRun, complaints: string[]): Given {
  const found = (
    signals: readonly { readonly name: string; readonly width: number }[],
    there: readonly Terminal[],
    word: string,
  ) => {
    const names = signals.map((s) => s.name);
    return match(names, there, word, complaints).map((at, i): Terminal | null => {
      const terminal = there[at];
      const { name, width } = signals[i]!;
      if (!terminal || terminal.nets.length === width) return terminal ?? null;
      complaints.push(
        `The ${word} “${name}” has ${terminal.nets.length} bits here, and ${width} in the task.`,
      );
      return null;
    });
  };
  const inputs = found(wanted.inputs, netlist.inputs, 'input');
  const outputs = found(wanted.outputs, netlist.outputs, 'output');
  complainOfParts(netlist, complaints);
  const driven = drivenBy(netlist, stimulusOf(wanted, netlist, 'wanted'));
  const read = readRun(driven, outputs, wanted.readings, wanted);
  if (read.reached < wanted.readings.length)
    complaints.push(
      `After ${read.reached} of ${wanted.readings.length} readings the circuit had changed so often that it was stopped: something in it keeps swinging.`,
    );
  else if (read.swings) complaints.push('A loop keeps changing within one moment and never comes to rest.');
  return { given: read.values, hasAllInputs: !inputs.includes(null) };
}
