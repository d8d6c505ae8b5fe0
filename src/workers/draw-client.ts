import type { Sheet } from '@/core/circuit/sheet';
import type { SpecTable } from '@/core/circuit/spec-table';
import type { CircuitForm, Cost } from '@/core/synthesis/circuit-of-spec';
import type { DrawWork } from './draw-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./draw-worker.ts', import.meta.url), { type: 'module' });

/** Draws the circuit of a table as a sheet with an id and a name. */
export const circuitDrawer = (plan: SpecTable, as: CircuitForm, id: string, name: string): WorkerJob<Sheet> =>
  workerJob<DrawWork, Sheet>(start, (work) => work.circuitOfPlan(plan, as, id, name) as Promise<Sheet>);

/** Reports the sizes of a table's circuits, one after the other. */
export const circuitWeigher = (
  plan: SpecTable,
  ways: readonly CircuitForm[],
  told: (as: CircuitForm, cost: Cost) => void,
): WorkerJob<void> =>
  workerJob<DrawWork, void>(start, async (work) => {
    for (const as of ways) told(as, await work.costOf(plan, as));
  });
