import type { KernelEngine } from './kernel/kernel-engine';

type MakeKernel = typeof KernelEngine.from;

let inUse: MakeKernel | null = null;

/** What makes kernels here; null where they were not brought along, and runs go on with the reference. See `with-kernel.ts`. */
export const kernelInUse = (): MakeKernel | null => inUse;

/** Brings kernels along, for all runs from now on. */
export function bringKernel(make: MakeKernel): void {
  inUse = make;
}
