import type { Sheet } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import type { Cost, DrawnAs } from '@/core/synthesis/from-plan';
import type { DrawWork } from './draw-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./draw-worker.ts', import.meta.url), { type: 'module' });

/** Draws the circuit of a table as a sheet with an id and a name. */
export const planDrawer = (plan: Plan, as: DrawnAs, id: string, name: string): WorkerJob<Sheet> =>
  workerJob<DrawWork, Sheet>(start, (work) => work.circuitOfPlan(plan, as, id, name) as Promise<Sheet>);

/** Tells what circuits of a table would take, one after the other. */
export const planWeigher = (
  plan: Plan,
  ways: readonly DrawnAs[],
  told: (as: DrawnAs, cost: Cost) => void,
): WorkerJob<void> =>
  workerJob<DrawWork, void>(start, async (work) => {
    for (const as of ways) told(as, await work.costOf(plan, as));
  });
