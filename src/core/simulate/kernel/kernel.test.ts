import type { Delays } from '../../circuit/time-setup';
import type { Netlist } from '../../netlist/netlist';
import { storeName } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { dice } from '../../testing/dice';
import { randomNetlist } from '../../testing/random-netlist';
import type { Logic } from '../../values/logic';
import { Run } from '../run';
import type { RunOptions } from '../run-options';

/** Everything that can be seen of a run; the order of changes within an instant is left open. */
function seenOf(run: Run) {
  const changes: [number, number, number][] = [];
  for (const { time, net, value } of run.trace.changes(Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY))
    changes.push([time, net, value]);
  changes.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const violations = run.violations.map((v) => JSON.stringify(v)).sort();
  return { ...stateOf(run), changes: changes.join(' '), violations, unsettled: [...run.unsettled].sort() };
}

const stateOf = (run: Run) => ({
  values: run.values.join(''),
  time: run.time,
  events: run.events,
  steps: run.steps,
  next: run.next(),
  violations: run.violationCount,
});

/** What a person or a page does with a run. */
function play(netlist: Netlist, seed: number, kernelAfter: number, seen: (run: Run) => void): Run {
  const next = dice(seed);
  const roll = (most: number) => Math.floor(next() * most);
  const delays = (['parts', 'parts', 'unit', 'zero'] as const)[roll(4)] as Delays;
  const options: RunOptions = {
    delays,
    powerUp: roll(3) as Logic,
    kernelAfter,
    mostChanges: [0, 100_000, 100_000][roll(3)]!,
  };
  let run = new Run(netlist, options);
  const free = netlist.sources.filter(({ kind }) => kind === 'switch');
  for (let step = 0; step < 12; step++) {
    const what = roll(8);
    if (what < 4)
      run.set(
        free
          .filter(() => roll(2) === 0)
          .map((s) => [s.net, roll(8) < 6 ? roll(2) : roll(4)] as [number, Logic]),
      );
    else if (what === 4 && netlist.storage.length > 0)
      run.putState(
        new Map([...netlist.storage.keys()].map((i) => [storeName(netlist, i), roll(3) as Logic])),
      );
    else if (what === 5) run = new Run(netlist, options, structuredClone(run.save()));
    seen(run);
    const unit = [1000, 500, 1, 137][roll(4)]!;
    const until = run.time + unit * roll(60);
    const budget = roll(3) === 0 ? 1 + roll(30) : Number.POSITIVE_INFINITY;
    for (let slice = 0; slice < 40 && !run.advance(until, budget); slice++) seen(run);
    seen(run);
  }
  return run;
}

const CIRCUITS = Number(process.env.KERNEL_CIRCUITS ?? 2000);

test(`the kernel does what the reference does, change for change, in ${CIRCUITS} random circuits`, () => {
  for (let seed = 1; seed <= CIRCUITS; seed++) {
    const netlist = randomNetlist(seed);
    const right: string[] = [];
    const reference = play(netlist, seed, Number.POSITIVE_INFINITY, (run) =>
      right.push(JSON.stringify(stateOf(run))),
    );
    let at = 0;
    const kernel = play(netlist, seed, 0, (run) => {
      const is = JSON.stringify(stateOf(run));
      if (is !== right[at]) expect({ seed, at, is }).toEqual({ seed, at, is: right[at] });
      at++;
    });
    expect({ seed, ...seenOf(kernel) }).toEqual({ seed, ...seenOf(reference) });
  }
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
