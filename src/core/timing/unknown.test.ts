import { compile } from '../netlist/compile';
import type { Netlist } from '../netlist/netlist';
import { Run } from '../simulate/run';
import { Sketch } from '../testing/sketch';
import { PS_PER_SECOND } from '../values/time';
import { whyUnknown } from './unknown';

const lamp = (n: Netlist) => n.outputColumns[0]!.nets[0];
const told = (n: Netlist, run: Run, time = run.time) =>
  whyUnknown(n, run.trace, lamp(n), time).map((s) => `${s.part ?? '-'} ${s.why}`);

test('an open input is followed through gates', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('and', 10, 0);
  s.place('not', 20, 0);
  s.place('lamp', 30, 0, 'L');
  s.wire('switch1.Y', 'and1.A');
  s.wire('and1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  // Key at 0 decides by itself.
  expect(told(n, run)).toEqual([]);
  run.set([[n.inputColumns[0]!.nets[0], 1]]);
  expect(told(n, run)).toEqual(['not1 passes', 'and1 passes', '- open']);
});

test('storage leads to the edge at which it took an unknown value', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('dff', 10, 0, 'One');
  s.place('dff', 30, 0, 'Two');
  s.place('lamp', 50, 0, 'L');
  s.wire('clock1.Y', 'dff1.C');
  s.wire('clock1.Y', 'dff2.C');
  s.wire('dff1.Q', 'dff2.D');
  s.wire('dff2.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero' });
  run.advance(2 * PS_PER_SECOND);
  const steps = whyUnknown(n, run.trace, lamp(n), run.time);
  expect(steps.filter((step) => step.why === 'took').map((step) => [step.part, step.time / 1e12])).toEqual([
    ['dff2', 2],
    ['dff1', 1.499999999999],
  ]);
  expect(steps.at(-1)).toMatchObject({ why: 'open', part: null });
});

test('power-up, a fight, and drivers that all let go', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  s.place('dff', 10, 0, 'Q');
  s.place('lamp', 30, 0, 'L');
  s.wire('clock1.Y', 'dff1.C');
  s.wire('dff1.Q', 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  const n = compile(s.sheet);
  const run = new Run(n, { delays: 'zero', powerUp: 2 });
  expect(told(n, run).at(-1)).toBe('dff1 power-up');

  const t = new Sketch();
  for (const [i, name] of ['A', 'EA', 'B', 'EB'].entries()) t.place('switch', 0, 8 * i, name);
  t.place('tri', 20, 0);
  t.place('tri', 20, 16);
  t.place('lamp', 40, 0, 'L');
  t.wire('switch1.Y', 'tri1.A');
  t.wire('switch2.Y', 'tri1.EN');
  t.wire('switch3.Y', 'tri2.A');
  t.wire('switch4.Y', 'tri2.EN');
  t.wire('tri1.Y', 'lamp1.A');
  t.wire('tri2.Y', 'lamp1.A');
  const m = compile(t.sheet);
  const shared = new Run(m, { delays: 'zero' });
  expect(told(m, shared).at(-1)).toMatch(/ off$/);
  shared.set(m.inputColumns.map((c, i) => [c.nets[0], i === 2 ? 0 : 1] as const));
  expect(told(m, shared).at(-1)).toMatch(/ fight$/);
});
