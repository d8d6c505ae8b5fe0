import { DEFAULT_WAVE } from '../circuit/default-wave';
import { compile } from '../netlist/compile';
import { drivenBy } from '../simulate/drive';
import { Run } from '../simulate/run';
import { Trace } from '../simulate/trace';
import { pushOne } from '../testing/push-one';
import { Sketch } from '../testing/sketch';
import { ONE, ZERO } from '../values/logic';
import { causeOf, chainOf, edgeAt } from './cause';
import { delayBetween, glitchesOf, measure } from './measure';

/** One net that rises at 10, falls at 14, rises at 30, falls at 34; another that follows 3 later once. */
function twoNets(): Trace {
  const trace = new Trace(new Uint8Array(2), 0);
  for (const [time, net, value] of [
    [10, 0, 1],
    [13, 1, 1],
    [14, 0, 0],
    [30, 0, 1],
    [34, 0, 0],
  ] as const)
    pushOne(trace, time, net, value);
  return trace;
}

test('period, frequency, width and duty around a moment', () => {
  const trace = twoNets();
  // Up from 10 to 14, up again at 30: 20 ps are 50 GHz, 4 of 20 are a fifth.
  const high = { value: ONE, width: 4, period: 20, frequency: 5e10, duty: 0.2 };
  expect(measure(trace, 0, 12)).toEqual(high);
  expect(measure(trace, 0, 10)).toEqual(high);
  expect(measure(trace, 0, 20)).toEqual({ ...high, value: ZERO, width: 16 });
  // Behind the last edge nothing more is known.
  expect(measure(trace, 0, 40)).toMatchObject({ value: ZERO, width: null, period: null });
  expect(delayBetween(trace, { net: 0, time: 10 }, 1)).toBe(3);
  expect(delayBetween(trace, { net: 0, time: 14 }, 1)).toBeNull();
});

test('pulses shorter than a threshold are found, each once', () => {
  expect(glitchesOf(twoNets(), [0, 1], 5)).toEqual([
    { net: 0, from: 10, to: 14 },
    { net: 0, from: 30, to: 34 },
  ]);
  expect(glitchesOf(twoNets(), [0], 4)).toEqual([]);
  expect(glitchesOf(twoNets(), [0], 5, 20)).toHaveLength(1);
});

/** The queue that goes on: Platform = North or (not North), which is 1 but for a glitch. */
function hazard() {
  const s = new Sketch();
  s.place('switch', 0, 0, 'North');
  s.place('not', 10, 6);
  s.place('or', 20, 0);
  s.place('lamp', 30, 0, 'Platform');
  s.wire('switch1.Y', 'or1.A');
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'or1.B');
  s.wire('or1.Y', 'lamp1.A');
  const netlist = compile(s.sheet);
  const wave = { ...DEFAULT_WAVE, data: '0 1, 100 0' };
  return drivenBy(netlist, { name: 'Down', inputs: [{ part: 'switch1', wave }] });
}

test('a glitch comes from the change that came first and ends by the one that comes round', () => {
  const netlist = hazard();
  const run = new Run(netlist, { delays: 'unit' });
  run.advance(200_000);
  const out = netlist.outputColumns[0]!.nets[0];
  const north = netlist.inputColumns[0]!.nets[0];
  // By hand: North falls at 100 ns, OR falls at 101; the inverter rises at 101, OR rises again at 102.
  const [glitch] = glitchesOf(run.trace, [out], 5000, 50_000);
  expect(glitch).toEqual({ net: out, from: 101_000, to: 102_000 });
  const fell = causeOf(netlist, 'unit', run.trace, edgeAt(run.trace, out, 101_000)!);
  expect(fell).toEqual({
    effect: { net: out, time: 101_000, value: ZERO },
    part: 'or1',
    causes: [{ net: north, time: 100_000, value: ZERO }],
  });
  const chain = chainOf(netlist, 'unit', run.trace, edgeAt(run.trace, out, 150_000)!);
  expect(chain.map((c) => [c.part, c.effect.time])).toEqual([
    ['or1', 102_000],
    ['not1', 101_000],
    [null, 100_000],
  ]);
});

test('with the parts’ own delays a flip-flop changes because of its clock', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1e7 });
  s.place('switch', 0, 6, 'D');
  s.place('dff', 10, 0);
  s.place('lamp', 20, 0, 'Q');
  s.wire('clock1.Y', 'dff1.C');
  s.wire('switch1.Y', 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  const netlist = compile(s.sheet);
  const run = new Run(netlist, { delays: 'parts' });
  run.advance(10_000);
  run.set([[netlist.sources.find((x) => x.part === 'switch1')!.net, ONE]]);
  run.advance(300_000);
  const q = netlist.outputColumns[0]!.nets[0];
  const edge = edgeAt(run.trace, q, 300_000)!;
  const clock = netlist.sources.find((x) => x.kind === 'clock')!.net;
  const cause = causeOf(netlist, 'parts', run.trace, edge);
  expect(cause.part).toBe('dff1');
  expect(cause.causes.map((c) => [c.net, c.value])).toEqual([[clock, ONE]]);
  expect(edge.time - cause.causes[0]!.time).toBe(Math.max(...netlist.rise));
});
