import { expose } from 'comlink';
import type { Sheet } from '@/core/circuit/sheet';
import type { Proof } from '@/core/logic/equivalence/prove';
import { prove } from '@/core/logic/equivalence/prove-sequences';
import { compile } from '@/core/netlist/compile';
import type { Result } from '@/core/values/result';

const work = {
  prove(a: Sheet, b: Sheet, sheets: readonly Sheet[], progress: (share: number) => void): Result<Proof> {
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
