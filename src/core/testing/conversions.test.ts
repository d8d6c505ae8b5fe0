import fc from 'fast-check';
import { emptyLesson } from '../circuit/lesson';
import type { Sheet } from '../circuit/sheet';
import type { SpecTable } from '../circuit/spec-table';
import { readLesson } from '../formats/lesson-file';
import { readVerilog } from '../formats/verilog/read';
import { writeVerilog } from '../formats/verilog/write';
import { writeLesson } from '../formats/write-lesson';
import { drawnForm, FORMS, type Form, Formula } from '../logic/expression/forms';
import { code, isCode, NOTATIONS, type Notation, written } from '../logic/expression/notation';
import { layoutOf, MOST_ON_MAP, rowAt, sizeOfAxis } from '../logic/map/map';
import {
  functionOfSpec,
  specOfTable,
  specWithNames,
  withColumnAt,
  withLetters,
} from '../logic/specification/spec-edits';
import { specFromFormulas } from '../logic/specification/spec-formulas';
import { specFromText, specLines } from '../logic/specification/spec-text';
import { deriveTable } from '../logic/table/derive-table';
import { compile } from '../netlist/compile';
import { circuitOfSpec } from '../synthesis/circuit-of-spec';
import { expectDone, type Result } from '../values/result';

/*
 * Every face of a function can be made into every other one: a table into a circuit of each form, a circuit
 * into its table and the formulas of its gates, a formula in each notation into a table, and all of them into
 * files and back. The function stays the same on every path.
 */

const NAMES = ['Key', 'B', 'Clear_2', 'In', 'Park brake'];
const OUTPUTS = ['Drive', 'Warn', 'Out[1]'];
type DerivedForm = Exclude<Form, 'drawn'>;
const DERIVED = FORMS.filter((f): f is DerivedForm => f !== 'drawn');

const must = (made: Result<SpecTable>): SpecTable => expectDone(made);
const blank = (plan: SpecTable) =>
  must(
    specWithNames(
      plan.inputs,
      plan.outputs.map((o) => o.name),
    ),
  );

const lessonOf = (sheet: Sheet) => ({ ...emptyLesson('conversions', 'Conversions'), sheets: [sheet] });
const sheetRead = (read: ReturnType<typeof readLesson>): Sheet => {
  if (!read.ok) throw new Error(read.problem.message);
  return read.value.sheets[0]!;
};

/** A table of a circuit, its columns called as in the plan that it came from, in their order. */
function tableOf(sheet: Sheet, plan: SpecTable): SpecTable {
  const made = specOfTable(deriveTable(compile(sheet, [sheet])))!;
  return {
    inputs: plan.inputs,
    outputs: made.outputs.map(({ rows }, o) => ({ name: plan.outputs[o]!.name, rows })),
  };
}

interface Choices {
  readonly form: DerivedForm;
  readonly notation: Notation;
  readonly mostInputs: number;
  readonly isShared: boolean;
}

/** Each a way from a table over other faces, or over files, back to a table. */
const WAYS: Readonly<Record<string, (plan: SpecTable, choices: Choices) => SpecTable>> = {
  'by a circuit': (plan, as) => tableOf(circuitOfSpec(plan, as, 's1', 'Drawn'), plan),
  'by a circuit in a lesson file': (plan, as) => {
    const sheet = circuitOfSpec(plan, as, 's1', 'Drawn');
    return tableOf(sheetRead(readLesson(writeLesson(lessonOf(sheet)))), plan);
  },
  'by a circuit in Verilog': (plan, as) => {
    const sheet = circuitOfSpec(plan, as, 's1', 'Drawn');
    return tableOf(sheetRead(readVerilog(writeVerilog(lessonOf(sheet), sheet), 'Drawn')), plan);
  },
  'by a circuit and the formulas of its gates': (plan, as) => {
    const netlist = compile(circuitOfSpec(plan, as, 's1', 'Drawn'));
    const drawn = netlist.outputColumns.map(({ name, nets }) => ({
      name,
      form: drawnForm(netlist, nets[0]),
    }));
    // A circuit of many gates is refused as one formula: this way is closed to it, and the table stays as it was.
    if (drawn.some(({ form }) => !form.ok && form.problem.code === 'too-large')) return plan;
    const lines = drawn.map(({ name, form }) => `${name} = ${written(expectDone(form), as.notation)}`);
    return must(specFromFormulas(blank(plan), lines.join('\n')));
  },
  'by formulas': (plan, { form, notation }) => {
    const lines = formulasOf(plan).map((f) => `${f.name} = ${written(f.in(form), notation)}`);
    return must(specFromFormulas(blank(plan), lines.join('\n')));
  },
  'by code': (plan, { form, notation }) => {
    const functions = formulasOf(plan).map((f) => ({ name: f.name, expression: f.in(form) }));
    const text = code(functions, plan.inputs, isCode(notation) ? notation : 'c');
    return must(specFromFormulas(blank(plan), text));
  },
  'as CSV': (plan) => must(specFromText([...specLines(plan, 'csv')].join('\r\n'))),
  'over a spreadsheet': (plan) => must(specFromText([...specLines(plan, 'tsv')].join('\n'))),
  'as Markdown': (plan) => must(specFromText([...specLines(plan, 'md')].join('\n'))),
  'with its first input last and first again': (plan) => {
    const first = plan.inputs[0]!;
    return withColumnAt(withColumnAt(plan, first, plan.inputs.length - 1), first, 0);
  },
  'cell by cell over a map': (plan) =>
    plan.outputs.reduce((so, column, o) => withLetters(so, o, cellsOfMap(plan, column.rows)), blank(plan)),
};

const formulasOf = (plan: SpecTable) =>
  plan.outputs.map((o, i) => new Formula(o.name, plan.inputs, functionOfSpec(plan, i)));

/** The letters of a column as one reads them off its map. */
function cellsOfMap(plan: SpecTable, rows: string): Map<number, string> {
  const cells = new Map<number, string>();
  const layout = layoutOf(plan.inputs.map((_, i) => plan.inputs.length - 1 - i));
  for (let layer = 0; layer < sizeOfAxis(layout.layers); layer++)
    for (let down = 0; down < sizeOfAxis(layout.down); down++)
      for (let across = 0; across < sizeOfAxis(layout.across); across++) {
        const row = rowAt(layout, layer, down, across);
        cells.set(row, rows[row]!);
      }
  return cells;
}

const plans: fc.Arbitrary<SpecTable> = fc
  .tuple(fc.integer({ min: 2, max: Math.min(NAMES.length, MOST_ON_MAP) }), fc.integer({ min: 1, max: 3 }))
  .chain(([inputs, outputs]) =>
    fc
      .array(
        fc
          .array(fc.constantFrom('0', '1', '0', '1', 'x'), { minLength: 2 ** inputs, maxLength: 2 ** inputs })
          .map((letters) => letters.join('')),
        { minLength: outputs, maxLength: outputs },
      )
      .map((columns) => ({
        inputs: NAMES.slice(0, inputs),
        outputs: columns.map((rows, o) => ({ name: OUTPUTS[o]!, rows })),
      })),
  );

const choices: fc.Arbitrary<Choices> = fc.record({
  form: fc.constantFrom(...DERIVED),
  notation: fc.constantFrom(...NOTATIONS),
  mostInputs: fc.constantFrom(2, 3, 8),
  isShared: fc.boolean(),
});

/** Where two tables of the same names differ, but in cells where the first one leaves it open. */
const differing = (plan: SpecTable, other: SpecTable) =>
  plan.outputs.flatMap(({ name, rows }, o) =>
    [...rows].flatMap((letter, row) =>
      letter === 'x' || other.outputs[o]!.rows[row] === letter ? [] : [`${name} ${row}`],
    ),
  );

test('whatever way a function goes from face to face, it stays what it was', () => {
  fc.assert(
    fc.property(
      plans,
      fc.array(fc.tuple(fc.constantFrom(...Object.keys(WAYS)), choices), { minLength: 1, maxLength: 6 }),
      (plan, steps) => {
        let now = plan;
        for (const [way, as] of steps) {
          now = WAYS[way]!(now, as);
          expect([way, now.inputs, now.outputs.map((o) => o.name)]).toEqual([
            way,
            plan.inputs,
            plan.outputs.map((o) => o.name),
          ]);
          expect([way, differing(plan, now)]).toEqual([way, []]);
        }
      },
    ),
    { numRuns: 60 },
  );
});

test('each way on its own keeps a function, whatever the form and the notation', () => {
  const plan = must(specFromText('Key,B,Clear_2,=,Drive\n0,0,0,,0\n0,1,1,,1\n1,0,1,,1\n1,1,0,,0\n1,1,1,,1'));
  for (const way of Object.keys(WAYS))
    for (const [i, form] of DERIVED.entries()) {
      const notation = NOTATIONS[i % NOTATIONS.length]!;
      const made = WAYS[way]!(plan, { form, notation, mostInputs: 2, isShared: true });
      for (const [row, letter] of [...plan.outputs[0]!.rows].entries())
        if (letter === '0' || letter === '1')
          expect([way, form, row, made.outputs[0]!.rows[row]]).toEqual([way, form, row, letter]);
    }
});
