import { type Cover, cover } from './covering';
import { type BooleanFunction, type Cube, literalCount, OFF, ON, rowsOf, UNIVERSAL_CUBE } from './cube';
import { MOST_FOR_PRIMES, onRows, primes } from './primes';

/** Most inputs of a function that is minimised at all. */
export const MOST_TO_MINIMISE = 16;
/** More inputs than this are minimised by the heuristic, unless more time is taken. */
export const MOST_EXACT = 10;
/** Up to so many where seconds may pass. */
export const MOST_EXACT_SLOWLY = 12;

export interface Minimised {
  /** Products whose sum the function is, in the order of a dictionary; none for 0. */
  readonly cubes: readonly Cube[];
  /** Whether it is proved that no sum of fewer products is the function. */
  readonly exact: boolean;
  /** Whether it is proved as well that none of as many products has fewer literals. */
  readonly fewestLiterals: boolean;
  /** Products that every such sum has at least, as far as that is proved. */
  readonly least: number;
}

/** One product more costs more than all literals together. */
const TERM = 10_000;
/**
 * The cost of a product beyond its literals when the fewest literals are sought: the smaller, the closer the
 * bounds. It may be so small that a cover with one product more is cheaper; then the search is repeated with
 * the next of these.
 */
const BESIDE_LITERALS = [3, TERM];
/**
 * Effort of the covering solver before a proof is given up: in total, at most for the fewest literals, and at
 * least for them, so that some literals are dropped even if the number of products is not proved minimal.
 */
const STEPS = 80_000_000;
const MOST_FOR_LITERALS = 20_000_000;
const LEAST_FOR_LITERALS = 3_000_000;

/**
 * The smallest sum of products: fewest products, and of those the fewest literals. Exact by all prime implicants and
 * a covering solver; beyond `mostExact` inputs, or where the proof takes too long, by a heuristic, which is said.
 * @throws RangeError over `MOST_TO_MINIMISE` inputs.
 */
export function minimise(fn: BooleanFunction, mostExact = MOST_EXACT): Minimised {
  if (fn.inputs > MOST_TO_MINIMISE) throw new RangeError(`${fn.inputs} inputs are too many to minimise`);
  const on = onRows(fn);
  if (on.length === 0) return { cubes: [], exact: true, fewestLiterals: true, least: 0 };
  if (fn.rows.every((v) => v !== OFF))
    return { cubes: [UNIVERSAL_CUBE], exact: true, fewestLiterals: true, least: 1 };
  if (fn.inputs > Math.min(mostExact, MOST_FOR_PRIMES))
    return { cubes: sorted(heuristic(fn)), exact: false, fewestLiterals: false, least: 1 };
  const all = primes(fn);
  const rows = covering(all, on, fn.inputs);
  const few = cover({ rows, cost: all.map(() => 1) }, STEPS);
  const { least } = few;
  if (!few.exact && fn.inputs > MOST_EXACT) {
    // Of so many products the heuristic may have found fewer, and literals would take as long again.
    const other = heuristic(fn);
    const own = few.columns.map((c) => all[c]!);
    const cubes = size(other) < size(own) ? other : own;
    return { cubes: sorted(cubes), exact: cubes.length === least, fewestLiterals: false, least };
  }
  const { columns, exact } = fewestLiterals(all, rows, few);
  return {
    cubes: sorted(columns.map((c) => all[c]!)),
    exact: few.exact,
    fewestLiterals: few.exact && exact,
    least,
  };
}

/** Of the covers with as few products as one that is known, one with the fewest literals. */
function fewestLiterals(all: readonly Cube[], rows: readonly (readonly number[])[], few: Cover): Cover {
  const steps = Math.max(LEAST_FOR_LITERALS, Math.min(MOST_FOR_LITERALS, STEPS - few.steps));
  for (const beside of BESIDE_LITERALS) {
    const cost = all.map((cube) => beside + literalCount(cube));
    const found = cover({ rows, cost }, steps, few.columns);
    if (found.columns.length <= few.columns.length) return found;
  }
  return { ...few, exact: false };
}

/** For each row at which a function must be 1 the cubes that cover it, in order. */
function covering(cubes: readonly Cube[], rows: readonly number[], inputs: number): number[][] {
  const found = new Map(rows.map((row): [number, number[]] => [row, []]));
  for (const [c, cube] of cubes.entries()) for (const row of rowsOf(cube, inputs)) found.get(row)?.push(c);
  return [...found.values()];
}

/** In the order of a dictionary: by the first input that stands in one of them, plain before inverted. */
function sorted(cubes: readonly Cube[]): Cube[] {
  const before = (a: Cube, b: Cube) => {
    // The highest bit in which they differ in any way decides.
    const bit = 31 - Math.clz32((a.mask ^ b.mask) | (a.value ^ b.value));
    const place = ({ mask, value }: Cube) => ((value >> bit) & 1 ? 0 : (mask >> bit) & 1 ? 1 : 2);
    return place(a) - place(b);
  };
  return [...cubes].sort(before);
}

/**
 * Expand, irredundant, reduce (Brayton and others, 1984), repeated while it improves: each cube is made as
 * large as possible, redundant cubes are dropped, and each is made as small as allowed, so that the next
 * expansion can take another direction.
 */
export function heuristic(fn: BooleanFunction): Cube[] {
  const field = new Field(fn);
  let cubes = field.irredundant(field.expanded(field.minterms(), 0));
  for (let turn = 1; turn <= MOST_TURNS; turn++) {
    const next = field.irredundant(field.expanded(field.reduced(cubes), turn));
    if (size(next) >= size(cubes)) break;
    cubes = next;
  }
  return cubes;
}

const MOST_TURNS = 6;
const size = (cubes: readonly Cube[]) => cubes.reduce((sum, c) => sum + TERM + literalCount(c), 0);

/** The rows of a function, with how many cubes of a sum cover each. */
class Field {
  private readonly all: number;

  constructor(private readonly fn: BooleanFunction) {
    this.all = 2 ** fn.inputs - 1;
  }

  minterms(): Cube[] {
    return onRows(this.fn).map((row) => ({ mask: this.all, value: row }));
  }

  private rows(cube: Cube): Iterable<number> {
    return rowsOf(cube, this.fn.inputs);
  }

  private isClear(cube: Cube): boolean {
    for (const row of this.rows(cube)) if (this.fn.rows[row] === OFF) return false;
    return true;
  }

  private onOf(cube: Cube): number[] {
    const found: number[] = [];
    for (const row of this.rows(cube)) if (this.fn.rows[row] === ON) found.push(row);
    return found;
  }

  private counts(cubes: readonly Cube[]): Uint16Array {
    const counts = new Uint16Array(this.all + 1);
    for (const cube of cubes) for (const row of this.rows(cube)) counts[row]!++;
    return counts;
  }

  /** Each cube with as many literals left out as possible; cubes that have come to lie inside are passed over. */
  expanded(cubes: readonly Cube[], turn: number): Cube[] {
    const { inputs } = this.fn;
    const covered = new Uint8Array(this.all + 1);
    const found: Cube[] = [];
    for (const cube of cubes) {
      if (this.onOf(cube).every((row) => covered[row])) continue;
      let grown = cube;
      for (let k = 0; k < inputs; k++) {
        const bit = 1 << ((k + turn) % inputs);
        if (!(grown.mask & bit)) continue;
        // Only the half that is new has to be looked at.
        if (this.isClear({ mask: grown.mask, value: grown.value ^ bit }))
          grown = { mask: grown.mask & ~bit, value: grown.value & ~bit };
      }
      for (const row of this.rows(grown)) covered[row] = 1;
      found.push(grown);
    }
    return found;
  }

  /** Leaves out, the smallest first, each cube whose rows others cover. */
  irredundant(cubes: readonly Cube[]): Cube[] {
    const counts = this.counts(cubes);
    const out = new Set<Cube>();
    for (const cube of [...cubes].sort((a, b) => literalCount(b) - literalCount(a))) {
      if (!this.onOf(cube).every((row) => counts[row]! > 1)) continue;
      out.add(cube);
      for (const row of this.rows(cube)) counts[row]!--;
    }
    return cubes.filter((cube) => !out.has(cube));
  }

  /** Each cube made as small as it may be: around the rows that only it covers. */
  reduced(cubes: readonly Cube[]): Cube[] {
    const counts = this.counts(cubes);
    return cubes.flatMap((cube) => {
      let [both, either] = [this.all, 0];
      const own = this.onOf(cube).filter((row) => counts[row] === 1);
      for (const row of own) {
        both &= row;
        either |= row;
      }
      for (const row of this.rows(cube)) counts[row]!--;
      if (own.length === 0) return [];
      const mask = this.all & ~(both ^ either);
      const small = { mask, value: both & mask };
      for (const row of this.rows(small)) counts[row]!++;
      return [small];
    });
  }
}
