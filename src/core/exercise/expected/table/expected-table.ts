import type { Sheet } from '../../../circuit/sheet';
import { SignalName } from '../../../circuit/signal-name';
import { evaluate, namesOf } from '../../../logic/expression/expression';
import { readFormulas } from '../../../logic/expression/typed-formulas';
import { cell, inputAt, truthTable, whyNoTable } from '../../../logic/table/truth-table';
import { compile } from '../../../netlist/compile';
import { letterOf } from '../../../values/logic';
import { sameName } from '../../../values/names';
import { done, type Result, refusal, refused } from '../../../values/result';
import { type Infer, z } from '../../../values/schema';

/** Most inputs that an expected table may have: 2^12 rows are checked in the blink of an eye everywhere. */
export const MOST_TABLE_INPUTS = 12;

/** The expected values of an output, row by row: `0`, `1`, or `x` for a don't-care. Row 0 comes first. */
const ExpectedColumn = z.object({
  name: SignalName,
  rows: z.string().check(z.regex(/^[01x]*$/, 'an expected column holds only 0, 1 and x')),
});

/** A truth table that is expected: the first-named input is the most significant bit of the row number. */
export const ExpectedTable = z
  .object({
    kind: z.literal('table'),
    inputs: z
      .array(SignalName)
      .check(z.minLength(1, 'at least one input is needed'), z.maxLength(MOST_TABLE_INPUTS)),
    outputs: z.array(ExpectedColumn).check(z.minLength(1, 'at least one output is needed'), z.maxLength(32)),
  })
  .check((context) => {
    const { inputs, outputs } = context.value;
    const complain = (message: string, path: (string | number)[] = []) =>
      context.issues.push({ code: 'custom', message, path, input: context.value });
    const names = [...inputs, ...outputs.map((o) => o.name)];
    for (const [i, name] of names.entries())
      if (names.indexOf(name) !== i) complain(`the name ${name} stands twice`);
    const rows = 2 ** inputs.length;
    for (const [i, output] of outputs.entries())
      if (output.rows.length !== rows)
        complain(`${output.name} has ${output.rows.length} rows where ${rows} are needed`, [
          'outputs',
          i,
          'rows',
        ]);
  });
export type ExpectedTable = Infer<typeof ExpectedTable>;

const TOO_MANY_INPUTS = refused(
  'too-many-inputs',
  `an expected table has at most ${MOST_TABLE_INPUTS} inputs`,
);

function checked(table: ExpectedTable): Result<ExpectedTable> {
  const parsed = ExpectedTable.safeParse(table);
  if (parsed.success) return done(parsed.data);
  const issue = parsed.error.issues[0]!;
  const many = issue.code === 'too_big' && issue.path.join() === 'inputs';
  return many ? TOO_MANY_INPUTS : refused('bad-table', issue.message);
}

/**
 * The sheet's own truth table as the expectation; an X in it becomes a don't-care.
 * @param sheets all sheets of the lesson, for blocks.
 */
export function tableOfSheet(sheet: Sheet, sheets: readonly Sheet[] = [sheet]): Result<ExpectedTable> {
  const netlist = compile(sheet, sheets);
  if (netlist.inputs.length > MOST_TABLE_INPUTS) return TOO_MANY_INPUTS;
  const reason = whyNoTable(netlist);
  if (reason) return refusal(reason);
  const derived = truthTable(netlist);
  const outputs = derived.outputs.map((name, o) => ({
    name,
    rows: Array.from({ length: derived.rows }, (_, row) =>
      letterOf(cell(derived, o, row)).toLowerCase(),
    ).join(''),
  }));
  return checked({ kind: 'table', inputs: [...derived.inputs], outputs });
}

/** Names from one comma-separated line; blanks around them do not count, empty ones are left out. */
export function namesIn(line: string): string[] {
  return line
    .split(',')
    .map((n) => n.trim())
    .filter(Boolean);
}

/**
 * An expected table from typed names and cells. Filled-in cells survive a change of names: a column stays
 * with its output's name, a cell with the values of the remaining inputs.
 * @param old the table before the names were changed.
 */
export function tableOfNames(
  inputs: readonly string[],
  outputs: readonly string[],
  old?: ExpectedTable,
): Result<ExpectedTable> {
  const rows = 2 ** Math.min(inputs.length, MOST_TABLE_INPUTS);
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
  return checked({ kind: 'table', inputs: [...inputs], outputs: columns });
}

/** The table of typed formulas, one a line; their names are the inputs, in the order in which they come. */
export function tableOfFormulas(text: string): Result<ExpectedTable> {
  const read = readFormulas(text);
  if (!read.ok) return read;
  const formulas = read.value;
  if (formulas.length === 0) return refused('empty', 'write a formula, such as Warn = Key Bars′');
  const inputs = [...new Set(formulas.flatMap(({ expression }) => namesOf(expression)))];
  if (inputs.length === 0) return refused('no-input', 'a formula needs the name of an input in it');
  if (inputs.length > MOST_TABLE_INPUTS) return TOO_MANY_INPUTS;
  const lone = formulas.length === 1 ? 'Y' : null;
  const outputs = [];
  for (const { name: typed, expression } of formulas) {
    const name = typed ?? lone;
    if (name === null) return refused('no-name', 'of several formulas each needs a name: Sum = A ⊕ B');
    if (inputs.some((input) => sameName(input, name)))
      return refused(
        'output-inside',
        `${name} is an output, and stands in a formula as well: write that out`,
      );
    const rows = Array.from({ length: 2 ** inputs.length }, (_, row) => {
      const values = new Map(
        inputs.map((input, i) => [input, inputAt(inputs.length, i, row) as 0 | 1] as const),
      );
      return String(evaluate(expression, values));
    });
    outputs.push({ name, rows: rows.join('') });
  }
  return checked({ kind: 'table', inputs, outputs });
}

/** The table with one cell changed in turn: 0, 1, x, and 0 again. */
export function cellTurned(table: ExpectedTable, output: number, row: number): ExpectedTable {
  const next: Record<string, string> = { '0': '1', '1': 'x', x: '0' };
  const outputs = table.outputs.map((o, i) =>
    i === output ? { ...o, rows: o.rows.slice(0, row) + next[o.rows[row]!] + o.rows.slice(row + 1) } : o,
  );
  return { ...table, outputs };
}
