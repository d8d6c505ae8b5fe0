import { useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { SpecTable } from '@/core/circuit/spec-table';
import { rowOrder } from '@/core/logic/specification/spec-edits';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { useSessionState } from '@/ui/session/session-context';
import { type CircuitColumns, circuitColumns, differing } from './circuit-columns';

/** The filled-in table with the circuit's columns beside it. */
export interface SpecComparison {
  readonly plan: SpecTable | undefined;
  readonly derived: TruthTable | null;
  /** The circuit's columns by the rows of the table; null if its inputs differ or it has none. */
  readonly circuit: CircuitColumns | null;
  /** Rows in which the circuit does something else, or was seen to. */
  readonly wrong: readonly number[];
}

/**
 * The filled-in table of the running sheet, beside the columns of its circuit.
 * @param onlyTried whether only tried rows count.
 */
export function useSpecComparison(onlyTried = false): SpecComparison {
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan);
  const derived = useSessionState((s) => (s.table.state === 'ready' ? s.table.table : null));
  const tried = useSessionState((s) => s.tried);
  return useMemo(() => {
    const order = plan && derived ? rowOrder(plan, derived.inputs) : null;
    const circuit = plan && derived && order ? circuitColumns(plan, derived, order, tried) : null;
    const wrong = plan && circuit ? differing(plan, circuit, onlyTried) : [];
    return { plan, derived, circuit, wrong };
  }, [plan, derived, tried, onlyTried]);
}

/** Whether the circuit does all that is filled in. */
export const isDone = ({ circuit, wrong }: SpecComparison) =>
  circuit !== null && wrong.length === 0 && circuit.isWhole;
