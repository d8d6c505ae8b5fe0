import type { Sheet } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import type { Cost, DrawnAs } from '@/core/synthesis/from-plan';
import type { DrawWork } from './draw-worker';

/** Draws and weighs the circuits of tables, in a worker that goes when it is ended, with whatever it does then. */
export function planDrawer(): {
  readonly draw: (plan: Plan, as: DrawnAs, id: string, name: string) => Promise<Sheet>;
  readonly weigh: (plan: Plan, as: DrawnAs) => Promise<Cost>;
  readonly end: () => void;
} {
  const worker = new Worker(new URL('./draw-worker.ts', import.meta.url), { type: 'module' });
  const work = import('comlink').then(({ wrap }) => wrap<DrawWork>(worker));
  return {
    draw: async (plan, as, id, name) => (await work).circuitOfPlan(plan, as, id, name) as Promise<Sheet>,
    weigh: async (plan, as) => (await work).costOf(plan, as),
    end: () => worker.terminate(),
  };
}
