/**
 * The primitives of the compiled netlist: each drives exactly one net. The first eight are the gates of IEEE
 * Std 1364-2005, clause 7.
 */
export const Primitive = {
  BUF: 0,
  NOT: 1,
  AND: 2,
  NAND: 3,
  OR: 4,
  NOR: 5,
  XOR: 6,
  XNOR: 7,
  /** Any number of drivers of one net, resolved by the table of IEEE Std 1364; Z without a driver. */
  WIRED: 8,
  /**
   * Inputs: select, taken at 0, taken at 1. With an unknown select the output is the common value of both,
   * else X.
   */
  MUX: 9,
  /** Inputs: data, enable. Z while the enable is 0. */
  TRI: 10,
  /** Hands its input on, and 1 where that is Z. */
  PULL_UP: 11,
  PULL_DOWN: 12,
  CONST_0: 13,
  CONST_1: 14,
  CONST_X: 15,
  /**
   * Edge-triggered storage of one bit. Inputs: data, clock, and where there are four: preset, clear (active at 1,
   * asynchronous, clear wins). The state changes on the rising edge.
   */
  DFF_RISE: 16,
  /** The same on the falling edge. */
  DFF_FALL: 17,
  /** Level-sensitive storage of one bit: as above with a gate in place of the clock, open at 1. */
  LATCH: 18,
} as const;
export type Primitive = (typeof Primitive)[keyof typeof Primitive];

/** Whether the primitive remembers, so that its output is not a function of its inputs alone. */
export function remembers(op: number): boolean {
  return op >= Primitive.DFF_RISE;
}

/** Propagation delay in ps, for an output that rises and one that falls. */
export interface Delay {
  readonly rise: number;
  readonly fall: number;
}
