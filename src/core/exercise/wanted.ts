import { MOST_WANTED_INPUTS, Wanted } from '../circuit/exercise';
import type { Sheet } from '../circuit/lesson';
import { cell, truthTable, whyNoTable } from '../logic/truth-table';
import { compile } from '../netlist/compile';
import { letterOf } from '../values/logic';
import { done, type Result, refusal, refused } from '../values/result';

const TOO_MANY_INPUTS = refused(
  'too-many-inputs',
  `a wanted function has at most ${MOST_WANTED_INPUTS} inputs`,
);

function checked(wanted: Wanted): Result<Wanted> {
  const parsed = Wanted.safeParse(wanted);
  if (parsed.success) return done(parsed.data);
  const issue = parsed.error.issues[0]!;
  const many = issue.code === 'too_big' && issue.path.join() === 'inputs';
  return many ? TOO_MANY_INPUTS : refused('bad-table', issue.message);
}

/**
 * The sheet's own truth table as the function that is wanted; an X in it becomes “either will do”.
 * @param sheets all sheets of the lesson, for blocks.
 */
export function wantedFromSheet(sheet: Sheet, sheets: readonly Sheet[] = [sheet]): Result<Wanted> {
  const netlist = compile(sheet, sheets);
  if (netlist.inputs.length > MOST_WANTED_INPUTS) return TOO_MANY_INPUTS;
  const reason = whyNoTable(netlist);
  if (reason) return refusal(reason);
  const table = truthTable(netlist);
  const outputs = table.outputs.map((name, o) => ({
    name,
    rows: Array.from({ length: table.rows }, (_, row) => letterOf(cell(table, o, row)).toLowerCase()).join(
      '',
    ),
  }));
  return checked({ inputs: [...table.inputs], outputs });
}

/** Names from one comma-separated line; blanks around them do not count, empty ones are left out. */
export function namesIn(line: string): string[] {
  return line
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean);
}

/**
 * A wanted function from typed names and cells. What was filled in before survives a change of names: a column
 * stays with its output's name, a cell with the values of the inputs that are still there.
 * @param old the function before the names were changed.
 */
export function wantedFromNames(
  inputs: readonly string[],
  outputs: readonly string[],
  old?: Wanted,
): Result<Wanted> {
  const rows = 2 ** Math.min(inputs.length, MOST_WANTED_INPUTS);
  const columns = outputs.map((name) => {
    const before = old?.outputs.find((o) => o.name === name);
    if (!old || !before) return { name, rows: '0'.repeat(rows) };
    let letters = '';
    for (let row = 0; row < rows; row++) {
      let at = 0;
      for (const input of old.inputs) {
        const column = inputs.indexOf(input);
        at = at * 2 + (column === -1 ? 0 : (row >> (inputs.length - 1 - column)) & 1);
      }
      letters += before.rows[at] ?? '0';
    }
    return { name, rows: letters };
  });
  return checked({ inputs: [...inputs], outputs: columns });
}

/** The function with one cell changed in turn: 0, 1, x, and 0 again. */
export function cellTurned(wanted: Wanted, output: number, row: number): Wanted {
  const next: Record<string, string> = { '0': '1', '1': 'x', x: '0' };
  const outputs = wanted.outputs.map((o, i) =>
    i === output ? { ...o, rows: o.rows.slice(0, row) + next[o.rows[row]!] + o.rows.slice(row + 1) } : o,
  );
  return { ...wanted, outputs };
}
