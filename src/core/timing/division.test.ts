import { DEFAULT_WAVE } from '../circuit/default-wave';
import { compile } from '../netlist/compile';
import { drivenBy } from '../simulate/drive';
import { Run } from '../simulate/run';
import { Sketch } from '../testing/sketch';
import { PS_PER_SECOND, timeText } from '../values/time';
import { clockOf } from './clock-edges';
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
  return divisionOf(netlist, run.trace, clockOf(netlist)!.source, PERIOD, delays === 'parts');
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

/** A counter part of so many bits on a clock of 1 Hz. */
function counter(width: number, params = {}): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('counter', 20, 0, 'Bell', { width, ...params });
  s.wire('clock1.Y', 'counter1.C');
  return s;
}

function measuredAt(s: Sketch, until: number) {
  const netlist = compile(s.sheet);
  const run = new Run(netlist, { delays: 'zero' });
  expect(run.advance(until)).toBe(true);
  return divisionOf(netlist, run.trace, clockOf(netlist)!.source, PS_PER_SECOND, false);
}

test('a counter of 14 bits at 1 Hz is fourteen stages, the last of which takes 4 h 33 min', () => {
  const stages = measuredAt(counter(14), 30_000 * PS_PER_SECOND);
  // By hand: the clock rises at 0.5 s, 1.5 s ...; bit k rises first with edge 2^k, and then every 2^(k+1) s.
  expect(stages.map((s) => [s.name, s.periods])).toEqual(
    Array.from({ length: 14 }, (_, k) => [`counter1[${k}]`, 2 ** (k + 1)]),
  );
  for (const [k, { computed, measured }] of stages.entries()) {
    expect(computed).toEqual({
      period: 2 ** (k + 1) * PS_PER_SECOND,
      firstRise: (2 ** k - 0.5) * PS_PER_SECOND,
    });
    expect(measured).toEqual(computed);
  }
  expect(timeText(stages[13]!.computed.period)).toBe('4 h 33 min 4 s');
});

test('counting down, all bits rise with the first edge; other counters are no binary dividers', () => {
  const stages = measuredAt(counter(3, { direction: 'down' }), 20 * PS_PER_SECOND);
  expect(stages.map((s) => s.computed.firstRise)).toEqual(Array(3).fill(0.5 * PS_PER_SECOND));
  for (const { computed, measured } of stages) expect(measured).toEqual(computed);
  expect(measuredAt(counter(4, { modulo: 10 }), PS_PER_SECOND).length).toBeLessThan(4);
});

test('a clock that a stimulus drives, high at first and of unequal halves', () => {
  // High for 0.2 s of each second from 0 on: it falls at 0.2 s and rises at 1 s.
  const s = chain(2, 'falling');
  const wave = { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 1e12, high: 2e11 };
  const netlist = drivenBy(compile(s.sheet), { name: 'Ride', inputs: [{ part: 'clock1', wave }] });
  const run = new Run(netlist, { delays: 'zero' });
  run.advance(20 * PS_PER_SECOND);
  const stages = divisionOf(netlist, run.trace, clockOf(netlist)!.source, PS_PER_SECOND, false);
  expect(stages.map((stage) => stage.computed.firstRise)).toEqual([0.2e12, 1.2e12]);
  for (const { computed, measured } of stages) expect(measured).toEqual(computed);
});
