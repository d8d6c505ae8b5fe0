import type { Sheet } from '@/core/circuit/lesson';
import type { Proof } from '@/core/logic/prove';
import type { Result } from '@/core/values/result';
import type { ProveWork } from './prove-worker';

/** Proves two sheets the same, or not, in a worker of its own; cancelling ends the worker. */
export function prover(
  a: Sheet,
  b: Sheet,
  sheets: readonly Sheet[],
  progress: (share: number) => void,
): { readonly proof: Promise<Result<Proof>>; readonly cancel: () => void } {
  let isDone = false;
  // What is told goes another way than the result, and may come after it.
  const told = (share: number) => {
    if (!isDone) progress(share);
  };
  const worker = new Worker(new URL('./prove-worker.ts', import.meta.url), { type: 'module' });
  const proof = import('comlink').then(
    ({ proxy, wrap }) => wrap<ProveWork>(worker).prove(a, b, sheets, proxy(told)) as Promise<Result<Proof>>,
  );
  const done = () => {
    isDone = true;
    worker.terminate();
  };
  proof.then(done, done);
  return { proof, cancel: done };
}
