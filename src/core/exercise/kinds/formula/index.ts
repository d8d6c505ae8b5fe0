import type { Task } from '../../../circuit/exercise';
import { type Expression, evaluate, namesOf } from '../../../logic/expression/expression';
import { sizeOf } from '../../../logic/expression/forms';
import { readFormulas } from '../../../logic/expression/typed-formulas';
import { type BooleanFunction, complement, literalCount } from '../../../logic/minimise/cube';
import { minimise } from '../../../logic/minimise/minimise';
import { sameName } from '../../../values/names';
import { done, type Result, refused, sentence } from '../../../values/result';
import { type Infer, text, whole, z } from '../../../values/schema';
import { listed } from '../../../values/wording';
import { GIVEN, SCRATCH } from '../../rules';
import { blanked, caredFor, withDontCares } from '../dont-cares';
import { FunctionRows, functionOf } from '../function';
import { type TaskKind, wrongIn } from '../task-kind';

const MOST_LETTERS = 1000;

/** The forms that can be asked for. */
export const WANTED_FORMS = ['any', 'sum of products', 'product of sums', 'NAND only', 'NOR only'] as const;
export type WantedForm = (typeof WANTED_FORMS)[number];

const Asked = z.object({
  inputs: z.array(text(40)).check(z.minLength(1), z.maxLength(6)),
  output: text(40),
  form: z.enum(WANTED_FORMS),
  /** Literals that it may have; null for any number. */
  mostLiterals: z.nullable(whole(1, 200)),
  /** Whether the student sees the table of the function. */
  showsTable: z.boolean(),
});

const Key = z.object({ function: FunctionRows });

const Answer = z.object({ kind: z.literal('formula'), text: text(MOST_LETTERS) });

export type FormulaAsked = Infer<typeof Asked>;
export type FormulaKey = Infer<typeof Key>;
export type FormulaAnswer = Infer<typeof Answer>;
export type FormulaTask = Task<FormulaAsked, FormulaKey>;

/** What is found of an answer. */
export interface FormulaCheck {
  readonly expression: Expression | null;
  /** The letters that it gives in each row. */
  readonly rows: string;
  readonly isRight: readonly boolean[];
  readonly literals: number;
  /** The fewest literals in this form; null if unknown. */
  readonly smallest: number | null;
}

/** Reads an answer: an expression of the inputs alone, with or without the name of the output before it. */
export function readAnswer({ inputs, output }: FormulaAsked, typed: string): Result<Expression> {
  const read = readFormulas(typed, inputs, [output]);
  if (!read.ok) return read;
  const [only, more] = read.value;
  if (!only) return refused('empty', 'nothing is filled in yet');
  if (more) return refused('several', 'one formula is asked for');
  if (only.name && !sameName(only.name, output))
    return refused('other-output', `a formula of ${output} is asked for, not of ${only.name}`);
  const strange = namesOf(only.expression).filter((name) => !inputs.some((input) => sameName(input, name)));
  return strange.length > 0
    ? refused('unknown-name', `${listed(strange)} is not an input here: ${listed(inputs)}`)
    : done(only.expression);
}

/** The value of an expression in a row. */
function letterIn(expression: Expression, inputs: readonly string[], row: number): string {
  const values = new Map<string, 0 | 1>();
  for (const name of namesOf(expression)) {
    const at = inputs.findIndex((input) => sameName(input, name));
    values.set(name, ((row >> (inputs.length - 1 - at)) & 1) as 0 | 1);
  }
  return String(evaluate(expression, values));
}

const isLiteral = (e: Expression): boolean => e.op === 'name' || (e.op === 'not' && e.of.op === 'name');
const isTermOf = (op: 'and' | 'or', e: Expression): boolean =>
  isLiteral(e) || (e.op === op && e.of.every(isLiteral));
/** Whether only one kind of gate stands in it; a NOT counts as one with its inputs tied. */
const isMadeOf = (gate: 'nand' | 'nor', e: Expression): boolean =>
  e.op === 'name' ||
  (e.op === 'not' ? isMadeOf(gate, e.of) : e.op === gate && e.of.every((part) => isMadeOf(gate, part)));

/** Whether an expression is written in a form. */
export function isInForm(e: Expression, form: WantedForm): boolean {
  switch (form) {
    case 'any':
      return true;
    case 'sum of products':
      return (
        e.op === 'constant' ||
        isTermOf('and', e) ||
        (e.op === 'or' && e.of.every((term) => isTermOf('and', term)))
      );
    case 'product of sums':
      return (
        e.op === 'constant' ||
        isTermOf('or', e) ||
        (e.op === 'and' && e.of.every((term) => isTermOf('or', term)))
      );
    case 'NAND only':
      return isMadeOf('nand', e);
    case 'NOR only':
      return isMadeOf('nor', e);
  }
}

/** Literals of the smallest expression in a form; null for the forms of one gate, whose smallest is not known. */
export function smallestIn(form: WantedForm, of: FunctionRows): number | null {
  if (form === 'NAND only' || form === 'NOR only') return null;
  const fn = functionOf(of);
  const literals = (ones: BooleanFunction) =>
    minimise(ones).cubes.reduce((sum, cube) => sum + literalCount(cube), 0);
  if (form === 'sum of products') return literals(fn);
  if (form === 'product of sums') return literals(complement(fn));
  return Math.min(literals(fn), literals(complement(fn)));
}

const NOT_IN_FORM: Readonly<Record<WantedForm, string>> = {
  any: '',
  'sum of products': 'It is not a sum of products.',
  'product of sums': 'It is not a product of sums.',
  'NAND only': 'It has other operations than NAND.',
  'NOR only': 'It has other operations than NOR.',
};

const NO_CHECK: FormulaCheck = { expression: null, rows: '', isRight: [], literals: 0, smallest: null };

/** A formula is asked for: equivalence and form are checked, and its distance from the smallest is told. */
export const formula = {
  kind: 'formula',
  name: 'Write a formula',
  says: 'The student writes an expression of a function, in a form or with few literals where you want that.',
  gistName: 'Formula',
  asked: Asked,
  key: Key,
  answer: Answer,
  unsealable: ({ asked }) => (asked.showsTable ? 'the table of its function is shown' : null),
  strange: ({ asked, key: { function: of } }) =>
    of.output === asked.output && of.inputs.join() === asked.inputs.join()
      ? null
      : 'its inputs and its output are not those of its function',
  hashed: {
    blank: ({ key }) => ({ function: { ...key.function, rows: blanked(key.function.rows) } }),
    wanted: ({ key }) => key.function.rows,
    given: ({ key }, { complaints, detail }) =>
      complaints.length > 0 ? null : withDontCares(key.function.rows, detail.rows),
    bits: ({ key }) => caredFor(key.function.rows),
  },
  // Two formulas of one function, in one form, are one answer.
  said: ({ asked }, { gist, complaints, detail }) =>
    detail.expression
      ? `${detail.rows} ${isInForm(detail.expression, asked.form)} ${complaints.length}`
      : gist || null,
  wrongUnits: (_, { detail }) => wrongIn(detail.isRight),
  unitName: (_, row) => `row ${row}`,
  rules: ({ given }) => (given ? GIVEN : SCRATCH),
  mark({ asked, key }, { answer }) {
    const typed = answer?.text.trim() ?? '';
    const wanted = key.function.rows;
    const read = typed ? readAnswer(asked, typed) : refused('empty', 'nothing is filled in yet');
    if (!read.ok)
      return {
        right: 0,
        of: wanted.length,
        word: 'row',
        complaints: [sentence(read.problem)],
        solved: false,
        wrong: null,
        gist: typed,
        detail: NO_CHECK,
      };
    const expression = read.value;
    const rows = [...wanted].map((_, row) => letterIn(expression, asked.inputs, row)).join('');
    const isRight = [...wanted].map((letter, row) => letter === 'x' || letter === rows[row]);
    const right = isRight.filter(Boolean).length;
    const { literals } = sizeOf(expression);
    const smallest = smallestIn(asked.form, key.function);
    const complaints: string[] = [];
    if (!isInForm(expression, asked.form)) complaints.push(NOT_IN_FORM[asked.form]);
    if (asked.mostLiterals !== null && literals > asked.mostLiterals)
      complaints.push(`It has ${literals} literals, and ${asked.mostLiterals} are allowed.`);
    const wrongRows = isRight.flatMap((ok, row) => (ok ? [] : [row]));
    return {
      right,
      of: wanted.length,
      word: 'row',
      complaints,
      solved: right === wanted.length && complaints.length === 0,
      wrong:
        wrongRows.length === 0 || right === 0
          ? null
          : `${wrongRows.length === 1 ? 'row' : 'rows'} ${wrongRows.slice(0, 6).join(', ')}${wrongRows.length > 6 ? ' …' : ''}`,
      remark:
        smallest !== null && literals > smallest && right === wanted.length
          ? `It has ${literals} literals; ${smallest} are enough.`
          : undefined,
      gist: typed,
      detail: { expression, rows, isRight, literals, smallest },
    };
  },
} satisfies TaskKind<FormulaAsked, FormulaKey, FormulaAnswer, FormulaCheck>;
