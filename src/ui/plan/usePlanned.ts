import { useMemo } from 'react';
import { sheetOf } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import { rowOrder } from '@/core/logic/planned';
import type { TruthTable } from '@/core/logic/truth-table';
import { useSessionState } from '@/ui/lesson/session-context';
import { type Beside, beside, differing } from './compared';

/** The table that is filled in with what stands beside it. */
export interface PlanBesideCircuit {
  readonly plan: Plan | undefined;
  readonly derived: TruthTable | null;
  /** What the circuit does, by the rows of the plan; null where it has other inputs or none. */
  readonly circuit: Beside | null;
  /** Rows in which the circuit does something else, or was seen to. */
  readonly wrong: readonly number[];
}

/**
 * The table that is filled in for the sheet that runs, beside what its circuit does.
 * @param onlyTried whether only rows count that were tried.
 */
export function usePlanned(onlyTried = false): PlanBesideCircuit {
  const plan = useSessionState((s) => sheetOf(s.lesson, s.rootId)?.plan);
  const derived = useSessionState((s) => (s.table.state === 'ready' ? s.table.table : null));
  const tried = useSessionState((s) => s.tried);
  return useMemo(() => {
    const order = plan && derived ? rowOrder(plan, derived.inputs) : null;
    const circuit = plan && derived && order ? beside(plan, derived, order, tried) : null;
    const wrong = plan && circuit ? differing(plan, circuit, onlyTried) : [];
    return { plan, derived, circuit, wrong };
  }, [plan, derived, tried, onlyTried]);
}

/** Whether the circuit does all that is filled in. */
export const isDone = ({ circuit, wrong }: PlanBesideCircuit) =>
  circuit !== null && wrong.length === 0 && circuit.isWhole;
