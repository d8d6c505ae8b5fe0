import fc from 'fast-check';
import { expressionOf } from '../../testing/expressions';
import { type BooleanFunction, DONT_CARE, OFF, ON } from '../minimise/cube';
import { truthColumn } from './derivation';
import { type DerivableForm, deriveForm } from './derivation-forms';
import type { Expression } from './expression';
import { Formula, sizeOf } from './forms';
import { written } from './notation';

const NAMES = ['A', 'B', 'C', 'D'];
const FORMS: readonly DerivableForm[] = ['sop', 'pos', 'nand', 'nor', 'minterms', 'maxterms', 'xor'];

const wishes: fc.Arbitrary<BooleanFunction> = fc
  .integer({ min: 1, max: 4 })
  .chain((inputs) =>
    fc
      .array(fc.constantFrom(OFF, ON, OFF, ON, DONT_CARE), { minLength: 2 ** inputs, maxLength: 2 ** inputs })
      .map((rows) => ({ inputs, rows: Uint8Array.from(rows) })),
  );

/** The operators in an expression. */
function operators(e: Expression): string[] {
  if (e.op === 'name' || e.op === 'constant') return [];
  return [e.op, ...(e.op === 'not' ? [e.of] : e.of).flatMap(operators)];
}

test('the way to each form says the same at each step, and ends with what the form is', () => {
  fc.assert(
    fc.property(wishes, fc.constantFrom(...FORMS), (fn, form) => {
      const names = NAMES.slice(0, fn.inputs);
      const formula = new Formula('Y', names, fn);
      const aim = formula.in(form);
      const { from, made } = deriveForm(form, formula, null);
      if (!made.ok) throw new Error(made.problem.message);
      expect(from).toBeNull();
      const truth = truthColumn(aim, names);
      for (const { law, result } of made.value)
        expect([law, truthColumn(result, names)]).toEqual([law, truth]);
      const last = made.value.at(-1)?.result;
      if (!last) return;
      expect([form, sizeOf(last)]).toEqual([form, sizeOf(aim)]);
      if (form === 'nand' || form === 'nor') expect(operators(last).every((op) => op === form)).toBe(true);
    }),
    { numRuns: 400 },
  );
});

test('each place of a step says the same before and after, but for what is chosen', () => {
  fc.assert(
    fc.property(wishes, fc.constantFrom(...FORMS), (fn, form) => {
      const names = NAMES.slice(0, fn.inputs);
      const { made } = deriveForm(form, new Formula('Y', names, fn), null);
      if (!made.ok) throw new Error(made.problem.message);
      for (const { law, places } of made.value)
        if (!law.startsWith('Don’t-care'))
          for (const { before, after } of places)
            expect([law, truthColumn(after, names)]).toEqual([law, truthColumn(before, names)]);
    }),
    { numRuns: 200 },
  );
});

/** The derivation from a formula to a form, each step as its law and the resulting expression. */
function said(text: string, form: DerivableForm): string[] {
  const expression = expressionOf(text);
  const names = NAMES.filter((n) => text.includes(n));
  const rows = Uint8Array.from(truthColumn(expression, names), (c) => (c === '1' ? ON : OFF));
  const { made } = deriveForm(form, new Formula('Y', names, { inputs: names.length, rows }), expression);
  if (!made.ok) throw new Error(made.problem.message);
  return made.value.map((s) => `${s.law} → ${written(s.result, 'prime')}`);
}

test('the ways that are taught', () => {
  expect(said("A B + C'", 'nand')).toEqual([
    "Two inverses cancel: A = A'' → (AB + C')''",
    "De Morgan: (A + B)' = A' B' → ((AB)'C)'",
  ]);
  expect(said("A' B", 'nand')).toEqual([
    "Two inverses cancel: A = A'' → (A'B)''",
    "A' = (A A)' → ((A'B)'(A'B)')'",
    "A' = (A A)' → (((AA)'B)'((AA)'B)')'",
  ]);
  expect(said('A B', 'maxterms')).toEqual([
    "Two inverses cancel: A = A'' → (AB)''",
    "De Morgan, and a double inverse cancels → (A' + B')'",
    "A = A B + A B' → (A' + AB' + A'B')'",
    "A = A B + A B' → (A'B + A'B' + AB' + A'B')'",
    "A + A = A → (A'B + A'B' + AB')'",
    "De Morgan: (A + B)' = A' B' → (A + B')(A + B)(A' + B)",
  ]);
  expect(said("A B' + A' B", 'xor').at(-1)).toBe('A ⊕ A = 0 → A ⊕ B');
});

test('where either will do, it is said what is taken; more than six inputs are said to be too many', () => {
  const wish = { inputs: 2, rows: Uint8Array.of(OFF, DONT_CARE, OFF, ON) };
  const { made } = deriveForm('sop', new Formula('Y', ['A', 'B'], wish), null);
  expect(made.ok && made.value.map((s) => s.law)).toEqual([
    'Don’t-care in row 1: 1 is taken',
    "A B + A B' = A",
  ]);
  const wide = { inputs: 7, rows: new Uint8Array(128).fill(ON) };
  const names = ['A', 'B', 'C', 'D', 'E', 'F', 'G'];
  expect(deriveForm('sop', new Formula('Y', names, wide), null).made).toMatchObject({
    ok: false,
    problem: { message: '7 inputs are too many to be derived law by law' },
  });
});
