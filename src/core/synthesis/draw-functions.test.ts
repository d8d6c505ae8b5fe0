import fc from 'fast-check';
import { apply } from '../circuit/edit';
import { courseOf } from '../drawing/geometry/placement';
import { FORMS, Formula } from '../logic/expression/forms';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../logic/minimise/cube';
import { cell, truthTable } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { expressionOf } from '../testing/expressions';
import { interlock } from '../testing/sketch';
import { expectTidy } from '../testing/tidy-sheet';
import { ONE } from '../values/logic';
import { drawFunctions, replaceCircuit } from './draw-functions';

const NAMES = ['Key', 'Bars', 'Clear', 'Turn'];
const DERIVED = FORMS.filter((f) => f !== 'drawn');
const fns = fc.integer({ min: 2, max: 4 }).chain((inputs) =>
  fc.array(
    fc
      .array(fc.constantFrom(OFF, ON, ON, OFF, DONT_CARE), { minLength: 2 ** inputs, maxLength: 2 ** inputs })
      .map((rows): BooleanFunction => ({ inputs, rows: Uint8Array.from(rows) })),
    { minLength: 1, maxLength: 3 },
  ),
);

test('what is drawn in any form does what was asked, with no gate too wide and nothing loose', () => {
  fc.assert(
    fc.property(
      fns,
      fc.constantFrom(...DERIVED),
      fc.constantFrom(2, 3, 8),
      fc.boolean(),
      (all, form, mostInputs, isShared) => {
        const names = NAMES.slice(0, all[0]!.inputs);
        const functions = all.map((fn, i) => ({
          name: `Y${i}`,
          expression: new Formula(`Y${i}`, names, fn).in(form),
        }));
        const sheet = drawFunctions('s', 'Drawn', names, functions, { mostInputs, isShared });
        const netlist = compile(sheet);
        const table = truthTable(netlist);
        expect(table.inputs).toEqual(names);
        for (const [o, fn] of all.entries())
          for (const [row, value] of fn.rows.entries())
            if (value !== DONT_CARE) expect(cell(table, o, row) === ONE).toBe(value === ON);
        for (const { kind, params } of sheet.parts.values()) {
          if (typeof params.inputs === 'number') expect(params.inputs).toBeLessThanOrEqual(mostInputs);
          if (form === 'nand' || form === 'nor') expect([form, 'switch', 'lamp', 'constant']).toContain(kind);
        }
        expect(netlist.diagnostics.filter((d) => d.severity === 'problem')).toEqual([]);
      },
    ),
    { numRuns: 60 },
  );
});

test('a drawn circuit is tidy', () => {
  const fn: BooleanFunction = { inputs: 3, rows: Uint8Array.from([0, 0, 0, 1, 1, 1, 0, 1]) };
  for (const form of DERIVED) {
    const expression = new Formula('Y', NAMES.slice(0, 3), fn).in(form);
    expectTidy(drawFunctions('s', 'Drawn', NAMES.slice(0, 3), [{ name: 'Y', expression }]));
  }
});

test('what two outputs have in common is built once, or for each on its own', () => {
  const and = {
    op: 'and' as const,
    of: ['Key', 'Bars'].map((name) => ({ op: 'name' as const, name, at: 0 })),
  };
  const functions = ['Drive', 'Warn'].map((name) => ({ name, expression: and }));
  const gates = (isShared: boolean) =>
    [...drawFunctions('s', 'S', ['Key', 'Bars'], functions, { isShared }).parts.values()].filter(
      (p) => p.kind === 'and',
    ).length;
  expect([gates(true), gates(false)]).toEqual([1, 2]);
});

test('a circuit in the place of another keeps its switches and lamps and the notes, in one edit', () => {
  const s = interlock();
  const before = [...s.sheet.parts.values()].filter((p) => p.kind === 'switch').map((p) => p.id);
  const key = { op: 'name' as const, name: 'Key', at: 0 };
  const circuit = drawFunctions('x', 'X', ['Key', 'Bars', 'Clear'], [{ name: 'Drive', expression: key }]);
  const applied = apply(s.lesson, replaceCircuit(s.sheet, circuit));
  if (!applied.ok) throw new Error(applied.problem.message);
  const after = applied.value.sheets[0]!;
  expect([...after.parts.values()].filter((p) => p.kind === 'switch').map((p) => p.id)).toEqual(before);
  const table = truthTable(compile(after));
  expect([table.outputs, table.rows]).toEqual([['Drive'], 8]);
});

test('no wire leads round behind the switches, however many there are', () => {
  const names = [...'ABCDEFGHIJ'];
  const functions = [
    ['Y', "ABCD' + AH' + AI' + AJ' + A'HIJ + EFG'"],
    ['Z', "ABCD' + J"],
  ].map(([name, text]) => ({ name: name!, expression: expressionOf(text!, names) }));
  const sheet = drawFunctions('s', 'Drawn', names, functions);
  const switches = [...sheet.parts.values()].filter((p) => p.kind === 'switch');
  const left = Math.min(...switches.map((p) => p.at.x));
  for (const wire of sheet.wires.values())
    for (const { x } of courseOf(sheet, wire)) expect(x).toBeGreaterThanOrEqual(left);
});
