import { expose } from 'comlink';
import type { Sheet } from '@/core/circuit/lesson';
import type { ProofOrProblem } from '@/core/logic/prove';
import { prove } from '@/core/logic/prove-sequences';
import { compile } from '@/core/netlist/compile';

const work = {
  prove(a: Sheet, b: Sheet, sheets: readonly Sheet[], progress: (share: number) => void): ProofOrProblem {
    let last = 0;
    const told = (share: number) => {
      if (share - last < 0.01 && share < 1) return;
      last = share;
      progress(share);
    };
    return prove(compile(a, sheets), compile(b, sheets), { progress: told });
  },
};

export type ProveWork = typeof work;

expose(work);
