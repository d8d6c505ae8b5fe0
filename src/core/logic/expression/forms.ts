import type { Netlist } from '../../netlist/netlist';
import { sourceKey, stateName } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { ONE, ZERO } from '../../values/logic';
import { done, type Result, refused } from '../../values/result';
import {
  type BooleanFunction,
  type Cube,
  complement,
  DONT_CARE,
  OFF,
  ON,
  UNIVERSAL_CUBE,
} from '../minimise/cube';
import { type Minimised, MOST_EXACT, minimise } from '../minimise/minimise';
import { minimiseMultiOutput } from '../minimise/multi-output-minimise';
import { cell, type TruthTable } from '../table/truth-table';
import type { Expression, Operator } from './expression';
import { written } from './notation';
import { xorFactoredForms } from './xor-factoring';

/*
 * The forms in which one function can be written. All of them are expressions over the names of its inputs.
 */

export const FORMS = ['drawn', 'sop', 'pos', 'minterms', 'maxterms', 'nand', 'nor', 'xor', 'mixed'] as const;
export type Form = (typeof FORMS)[number];

const name = (text: string): Expression => ({ op: 'name', name: text, at: 0 });
const constant = (value: 0 | 1): Expression => ({ op: 'constant', value });
const not = (of: Expression): Expression => (of.op === 'not' ? of.of : { op: 'not', of });
const joined = (op: Operator, of: readonly Expression[]): Expression =>
  of.length === 1 ? of[0]! : { op, of };

/** The literals of a cube, in the order of the inputs. */
export function literalsOf(cube: Cube, names: readonly string[]): Expression[] {
  return names.flatMap((text, i) => {
    const bit = 1 << (names.length - 1 - i);
    if (!(cube.mask & bit)) return [];
    return [cube.value & bit ? name(text) : not(name(text))];
  });
}

/** A sum of products. */
export function sumOf(cubes: readonly Cube[], names: readonly string[]): Expression {
  if (cubes.length === 0) return constant(0);
  if (cubes.some((c) => c.mask === 0)) return constant(1);
  return joined(
    'or',
    cubes.map((cube) => joined('and', literalsOf(cube, names))),
  );
}

/** A product of sums, from the cubes of its zeros. */
export function productOf(zeros: readonly Cube[], names: readonly string[]): Expression {
  if (zeros.length === 0) return constant(1);
  if (zeros.some((c) => c.mask === 0)) return constant(0);
  return joined(
    'and',
    zeros.map((cube) => joined('or', literalsOf(cube, names).map(not))),
  );
}

/** The inverse, by gates of one kind: both inputs of one gate tied together. */
const turned = (op: 'nand' | 'nor', of: Expression): Expression => ({ op, of: [of, of] });

/** Each literal that stands inverted as a gate of that kind. */
function literalBy(op: 'nand' | 'nor', literal: Expression): Expression {
  return literal.op === 'not' ? turned(op, literal.of) : literal;
}

/**
 * A sum of products by NAND gates only, or a product of sums by NOR gates only, by De Morgan's law: the
 * second level inverts the inversions of the first.
 * @param cubes the ones of the function for NAND, the zeros for NOR.
 */
export function singleGateForm(
  op: 'nand' | 'nor',
  cubes: readonly Cube[],
  names: readonly string[],
): Expression {
  const [none, all] = op === 'nand' ? [constant(0), constant(1)] : [constant(1), constant(0)];
  if (cubes.length === 0) return none;
  if (cubes.some((c) => c.mask === 0)) return all;
  const groups = cubes.map((cube) => {
    const literals = literalsOf(cube, names);
    // A NOR reads the literals of a sum: those of the cube turned over.
    return (op === 'nand' ? literals : literals.map(not)).map((l) => literalBy(op, l));
  });
  if (groups.length === 1) {
    const [only] = groups;
    return only!.length === 1 ? only![0]! : turned(op, { op, of: only! });
  }
  return {
    op,
    of: groups.map((literals) =>
      literals.length > 1
        ? { op, of: literals }
        : literals[0]!.op === op
          ? untied(literals[0]!)
          : turned(op, literals[0]!),
    ),
  };
}

/** The expression that a gate with both inputs tied together inverts. */
const untied = (e: Expression): Expression => (e.op === 'nand' || e.op === 'nor' ? e.of[0]! : e);

/**
 * The exclusive-or form: products of plain names under XOR (Reed, Muller, 1954), found by the butterfly over all rows.
 * A row that may be either is taken as 0.
 */
export function reedMullerForm({ inputs, rows }: BooleanFunction, names: readonly string[]): Expression {
  const terms = rows.map((v) => (v === ON ? 1 : 0));
  for (let bit = 1; bit < terms.length; bit *= 2)
    for (let row = 0; row < terms.length; row++) if (row & bit) terms[row]! ^= terms[row ^ bit]!;
  const products: Expression[] = [];
  for (let row = 0; row < 2 ** inputs; row++)
    if (terms[row])
      products.push(row === 0 ? constant(1) : joined('and', literalsOf({ mask: row, value: row }, names)));
  return products.length === 0 ? constant(0) : joined('xor', products);
}

/** Every row at which a function is 1 as a product of all inputs. */
export function minterms({ inputs, rows }: BooleanFunction): Cube[] {
  const mask = 2 ** inputs - 1;
  if (inputs === 0) return rows[0] === ON ? [UNIVERSAL_CUBE] : [];
  return [...rows.keys()].filter((row) => rows[row] === ON).map((value) => ({ mask, value }));
}

/** A function in all forms that follow from its rows; the smallest ones are found once. */
export class Formula {
  private one: Minimised | null = null;
  private nought: Minimised | null = null;

  constructor(
    readonly name: string,
    readonly names: readonly string[],
    readonly fn: BooleanFunction,
    private readonly mostExact = MOST_EXACT,
  ) {}

  /** Takes over a result that was minimised elsewhere. */
  take(both: { readonly ones: Minimised; readonly zeros: Minimised }): void {
    this.one = both.ones;
    this.nought = both.zeros;
  }

  get isMinimised(): boolean {
    return this.one !== null && this.nought !== null;
  }

  /** The smallest sum of products. */
  get ones(): Minimised {
    this.one ??= minimise(this.fn, this.mostExact);
    return this.one;
  }

  /** The smallest sum of products of its zeros. */
  get zeros(): Minimised {
    this.nought ??= minimise(complement(this.fn), this.mostExact);
    return this.nought;
  }

  in(form: Exclude<Form, 'drawn'>): Expression {
    const { names, fn } = this;
    switch (form) {
      case 'sop':
        return sumOf(this.ones.cubes, names);
      case 'pos':
        return productOf(this.zeros.cubes, names);
      case 'minterms':
        return sumOf(minterms(fn), names);
      case 'maxterms':
        return productOf(minterms(complement(fn)), names);
      case 'nand':
        return singleGateForm('nand', this.ones.cubes, names);
      case 'nor':
        return singleGateForm('nor', this.zeros.cubes, names);
      case 'xor':
        return reedMullerForm(fn, names);
      case 'mixed':
        return smallestOf([this.in('sop'), ...xorFactoredForms(fn, names, this.ones.cubes), this.in('xor')]);
    }
  }
}

/**
 * Functions of the same inputs in a form built of products, minimised together, so that products shared by
 * several outputs are built once. Other forms are those of each function alone.
 */
export function multiOutputForms(form: Exclude<Form, 'drawn'>, formulas: readonly Formula[]): Expression[] {
  const names = formulas[0]?.names ?? [];
  if (form === 'sop' || form === 'nand') {
    const made = minimiseMultiOutput(formulas.map((f) => f.fn));
    return made.map(({ cubes }) =>
      form === 'sop' ? sumOf(cubes, names) : singleGateForm('nand', cubes, names),
    );
  }
  if (form === 'pos' || form === 'nor') {
    const made = minimiseMultiOutput(formulas.map((f) => complement(f.fn)));
    return made.map(({ cubes }) =>
      form === 'pos' ? productOf(cubes, names) : singleGateForm('nor', cubes, names),
    );
  }
  return formulas.map((f) => f.in(form));
}

/** The function of an output of a table; where that is unknown or drives nothing, either will do. */
export function functionOf(table: TruthTable, output: number): BooleanFunction {
  const rows = new Uint8Array(table.rows);
  for (let row = 0; row < table.rows; row++) {
    const value = cell(table, output, row);
    rows[row] = value === ONE ? ON : value === ZERO ? OFF : DONT_CARE;
  }
  return { inputs: table.inputs.length, rows };
}

/** The cube of a product of literals; null for anything else. */
export function cubeOf(product: Expression, names: readonly string[]): Cube | null {
  let [care, ones] = [0, 0];
  for (const literal of product.op === 'and' ? product.of : [product]) {
    const plain = literal.op === 'not' ? literal.of : literal;
    const at = plain.op === 'name' ? names.indexOf(plain.name) : -1;
    if (at === -1) return null;
    const bit = 1 << (names.length - 1 - at);
    care |= bit;
    if (literal.op === 'name') ones |= bit;
  }
  return { mask: care, value: ones };
}

/** The size of an expression as a circuit. */
export interface Size {
  /** The terms of its form; of other expressions the operands of the outermost operator, 1 for a single product. */
  readonly terms: number;
  readonly literals: number;
  /** Gates, a NOT counted as one; a repeated subexpression is built once. */
  readonly gates: number;
  /** Gates that a signal passes through at most. */
  readonly levels: number;
}

/** @param form the form in which it is written; a single product is one term of a sum, and several of a product of sums. */
export function sizeOf(expression: Expression, form: Form | null = null): Size {
  const seen = new Set<string>();
  let literals = 0;
  const visit = (e: Expression): number => {
    if (e.op === 'constant') return 0;
    if (e.op === 'name') {
      literals++;
      return 0;
    }
    const of = e.op === 'not' ? [e.of] : e.of;
    const levels = 1 + Math.max(...of.map(visit));
    seen.add(written(e, 'words'));
    return levels;
  };
  const levels = visit(expression);
  return { terms: termsOf(expression, form), literals, gates: seen.size, levels };
}

/** The operator that joins the terms of each two-level form. */
const BETWEEN_TERMS: Partial<Record<Form, Operator>> = {
  sop: 'or',
  minterms: 'or',
  pos: 'and',
  maxterms: 'and',
};

function termsOf(expression: Expression, form: Form | null): number {
  if (expression.op === 'constant') return 0;
  if (expression.op === 'name' || expression.op === 'not') return 1;
  const between = form === null ? undefined : BETWEEN_TERMS[form];
  if (between) return expression.op === between ? expression.of.length : 1;
  const isProduct = expression.op === 'and' && expression.of.every((e) => e.op === 'name' || e.op === 'not');
  return isProduct ? 1 : expression.of.length;
}

/** The expression with the fewest gates, and of those the fewest literals. */
function smallestOf(all: readonly Expression[]): Expression {
  const sized = all.map((e) => ({ e, ...sizeOf(e) }));
  return sized.reduce((a, b) =>
    b.gates < a.gates || (b.gates === a.gates && b.literals < a.literals) ? b : a,
  ).e;
}

/** Longer expressions are not written out: they would be read by nobody. */
const MOST_OPERATIONS = 500;

const OPERATORS: Partial<Record<number, Operator>> = {
  [Primitive.AND]: 'and',
  [Primitive.OR]: 'or',
  [Primitive.NAND]: 'nand',
  [Primitive.NOR]: 'nor',
  [Primitive.XOR]: 'xor',
  [Primitive.XNOR]: 'xnor',
};

/**
 * The expression of one bit of an output as drawn: gate by gate, back to the inputs and to storage. Refused
 * where it cannot be written as one; `too-large` when it would take more than MOST_OPERATIONS.
 */
export function drawnForm(netlist: Netlist, net: number): Result<Expression> {
  const driver = new Map<number, number>();
  for (let g = 0; g < netlist.op.length; g++) driver.set(netlist.out[g]!, g);
  const stores = new Map([...netlist.storage].map((g, i) => [g, stateName(netlist, i)]));
  const looped = new Set(netlist.looped);
  const inputs = new Map(netlist.inputColumns.map((c) => [c.nets[0], c.name]));
  const sources = new Map(netlist.sources.map((s) => [s.net, s]));
  let left = MOST_OPERATIONS;
  const follow = (at: number): Expression => {
    const input = inputs.get(at);
    if (input !== undefined) return name(input);
    const source = sources.get(at);
    if (source?.kind === 'constant' && (source.value === ONE || source.value === ZERO))
      return constant(source.value === ONE ? 1 : 0);
    if (source) throw new Unwritable('reads-source', `it reads ${sourceKey(source)}, which is no input`);
    const g = driver.get(at);
    if (g === undefined) throw new Unwritable('undriven', 'it depends on a wire that nothing drives');
    const stored = stores.get(g);
    if (stored !== undefined) return name(stored);
    if (looped.has(g)) throw new Unwritable('loop', 'it depends on a loop of gates');
    if (--left < 0)
      throw new Unwritable('too-large', `as drawn it has more than ${MOST_OPERATIONS} operations`);
    const reads = () => [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)].map(follow);
    const op = netlist.op[g]!;
    const operator = OPERATORS[op];
    if (operator) return { op: operator, of: reads() };
    if (op === Primitive.NOT) return { op: 'not', of: reads()[0]! };
    if (op === Primitive.BUF) return reads()[0]!;
    if (op === Primitive.CONST_0 || op === Primitive.CONST_1)
      return constant(op === Primitive.CONST_1 ? 1 : 0);
    if (op === Primitive.MUX) {
      const [select, a, b] = reads();
      return {
        op: 'or',
        of: [
          { op: 'and', of: [not(select!), a!] },
          { op: 'and', of: [select!, b!] },
        ],
      };
    }
    throw new Unwritable('shared-wire', 'several outputs share a wire on the way to it');
  };
  try {
    return done(follow(net));
  } catch (error) {
    if (error instanceof Unwritable) return refused(error.code, error.message);
    throw error;
  }
}

class Unwritable extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

/** Most rows that a list of them names. */
const MOST_LISTED = 256;

/**
 * The rows of a function as a list: `Σm(4, 5)` for its ones, `ΠM(0, 1)` for its zeros, and don't-cares behind
 * a `d`. Null if they are too many to be read.
 */
export function rowList({ rows }: BooleanFunction, of: 'ones' | 'zeros'): string | null {
  const wanted = of === 'ones' ? ON : OFF;
  const named = [...rows.keys()].filter((row) => rows[row] === wanted);
  const either = [...rows.keys()].filter((row) => rows[row] === DONT_CARE);
  if (named.length + either.length > MOST_LISTED) return null;
  const dont = either.length > 0 ? ` d(${either.join(', ')})` : '';
  return `${of === 'ones' ? 'Σm' : 'ΠM'}(${named.join(', ')})${dont}`;
}
