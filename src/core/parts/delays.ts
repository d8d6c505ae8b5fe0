import type { Delay } from './primitive';

const ns = (rise: number, fall: number): Delay => ({ rise: rise * 1000, fall: fall * 1000 });

/**
 * Propagation delays of our own, in ps, in the proportions of ordinary 5 V logic: an inverting gate is the
 * quickest, AND and OR are one with an inverter behind it, exclusive-or is two levels deep, and each input past
 * two costs a little.
 */
export function gateDelay(kind: string, inputs: number): Delay {
  const extra = Math.max(0, inputs - 2);
  switch (kind) {
    case 'not':
      return ns(6, 6);
    case 'nand':
    case 'nor':
      return ns(8 + extra, 8 + extra);
    case 'xor':
    case 'xnor':
      return ns(14 + 3 * extra, 14 + 3 * extra);
    default:
      return ns(10 + extra, 10 + extra);
  }
}

/** From the active clock edge to the outputs of a flip-flop, in ps. */
export const CLOCK_TO_Q: Delay = ns(15, 15);
