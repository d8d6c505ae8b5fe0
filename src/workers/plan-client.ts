import type { Sheet } from '@/core/circuit/sheet';
import type { SheetPlan } from '@/core/packages/sheet-plan';
import type { PlanWork } from './plan-worker';
import { type WorkerJob, workerJob } from './worker-job';

const start = () => new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' });

/** Plans a sheet in logic packages, as its setup says. */
export const planner = (sheet: Sheet, sheets: readonly Sheet[]): WorkerJob<SheetPlan> =>
  workerJob<PlanWork, SheetPlan>(start, (work) => work.sheetPlan(sheet, sheets) as Promise<SheetPlan>);
