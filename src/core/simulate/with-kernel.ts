import { KernelEngine } from './kernel/kernel-engine';
import { bringKernel } from './kernel-in-use';

/*
 * To be imported where runs may be long: from then on they go over to the kernel where that is worth it. A page fetches it when time is
 * to run; what comes out is the same without it.
 */
bringKernel(KernelEngine.from);
