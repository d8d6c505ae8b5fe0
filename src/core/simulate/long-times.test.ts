import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { Sketch } from '../testing/sketch';
import { PS_PER_SECOND } from '../values/time';
import { Run } from './run';

const HOUR = 3600 * PS_PER_SECOND;
const YEAR = 365 * 24 * HOUR;

/** A flip-flop that takes a clock of 1 Hz as its data, on a clock of 2 Hz that rises with it, and a counter of both. */
function twoClocks(): Netlist {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Slow', { hertz: 1 });
  s.place('clock', 0, 10, 'Fast', { hertz: 2 });
  s.place('counter', 20, 0, 'Turns', { width: 16 });
  s.place('counter', 20, 20, 'Halves', { width: 16 });
  s.wire('clock1.Y', 'counter1.C');
  s.wire('clock2.Y', 'counter2.C');
  return compile(s.sheet);
}

const word = (n: Netlist, run: Run, part: string) =>
  n.netsOfPin(part, 'Q')!.reduce((sum, net, bit) => sum + run.values[net]! * 2 ** bit, 0);

test.each([
  ['2.5 hours', 2.5 * HOUR],
  ['4.5 hours', 4.5 * HOUR],
  ['100 days', 100 * 24 * HOUR],
  ['a year', YEAR],
  ['two years', 2 * YEAR],
])('clocks of 1 and 2 Hz after %s: every edge comes, once, and at its time', (_, from) => {
  const n = twoClocks();
  const run = new Run(n, { delays: 'zero', from });
  // By hand: Slow rises at 0.5 s, 1.5 s ...; Fast at 0.25 s, 0.75 s ...
  for (const [seconds, turns, halves] of [
    [0.2, 0, 0],
    [0.3, 0, 1],
    [0.6, 1, 1],
    [0.8, 1, 2],
    [10, 10, 20],
    [1000, 1000, 2000],
  ] as const) {
    expect(run.advance(from + seconds * PS_PER_SECOND)).toBe(true);
    expect([word(n, run, 'counter1'), word(n, run, 'counter2')]).toEqual([turns, halves]);
  }
  const edges = run.trace.window([n.sources[0]!.net], from, from + 3 * PS_PER_SECOND)[0]!.slice(1);
  expect(edges.map(({ time }) => Math.round((time - from) / 1e6) / 1e6)).toEqual([0.5, 1, 1.5, 2, 2.5, 3]);
});

test.each(['unit', 'parts'] as const)('gates with %s delays answer after a year as well', (delays) => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('not', 10, 0);
  s.place('not', 20, 0);
  s.place('lamp', 30, 0, 'L');
  s.wire('clock1.Y', 'not1.A');
  s.wire('not1.Y', 'not2.A');
  s.wire('not2.Y', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays, from: YEAR });
  expect(run.advance(YEAR + 20.2 * PS_PER_SECOND)).toBe(true);
  // Two edges a second, each through clock, gate and gate.
  expect(run.trace.length).toBe(40 * 3);
});

test('a ring that swings does not hold up a run after a year', () => {
  const s = new Sketch();
  for (let i = 1; i <= 3; i++) s.place('not', 10 * i, 0);
  for (let i = 1; i <= 3; i++) s.wire(`not${i}.Y`, `not${(i % 3) + 1}.A`);
  const run = new Run(compile(s.sheet), { delays: 'parts', from: YEAR });
  expect(run.advance(YEAR + PS_PER_SECOND, 10_000)).toBe(false);
});
