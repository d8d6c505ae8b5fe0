import { expose } from 'comlink';
import { type BooleanFunction, complement } from '@/core/logic/minimise/cube';
import { type Minimised, MOST_EXACT_SLOWLY, minimise } from '@/core/logic/minimise/minimise';

const work = {
  /** The smallest sums of products of a function's ones and of its zeros. */
  both(fn: BooleanFunction): { ones: Minimised; zeros: Minimised } {
    return {
      ones: minimise(fn, MOST_EXACT_SLOWLY),
      zeros: minimise(complement(fn), MOST_EXACT_SLOWLY),
    };
  },
};

export type MinimiseWork = typeof work;

expose(work);
