import type { Plan } from '@/core/circuit/plan';
import { cell, type TruthTable } from '@/core/logic/truth-table';
import { letterOf } from '@/core/values/logic';
import { sameName } from '@/core/values/names';

/** What the circuit does, in the order of the plan: for each planned output the column of its name, by the plan's rows. */
export interface Beside {
  readonly letter: (output: number, row: number) => string | null;
  /** The row of the circuit that a row of the plan is: its inputs may stand in another order. */
  readonly rowOf: (row: number) => number;
  /** Whether each planned output is there. */
  readonly isWhole: boolean;
}

export function beside(plan: Plan, derived: TruthTable, order: (row: number) => number): Beside {
  const back = new Int32Array(derived.rows);
  for (let row = 0; row < derived.rows; row++) back[order(row)] = row;
  const columns = plan.outputs.map((o) => derived.outputs.findIndex((name) => sameName(name, o.name)));
  return {
    letter: (output, row) => {
      const column = columns[output]!;
      return column === -1 ? null : letterOf(cell(derived, column, back[row]!));
    },
    rowOf: (row) => back[row]!,
    isWhole: !columns.includes(-1),
  };
}

export const differs = (planned: string, done: string | null) =>
  done !== null && (planned === '0' || planned === '1') && planned !== done;

/**
 * Rows of a plan in which the circuit does something else.
 * @param counts rows of the circuit, the only ones that count; all without it.
 */
export function differing(plan: Plan, circuit: Beside, counts: ReadonlySet<number> | null): number[] {
  const found: number[] = [];
  for (let row = 0; row < 2 ** plan.inputs.length; row++)
    if (
      (!counts || counts.has(circuit.rowOf(row))) &&
      plan.outputs.some((o, i) => differs(o.rows[row]!, circuit.letter(i, row)))
    )
      found.push(row);
  return found;
}
