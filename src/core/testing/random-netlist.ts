import type { Netlist, Source } from '../netlist/netlist';
import { Primitive, remembers } from '../parts/primitive';
import type { Store } from '../parts/template';
import { dice } from './dice';

/** Delays in ps of which a circuit takes some: with a common divisor, without one, and far apart. */
const DELAYS = [[1000], [0, 1000], [1000, 2000, 9000], [0, 500, 7000], [7, 11, 13], [0, 1, 999_983]];
const GATES = [
  Primitive.BUF,
  Primitive.NOT,
  Primitive.AND,
  Primitive.NAND,
  Primitive.OR,
  Primitive.NOR,
  Primitive.XOR,
  Primitive.XNOR,
  Primitive.WIRED,
  Primitive.MUX,
  Primitive.TRI,
  Primitive.PULL_UP,
  Primitive.PULL_DOWN,
  Primitive.CONST_X,
];
/** The same for circuits without storage, loops and unknown values, in which everything takes some time. */
const PLAIN_DELAYS = [
  [1000],
  [1000, 2000, 9000],
  [500, 7000],
  [7, 11, 13],
  [1000, 31_000, 32_000],
  [1, 999_983],
];
const PLAIN_GATES = [
  ...GATES.slice(0, GATES.indexOf(Primitive.WIRED)),
  Primitive.MUX,
  Primitive.CONST_0,
  Primitive.CONST_1,
];
const STORES = [Primitive.DFF_RISE, Primitive.DFF_FALL, Primitive.LATCH];
const FIXED: Readonly<Partial<Record<number, number>>> = {
  [Primitive.BUF]: 1,
  [Primitive.NOT]: 1,
  [Primitive.MUX]: 3,
  [Primitive.TRI]: 2,
  [Primitive.PULL_UP]: 1,
  [Primitive.PULL_DOWN]: 1,
  [Primitive.CONST_0]: 0,
  [Primitive.CONST_1]: 0,
  [Primitive.CONST_X]: 0,
};

/** Where the lists of some rows begin in one that has them all. */
function starts(lengths: readonly number[]): Int32Array {
  const all = new Int32Array(lengths.length + 1);
  for (const [i, length] of lengths.entries()) all[i + 1] = all[i]! + length;
  return all;
}

/**
 * A compiled circuit of all primitives that no sheet could be drawn for: with loops, storage, wide gates and any delays.
 * @param isPlain without storage, loops and unknown values, and with delays that are not 0.
 */
export function randomNetlist(seed: number, isPlain = false): Netlist {
  const next = dice(seed);
  const roll = (most: number) => Math.floor(next() * most);
  const of = <T>(list: readonly T[]): T => list[roll(list.length)]!;
  const inputs = 2 + roll(5);
  const clocks = roll(3);
  const gates = 3 + roll(40);
  const nets = inputs + clocks + gates;
  const delays = of(isPlain ? PLAIN_DELAYS : DELAYS);
  const isLooped = roll(3) === 0 && !isPlain;
  const stores = roll(2) === 0 || isPlain ? 0 : 1 + roll(4);
  const op = Uint8Array.from({ length: gates }, () =>
    roll(gates) < stores ? of(STORES) : of(isPlain ? PLAIN_GATES : GATES),
  );
  const reads = [...op].map((kind, g) => {
    const width =
      FIXED[kind] ?? (remembers(kind) ? of([2, 4]) : roll(12) === 0 ? 22 + roll(50) : 2 + roll(5));
    const reachable = isLooped ? nets : inputs + clocks + g;
    return Array.from({ length: width }, () => roll(reachable));
  });
  const out = Int32Array.from({ length: gates }, (_, g) => inputs + clocks + g);
  const readers: number[][] = Array.from({ length: nets }, () => []);
  for (const [g, list] of reads.entries()) for (const net of list) readers[net]!.push(g);
  // Gates in their order, but for those on or behind a loop: Kahn, 1962.
  const gateOf = (net: number) => net - inputs - clocks;
  const open = reads.map((list, g) =>
    remembers(op[g]!) ? 0 : list.filter((n) => gateOf(n) >= 0 && !remembers(op[gateOf(n)]!)).length,
  );
  const order: number[] = [];
  const ready = [...op.keys()].filter((g) => open[g] === 0 && !remembers(op[g]!));
  for (let g = ready.pop(); g !== undefined; g = ready.pop()) {
    order.push(g);
    for (const reader of readers[out[g]!]!)
      if (!remembers(op[reader]!) && --open[reader]! === 0) ready.push(reader);
  }
  const storage = [...op.keys()].filter((g) => remembers(op[g]!));
  const sources: Source[] = Array.from({ length: inputs }, (_, net) => ({
    part: `s${net}`,
    bit: 0,
    net,
    kind: 'switch',
  }));
  for (let c = 0; c < clocks; c++) {
    const unit = of([1000, 500, 137]);
    const wave = {
      first: roll(2) as 0 | 1,
      low: unit * (1 + roll(40)),
      high: unit * (1 + roll(40)),
      begun: unit * roll(9),
    };
    sources.push({ part: `c${c}`, bit: 0, net: inputs + c, kind: 'clock', wave });
  }
  return {
    nets,
    op,
    out,
    inStart: starts(reads.map((r) => r.length)),
    ins: Int32Array.from(reads.flat()),
    fanStart: starts(readers.map((r) => r.length)),
    fan: Int32Array.from(readers.flat()),
    rise: Float64Array.from(op, (kind) => (remembers(kind) ? 0 : of(delays))),
    fall: Float64Array.from(op, (kind) => (remembers(kind) ? 0 : of(delays))),
    delayed: Uint8Array.from(op, (kind) => (remembers(kind) ? 0 : isPlain || roll(4) > 0 ? 1 : 0)),
    owner: Int32Array.from(op.keys()),
    partName: (owner) => `g${owner}`,
    order: Int32Array.from(order),
    level: new Int32Array(gates),
    storage: Int32Array.from(storage),
    stores: storage.map((): Store => ({ name: 'Q', setup: of([0, 2000, 3500]), hold: of([0, 1000]) })),
    looped: Int32Array.from([...op.keys()].filter((g) => !remembers(op[g]!) && !order.includes(g))),
    sources,
    inputs: [],
    outputs: [],
    inputColumns: [],
    outputColumns: [],
    diagnostics: [],
    netsOfPin: () => undefined,
    netsOfWire: () => undefined,
    ownNet: () => undefined,
    at: () => undefined,
  };
}
