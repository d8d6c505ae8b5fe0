import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { expectSameRun, seenOf } from '../../testing/played-run';
import { randomNetlist } from '../../testing/random-netlist';
import { Run } from '../run';

const CIRCUITS = Number(process.env.KERNEL_CIRCUITS ?? 2000);

test(`the kernel does what the reference does, change for change, in ${CIRCUITS} random circuits`, () => {
  for (let seed = 1; seed <= CIRCUITS; seed++) expectSameRun(randomNetlist(seed), seed);
});

test('without WebAssembly the reference runs', () => {
  const { WebAssembly: here } = globalThis;
  const netlist = randomNetlist(5);
  try {
    Object.assign(globalThis, { WebAssembly: undefined });
    jest.isolateModules(() => {
      const alone = (require('../run') as typeof import('../run')).Run;
      const [run, right] = [alone, Run].map((Kind) => new Kind(netlist, { kernelAfter: 0 }));
      for (const each of [run!, right!]) {
        each.set(netlist.sources.filter(({ kind }) => kind === 'switch').map((s) => [s.net, 1]));
        each.advance(1e6);
      }
      expect(seenOf(run!)).toEqual(seenOf(right!));
    });
  } finally {
    Object.assign(globalThis, { WebAssembly: here });
  }
});

test('where there is no memory for it the reference goes on', () => {
  const { Memory } = WebAssembly;
  const ring = ringsOf(randomNetlist(5));
  const right = new Run(ring, { kernelAfter: Number.POSITIVE_INFINITY });
  right.advance(1e6);
  try {
    Object.assign(WebAssembly, {
      Memory: class {
        constructor() {
          throw new RangeError('could not allocate memory');
        }
      },
    });
    const run = new Run(ring, { kernelAfter: 0 });
    run.advance(1e6);
    expect(seenOf(run)).toEqual(seenOf(right));
  } finally {
    Object.assign(WebAssembly, { Memory });
  }
});

test('a run of many events, in one go and in slices, is the same run', () => {
  // Two rings of gates that swing for ever, and what follows from them, beyond what one log holds.
  const netlist = randomNetlist(5);
  const ring = ringsOf(netlist);
  const whole = new Run(ring, { mostChanges: 1_000_000 });
  const sliced = new Run(ring, { mostChanges: 1_000_000 });
  const reference = new Run(ring, { mostChanges: 1_000_000, kernelAfter: Number.POSITIVE_INFINITY });
  const until = 100_000_000;
  whole.advance(until);
  reference.advance(until);
  while (!sliced.advance(until, 777));
  expect(whole.events).toBeGreaterThan(100_000);
  expect(seenOf(whole)).toEqual(seenOf(reference));
  expect(seenOf(sliced)).toEqual(seenOf(reference));
});

/** Rings of three inverters with delays of their own, beside each other. */
function ringsOf(like: Netlist): Netlist {
  const rings = 4;
  const gates = 3 * rings;
  const before = (g: number) => (g % 3 === 0 ? g + 2 : g - 1);
  const delays = Float64Array.from({ length: gates }, (_, g) => 1000 * (1 + (g % 4)));
  const each = Int32Array.from({ length: gates }, (_, g) => g);
  const starts = Int32Array.from({ length: gates + 1 }, (_, g) => g);
  return {
    ...like,
    nets: gates,
    op: new Uint8Array(gates).fill(Primitive.NOT),
    out: each,
    inStart: starts,
    ins: each.map(before),
    fanStart: starts,
    fan: each.map((net) => (net % 3 === 2 ? net - 2 : net + 1)),
    rise: delays,
    fall: delays,
    delayed: new Uint8Array(gates).fill(1),
    owner: each,
    order: new Int32Array(),
    level: new Int32Array(gates),
    storage: new Int32Array(),
    stores: [],
    looped: each,
    sources: [],
  };
}
