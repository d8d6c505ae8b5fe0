import { expose } from 'comlink';
import { inverted, type Wish } from '@/core/logic/cube';
import { type Minimised, minimise } from '@/core/logic/minimise';

const work = {
  /** The smallest sum of products of where a function is 1, and of where it is 0. */
  both(wish: Wish): { ones: Minimised; zeros: Minimised } {
    return { ones: minimise(wish), zeros: minimise(inverted(wish)) };
  },
};

export type MinimiseWork = typeof work;

expose(work);
