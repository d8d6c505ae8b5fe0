import { compileKernel, KernelEngine } from './kernel/kernel-engine';
import { bringKernel } from './kernel-in-use';

/** Brings the kernel along as `with-kernel.ts` does, once it is compiled: until then runs go on with the reference. */
export async function bringCompiledKernel(): Promise<void> {
  await compileKernel();
  bringKernel(KernelEngine.from);
}
