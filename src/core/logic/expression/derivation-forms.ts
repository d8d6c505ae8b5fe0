import { done } from '../../values/result';
import { type BooleanFunction, type Cube, complement, DONT_CARE, sameCube } from '../minimise/cube';
import { inputAt } from '../table/truth-table';
import {
  and,
  type Derivation,
  MOST_INPUTS_DERIVED,
  MOST_TERMS,
  not,
  or,
  recorded,
  StepRecorder,
  TooLong,
  termsOf,
  toSmallest,
  toSum,
  truthColumn,
} from './derivation';
import { type Expression, evaluate } from './expression';
import { type Form, type Formula, literalsOf, minterms, productOf, sumOf } from './forms';

/*
 * The ways from an expression, or from the rows of a table, to each of the forms.
 */

/** The forms to which there is a way law by law. */
export type DerivableForm = Exclude<Form, 'drawn' | 'mixed'>;
export const isDerivable = (form: Form): form is DerivableForm => form !== 'drawn' && form !== 'mixed';

const DOUBLE = "Two inverses cancel: A = A''";
const DE_MORGAN = { or: "De Morgan: (A + B)' = A' B'", and: "De Morgan: (A B)' = A' + B'" } as const;
const TIED = { nand: "A' = (A A)'", nor: "A' = (A + A)'" } as const;

/** Forms to which one comes more shortly from the rows at which the function is 0. */
const BY_ZEROS: ReadonlySet<DerivableForm> = new Set(['pos', 'nor', 'maxterms']);

/** A derivation with its start. */
export interface FormDerivation {
  /** The first expression; null if it begins with the rows of the table. */
  readonly from: Expression | null;
  /** The rows of the products: the ones of the function, or its zeros. */
  readonly rows: 'minterms' | 'maxterms';
  readonly made: Derivation;
}

/**
 * The derivation of a function's form, law by law, each step checked in all rows.
 * @param drawn an expression of the function that exists already. Without one, or if it decides don't-cares
 *   differently, or if the derivation from it is too long, it begins with the rows of the table.
 */
export function deriveForm(form: DerivableForm, formula: Formula, drawn: Expression | null): FormDerivation {
  const { names, fn } = formula;
  const rows = BY_ZEROS.has(form) ? 'maxterms' : 'minterms';
  const go = (start: Expression) =>
    recorded(() => {
      const steps = new StepRecorder(start, names);
      ROADS[form](steps, formula);
      return steps.steps;
    });
  if (names.length > MOST_INPUTS_DERIVED) return { from: null, rows, made: go({ op: 'constant', value: 0 }) };
  const aim = formula.in(form);
  if (drawn && truthColumn(drawn, names) === truthColumn(aim, names)) {
    const made = go(drawn);
    if (made.ok) return { from: drawn, rows, made };
  }
  const written = (of: BooleanFunction) =>
    rows === 'minterms' ? sumOf(minterms(of), names) : productOf(minterms(complement(of)), names);
  const start = written(completed(fn, names, aim));
  const made = go(start);
  const taken = rows === 'minterms' ? 1 : 0;
  const chosen = [...fn.rows.keys()].filter(
    (row) => fn.rows[row] === DONT_CARE && valueIn(aim, names, row) === taken,
  );
  if (!made.ok || chosen.length === 0) return { from: null, rows, made };
  // Choosing a value for a don't-care is no law but a choice.
  const law = `Don’t-care in ${rowsText(chosen)}: ${taken} is taken`;
  const choice = { law, places: [{ before: written(fn), after: start }], result: start };
  return { from: null, rows, made: done([choice, ...made.value]) };
}

const rowsText = (rows: readonly number[]) => `${rows.length === 1 ? 'row' : 'rows'} ${rows.join(', ')}`;

const valueIn = (e: Expression, names: readonly string[], row: number) =>
  evaluate(e, new Map(names.map((n, i) => [n, inputAt(names.length, i, row)])));

/** The function with its don't-cares decided by an expression. */
function completed(fn: BooleanFunction, names: readonly string[], aim: Expression): BooleanFunction {
  return {
    ...fn,
    rows: fn.rows.map((value, row) => (value === DONT_CARE ? valueIn(aim, names, row) : value)),
  };
}

const ROADS: Readonly<Record<DerivableForm, (way: StepRecorder, formula: Formula) => void>> = {
  sop: toSop,
  pos: toPos,
  nand: (steps, formula) => {
    toSop(steps, formula);
    byOneKind(steps, 'nand');
  },
  nor: (steps, formula) => {
    toPos(steps, formula);
    byOneKind(steps, 'nor');
  },
  minterms: (steps) => {
    toSum(steps);
    expand(steps);
  },
  maxterms: (steps) =>
    overInverse(steps, (inner) => {
      toSum(inner);
      expand(inner);
    }),
  xor: (steps) => {
    toSum(steps);
    expand(steps);
    toXor(steps);
  },
};

function toSop(steps: StepRecorder, formula: Formula): void {
  toSum(steps);
  toSmallest(steps, formula.ones.cubes);
}

function toPos(steps: StepRecorder, formula: Formula): void {
  overInverse(steps, (inner) => {
    toSum(inner);
    toSmallest(inner, formula.zeros.cubes);
  });
}

/** Derives the inverse as a sum, and turns that into a product. */
function overInverse(steps: StepRecorder, go: (inner: StepRecorder) => void): void {
  const begun = steps.now;
  const inner = new StepRecorder(not(begun), steps.names);
  go(inner);
  steps.take(DOUBLE, [{ before: begun, after: not(not(begun)) }], not(not(begun)));
  for (const { law, places, result } of inner.steps) steps.take(law, places, not(result));
  const sum = inner.now;
  const product = inverseOf(sum);
  const law = sum.op === 'or' || sum.op === 'and' ? DE_MORGAN[sum.op] : DOUBLE;
  if (sum.op === 'constant') steps.take("0' = 1 and 1' = 0", [{ before: not(sum), after: product }], product);
  else if (sum.op !== 'name') steps.take(law, [{ before: not(sum), after: product }], product);
}

/** A sum of products turned over: a product of sums. */
function inverseOf(e: Expression): Expression {
  if (e.op === 'constant') return { op: 'constant', value: e.value ? 0 : 1 };
  if (e.op === 'not') return e.of;
  if (e.op === 'or') return and(e.of.map(inverseOf));
  return e.op === 'and' ? or(e.of.map(inverseOf)) : not(e);
}

/** A sum of products by NAND gates only, or a product of sums by NOR gates only. */
function byOneKind(steps: StepRecorder, kind: 'nand' | 'nor'): void {
  const [outer, inner] = kind === 'nand' ? (['or', 'and'] as const) : (['and', 'or'] as const);
  const { now } = steps;
  if (now.op === outer || now.op === inner) {
    steps.take(DOUBLE, [{ before: now, after: not(not(now)) }], not(not(now)));
    if (now.op === outer) {
      const result: Expression = {
        op: kind,
        of: now.of.map((part): Expression => {
          if (part.op === inner) return { op: kind, of: part.of };
          return part.op === 'not' ? part.of : not(part);
        }),
      };
      steps.take(DE_MORGAN[outer], [{ before: not(not(now)), after: result }], result);
    } else {
      const inverted: Expression = { op: kind, of: now.of };
      const result: Expression = { op: kind, of: [inverted, inverted] };
      steps.take(TIED[kind], [{ before: not(not(now)), after: result }], result);
    }
  }
  const places: { before: Expression; after: Expression }[] = [];
  const tied = (e: Expression): Expression => {
    if (e.op === 'name' || e.op === 'constant') return e;
    if (e.op !== 'not') return { op: e.op, of: e.of.map(tied) };
    const after: Expression = { op: kind, of: [e.of, e.of] };
    if (!places.some((p) => truthColumn(p.before, steps.names) === truthColumn(e, steps.names)))
      places.push({ before: e, after });
    return after;
  };
  const result = tied(steps.now);
  if (places.length > 0) steps.take(TIED[kind], places, result);
}

const product = (cube: Cube, names: readonly string[]): Expression => {
  const literals = literalsOf(cube, names);
  return literals.length === 0 ? { op: 'constant', value: 1 } : and(literals);
};

/** Each product of a sum written out with all inputs. */
function expand(steps: StepRecorder): void {
  const { names } = steps;
  if (steps.now.op === 'constant' && steps.now.value === 0) return;
  let cubes = steps.now.op === 'constant' ? [{ mask: 0, value: 0 }] : termsOf(steps.now, names);
  for (const i of names.keys()) {
    const bit = 1 << (names.length - 1 - i);
    const without = cubes.filter((cube) => !(cube.mask & bit));
    if (without.length > 0) {
      const halves = ({ mask, value }: Cube) => [
        { mask: mask | bit, value: value | bit },
        { mask: mask | bit, value },
      ];
      cubes = cubes.flatMap((cube) => (cube.mask & bit ? [cube] : halves(cube)));
      if (cubes.length > MOST_TERMS) throw new TooLong('written out it has too many terms');
      const places = without.map((cube) => ({
        before: product(cube, names),
        after: or(halves(cube).map((half) => product(half, names))),
      }));
      steps.take("A = A B + A B'", places, or(cubes.map((cube) => product(cube, names))));
    }
    const once = cubes.filter(isFirst);
    if (once.length === cubes.length) continue;
    const twice = cubes.filter((...at) => !isFirst(...at)).filter(isFirst);
    cubes = once;
    steps.take(
      'A + A = A',
      twice.map((cube) => {
        const one = product(cube, names);
        return { before: or([one, one]), after: one };
      }),
      or(cubes.map((cube) => product(cube, names))),
    );
  }
}

/** Whether a product appears in a list for the first time. */
const isFirst = (cube: Cube, at: number, all: readonly Cube[]) =>
  all.findIndex((c) => sameCube(c, cube)) === at;

/** From all minterms to products of plain names under XOR (Reed, Muller, 1954). */
function toXor(steps: StepRecorder): void {
  const { names } = steps;
  const sum = steps.now;
  if (sum.op === 'constant') return;
  const xor = (of: readonly Expression[]): Expression =>
    of.length === 0 ? { op: 'constant', value: 0 } : of.length === 1 ? of[0]! : { op: 'xor', of };
  let cubes = termsOf(sum, names);
  const write = () => xor(cubes.map((cube) => product(cube, names)));
  if (cubes.length > 1)
    steps.take('No two of them hold in one row: A + B = A ⊕ B', [{ before: sum, after: write() }], write());
  for (const i of names.keys()) {
    const bit = 1 << (names.length - 1 - i);
    const inverted = cubes.filter((cube) => !(cube.value & bit));
    if (inverted.length === 0) continue;
    const freed = ({ mask, value }: Cube) => [
      { mask: mask & ~bit, value },
      { mask, value: value | bit },
    ];
    const places = inverted.map((cube) => ({
      before: product(cube, names),
      after: xor(freed(cube).map((c) => product(c, names))),
    }));
    cubes = cubes.flatMap((cube) => (cube.value & bit ? [cube] : freed(cube)));
    if (cubes.length > MOST_TERMS) throw new TooLong('written out it has too many terms');
    steps.take("A' = 1 ⊕ A: B A' = B ⊕ B A", places, write());
    const before = cubes;
    const count = (cube: Cube) => before.filter((c) => sameCube(c, cube)).length;
    const several = before.filter(isFirst).filter((cube) => count(cube) > 1);
    if (several.length === 0) continue;
    cubes = before.filter(isFirst).filter((cube) => count(cube) % 2 === 1);
    steps.take(
      'A ⊕ A = 0',
      several.map((cube) => {
        const all = Array.from({ length: count(cube) }, () => product(cube, names));
        return { before: xor(all), after: xor(all.slice(0, all.length % 2)) };
      }),
      write(),
    );
  }
}
