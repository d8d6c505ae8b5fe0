import type { SpecTable } from '../circuit/spec-table';
import { specFromNames } from '../logic/specification/spec-edits';
import { cell, truthTable } from '../logic/table/truth-table';
import { compile } from '../netlist/compile';
import { type CircuitForm, circuitOfSpec, costOf } from './circuit-of-spec';

/** The half adder of the ticket desk: adults and children of one bit. */
const HALF_ADDER: SpecTable = {
  inputs: ['A', 'C'],
  outputs: [
    { name: 'Sum', rows: '0110' },
    { name: 'Carry', rows: '0001' },
  ],
};
const as = (form: CircuitForm['form']): CircuitForm => ({ form, mostInputs: 8, isShared: true });

test('gates, their inputs, levels and delay are those that one counts by hand', () => {
  // A'C + AC' takes two NOT, two AND and an OR; AC one AND more. NOT 6, AND and OR 10 ns each.
  expect(costOf(HALF_ADDER, as('sop'))).toEqual({ gates: 6, inputs: 10, levels: 3, delayPs: 26_000 });
  // An exclusive-or and an AND: 14 ns, beside 10 of the AND.
  expect(costOf(HALF_ADDER, as('mixed'))).toEqual({ gates: 2, inputs: 4, levels: 1, delayPs: 14_000 });
});

test('what is weighed is what is drawn, and does what the table says', () => {
  for (const form of ['sop', 'pos', 'nand', 'nor', 'mixed', 'xor', 'minterms'] as const) {
    const sheet = circuitOfSpec(HALF_ADDER, as(form), 's1', 'Half adder');
    const lamps = [...sheet.parts.values()].filter((p) => p.kind === 'lamp' || p.kind === 'switch');
    expect([form, sheet.parts.size - lamps.length]).toEqual([form, costOf(HALF_ADDER, as(form)).gates]);
    const table = truthTable(compile(sheet, [sheet]));
    const rows = [0, 1].map((o) => [0, 1, 2, 3].map((row) => cell(table, o, row)).join(''));
    expect([form, ...rows]).toEqual([form, '0110', '0001']);
  }
});

test('gates of two inputs cost more levels', () => {
  const made = specFromNames('K, B, P, S, R = D');
  if (!made.ok) throw new Error(made.problem.message);
  const plan = { ...made.value, outputs: [{ name: 'D', rows: `${'0'.repeat(31)}1` }] };
  expect(costOf(plan, as('sop'))).toMatchObject({ gates: 1, inputs: 5, levels: 1 });
  expect(costOf(plan, { ...as('sop'), mostInputs: 2 })).toMatchObject({ gates: 4, inputs: 8, levels: 3 });
});
