import { MOST_PLANNED_INPUTS, MOST_PLANNED_OUTPUTS, OPEN, Plan } from '../circuit/plan';
import { sameName } from '../values/names';
import { EITHER, OFF, ON, type Wish } from './cube';
import { evaluated, namesOf, readExpression } from './expression';

/*
 * What is done with a table that is filled in.
 */

export type Planned =
  | { readonly ok: true; readonly plan: Plan }
  | { readonly ok: false; readonly problem: string };

const checked = (plan: Plan): Planned => {
  const parsed = Plan.safeParse(plan);
  if (parsed.success) return { ok: true, plan: parsed.data };
  const said = parsed.error.issues[0]!.message;
  return { ok: false, problem: `${said[0]!.toUpperCase()}${said.slice(1)}.` };
};

/** A line of names as it was typed: `K, B, P = D, W`. */
export function namesLine({ inputs, outputs }: Plan): string {
  return `${inputs.join(', ')} = ${outputs.map((o) => o.name).join(', ')}`;
}

/** What becomes of the rows in which an input is 1 that has just been added: what was there, or nothing yet. */
export type NewHalf = 'copied' | 'open';

/**
 * A table for the names in a line. What was filled in before stays: a column with its output's name, a cell with the
 * values of the inputs that are still there. Of an input that has gone, the half at which it was 0 stays.
 */
export function plannedFor(line: string, old: Plan | null = null, half: NewHalf = 'copied'): Planned {
  const sides = line.split('=');
  if (sides.length !== 2)
    return { ok: false, problem: 'Names the inputs, then =, then the outputs: K, B, P = D, W.' };
  const [inputs, outputs] = sides.map((side) => side.split(',').map((name) => name.trim()));
  const empty = (list: readonly string[] | undefined, what: string) =>
    list!.length > 1 && list!.includes('') ? `Between two commas the name of an ${what} is missing.` : null;
  const gap = empty(inputs, 'input') ?? empty(outputs, 'output');
  if (gap) return { ok: false, problem: gap };
  const named = (list: readonly string[] | undefined) => list!.filter(Boolean);
  const [ins, outs] = [named(inputs), named(outputs)];
  if (ins.length > MOST_PLANNED_INPUTS || outs.length > MOST_PLANNED_OUTPUTS)
    return checked({ inputs: ins, outputs: outs.map((name) => ({ name, rows: '' })) });
  const rows = 2 ** ins.length;
  return checked({
    inputs: ins,
    outputs: outs.map((name) => {
      const before = old?.outputs.find((o) => o.name === name);
      if (!old || !before) return { name, rows: OPEN.repeat(rows) };
      let letters = '';
      for (let row = 0; row < rows; row++) letters += letterBefore(old, before.rows, ins, row, half);
      return { name, rows: letters };
    }),
  });
}

function letterBefore(
  old: Plan,
  column: string,
  inputs: readonly string[],
  row: number,
  half: NewHalf,
): string {
  const bit = (i: number) => (row >> (inputs.length - 1 - i)) & 1;
  if (half === 'open' && inputs.some((name, i) => bit(i) && !old.inputs.includes(name))) return OPEN;
  let at = 0;
  for (const input of old.inputs) {
    const i = inputs.indexOf(input);
    at = at * 2 + (i === -1 ? 0 : bit(i));
  }
  return column[at]!;
}

/** The table with letters put into an output's rows, from a row on or at rows of one's own. */
export function filled(plan: Plan, output: number, letters: ReadonlyMap<number, string>): Plan {
  const outputs = plan.outputs.map((o, i) => {
    if (i !== output) return o;
    const rows = [...o.rows];
    for (const [row, letter] of letters) if (row < rows.length) rows[row] = letter;
    return { ...o, rows: rows.join('') };
  });
  return { ...plan, outputs };
}

const LETTERS: Readonly<Record<string, string>> = {
  '0': '0',
  '1': '1',
  x: 'x',
  X: 'x',
  '-': 'x',
  '*': 'x',
  d: 'x',
  '': OPEN,
  '.': OPEN,
  '?': OPEN,
};

/** The table with a block of cells, as a spreadsheet gives it, put in from a cell on. */
export function pasted(plan: Plan, output: number, row: number, text: string): Planned {
  const lines = text.replace(/\r?\n$/, '').split(/\r?\n/);
  const cells = lines.map((line) => line.split(/[\t,;]/).map((c) => c.trim()));
  const wide = Math.max(...cells.map((c) => c.length));
  const [rowsLeft, columnsLeft] = [2 ** plan.inputs.length - row, plan.outputs.length - output];
  if (cells.length > rowsLeft || wide > columnsLeft)
    return {
      ok: false,
      problem: `What was pasted has ${cells.length} rows and ${wide} columns; from here on there are ${rowsLeft} and ${columnsLeft}.`,
    };
  let made = plan;
  for (let c = 0; c < wide; c++) {
    const letters = new Map<number, string>();
    for (const [r, line] of cells.entries()) {
      if (line[c] === undefined) continue;
      const letter = LETTERS[line[c]!];
      if (letter === undefined)
        return {
          ok: false,
          problem: `“${line[c]!.slice(0, 20)}” in row ${r + 1} of what was pasted is not 0, 1 or x.`,
        };
      letters.set(row + r, letter);
    }
    made = filled(made, output + c, letters);
  }
  return { ok: true, plan: made };
}

/**
 * A whole table as it comes from a spreadsheet or as CSV: a heading, then the rows. A column headed `=` stands between
 * inputs and outputs; without one, the inputs are the first columns, as many as the rows need. Rows may come in any
 * order; those that are missing stay open.
 */
export function plannedFromText(text: string): Planned {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line && !/^\|?[\s:|-]+\|?$/.test(line));
  const between = lines[0]?.includes('\t') ? /\t/ : lines[0]?.includes('|') ? /\|/ : /[,;]/;
  const table = lines.map((line) =>
    line
      .replace(/^\||\|$/g, '')
      .split(between)
      .map((c) => c.trim()),
  );
  const [heading, ...rows] = table;
  if (!heading || rows.length === 0)
    return { ok: false, problem: 'A table has a line of names, and rows of 0, 1 and x below it.' };
  const ragged = rows.findIndex((r) => r.length !== heading.length);
  if (ragged !== -1)
    return {
      ok: false,
      problem: `Row ${ragged + 1} has ${rows[ragged]!.length} cells where there are ${heading.length} names.`,
    };
  const border = heading.indexOf('=');
  const inputs = border === -1 ? Math.ceil(Math.log2(Math.max(2, rows.length))) : border;
  const from = border === -1 ? inputs : border + 1;
  if (inputs < 1 || from >= heading.length)
    return { ok: false, problem: `${rows.length} rows need ${inputs} inputs and at least one output.` };
  const empty = plannedFor(`${heading.slice(0, inputs).join(',')} = ${heading.slice(from).join(',')}`);
  if (!empty.ok) return empty;
  const columns = empty.plan.outputs.map(() => new Map<number, string>());
  const taken = new Set<number>();
  for (const [r, cells] of rows.entries()) {
    let at = 0;
    for (let i = 0; i < inputs; i++) {
      if (cells[i] !== '0' && cells[i] !== '1')
        return {
          ok: false,
          problem: `Row ${r + 1}, ${heading[i]}: “${cells[i]!.slice(0, 20)}” is not 0 or 1.`,
        };
      at = at * 2 + Number(cells[i]);
    }
    if (taken.has(at)) return { ok: false, problem: `Row ${r + 1} has the inputs of a row above it.` };
    taken.add(at);
    for (const [o, column] of columns.entries()) {
      const said = cells[from + o]!;
      const letter = LETTERS[said];
      if (letter === undefined)
        return {
          ok: false,
          problem: `Row ${r + 1}, ${heading[from + o]}: “${said.slice(0, 20)}” is not 0, 1 or x.`,
        };
      // A blank cell of a table is a don't care.
      column.set(at, said === '' ? 'x' : letter);
    }
  }
  return { ok: true, plan: columns.reduce((plan, column, o) => filled(plan, o, column), empty.plan) };
}

/** The table as a spreadsheet takes it: names and cells with tabs between, a row a line; `plannedFromText` reads it. */
export function planText({ inputs, outputs }: Plan): string {
  const rows = Array.from({ length: 2 ** inputs.length }, (_, row) => [
    ...inputs.map((_, i) => String((row >> (inputs.length - 1 - i)) & 1)),
    ...outputs.map((o) => o.rows[row]!),
  ]);
  return [[...inputs, ...outputs.map((o) => o.name)], ...rows].map((cells) => cells.join('\t')).join('\n');
}

/**
 * A column as it was said: by a formula of the inputs, or by a list of the rows at which it is 1, `1, 3, 5-7`, with
 * those that may be either behind a `d`: `1, 3 d 4-6`.
 */
export function columnSaid(plan: Plan, output: number, text: string): Planned {
  const said = text
    .trim()
    .replace(/^(?:Σ\s*)?m?\s*\(/, '')
    .replace(/\)$/, '');
  if (/^[\d\s,;–-]*(?:[dx+][\d\s,;–()-]*)?$/.test(said) && /\d/.test(said) && !/^[01]$/.test(said))
    return rowsSaid(plan, output, said);
  const read = readExpression(text, plan.inputs);
  if (!read.ok) {
    const at = text.slice(read.at, read.at + 12).trim();
    return { ok: false, problem: `${at ? `At “${at}”` : 'At the end'}: ${read.problem}.` };
  }
  const stray = namesOf(read.value).find((name) => !plan.inputs.includes(name));
  if (stray) return { ok: false, problem: `${stray} is no input of this table: ${plan.inputs.join(', ')}.` };
  const letters = new Map<number, string>();
  for (let row = 0; row < 2 ** plan.inputs.length; row++) {
    const values = new Map(
      plan.inputs.map((n, i) => [n, ((row >> (plan.inputs.length - 1 - i)) & 1) as 0 | 1]),
    );
    letters.set(row, String(evaluated(read.value, values)));
  }
  return { ok: true, plan: filled(plan, output, letters) };
}

function rowsSaid(plan: Plan, output: number, said: string): Planned {
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
        return { ok: false, problem: `“${word}” is no row of this table: it has rows 0 to ${rows - 1}.` };
      for (let row = a; row <= b; row++) letters.set(row, letter);
    }
  return { ok: true, plan: filled(plan, output, letters) };
}

/** An output as the function that is wanted; an open cell may be either. */
export function wishPlanned(plan: Plan, output: number): Wish {
  const rows = Uint8Array.from(plan.outputs[output]!.rows, (c) =>
    c === '1' ? ON : c === '0' ? OFF : EITHER,
  );
  return { inputs: plan.inputs.length, rows };
}

/** How many cells are open. */
export function openCells(plan: Plan): number {
  let open = 0;
  for (const { rows } of plan.outputs) for (const c of rows) if (c === OPEN) open++;
  return open;
}

/** The row of a plan that has the values of a row of a table with the same inputs in another order; null without all of them. */
export function rowOrder(plan: Plan, inputs: readonly string[]): ((row: number) => number) | null {
  if (inputs.length !== plan.inputs.length) return null;
  const places = plan.inputs.map((name) => inputs.findIndex((other) => sameName(other, name)));
  if (places.includes(-1)) return null;
  return (row) => places.reduce((at, i) => at * 2 + ((row >> (inputs.length - 1 - i)) & 1), 0);
}

/**
 * A table with one of its inputs or outputs in another place among its kind; each row keeps the values of its inputs, and
 * so gets another number where an input moves.
 */
export function withColumnAt(plan: Plan, name: string, to: number): Plan {
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
