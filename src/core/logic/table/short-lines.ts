/** The mark of an input that does not matter in a line. */
export const ANY = '×';

/** A line of a short table: `0`, `1` or `×` for each input, and the result that all its rows share. */
export interface ShortLine {
  readonly inputs: readonly string[];
  readonly result: string;
}

/**
 * The fewest lines that say a table when one input after the other is decided: an input that no longer matters is `×`.
 * Found by trying every order of decisions, cubes being met again only once (as in the search for a smallest binary decision
 * tree by dynamic programming: Schumacher and Sevcik 1976, "The synthetic approach to decision table conversion").
 * @param count inputs, up to 12; the first one is the most significant bit of a row.
 * @param resultOf the result in a row.
 */
export function shortLines(count: number, resultOf: (row: number) => string): ShortLine[] {
  // A cube is a number of base 3: a digit for each input, 2 where it is open.
  const powers = Array.from({ length: count + 1 }, (_, i) => 3 ** (count - i)).slice(1);
  const cubes = 3 ** count;
  const results: string[] = [];
  const numberOf = new Map<string, number>();
  /** The number of the result that all rows of a cube share, -1 where they differ. */
  const uniform = new Int32Array(cubes).fill(-2);
  const lines = new Int32Array(cubes);
  const decided = new Int8Array(cubes);
  const digit = (cube: number, i: number) => Math.floor(cube / powers[i]!) % 3;
  const solve = (cube: number): void => {
    if (uniform[cube]! !== -2) return;
    let row = 0;
    let firstOpen = -1;
    let least = Number.POSITIVE_INFINITY;
    for (let i = 0; i < count; i++) {
      const d = digit(cube, i);
      row = row * 2 + (d & 1);
      if (d !== 2) continue;
      const [zero, one] = [cube - 2 * powers[i]!, cube - powers[i]!];
      solve(zero);
      solve(one);
      const isAlike = uniform[zero]! >= 0 && uniform[zero] === uniform[one];
      const needs = isAlike ? 1 : lines[zero]! + lines[one]!;
      if (firstOpen === -1) {
        firstOpen = i;
        uniform[cube] = isAlike ? uniform[zero]! : -1;
      }
      if (needs < least) {
        least = needs;
        decided[cube] = i;
      }
    }
    lines[cube] = firstOpen === -1 ? 1 : least;
    if (firstOpen !== -1) return;
    const result = resultOf(row);
    if (!numberOf.has(result)) numberOf.set(result, results.push(result) - 1);
    uniform[cube] = numberOf.get(result)!;
  };
  const found: ShortLine[] = [];
  const tell = (cube: number): void => {
    if (uniform[cube]! >= 0) {
      const inputs = powers.map((_, i) => ['0', '1', ANY][digit(cube, i)]!);
      found.push({ inputs, result: results[uniform[cube]!]! });
      return;
    }
    const by = powers[decided[cube]!]!;
    tell(cube - 2 * by);
    tell(cube - by);
  };
  solve(cubes - 1);
  tell(cubes - 1);
  return found;
}
