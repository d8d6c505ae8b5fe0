import type { Wish } from '@/core/logic/cube';
import type { Minimised } from '@/core/logic/minimise';
import type { MinimiseWork } from './minimise-worker';

/** Minimises a function in a worker of its own; cancelling ends the worker. */
export function minimiser(wish: Wish): {
  readonly both: Promise<{ ones: Minimised; zeros: Minimised }>;
  readonly cancel: () => void;
} {
  const worker = new Worker(new URL('./minimise-worker.ts', import.meta.url), { type: 'module' });
  const both = import('comlink').then(({ wrap }) => wrap<MinimiseWork>(worker).both(wish));
  const done = () => worker.terminate();
  both.then(done, done);
  return { both, cancel: done };
}
