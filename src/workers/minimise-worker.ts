import { expose } from 'comlink';
import { type BooleanFunction, complement } from '@/core/logic/minimise/cube';
import { type Minimised, minimise } from '@/core/logic/minimise/minimise';

const work = {
  /** The smallest sum of products of where a function is 1, and of where it is 0. */
  both(fn: BooleanFunction): { ones: Minimised; zeros: Minimised } {
    return { ones: minimise(fn), zeros: minimise(complement(fn)) };
  },
};

export type MinimiseWork = typeof work;

expose(work);
