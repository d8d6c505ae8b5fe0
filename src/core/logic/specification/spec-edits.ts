import { MOST_SPEC_INPUTS, MOST_SPEC_OUTPUTS, OPEN_CELL, SpecTable } from '../../circuit/spec-table';
import { X, Z } from '../../values/logic';
import { sameName } from '../../values/names';
import { done, type Result, refused } from '../../values/result';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../minimise/cube';
import { cell, type TruthTable } from '../table/truth-table';

/*
 * Changes to a table that is filled in.
 */

function checked(plan: SpecTable): Result<SpecTable> {
  const parsed = SpecTable.safeParse(plan);
  return parsed.success ? done(parsed.data) : refused('bad-table', parsed.error.issues[0]!.message);
}

/** A line of names as it was typed: `K, B, P = D, W`. */
export function namesLine({ inputs, outputs }: SpecTable): string {
  return `${inputs.join(', ')} = ${outputs.map((o) => o.name).join(', ')}`;
}

/** The cells of the rows in which a new input is 1: a copy of the old ones, or open. */
export type NewHalf = 'copied' | 'open';

/**
 * A table for the names in a line. Filled-in cells stay: a column with its output's name, a cell with the
 * values of the remaining inputs. Of a removed input, the half at which it was 0 stays.
 */
export function specFromNames(
  line: string,
  old: SpecTable | null = null,
  half: NewHalf = 'copied',
): Result<SpecTable> {
  const sides = line.split('=');
  if (sides.length !== 2)
    return refused('no-equals', 'name the inputs, then =, then the outputs: K, B, P = D, W');
  const [inputs, outputs] = sides.map((side) => side.split(',').map((name) => name.trim()));
  const empty = (list: readonly string[] | undefined, what: string) =>
    list!.length > 1 && list!.includes('') ? `between two commas the name of an ${what} is missing` : null;
  const gap = empty(inputs, 'input') ?? empty(outputs, 'output');
  if (gap) return refused('empty-name', gap);
  const named = (list: readonly string[] | undefined) => list!.filter(Boolean);
  return specWithNames(named(inputs), named(outputs), old, half);
}

/** A table for inputs and outputs of these names; filled-in cells stay by the same rules. */
export function specWithNames(
  ins: readonly string[],
  outs: readonly string[],
  old: SpecTable | null = null,
  half: NewHalf = 'copied',
): Result<SpecTable> {
  // Inputs are told from inputs, and outputs from outputs, whatever their case; an output may be `a` beside an input `A`.
  const twice = doubled(ins) ?? doubled(outs);
  if (twice !== undefined) return refused('twice', `the name ${twice} stands twice`);
  if (ins.length > MOST_SPEC_INPUTS || outs.length > MOST_SPEC_OUTPUTS)
    return checked({ inputs: [...ins], outputs: outs.map((name) => ({ name, rows: '' })) });
  const rows = 2 ** ins.length;
  return checked({
    inputs: [...ins],
    outputs: outs.map((name) => {
      const before = old?.outputs.find((o) => o.name === name);
      if (!old || !before) return { name, rows: OPEN_CELL.repeat(rows) };
      let letters = '';
      for (let row = 0; row < rows; row++) letters += letterBefore(old, before.rows, ins, row, half);
      return { name, rows: letters };
    }),
  });
}

/** A name that stood there before, whatever its case. */
const doubled = (names: readonly string[]) =>
  names.find((name, i) => names.findIndex((other) => sameName(other, name)) < i);

function letterBefore(
  old: SpecTable,
  column: string,
  inputs: readonly string[],
  row: number,
  half: NewHalf,
): string {
  const bit = (i: number) => (row >> (inputs.length - 1 - i)) & 1;
  if (half === 'open' && inputs.some((name, i) => bit(i) && !old.inputs.includes(name))) return OPEN_CELL;
  let at = 0;
  for (const input of old.inputs) {
    const i = inputs.indexOf(input);
    at = at * 2 + (i === -1 ? 0 : bit(i));
  }
  return column[at]!;
}

/** The table with letters put into an output's rows, from a row on or at rows of one's own. */
export function withLetters(
  plan: SpecTable,
  output: number,
  letters: ReadonlyMap<number, string>,
): SpecTable {
  const outputs = plan.outputs.map((o, i) => {
    if (i !== output) return o;
    const rows = [...o.rows];
    for (const [row, letter] of letters) if (row < rows.length) rows[row] = letter;
    return { ...o, rows: rows.join('') };
  });
  return { ...plan, outputs };
}

/**
 * A derived table as a filled-in one; X and Z become `x`. Null if it is too large, or if two of its columns
 * have the same name.
 * @param outputs the outputs to take, by their places in the table.
 */
export function specOfTable(
  table: TruthTable,
  outputs: readonly number[] = [...table.outputs.keys()],
): SpecTable | null {
  if (table.inputs.length > MOST_SPEC_INPUTS || outputs.length > MOST_SPEC_OUTPUTS) return null;
  const letter = (output: number, row: number) => {
    const value = cell(table, output, row);
    return value === X || value === Z ? 'x' : String(value);
  };
  const made = checked({
    inputs: [...table.inputs],
    outputs: outputs.map((o) => ({
      name: table.outputs[o]!,
      rows: Array.from({ length: table.rows }, (_, row) => letter(o, row)).join(''),
    })),
  });
  return made.ok ? made.value : null;
}

/** An output as the function that is wanted; an open cell may be either. */
export function functionOfSpec(plan: SpecTable, output: number): BooleanFunction {
  const rows = Uint8Array.from(plan.outputs[output]!.rows, (c) =>
    c === '1' ? ON : c === '0' ? OFF : DONT_CARE,
  );
  return { inputs: plan.inputs.length, rows };
}

/** How many cells are open. */
export function openCells(plan: SpecTable): number {
  let open = 0;
  for (const { rows } of plan.outputs) for (const c of rows) if (c === OPEN_CELL) open++;
  return open;
}

/** The row of a plan that has the values of a row of a table with the same inputs in another order; null without all of them. */
export function rowOrder(plan: SpecTable, inputs: readonly string[]): ((row: number) => number) | null {
  if (inputs.length !== plan.inputs.length) return null;
  const places = plan.inputs.map((name) => inputs.findIndex((other) => sameName(other, name)));
  if (places.includes(-1)) return null;
  return (row) => places.reduce((at, i) => at * 2 + ((row >> (inputs.length - 1 - i)) & 1), 0);
}

/**
 * A table with one of its inputs or outputs in another place among its kind; each row keeps the values of its inputs, and
 * so gets another number where an input moves.
 */
export function withColumnAt(plan: SpecTable, name: string, to: number): SpecTable {
  const placed = <T>(all: readonly T[], one: T): T[] => {
    const rest = all.filter((other) => other !== one);
    return [...rest.slice(0, to), one, ...rest.slice(to)];
  };
  const output = plan.outputs.find((o) => o.name === name);
  if (output) return { ...plan, outputs: placed(plan.outputs, output) };
  if (!plan.inputs.includes(name)) return plan;
  const inputs = placed(plan.inputs, name);
  const rowBefore = rowOrder(plan, inputs)!;
  const outputs = plan.outputs.map(({ name: own, rows }) => ({
    name: own,
    rows: Array.from(rows, (_, row) => rows[rowBefore(row)]).join(''),
  }));
  return { inputs, outputs };
}
