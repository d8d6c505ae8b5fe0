/** Variables of a product at most. */
const MOST_VARIABLES = 12;

/** Too many terms, too large ones, or too much work. */
export class TooMuch extends Error {}

/** Variables of one product, in rising order. */
type Product = readonly number[];

const product = (a: Product, b: Product): Product => {
  if (a.length === 0) return b;
  if (b.length === 0) return a;
  return [...new Set([...a, ...b])].sort((x, y) => x - y);
};

/** A sum that is put in the place of a variable: products of variables with factors. */
export type Sum = readonly (readonly [factor: bigint, of: Product])[];

/** The product of two sums, in which a variable times itself is itself. */
export function times(a: Sum, b: Sum): Sum {
  const all = new Map<string, readonly [bigint, Product]>();
  for (const [f, p] of a)
    for (const [g, q] of b) {
      const of = product(p, q);
      const key = of.join();
      all.set(key, [(all.get(key)?.[0] ?? 0n) + f * g, of]);
    }
  return [...all.values()].filter(([f]) => f !== 0n);
}

/**
 * A sum of products of variables that are 0 or 1, with factors modulo a power of two. As a function of its variables it is this sum
 * and no other, so that two are the same function only if they have the same terms.
 */
export class Polynomial {
  private readonly terms = new Map<string, { factor: bigint; readonly of: Product }>();
  private readonly having = new Map<number, Set<string>>();
  /** Products made so far. */
  work = 0;

  /**
   * @param bits factors count modulo 2 to the power of it.
   * @param most terms at any time; and of the work.
   */
  constructor(
    private readonly bits: bigint,
    private readonly most: { readonly terms: number; readonly work: number },
  ) {}

  /** @throws TooMuch */
  add(factor: bigint, of: Product): void {
    if (++this.work > this.most.work || of.length > MOST_VARIABLES) throw new TooMuch();
    const key = of.join();
    const term = this.terms.get(key);
    const now = BigInt.asUintN(Number(this.bits), (term?.factor ?? 0n) + factor);
    if (now === 0n) {
      if (!term) return;
      this.terms.delete(key);
      for (const v of of) this.having.get(v)!.delete(key);
    } else if (term) term.factor = now;
    else {
      if (this.terms.size >= this.most.terms) throw new TooMuch();
      this.terms.set(key, { factor: now, of });
      for (const v of of) {
        const keys = this.having.get(v);
        if (keys) keys.add(key);
        else this.having.set(v, new Set([key]));
      }
    }
  }

  has(variable: number): boolean {
    return (this.having.get(variable)?.size ?? 0) > 0;
  }

  /** The factor of a variable that stands alone. */
  factorOf(variable: number): bigint {
    return this.terms.get(String(variable))?.factor ?? 0n;
  }

  /** Puts a sum in the place of a variable. @throws TooMuch */
  replace(variable: number, sum: Sum): void {
    const keys = this.having.get(variable);
    if (!keys) return;
    for (const key of [...keys]) {
      const { factor, of } = this.terms.get(key)!;
      this.add(-factor, of);
      const rest = of.filter((v) => v !== variable);
      for (const [f, p] of sum) this.add(factor * f, product(rest, p));
    }
  }

  /** The fewest variables that have to be 1, all others 0, for two sums to differ; null if they never do. */
  firstDifference(other: Polynomial): Product | null {
    let found: Product | null = null;
    for (const [one, two] of [
      [this, other],
      [other, this],
    ] as const)
      for (const [key, { factor, of }] of one.terms)
        if (two.terms.get(key)?.factor !== factor && (!found || of.length < found.length)) found = of;
    return found;
  }
}
