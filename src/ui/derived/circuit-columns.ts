import type { SpecTable } from '@/core/circuit/spec-table';
import { cell, type TruthTable } from '@/core/logic/table/truth-table';
import { letterOf } from '@/core/values/logic';
import { sameName } from '@/core/values/names';

/**
 * The columns of the circuit in the order of the filled-in table: for each of its outputs the column of that
 * name, by its rows.
 */
export interface CircuitColumns {
  readonly letter: (output: number, row: number) => string | null;
  /** The outputs seen when the row was tried on the live circuit; null if it was not. */
  readonly seen: (output: number, row: number) => string | null;
  /** The row of the circuit that a row of the plan is: its inputs may stand in another order. */
  readonly rowOf: (row: number) => number;
  /** Whether each planned output is there. */
  readonly isWhole: boolean;
}

/** The outputs seen in each tried row of the circuit, as letters. */
export type SeenLetters = ReadonlyMap<number, string>;

export function circuitColumns(
  plan: SpecTable,
  derived: TruthTable,
  order: (row: number) => number,
  seen: SeenLetters,
): CircuitColumns {
  const back = new Int32Array(derived.rows);
  for (let row = 0; row < derived.rows; row++) back[order(row)] = row;
  const columns = plan.outputs.map((o) => derived.outputs.findIndex((name) => sameName(name, o.name)));
  return {
    letter: (output, row) => {
      const column = columns[output]!;
      return column === -1 ? null : letterOf(cell(derived, column, back[row]!));
    },
    seen: (output, row) => seen.get(back[row]!)?.[columns[output]!] ?? null,
    rowOf: (row) => back[row]!,
    isWhole: !columns.includes(-1),
  };
}

export const differs = (planned: string, done: string | null) =>
  done !== null && (planned === '0' || planned === '1') && planned !== done;

/**
 * Rows of a plan in which the circuit does something else, or was seen to do something else.
 * @param tried whether only rows count that were tried.
 */
export function differing(plan: SpecTable, circuit: CircuitColumns, tried = false): number[] {
  const found: number[] = [];
  for (let row = 0; row < 2 ** plan.inputs.length; row++)
    if (
      plan.outputs.some((o, i) => {
        const [seen, done] = [circuit.seen(i, row), circuit.letter(i, row)];
        if (tried && seen === null) return false;
        return differs(o.rows[row]!, seen) || differs(o.rows[row]!, done) || (seen !== null && seen !== done);
      })
    )
      found.push(row);
  return found;
}
