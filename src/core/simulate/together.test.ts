import { DEFAULT_WAVE } from '../circuit/default-wave';
import type { Delays, Wave } from '../circuit/time-setup';
import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { partOf, Rig, sheetOfParts } from '../testing/rig';
import { Sketch } from '../testing/sketch';
import { wrongCaptures } from '../timing/captures';
import { clockEdges } from '../timing/clock-edges';
import { type Logic, ONE, X, ZERO } from '../values/logic';
import { drivenBy } from './drive';
import { Run } from './run';

/*
 * What changes in one instant: clocks first, other inputs just after, as every textbook draws it.
 */

const NS = 1000;
const DELAYS: readonly Delays[] = ['zero', 'unit', 'parts'];
const wave = (data: string): Wave => ({ ...DEFAULT_WAVE, pattern: 'levels', data });
const netAt = (n: Netlist, name: string) => n.outputColumns.find((c) => c.name === name)!.nets[0];
const sourceOf = (n: Netlist, part: string) => n.sources.find((s) => s.part === part)!.net;

/** Two D flip-flops in a row behind a switch, on a switch that clocks them. */
function shifter(): Netlist {
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  s.place('switch', 0, 10, 'Clk');
  s.place('dff', 20, 0);
  s.place('dff', 40, 0);
  s.place('lamp', 60, 0, 'One');
  s.place('lamp', 60, 8, 'Two');
  s.wire('switch1.Y', 'dff1.D');
  s.wire('switch2.Y', 'dff1.C');
  s.wire('switch2.Y', 'dff2.C');
  s.wire('dff1.Q', 'dff2.D');
  s.wire('dff1.Q', 'lamp1.A');
  s.wire('dff2.Q', 'lamp2.A');
  return compile(s.sheet);
}

describe.each(DELAYS)('with %s delays', (delays) => {
  test('an input that changes with the active edge is taken at the next edge', () => {
    // Edges at 100, 300, 500 ns; In rises at 100 and falls at 300.
    const bare = shifter();
    const n = drivenBy(bare, {
      name: 'both',
      inputs: [
        { part: 'switch1', wave: wave('100 1, 300 0') },
        {
          part: 'switch2',
          wave: { ...DEFAULT_WAVE, pattern: 'periodic', step: 200 * NS, high: 100 * NS, phase: 100 * NS },
        },
      ],
    });
    const run = new Run(n, { delays });
    const seen: string[] = [];
    for (const time of [190, 390, 590]) {
      run.advance(time * NS);
      seen.push(`${run.values[netAt(n, 'One')]}${run.values[netAt(n, 'Two')]}`);
    }
    // By hand: at 100 the old 0, at 300 the 1 that stood, at 500 the 0; the second flip-flop is one edge behind.
    expect(seen).toEqual(['00', '10', '01']);
    expect(run.violationCount).toBe(0);
    const { edges } = clockEdges(n, 0, 590 * NS);
    expect(wrongCaptures(n, run.trace, edges)).toEqual([]);
  });

  test('the same by hand: clock and input put in one go, in any order', () => {
    for (const clockFirst of [true, false]) {
      const n = shifter();
      const run = new Run(n, { delays });
      const edge = [sourceOf(n, 'switch2'), ONE] as const;
      const data = [sourceOf(n, 'switch1'), ONE] as const;
      run.set(clockFirst ? [edge, data] : [data, edge]);
      run.advance(100 * NS);
      expect(run.values[netAt(n, 'One')]).toBe(ZERO);
      run.set([[sourceOf(n, 'switch2'), ZERO]]);
      run.advance(200 * NS);
      run.set([edge]);
      run.advance(300 * NS);
      expect(run.values[netAt(n, 'One')]).toBe(ONE);
    }
  });

  test('each change of an instant stands in the trace once, with its last value', () => {
    const n = shifter();
    const run = new Run(n, { delays });
    run.set([
      [sourceOf(n, 'switch1'), ONE],
      [sourceOf(n, 'switch2'), ONE],
    ]);
    run.advance(50 * NS);
    const lanes = run.trace.window([sourceOf(n, 'switch1'), sourceOf(n, 'switch2')], 0, 50 * NS);
    for (const lane of lanes) expect(lane.map((change) => change.value).at(-1)).toBe(ONE);
  });
});

test('a gate between a switch and the clock makes that switch a clock', () => {
  // Enable and clock rise together at the AND: one edge, and the data that stood before.
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  s.place('switch', 0, 10, 'Clk');
  s.place('switch', 0, 20, 'Enable');
  s.place('and', 20, 14);
  s.place('dff', 40, 0);
  s.place('lamp', 60, 0, 'Q');
  s.wire('switch1.Y', 'dff1.D');
  s.wire('switch2.Y', 'and1.A');
  s.wire('switch3.Y', 'and1.B');
  s.wire('and1.Y', 'dff1.C');
  s.wire('dff1.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  run.set(['switch1', 'switch2', 'switch3'].map((part): [number, Logic] => [sourceOf(n, part), ONE]));
  expect(run.values[netAt(n, 'Q')]).toBe(ZERO);
});

test('an X at the data of a cleared flip-flop stays outside, however often it is looked at', () => {
  // T is loose, so the next state would be X; clear comes by a gate, one round after the clock.
  const s = new Sketch();
  s.place('switch', 0, 0, 'Clk');
  s.place('buffer', 10, 10);
  s.place('tff', 20, 0, '', { clear: 'high' });
  s.place('lamp', 40, 0, 'Q');
  s.wire('switch1.Y', 'tff1.C');
  s.wire('switch1.Y', 'buffer1.A');
  s.wire('buffer1.Y', 'tff1.CLR');
  s.wire('tff1.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  run.set([[sourceOf(n, 'switch1'), ONE]]);
  expect(run.values[netAt(n, 'Q')]).not.toBe(X);
});

test.each(['zero', 'unit', 'parts'] as const)(
  'a ripple counter that clears itself at ten begins anew at 0, with delays: %s',
  (delays) => {
    const stages = [0, 1, 2, 3];
    const sheet = sheetOfParts(
      [
        partOf('switch', 'Clk'),
        partOf('constant', 'one', { value: 1 }),
        ...stages.map((n) => partOf('tff', `q${n}`, { edge: 'falling', clear: 'high' })),
        partOf('and', 'ten'),
        ...stages.map((n) => partOf('lamp', `Q${n}`)),
      ],
      [
        ...stages.flatMap((n) => [
          `one.Y-q${n}.T`,
          `ten.Y-q${n}.CLR`,
          `q${n}.Q-Q${n}.A`,
          n === 0 ? 'Clk.Y-q0.C' : `q${n - 1}.Q-q${n}.C`,
        ]),
        'q1.Q-ten.A',
        'q3.Q-ten.B',
      ],
    );
    const rig = new Rig(sheet, { delays });
    const seen: number[] = [];
    let now = 0;
    for (let n = 0; n < 12; n++) {
      for (const Clk of [1, 0]) {
        rig.set({ Clk });
        now += 1_000_000;
        rig.run.advance(now);
      }
      seen.push(stages.reduce((sum, k) => sum + rig.number(`Q${k}`) * 2 ** k, 0));
    }
    expect(seen).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 1, 2]);
  },
);
