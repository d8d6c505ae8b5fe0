import { readVerilog } from '../../formats/verilog/read';
import { compile } from '../../netlist/compile';
import type { Netlist } from '../../netlist/netlist';
import { dice } from '../../testing/dice';
import { expectSameRun, seenOf } from '../../testing/played-run';
import { randomNetlist } from '../../testing/random-netlist';
import { product } from '../../testing/verilog-circuits';
import type { Logic } from '../../values/logic';
import { KernelEngine } from '../kernel/kernel-engine';
import { Run } from '../run';
import { StripEngine } from './strip-engine';

const CIRCUITS = Number(process.env.KERNEL_CIRCUITS ?? 1000);

/** The strips that were made, since this was called. */
function madeStrips(): () => number {
  const from = jest.spyOn(StripEngine, 'from');
  return () => from.mock.results.filter(({ value }) => value !== null).length;
}
afterEach(() => jest.restoreAllMocks());

test(`strips do what the reference does, change for change, in ${CIRCUITS} random circuits`, () => {
  const made = madeStrips();
  for (let seed = 1; seed <= CIRCUITS; seed++) expectSameRun(randomNetlist(seed, true), seed, true);
  expect(made()).toBeGreaterThan(CIRCUITS);
});

test('where an input becomes unknown, or gates are without delay, runs go on without them', () => {
  const made = madeStrips();
  for (let seed = 1; seed <= CIRCUITS / 8; seed++) expectSameRun(randomNetlist(seed, true), seed);
  expect(made()).toBeGreaterThan(CIRCUITS / 8);
});

function read(text: string): Netlist {
  const design = readVerilog(text, 'Strips');
  if (!design.ok) throw new Error(design.problem.message);
  return compile(design.value.sheets[0]!, design.value.sheets);
}

/** Runs with fast engines and with the reference, over the same vectors, a gap of some ns apart. */
function twoRuns(netlist: Netlist, vectors: number, gap: number, chance = 0.5): readonly [Run, Run] {
  const nets = netlist.inputs.flatMap((t) => [...t.nets]);
  const run = (kernelAfter: number) => {
    const next = dice(3);
    const made = new Run(netlist, { delays: 'unit', kernelAfter, mostChanges: 2_000_000 });
    // At rest, so that strips can begin.
    made.advance(made.time);
    for (let v = 0; v < vectors; v++) {
      made.set(
        nets.filter(() => next() < chance).map((net) => [net, next() < 0.5 ? 0 : 1] as [number, Logic]),
      );
      made.advance(made.time + 1000 * gap);
    }
    made.advance(Number.POSITIVE_INFINITY);
    return made;
  };
  return [run(0), run(Number.POSITIVE_INFINITY)];
}

test.each([200, 40, 3, 1])('a multiplier is run alike where its inputs change every %d ns', (gap) => {
  const made = madeStrips();
  const [run, reference] = twoRuns(read(product(8, 'a')), 60, gap);
  expect(run.events).toBeGreaterThan(5000);
  expect(seenOf(run)).toEqual(seenOf(reference));
  expect(made()).toBe(1);
});

test('more changes than it has memory for at first are noted all the same', () => {
  const grown = jest.spyOn(WebAssembly.Memory.prototype, 'grow');
  const [run, reference] = twoRuns(read(product(16, 'a')), 3, 300, 1);
  expect(grown).toHaveBeenCalled();
  expect(seenOf(run)).toEqual(seenOf(reference));
});

test('where little changes for much to evaluate, the kernel takes over, and keeps on', () => {
  const inputs = Array.from({ length: 60 }, (_, i) => `a${i}`);
  const netlist = read(`module top(${inputs.map((a) => `input ${a}, `).join('')}output y);
    xor (y, ${inputs.join(', ')});
  endmodule`);
  const made = madeStrips();
  const kernels = jest.spyOn(KernelEngine, 'from');
  const [run, reference] = twoRuns(netlist, 8000, 5, 1 / 60);
  expect(seenOf(run)).toEqual(seenOf(reference));
  expect([made(), kernels.mock.calls.length]).toEqual([1, 1]);
});

test('where there is no memory for them the reference goes on', () => {
  const { Memory } = WebAssembly;
  try {
    Object.assign(WebAssembly, {
      Memory: class {
        constructor() {
          throw new RangeError('could not allocate memory');
        }
      },
    });
    const [run, reference] = twoRuns(read(product(3, 'a')), 20, 30);
    expect(seenOf(run)).toEqual(seenOf(reference));
  } finally {
    Object.assign(WebAssembly, { Memory });
  }
});
