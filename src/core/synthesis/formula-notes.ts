import type { Edit } from '../circuit/edit';
import type { Lesson } from '../circuit/lesson';
import type { Params, Sheet } from '../circuit/sheet';
import type { Expression } from '../logic/expression/expression';
import { drawnForm, type Form, Formula, functionOf } from '../logic/expression/forms';
import { type Notation, type Piece, pieces, written } from '../logic/expression/notation';
import { functionOfSpec } from '../logic/specification/spec-edits';
import { truthTable, whyNoTable } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { kindOf } from '../parts/catalogue';
import { done, type Result } from '../values/result';

/** Functions of more inputs are written on the sheet as they are drawn: an edit must not wait for a smallest form. */
const MOST_INPUTS = 6;
/** Letters of a note at most. */
const LONGEST = 4000;

/** The text of a formula note on a sheet: a line for each output, or why there is none. */
export function formulaText(sheet: Sheet, sheets: readonly Sheet[], form: Form, notation: Notation): string {
  const lines = linesOf(sheet, sheets, form).map(({ name, expression }) =>
    expression.ok
      ? `${name} = ${notation === 'bar' ? barred(expression.value) : written(expression.value, notation)}`
      : `${name}: ${expression.problem.message}`,
  );
  return lines.join('\n').slice(0, LONGEST) || 'Formula: there is no output yet';
}

interface Line {
  readonly name: string;
  readonly expression: Result<Expression>;
}

function linesOf(sheet: Sheet, sheets: readonly Sheet[], form: Form): Line[] {
  const { plan } = sheet;
  if (plan && plan.inputs.length <= MOST_INPUTS && form !== 'drawn')
    return plan.outputs.map(({ name }, o) => ({
      name,
      expression: done(new Formula(name, plan.inputs, functionOfSpec(plan, o)).in(form)),
    }));
  const netlist = compile(sheet, sheets);
  const isSmall = netlist.inputColumns.length <= MOST_INPUTS && whyNoTable(netlist) === null;
  if (form === 'drawn' || !isSmall)
    return netlist.outputColumns.map(({ name, nets }) => ({ name, expression: drawnForm(netlist, nets[0]) }));
  const table = truthTable(netlist);
  return table.outputs.map((name, o) => ({
    name,
    expression: done(new Formula(name, table.inputs, functionOf(table, o)).in(form)),
  }));
}

/** An expression with its bars as a label's marks; with primes where bars stand over bars. */
function barred(expression: Expression): string {
  const all = pieces(expression);
  const deep = (list: readonly Piece[]): boolean =>
    list.some(
      (p) => typeof p === 'object' && 'bar' in p && p.bar.some((q) => typeof q === 'object' && 'bar' in q),
    );
  if (deep(all)) return written(expression, 'prime');
  const mark = (piece: Piece): string =>
    typeof piece === 'string' ? piece : 'bar' in piece ? `~{${piece.bar.map(mark).join('')}}` : piece.name;
  return all.map(mark).join('');
}

/** The edits that bring each formula on a sheet up to date with its circuit, or its table. */
export function updateFormulaNotes(lesson: Lesson): Edit[] {
  const edits: Edit[] = [];
  for (const sheet of lesson.sheets)
    for (const part of sheet.parts.values()) {
      if (kindOf(part).follows !== 'formulas') continue;
      const { form, notation } = part.params as { form: Form; notation: Notation };
      const text = formulaText(sheet, lesson.sheets, form, notation);
      if (text === part.params.text) continue;
      const params: Params = { ...part.params, text };
      edits.push({ type: 'changePart', sheet: sheet.id, id: part.id, change: { params } });
    }
  return edits;
}
