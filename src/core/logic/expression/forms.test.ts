import fc from 'fast-check';
import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import { expressionOf } from '../../testing/expressions';
import { randomSheet } from '../../testing/random-circuit';
import { interlock } from '../../testing/sketch';
import { expectDone } from '../../values/result';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../minimise/cube';
import { cell, truthTable } from '../table/truth-table';
import { type Expression, evaluate } from './expression';
import { drawnForm, FORMS, type Form, Formula, rowList, sizeOf } from './forms';
import { code, NOTATIONS, pieces, written } from './notation';
import { readFormulas } from './typed-formulas';

const NAMES = ['A', 'B', 'Key', 'Q_0', 'Count[1]', 'Bars down'];
const wish: fc.Arbitrary<BooleanFunction> = fc
  .integer({ min: 1, max: 5 })
  .chain((inputs) =>
    fc
      .array(fc.constantFrom(OFF, ON, ON, OFF, DONT_CARE), { minLength: 2 ** inputs, maxLength: 2 ** inputs })
      .map((rows) => ({ inputs, rows: Uint8Array.from(rows) })),
  );
const DERIVED = FORMS.filter((f) => f !== 'drawn');

const column = (e: Expression, names: readonly string[]) =>
  Array.from({ length: 2 ** names.length }, (_, row) =>
    evaluate(e, new Map(names.map((n, i) => [n, ((row >> (names.length - 1 - i)) & 1) as 0 | 1]))),
  );
const agrees = (e: Expression, { inputs, rows }: BooleanFunction) =>
  column(e, NAMES.slice(0, inputs)).every(
    (v, row) => rows[row] === DONT_CARE || v === (rows[row] === ON ? 1 : 0),
  );

test('every form of a function is the function', () => {
  fc.assert(
    fc.property(wish, (f) => {
      const all = new Formula('Y', NAMES.slice(0, f.inputs), f);
      for (const form of DERIVED) expect([form, agrees(all.in(form), f)]).toEqual([form, true]);
    }),
    { numRuns: 300 },
  );
});

test('NAND only and NOR only hold nothing else', () => {
  const kinds = (e: Expression): string[] =>
    e.op === 'name' || e.op === 'constant' ? [] : [e.op, ...(e.op === 'not' ? [e.of] : e.of).flatMap(kinds)];
  fc.assert(
    fc.property(wish, (f) => {
      const all = new Formula('Y', NAMES.slice(0, f.inputs), f);
      for (const kind of ['nand', 'nor'] as const)
        expect(kinds(all.in(kind)).every((k) => k === kind)).toBe(true);
    }),
  );
});

test('what is written in any notation can be read again, and code runs to the same', () => {
  fc.assert(
    fc.property(wish, fc.constantFrom(...DERIVED), (f, form) => {
      const names = NAMES.slice(0, f.inputs);
      const expression = new Formula('Y', names, f).in(form);
      const before = column(expression, names);
      for (const notation of NOTATIONS) {
        const text = written(expression, notation);
        const read = readFormulas(text, names);
        if (!read.ok) throw new Error(`${text}: ${read.problem.message} at ${read.problem.place.offset}`);
        expect(column(read.value[0]!.expression, names)).toEqual(before);
      }
      const script = code([{ name: 'Y', expression }], names, 'javascript');
      const run = new Function(`${script}; return Y;`)() as (...values: boolean[]) => boolean;
      const made = before.map((_, row) => {
        const values = names.map((_, i) => ((row >> (names.length - 1 - i)) & 1) === 1);
        return run(...values) ? 1 : 0;
      });
      expect(made).toEqual(before);
      const verilog = readVerilog(code([{ name: 'Y', expression }], names, 'verilog'), 'formula');
      if (!verilog.ok) throw new Error(verilog.problem.message);
      const table = truthTable(compile(verilog.value.sheets[0]!, verilog.value.sheets));
      expect(before.map((_, row) => cell(table, 0, row))).toEqual(before);
    }),
    { numRuns: 60 },
  );
});

test('the notations of one expression', () => {
  const e = expressionOf("A'B + (C xor Key)'");
  expect(NOTATIONS.map((n) => written(e, n))).toEqual([
    "A'B + (C ⊕ Key)'",
    '\\overline{A}B + \\overline{C \\oplus \\mathit{Key}}',
    '¬A ∧ B ∨ ¬(C ⊕ Key)',
    'not A and B or not (C xor Key)',
    '~A & B | ~(C ^ Key)',
    '!A && B || !(C != Key)',
    'not A and B or not (C != Key)',
    '!A && B || !(C !== Key)',
  ]);
  expect(pieces(e)).toEqual([
    { bar: [{ name: 'A' }] },
    { name: 'B' },
    ' + ',
    { bar: [{ name: 'C' }, ' ⊕ ', { name: 'Key' }] },
  ]);
});

test('code carries its test table and leaves the words of the language alone', () => {
  const expression = expressionOf('Lambda and In', ['Lambda', 'In']);
  const text = code([{ name: 'Sum', expression }], ['Lambda', 'In'], 'python');
  expect(text).toBe(
    [
      'def Sum(Lambda_, In_):',
      '    return Lambda_ and In_',
      '',
      '# Lambda In | Sum',
      '# 0      0  | 0',
      '# 0      1  | 0',
      '# 1      0  | 0',
      '# 1      1  | 1',
      '',
    ].join('\n'),
  );
});

test('what a circuit is drawn as is what it does; what cannot be written says why', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 4, gates: 8 }), (sheet) => {
      const netlist = compile(sheet);
      const table = truthTable(netlist);
      for (const [o, output] of netlist.outputColumns.entries()) {
        const drawn = drawnForm(netlist, output.nets[0]);
        if (!drawn.ok) continue;
        const names = netlist.inputColumns.map((c) => c.name);
        expect(column(drawn.value, names)).toEqual(
          Array.from({ length: table.rows }, (_, r) => cell(table, o, r)),
        );
      }
    }),
  );
  const { sheet } = interlock();
  const netlist = compile(sheet);
  const forms = netlist.outputColumns.map((c) => drawnForm(netlist, c.nets[0]));
  expect(forms.map((f) => written(expectDone(f), 'prime'))).toEqual(['Key Bars Clear', "Key Bars'"]);
  const cut = compile({ ...sheet, wires: new Map([...sheet.wires].slice(1)) });
  expect(drawnForm(cut, cut.outputColumns[0]!.nets[0])).toMatchObject({ problem: { code: 'undriven' } });
});

test('how large an expression is', () => {
  const size = (text: string) => sizeOf(expressionOf(text));
  expect(size("A'B + A'C")).toEqual({ terms: 2, literals: 4, gates: 4, levels: 3 });
  expect(size('ABC')).toEqual({ terms: 1, literals: 3, gates: 1, levels: 1 });
  expect(size("A'")).toEqual({ terms: 1, literals: 1, gates: 1, levels: 1 });
  expect(size('1')).toEqual({ terms: 0, literals: 0, gates: 0, levels: 0 });
});

test('terms of a single product or sum, by the form', () => {
  const terms = (text: string, form: Form) => sizeOf(expressionOf(text), form).terms;
  expect([terms("A'B'C", 'sop'), terms("A'B'C", 'pos')]).toEqual([1, 3]);
  expect([terms('A + B + C', 'sop'), terms('A + B + C', 'pos')]).toEqual([3, 1]);
  expect([terms('A', 'sop'), terms("A'", 'pos'), terms('0', 'pos')]).toEqual([1, 1, 0]);
  expect(terms('(A + B)(A + C)', 'pos')).toBe(2);
});

test('rows as a list', () => {
  const wish = { inputs: 3, rows: Uint8Array.from([OFF, ON, DONT_CARE, ON, OFF, OFF, OFF, ON]) };
  expect(rowList(wish, 'ones')).toBe('Σm(1, 3, 7) d(2)');
  expect(rowList(wish, 'zeros')).toBe('ΠM(0, 4, 5, 6) d(2)');
  expect(rowList({ inputs: 9, rows: new Uint8Array(512).fill(ON) }, 'ones')).toBeNull();
});
