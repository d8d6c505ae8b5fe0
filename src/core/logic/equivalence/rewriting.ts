import { type AdderUnit, addersOf } from './adders';
import { AIG_FALSE, type Aig, type AigEdge } from './aig';
import { Polynomial, type Sum, TooMuch, times } from './polynomial';

/** What two circuits are found to be: the same, different where these inputs are 1 and all others 0, or unknown. */
export type Rewritten =
  | { readonly verdict: 'same' }
  | { readonly verdict: 'different'; readonly ones: readonly number[] }
  | { readonly verdict: 'undecided' };

/**
 * Terms at any time, and steps of work, a node at most. Where carries cancel, less than one of each is needed, and where they do not
 * there is no end.
 */
const MOST_TERMS = 4;
const MOST_WORK = 32;
/** Fewer adders than this are no arithmetic. */
const FEW_ADDERS = 8;

/**
 * Whether words of two circuits are the same numbers, by algebraic rewriting: a word is the sum of its bits by their weights; from the
 * outputs to the inputs, the sum of each adder is replaced by its operands less twice its carry, so that carries cancel
 * (Ciesielski and others, 2015, "Verification of gate-level arithmetic circuits by function extraction"; Ritirc, Biere and Kauers, 2017,
 * "Column-wise verification of multipliers using computer algebra"). In the end both are sums of products of inputs, and
 * the same ones or not. Factors count modulo 2 to the number of bits, as the bits of a word are known by its remainder.
 * @param words the bits of each word in both circuits, the lowest first.
 * @param progress is told the share of the work.
 */
export function rewriteWords(
  aig: Aig,
  words: readonly (readonly (readonly [AigEdge, AigEdge])[])[],
  progress: (share: number) => void,
): Rewritten {
  const unitOf = addersOf(aig);
  if (new Set(unitOf.values()).size < FEW_ADDERS) return { verdict: 'undecided' };
  try {
    for (const [w, word] of words.entries()) {
      const [mine, theirs] = ([0, 1] as const).map((side) =>
        rewritten(
          aig,
          unitOf,
          word.map((pair) => pair[side]),
          (share) => progress((w + (side + share) / 2) / words.length),
        ),
      );
      const ones = mine!.firstDifference(theirs!);
      if (ones) return { verdict: 'different', ones };
    }
    return { verdict: 'same' };
  } catch (error) {
    if (error instanceof TooMuch) return { verdict: 'undecided' };
    throw error;
  }
}

/** An edge as a sum: its node, or one less that. */
function sumOf(edge: AigEdge): Sum {
  if (edge >> 1 === 0) return edge === AIG_FALSE ? [] : [[1n, []]];
  const node = [edge >> 1];
  return edge & 1
    ? [
        [1n, []],
        [-1n, node],
      ]
    : [[1n, node]];
}

/** One less a sum. */
const inverted = (sum: Sum): Sum => [[1n, []], ...sum.map(([f, p]) => [-f, p] as const)];

function rewritten(
  aig: Aig,
  unitOf: ReadonlyMap<number, AdderUnit>,
  word: readonly AigEdge[],
  progress: (share: number) => void,
): Polynomial {
  const polynomial = new Polynomial(BigInt(word.length), {
    terms: MOST_TERMS * aig.nodes,
    work: MOST_WORK * aig.nodes,
  });
  for (const [bit, edge] of word.entries())
    for (const [f, p] of sumOf(edge)) polynomial.add(f << BigInt(bit), p);
  const order = orderOf(aig, unitOf, word);
  for (let i = order.length - 1; i >= 0; i--) {
    if ((i & 63) === 0) progress(1 - i / order.length);
    const node = order[i]!;
    if (!polynomial.has(node)) continue;
    const unit = unitOf.get(node);
    const isInverted = unit?.sums.get(node);
    polynomial.replace(
      node,
      unit && isInverted !== undefined
        ? addedUp(unit, isInverted, polynomial)
        : unit
          ? carried(unit, node)
          : times(sumOf(aig.first(node)), sumOf(aig.second(node))),
    );
  }
  if (order.some((node) => polynomial.has(node))) throw new TooMuch();
  return polynomial;
}

/** The leaves of a unit as the carry reads them. */
const literals = ({ leaves }: AdderUnit, inverts: number): Sum[] =>
  leaves.map((leaf, k) => sumOf((leaf << 1) | ((inverts >> k) & 1)));

/** The sum of an adder in terms of its operands and its carry: the operands added up, less twice the carry. */
function addedUp(unit: AdderUnit, isInverted: boolean, polynomial: Polynomial): Sum {
  // The carry that is read elsewhere is the one that will cancel.
  const carry = unit.carries.find(({ node }) => polynomial.factorOf(node) !== 0n) ?? unit.carries[0]!;
  let isOdd = isInverted;
  for (let k = 0; k < unit.leaves.length; k++) if (carry.inverts & (1 << k)) isOdd = !isOdd;
  const twice = sumOf((carry.node << 1) | (carry.isInverted ? 1 : 0));
  const sum: Sum = [...literals(unit, carry.inverts).flat(), ...twice.map(([f, p]) => [-2n * f, p] as const)];
  return isOdd ? inverted(sum) : sum;
}

/** A carry of an adder by itself. */
function carried(unit: AdderUnit, node: number): Sum {
  const { inverts, isInverted } = unit.carries.find((c) => c.node === node)!;
  const [a, b, c] = literals(unit, inverts) as [Sum, Sum, Sum?];
  const ab = times(a, b);
  const sum: Sum = c
    ? [...ab, ...times(a, c), ...times(b, c), ...times(ab, c).map(([f, p]) => [-2n * f, p] as const)]
    : ab;
  return isInverted ? inverted(sum) : sum;
}

/** The nodes on which a word depends, in topological order; the carries of an adder come just before its sums. */
function orderOf(aig: Aig, unitOf: ReadonlyMap<number, AdderUnit>, word: readonly AigEdge[]): number[] {
  const order: number[] = [];
  const seen = new Set<number | AdderUnit>();
  const keyOf = (node: number) => unitOf.get(node) ?? node;
  const todo: { readonly key: number | AdderUnit; isOpen: boolean }[] = word.map((edge) => ({
    key: keyOf(edge >> 1),
    isOpen: false,
  }));
  for (let top = todo.pop(); top; top = todo.pop()) {
    const { key } = top;
    if (top.isOpen) {
      if (typeof key === 'number') order.push(key);
      else order.push(...new Set([...key.carries.map((c) => c.node), ...key.sums.keys()]));
      continue;
    }
    if (seen.has(key) || (typeof key === 'number' && !aig.isAnd(key))) continue;
    seen.add(key);
    todo.push({ key, isOpen: true });
    const reads = typeof key === 'number' ? [aig.first(key) >> 1, aig.second(key) >> 1] : key.leaves;
    for (const node of reads) todo.push({ key: keyOf(node), isOpen: false });
  }
  return order;
}
