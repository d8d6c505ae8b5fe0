import { done, type Result, refused } from '../../values/result';
import {
  type BooleanFunction,
  type Cube,
  coversRow,
  isContainedIn,
  literalCount,
  OFF,
  ON,
  sameCube,
} from '../minimise/cube';
import { minimise } from '../minimise/minimise';
import { inputAt } from '../table/truth-table';
import { type Expression, evaluate } from './expression';
import { cubeOf, literalsOf, sumOf } from './forms';

/** One step from an expression to another one that says the same. */
export interface Step {
  /** The law by which, in words. */
  readonly law: string;
  /** A rewritten place: the expression before and after. */
  readonly places: readonly { readonly before: Expression; readonly after: Expression }[];
  readonly result: Expression;
}

/** The steps of a way from one expression to another. */
export type Derivation = Result<readonly Step[]>;

/** Functions of more inputs, and longer expressions, are not derived law by law: nobody would read it. */
export const MOST_INPUTS_DERIVED = 6;
export const MOST_TERMS = 160;
const MOST_STEPS = 120;

export type Place = Step['places'][number];
type Junction = Extract<Expression, { of: readonly Expression[] }>;

const ZERO: Expression = { op: 'constant', value: 0 };
const ONE: Expression = { op: 'constant', value: 1 };
export const not = (of: Expression): Expression => ({ op: 'not', of });
export const and = (of: readonly Expression[]): Expression => (of.length === 1 ? of[0]! : { op: 'and', of });
export const or = (of: readonly Expression[]): Expression => (of.length === 1 ? of[0]! : { op: 'or', of });

/** A way is given up that nobody would read to its end. */
export class TooLong extends Error {}

/** A way from an expression on, each step of it held against the first in all rows. */
export class StepRecorder {
  readonly steps: Step[] = [];
  now: Expression;
  private readonly truth: string;

  /** @throws TooLong where there are too many inputs. */
  constructor(
    readonly start: Expression,
    readonly names: readonly string[],
  ) {
    if (names.length > MOST_INPUTS_DERIVED)
      throw new TooLong(`${names.length} inputs are too many to be derived law by law`);
    this.truth = truthColumn(start, names);
    this.now = flat(plain(start));
  }

  /** @throws Error where the step does not say the same; TooLong where there are too many of them. */
  take(law: string, places: readonly Place[], result: Expression): void {
    if (truthColumn(result, this.names) !== this.truth) throw new Error(`${law} does not say the same`);
    if (this.steps.length >= MOST_STEPS) throw new TooLong('it takes too many steps');
    this.steps.push({ law, places, result });
    this.now = result;
  }

  /** The function, as a row of `OFF` and `ON` for each row. */
  get wish(): BooleanFunction {
    return {
      inputs: this.names.length,
      rows: Uint8Array.from([...this.truth], (c) => (c === '1' ? ON : OFF)),
    };
  }
}

/** The values of an expression in all rows, as letters. */
export function truthColumn(e: Expression, names: readonly string[]): string {
  return Array.from({ length: 2 ** names.length }, (_, row) =>
    evaluate(e, new Map(names.map((n, i) => [n, inputAt(names.length, i, row)]))),
  ).join('');
}

/** Derives step by step; reports an expression that is too long to read. */
export function recorded(go: () => readonly Step[]): Derivation {
  try {
    return done(go());
  } catch (error) {
    if (error instanceof TooLong) return refused('too-long', error.message);
    throw error;
  }
}

/**
 * The derivation of a smallest sum of products, law by law. Other operators are expanded to AND, OR and NOT,
 * NOT is pushed down to the names (De Morgan), products are multiplied out, and then terms are absorbed,
 * combined, freed of literals, or found by consensus (Blake, 1937; Quine, 1955) until the smallest sum is
 * reached. Each step is checked in all rows.
 * @throws Error if a step changes the function.
 */
export function derivation(expression: Expression, names: readonly string[]): Derivation {
  return recorded(() => {
    const steps = new StepRecorder(expression, names);
    toSum(steps);
    toSmallest(steps, minimise(steps.wish).cubes);
    return steps.steps;
  });
}

/** Writes an expression as a sum of products, not yet a small one. */
export function toSum(steps: StepRecorder): void {
  for (const [law, rewrite] of REWRITES)
    for (;;) {
      const places: Place[] = [];
      const result = flat(rewrite(steps.now, places));
      if (places.length === 0) break;
      steps.take(law, places, result);
    }
}

/** Makes a sum of products a smallest one. @param aim the products of that. */
export function toSmallest(steps: StepRecorder, aim: readonly Cube[]): void {
  if (steps.now.op !== 'constant') reduce(steps, aim);
}

/** Flattens nested sums and products: (A + B) + C. This does not count as a step. */
export function flat(e: Expression): Expression {
  if (e.op === 'name' || e.op === 'constant') return e;
  if (e.op === 'not') return not(flat(e.of));
  const of = e.of
    .map(flat)
    .flatMap((part) => (part.op === e.op && (e.op === 'and' || e.op === 'or') ? part.of : [part]));
  return of.length === 1 ? of[0]! : { op: e.op, of };
}

const INVERSE_OF = { nand: 'and', nor: 'or', xnor: 'xor' } as const;

/** NAND, NOR and XNOR as inverted AND, OR and XOR: they are written alike. */
function plain(e: Expression): Expression {
  if (e.op === 'name' || e.op === 'constant') return e;
  if (e.op === 'not') return not(plain(e.of));
  const of = e.of.map(plain);
  if (e.op !== 'nand' && e.op !== 'nor' && e.op !== 'xnor') return { op: e.op, of };
  return not(of.length === 1 ? of[0]! : { op: INVERSE_OF[e.op], of });
}

type Rewrite = (e: Expression, places: Place[]) => Expression;

/** Rewrites the operands of an expression first, and the expression itself if no operand was rewritten. */
function bottomUp(at: (e: Junction | Extract<Expression, { op: 'not' }>) => Expression | null): Rewrite {
  const rewrite: Rewrite = (e, places) => {
    if (e.op === 'name' || e.op === 'constant') return e;
    const count = places.length;
    const inner: Expression =
      e.op === 'not'
        ? not(rewrite(e.of, places))
        : { op: e.op, of: e.of.map((part) => rewrite(part, places)) };
    if (places.length > count) return inner;
    const after = at(e);
    if (!after) return e;
    places.push({ before: e, after: flat(after) });
    return after;
  };
  return rewrite;
}

/** The same from the outside in: operands are left alone if the whole was rewritten. */
function topDown(at: (e: Junction | Extract<Expression, { op: 'not' }>) => Expression | null): Rewrite {
  const rewrite: Rewrite = (e, places) => {
    if (e.op === 'name' || e.op === 'constant') return e;
    const after = at(e);
    if (after) {
      places.push({ before: e, after: flat(after) });
      return after;
    }
    return e.op === 'not'
      ? not(rewrite(e.of, places))
      : { op: e.op, of: e.of.map((part) => rewrite(part, places)) };
  };
  return rewrite;
}

const same = (a: Expression, b: Expression) => JSON.stringify(bare(a)) === JSON.stringify(bare(b));
/** An expression without the places of its names. */
function bare(e: Expression): Expression {
  if (e.op === 'name') return { ...e, at: 0 };
  if (e.op === 'constant') return e;
  return e.op === 'not' ? not(bare(e.of)) : { op: e.op, of: e.of.map(bare) };
}

const isOpposite = (a: Expression, b: Expression) =>
  (a.op === 'not' && same(a.of, b)) || (b.op === 'not' && same(b.of, a));

const REWRITES: readonly (readonly [string, Rewrite])[] = [
  [
    "What XOR is: A ⊕ B = A B' + A' B",
    bottomUp((e) => {
      if (e.op !== 'xor') return null;
      const [a, b, ...rest] = e.of;
      const both = or([and([a!, not(b!)]), and([not(a!), b!])]);
      return rest.length === 0 ? both : { op: 'xor', of: [both, ...rest] };
    }),
  ],
  [
    'De Morgan, and a double inverse cancels',
    topDown((e) => {
      if (e.op !== 'not') return null;
      const { of } = e;
      if (of.op === 'not') return of.of;
      if (of.op === 'constant') return of.value ? ZERO : ONE;
      if (of.op === 'and') return or(of.of.map(not));
      return of.op === 'or' ? and(of.of.map(not)) : null;
    }),
  ],
  ['0 and 1 in a sum or a product', bottomUp(withoutConstants)],
  [
    'Distribution: A (B + C) = A B + A C',
    bottomUp((e) => {
      if (e.op !== 'and' || !e.of.some((part) => part.op === 'or')) return null;
      let terms: Expression[][] = [[]];
      for (const part of e.of) {
        const choices = part.op === 'or' ? part.of : [part];
        terms = terms.flatMap((term) => choices.map((c) => [...term, c]));
        if (terms.length > MOST_TERMS) throw new TooLong('multiplied out it has too many terms');
      }
      return or(terms.map(and));
    }),
  ],
  [
    "A A = A and A A' = 0",
    bottomUp((e) => {
      if (e.op !== 'and') return null;
      if (e.of.some((a, i) => e.of.some((b, k) => k > i && isOpposite(a, b)))) return ZERO;
      const once = e.of.filter((a, i) => !e.of.some((b, k) => k < i && same(a, b)));
      return once.length < e.of.length ? and(once) : null;
    }),
  ],
  ['0 and 1 in a sum or a product', bottomUp(withoutConstants)],
  [
    'A + A = A',
    bottomUp((e) => {
      if (e.op !== 'or') return null;
      const once = e.of.filter((a, i) => !e.of.some((b, k) => k < i && same(sortedTerm(a), sortedTerm(b))));
      return once.length < e.of.length ? or(once) : null;
    }),
  ],
];

function withoutConstants(e: Junction | Extract<Expression, { op: 'not' }>): Expression | null {
  if (e.op !== 'and' && e.op !== 'or') return null;
  const [neutral, strong] = e.op === 'and' ? [1, 0] : [0, 1];
  if (e.of.some((p) => p.op === 'constant' && p.value === strong)) return strong ? ONE : ZERO;
  const rest = e.of.filter((p) => p.op !== 'constant');
  if (rest.length === e.of.length) return null;
  return rest.length === 0 ? (neutral ? ONE : ZERO) : e.op === 'and' ? and(rest) : or(rest);
}

/** A product with its factors in order, so that A B and B A are equal. */
function sortedTerm(e: Expression): Expression {
  if (e.op !== 'and') return e;
  return {
    op: 'and',
    of: [...e.of].sort((a, b) => (JSON.stringify(bare(a)) < JSON.stringify(bare(b)) ? -1 : 1)),
  };
}

/** The products of a sum. */
export function termsOf(sum: Expression, names: readonly string[]): Cube[] {
  return (sum.op === 'or' ? sum.of : [sum]).map((term) => cubeOf(term, names)!);
}

/** The one product that two become if they are opposite in just one literal; null otherwise. */
export function consensus(a: Cube, b: Cube): Cube | null {
  const against = a.mask & b.mask & (a.value ^ b.value);
  if (against === 0 || (against & (against - 1)) !== 0) return null;
  const care = (a.mask | b.mask) & ~against;
  return { mask: care, value: (a.value | b.value) & care };
}

/** From any sum of products to a smallest one, a law at a time. */
function reduce(steps: StepRecorder, aim: readonly Cube[]): void {
  const { names, wish: fn } = steps;
  let terms = termsOf(steps.now, names);
  const show = (cubes: readonly Cube[]) => sumOf(cubes, names);
  const make = (law: string, before: readonly Cube[], after: readonly Cube[]) => {
    const stays = (t: Cube) => !before.includes(t) || after.includes(t);
    terms = [...terms.filter(stays), ...after.filter((c) => !before.includes(c))];
    steps.take(law, [{ before: or(before.map(product)), after: or(after.map(product)) }], show(terms));
  };
  const product = (c: Cube): Expression => {
    const all = literalsOf(c, names);
    return all.length === 0 ? ONE : and(all);
  };
  for (;;) {
    const whole = terms.find((t) => t.mask === 0);
    if (whole && terms.length > 1) {
      make('1 + A = 1', [...terms], [whole]);
      continue;
    }
    const absorbed = pairs(terms).find(([a, b]) => isContainedIn(b, a));
    if (absorbed) {
      // All that one term holds goes at once.
      const [large] = absorbed;
      const inside = terms.filter((t) => t !== large && isContainedIn(t, large));
      make('Absorption: A + A B = A', [large, ...inside], [large]);
      continue;
    }
    const halves = pairs(terms).find(([a, b]) => a.mask === b.mask && oneBit(a.value ^ b.value));
    if (halves) {
      make("A B + A B' = A", halves, [consensus(...halves)!]);
      continue;
    }
    const freed = pairs(terms).find(([a, b]) => {
      const both = consensus(a, b);
      return both && isContainedIn(b, both);
    });
    if (freed) {
      const [a, b] = freed;
      make("A + A' B = A + B", [a, b], [a, consensus(a, b)!]);
      continue;
    }
    const missing = aim.filter((m) => !terms.some((t) => sameCube(t, m)));
    if (missing.length === 0) break;
    const found = pairs(terms)
      .flatMap(([a, b]) => {
        const both = consensus(a, b);
        return both && !terms.some((t) => isContainedIn(both, t)) ? [{ a, b, both }] : [];
      })
      .sort((p, q) => worth(q.both, missing) - worth(p.both, missing))[0];
    if (!found) break;
    make("Consensus: A B + A' C = A B + A' C + B C", [found.a, found.b], [found.a, found.b, found.both]);
  }
  for (const extra of terms.filter((t) => !aim.some((m) => sameCube(m, t)))) {
    const others = terms.filter((t) => t !== extra);
    const by = pairs(others).find(([a, b]) => {
      const both = consensus(a, b);
      return both && isContainedIn(extra, both);
    });
    if (by) make("Consensus: A B + A' C + B C = A B + A' C", [...by, extra], by);
    else {
      const needed = others.filter((t) => rowsMeet(t, extra, fn));
      make('The other terms cover all of its rows', [...needed, extra], needed);
    }
  }
}

/** The worth of a product found by consensus: more if it is wanted or contains a wanted one, and more if it is large. */
function worth(cube: Cube, missing: readonly Cube[]): number {
  const wanted = missing.some((m) => sameCube(m, cube))
    ? 1000
    : missing.some((m) => isContainedIn(cube, m))
      ? 100
      : 0;
  return wanted - literalCount(cube);
}

const oneBit = (bits: number) => bits !== 0 && (bits & (bits - 1)) === 0;

function pairs(terms: readonly Cube[]): [Cube, Cube][] {
  return terms.flatMap((a) => terms.filter((b) => b !== a).map((b): [Cube, Cube] => [a, b]));
}

function rowsMeet(a: Cube, b: Cube, { rows }: BooleanFunction): boolean {
  return [...rows.keys()].some((row) => coversRow(a, row) && coversRow(b, row));
}
