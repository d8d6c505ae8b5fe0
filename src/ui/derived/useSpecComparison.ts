import { useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { SpecTable } from '@/core/circuit/spec-table';
import { rowOrder } from '@/core/logic/specification/spec-edits';
import type { TruthTable } from '@/core/logic/table/truth-table';
import { useSessionState } from '@/ui/session/session-context';
import { type CircuitColumns, circuitColumns, differing } from './circuit-columns';

/** The table that is filled in with what stands beside it. */
export interface SpecComparison {
  readonly plan: SpecTable | undefined;
  readonly derived: TruthTable | null;
  /** What the circuit does, by the rows of the plan; null where it has other inputs or none. */
  readonly circuit: CircuitColumns | null;
  /** Rows in which the circuit does something else, or was seen to. */
  readonly wrong: readonly number[];
}

/**
 * The table that is filled in for the sheet that runs, beside what its circuit does.
 * @param onlyTried whether only rows count that were tried.
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
