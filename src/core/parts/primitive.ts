/** What the compiled netlist is made of: each primitive drives exactly one net. */
export const Primitive = {
  BUF: 0,
  NOT: 1,
  AND: 2,
  NAND: 3,
  OR: 4,
  NOR: 5,
  XOR: 6,
  XNOR: 7,
  /** Several drivers of one net, resolved by the table of IEEE Std 1364. */
  WIRED: 8,
  /** Edge-triggered storage of one bit; inputs: data, clock. The state changes on the rising edge. */
  DFF_RISE: 9,
  /** The same on the falling edge. */
  DFF_FALL: 10,
} as const;
export type Primitive = (typeof Primitive)[keyof typeof Primitive];

/** Whether the primitive remembers, so that its output is not a function of its inputs alone. */
export function remembers(op: number): boolean {
  return op === Primitive.DFF_RISE || op === Primitive.DFF_FALL;
}

/** Propagation delay in ps, for an output that rises and one that falls. */
export interface Delay {
  readonly rise: number;
  readonly fall: number;
}

export const NO_DELAY: Delay = { rise: 0, fall: 0 };
