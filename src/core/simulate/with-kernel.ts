import { makeFast } from './fast-engines';
import { bringFast } from './fast-in-use';

/*
 * Imported where runs may be long: from then on they go over to the kernel where that is worth it. A page fetches
 * `compiled-kernel.ts` when a run has become long. The results are the same without it.
 */
bringFast(makeFast);
