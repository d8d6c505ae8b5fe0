import fc from 'fast-check';
import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { partOf, sheetOfParts } from '../testing/rig';
import { clockOf } from './clock-edges';
import { divisionOf } from './division';
import { timingOf } from './paths';
import { registersOf } from './registers';

const port = (id: string, direction: 'in' | 'out', rank = 0) => partOf('port', id, { direction }, rank);

test('a register asks for its launch, the way and its setup time, and the quickest way is held against hold', () => {
  const sheet = sheetOfParts(
    [
      port('C', 'in'),
      partOf('dff', 'f'),
      partOf('dff', 'g'),
      partOf('not', 'n'),
      partOf('xor', 'x'),
      port('Q', 'out'),
    ],
    ['C.Y-f.C', 'C.Y-g.C', 'f.Q-n.A', 'n.Y-x.A', 'f.Q-x.B', 'x.Y-g.D', 'g.Q-f.D', 'g.Q-Q.A'],
  );
  const [g, f] = registersOf(compile(sheet));
  // To g: f shows its value after 15 ns, inverter 6, exclusive or 14, and 8 of setup: 43. The quickest is 15 + 14.
  expect(g).toMatchObject({
    name: 'g',
    dataPs: 35_000,
    setupPs: 8000,
    neededPs: 43_000,
    quickestPs: 29_000,
    steps: [
      { part: 'f', delayPs: 15_000 },
      { part: 'n', delayPs: 6000 },
      { part: 'x', delayPs: 14_000 },
    ],
  });
  // To f straight from g: 15 + 8.
  expect(f).toMatchObject({ name: 'f', neededPs: 23_000, quickestPs: 15_000 });
  expect(timingOf(compile(sheet)).shortestClockPs).toBe(g!.neededPs);
});

/** Stages that each turn over when the one before falls (or rises), the first one at the clock. */
function divider(stages: number, edge: 'rising' | 'falling') {
  const ids = Array.from({ length: stages }, (_, i) => `f${i}`);
  return sheetOfParts(
    [
      partOf('clock', 'clk', { hertz: 1e6 }),
      ...ids.map((id) => partOf('dff', id, { edge })),
      ...ids.map((_, i) => partOf('not', `n${i}`)),
      port('Q', 'out'),
    ],
    [
      'clk.Y-f0.C',
      ...ids.flatMap((id, i) => [`${id}.Q-n${i}.A`, `n${i}.Y-${id}.D`]),
      ...ids.slice(1).map((id, i) => `f${i}.Q-${id}.C`),
      `f${stages - 1}.Q-Q.A`,
    ],
  );
}

test('a divider: period and first rise as they follow from the drawing, and as they were', () => {
  const netlist = compile(divider(3, 'falling'));
  const run = new Run(netlist, { delays: 'parts' });
  run.advance(40e6);
  // 1 MHz: up at 0.5 us, down at 1 us. Each stage shows its value 15 ns after the edge that turns it over.
  const { source } = clockOf(netlist)!;
  const stages = divisionOf(netlist, run.trace, source, 1e6, true);
  expect(stages.map((s) => [s.name, s.periods, s.computed.period, s.computed.firstRise])).toEqual([
    ['f0', 2, 2e6, 1_015_000],
    ['f1', 4, 4e6, 1_015_000 + 1e6 + 15_000],
    ['f2', 8, 8e6, 2_030_000 + 2e6 + 15_000],
  ]);
  for (const { computed, measured } of stages) expect(measured).toEqual(computed);
});

test('fourteen stages, either edge: what was computed is measured', () => {
  fc.assert(
    fc.property(fc.constantFrom('rising' as const, 'falling' as const), fc.boolean(), (edge, delayed) => {
      const netlist = compile(divider(14, edge));
      const run = new Run(netlist, { delays: delayed ? 'parts' : 'zero' });
      run.advance(2.6 * 2 ** 14 * 1e6);
      const stages = divisionOf(netlist, run.trace, clockOf(netlist)!.source, 1e6, delayed);
      expect(stages).toHaveLength(14);
      for (const { computed, measured } of stages) expect(measured).toEqual(computed);
    }),
    { numRuns: 4 },
  );
});
