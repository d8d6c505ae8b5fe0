import { compile } from '../netlist/compile';
import { Run } from '../simulate/run';
import { Sketch } from '../testing/sketch';
import { divisionOf } from './division';

const PERIOD = 1_000_000;

/** T flip-flops one behind the other, each clocked by the one before it. @param edge at which they turn over. */
function chain(stages: number, edge: 'rising' | 'falling'): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1e12 / PERIOD });
  s.place('constant', 0, 10, '', { value: 1 });
  for (let i = 1; i <= stages; i++) {
    s.place('tff', 14 * i, 0, `Q${i}`, { edge });
    s.wire('constant1.Y', `tff${i}.T`);
    s.wire(i === 1 ? 'clock1.Y' : `tff${i - 1}.Q`, `tff${i}.C`);
  }
  return s;
}

function divided(s: Sketch, until: number, delays: 'zero' | 'parts') {
  const netlist = compile(s.sheet);
  const run = new Run(netlist, { delays });
  run.advance(until);
  const [clock] = netlist.sources.filter((source) => source.kind === 'clock');
  const firstRise = clock!.kind === 'clock' ? clock!.wave.low : 0;
  return divisionOf(netlist, run.trace, { net: clock!.net, period: PERIOD, firstRise }, delays === 'parts');
}

test.each(['rising', 'falling'] as const)(
  'each stage takes twice the period of the one before: %s',
  (edge) => {
    const stages = divided(chain(4, edge), 80 * PERIOD, 'zero');
    expect(stages.map((s) => s.periods)).toEqual([2, 4, 8, 16]);
    expect(stages.map((s) => s.computed.period)).toEqual([2, 4, 8, 16].map((n) => n * PERIOD));
    for (const { computed, measured } of stages) expect(measured).toEqual(computed);
  },
);

test('with their own delays stages rise the later the further back they stand; periods stay', () => {
  const stages = divided(chain(3, 'falling'), 40 * PERIOD, 'parts');
  for (const { computed, measured } of stages) expect(measured).toEqual(computed);
  const late = stages.map(
    ({ computed }, i) => computed.firstRise - divided(chain(3, 'falling'), 0, 'zero')[i]!.computed.firstRise,
  );
  expect(late[0]).toBeGreaterThan(0);
  expect([late[1], late[2]]).toEqual([2 * late[0]!, 3 * late[0]!]);
});

test('what has not happened yet is not measured, and what is no chain has one stage', () => {
  const [first, second] = divided(chain(2, 'rising'), 2.2 * PERIOD, 'zero');
  expect(first!.measured.period).toBeNull();
  expect(second!.computed.period).toBe(4 * PERIOD);
  expect(divided(chain(1, 'rising'), PERIOD, 'zero')).toHaveLength(1);
});
