import type { Delay } from './primitive';

const ns = (rise: number, fall: number): Delay => ({ rise: rise * 1000, fall: fall * 1000 });

/**
 * Propagation delays of our own, in ps, in the proportions of ordinary 5 V logic: an inverting gate is the
 * quickest, AND and OR are one with an inverter behind it, exclusive-or is two levels deep, and each input past
 * two costs a little. docs/parts.md has the table with its reasons.
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

/** A three-state buffer: also from its enable. */
export const THREE_STATE: Delay = ns(12, 12);

/** From the active clock edge, or from an asynchronous input, to the outputs of a flip-flop. */
export const CLOCK_TO_Q: Delay = ns(15, 15);

/** How long the data must stand still before the active clock edge, and after it, in ps. */
export const SETUP = 8_000;
export const HOLD = 2_000;

/** One level of AND-OR, as in a multiplexer, a decoder or an encoder; each further select bit costs a little. */
export function selectDelay(selects: number): Delay {
  return ns(16 + 2 * Math.max(0, selects - 1), 16 + 2 * Math.max(0, selects - 1));
}

/** Carry runs in groups of four bits, as in the adders of ordinary logic families. */
export function carryDelay(width: number): Delay {
  const groups = Math.ceil(width / 4);
  return ns(24 + 10 * (groups - 1), 24 + 10 * (groups - 1));
}

/** From the address to the data. */
export const READ_MEMORY: Delay = ns(45, 45);
