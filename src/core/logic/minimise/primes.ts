import { type BooleanFunction, type Cube, DONT_CARE, OFF, ON } from './cube';

/** More inputs than this have too many possible products to look at all of them: 3^13 are 1.6 million. */
export const MOST_FOR_PRIMES = 13;

/**
 * All prime implicants that cover a row where the function must be 1. A prime implicant covers no 0, and no literal can be
 * dropped from it (Quine, 1952). All 3^n products are visited, each after the two products that it combines (McCluskey, 1956),
 * so each costs one step.
 * @throws RangeError over `MOST_FOR_PRIMES` inputs.
 */
export function primes({ inputs, rows }: BooleanFunction): Cube[] {
  if (inputs > MOST_FOR_PRIMES)
    throw new RangeError(`${inputs} inputs are too many for all prime implicants`);
  const powers = Array.from({ length: inputs + 1 }, (_, i) => 3 ** i);
  const count = powers[inputs]!;
  // For each product, whether it is nowhere 0 (bit 0), and whether it is somewhere 1 (bit 1). Digit 2: not in it.
  const state = new Uint8Array(count);
  const digits = new Uint8Array(inputs);
  const found: Cube[] = [];
  for (let t = 0; t < count; t++) {
    let row = 0;
    let free = -1;
    for (let i = 0; i < inputs; i++) {
      if (digits[i] === 2) {
        free = i;
        break;
      }
      row |= digits[i]! << i;
    }
    if (free === -1) state[t] = rows[row] === OFF ? 0 : rows[row] === DONT_CARE ? 1 : 3;
    else {
      const [a, b] = [state[t - powers[free]!]!, state[t - 2 * powers[free]!]!];
      state[t] = (a & b & 1) | (a & b & 1 ? (a | b) & 2 : 0);
    }
    for (let i = 0; i < inputs && ++digits[i]! > 2; i++) digits[i] = 0;
  }
  digits.fill(0);
  for (let t = 0; t < count; t++) {
    if (state[t] === 3 && !digits.some((d, i) => d < 2 && state[t + (2 - d) * powers[i]!]! & 1)) {
      let [mask, value] = [0, 0];
      for (const [i, d] of digits.entries()) {
        if (d < 2) mask |= 1 << i;
        if (d === 1) value |= 1 << i;
      }
      found.push({ mask, value });
    }
    for (let i = 0; i < inputs && ++digits[i]! > 2; i++) digits[i] = 0;
  }
  return found;
}

/** Rows at which a function must be 1. */
export function onRows({ rows }: BooleanFunction): number[] {
  const found: number[] = [];
  for (const [row, value] of rows.entries()) if (value === ON) found.push(row);
  return found;
}
