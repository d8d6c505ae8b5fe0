import { expose } from 'comlink';
import { type BooleanFunction, complement } from '@/core/logic/minimise/cube';
import { type Minimised, minimise } from '@/core/logic/minimise/minimise';

const work = {
  /** The smallest sums of products of a function's ones and of its zeros. */
  both(fn: BooleanFunction): { ones: Minimised; zeros: Minimised } {
    return { ones: minimise(fn), zeros: minimise(complement(fn)) };
  },
};

export type MinimiseWork = typeof work;

expose(work);
