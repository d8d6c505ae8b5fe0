import { makeFast } from './fast-engines';
import { bringFast } from './fast-in-use';
import { compileKernel } from './kernel/kernel-engine';

/** Brings the kernel along as `with-kernel.ts` does, once it is compiled: until then runs go on with the reference. */
export async function bringCompiledKernel(): Promise<void> {
  await compileKernel();
  bringFast(makeFast);
}
