import { type BooleanFunction, type Cube, DONT_CARE } from '../minimise/cube';
import { minimise } from '../minimise/minimise';
import type { Expression } from './expression';

/*
 * Sums of products with exclusive-ors where they save gates.
 */

const constant = (value: 0 | 1): Expression => ({ op: 'constant', value });
function not(of: Expression): Expression {
  if (of.op === 'not') return of.of;
  if (of.op === 'xor' || of.op === 'xnor') return { op: of.op === 'xor' ? 'xnor' : 'xor', of: of.of };
  return { op: 'not', of };
}

/** A common value of both, or null if there is none. */
function agreed(a: number, b: number): number | null {
  return a === DONT_CARE ? b : b === DONT_CARE || a === b ? a : null;
}
const opposite = (value: number) => (value === DONT_CARE ? DONT_CARE : 1 - value);

/** The rows of a function of one input less: those at which input `i` is `value`. */
function half({ inputs, rows }: BooleanFunction, i: number, value: 0 | 1): BooleanFunction {
  const low = 2 ** (inputs - 1 - i);
  const made = new Uint8Array(rows.length / 2);
  for (let row = 0; row < made.length; row++)
    made[row] = rows[Math.floor(row / low) * 2 * low + value * low + (row % low)]!;
  return { inputs: inputs - 1, rows: made };
}

/** The function that is `low` when a new input in place `i` is 0, and `high` when it is 1. */
function chosen(low: BooleanFunction, high: BooleanFunction, i: number): BooleanFunction {
  const place = 2 ** (low.inputs - i);
  const rows = Uint8Array.from({ length: 2 * low.rows.length }, (_, row) => {
    const { rows: from } = Math.floor(row / place) % 2 === 0 ? low : high;
    return from[Math.floor(row / (2 * place)) * place + (row % place)]!;
  });
  return { inputs: low.inputs + 1, rows };
}

/** One function that serves both; null if there is none. */
function both(a: BooleanFunction, b: BooleanFunction, turned = false): BooleanFunction | null {
  const rows = new Uint8Array(a.rows.length);
  for (let row = 0; row < rows.length; row++) {
    const value = agreed(a.rows[row]!, turned ? opposite(b.rows[row]!) : b.rows[row]!);
    if (value === null) return null;
    rows[row] = value;
  }
  return { inputs: a.inputs, rows };
}

/**
 * Ways to write a function with exclusive-ors: an input that always inverts it is factored out (`f = x ⊕ g`),
 * two inputs that matter only by their difference become one (`f(a, b, ...) = g(a ⊕ b, ...)`), and in the
 * smallest sum of the rest two products that differ in two inverted literals become one product with an
 * exclusive-or; and the smallest sum with such products alone. Don't-cares are chosen as they suit.
 * @param cubes the smallest sum of products of the function.
 */
export function xorFactoredForms(
  fn: BooleanFunction,
  names: readonly string[],
  cubes: readonly Cube[],
): Expression[] {
  const signals = names.map((name): Expression => ({ op: 'name', name, at: 0 }));
  return cubes.length < 2 ? [] : [decomposed(fn, signals, cubes), paired(cubes, signals)];
}

function decomposed(
  fn: BooleanFunction,
  signals: readonly Expression[],
  cubes?: readonly Cube[],
): Expression {
  const { inputs } = fn;
  for (let i = 0; i < inputs; i++) {
    const [low, high] = [half(fn, i, 0), half(fn, i, 1)];
    const without = both(low, high);
    if (without) {
      const rest = signals.filter((_, s) => s !== i);
      return decomposed(without, rest);
    }
    const outside = both(low, high, true);
    if (outside) {
      const rest = signals.filter((_, s) => s !== i);
      return differing(signals[i]!, decomposed(outside, rest));
    }
  }
  for (let i = 0; i < inputs; i++)
    for (let j = i + 1; j < inputs; j++) {
      const [low, high] = [half(fn, j, 0), half(fn, j, 1)];
      const alike = both(half(low, i, 0), half(high, i, 1));
      const unlike = alike && both(half(low, i, 1), half(high, i, 0));
      if (!unlike) continue;
      const rest = signals.filter((_, s) => s !== i && s !== j);
      return decomposed(chosen(alike, unlike, i), rest.toSpliced(i, 0, differing(signals[i]!, signals[j]!)));
    }
  return paired(cubes ?? minimise(fn).cubes, signals);
}

/** Whether exactly one of two signals is 1; inversions inside them are factored out. */
function differing(a: Expression, b: Expression): Expression {
  if (b.op === 'constant') return b.value ? not(a) : a;
  let isTurned = false;
  const of = [a, b].flatMap((e) => {
    if (e.op === 'not' || e.op === 'xnor') isTurned = !isTurned;
    return e.op === 'xor' || e.op === 'xnor' ? e.of : [e.op === 'not' ? e.of : e];
  });
  return { op: isTurned ? 'xnor' : 'xor', of };
}

/** A product, where `pair` is given with an exclusive-or of two of its inputs, or its opposite. */
interface Product extends Cube {
  readonly pair?: { readonly bits: readonly [number, number]; readonly isAlike: boolean };
}

/** A sum of products over signals, in which products that make up an exclusive-or of two signals are one. */
function paired(cubes: readonly Cube[], signals: readonly Expression[]): Expression {
  const left: Product[] = [...cubes];
  const made: Product[] = [];
  while (left.length > 0) {
    const first = left.shift()!;
    const at = left.findIndex((other) => other.mask === first.mask && isPair(other.value ^ first.value));
    if (at === -1) {
      made.push(first);
      continue;
    }
    const [other] = left.splice(at, 1);
    const bits = first.value ^ other!.value;
    const high = 2 ** Math.floor(Math.log2(bits));
    made.push({
      mask: first.mask & ~bits,
      value: first.value & ~bits,
      pair: {
        bits: [high, bits - high],
        isAlike: (first.value & bits) === bits || (first.value & bits) === 0,
      },
    });
  }
  const signalAt = (bit: number) => signals[signals.length - 1 - Math.log2(bit)]!;
  const terms = made.map(({ mask, value, pair }): Expression => {
    const literals = signals.flatMap((signal, i) => {
      const bit = 2 ** (signals.length - 1 - i);
      return mask & bit ? [value & bit ? signal : not(signal)] : [];
    });
    if (pair) {
      const of = pair.bits.map(signalAt);
      literals.push(pair.isAlike ? { op: 'xnor', of } : { op: 'xor', of });
    }
    return literals.length === 0
      ? constant(1)
      : literals.length === 1
        ? literals[0]!
        : { op: 'and', of: literals };
  });
  if (terms.length === 0) return constant(0);
  return terms.length === 1 ? terms[0]! : { op: 'or', of: terms };
}

/** Whether a number has exactly two bits. */
function isPair(bits: number): boolean {
  const rest = bits & (bits - 1);
  return rest !== 0 && (rest & (rest - 1)) === 0;
}
