import { compile } from '../netlist/compile';
import { isByHand, type Netlist } from '../netlist/netlist';
import { dice } from '../testing/dice';
import { randomNetlist } from '../testing/random-netlist';
import { Sketch } from '../testing/sketch';
import { type Logic, ONE, ZERO } from '../values/logic';
import { Run } from './run';
import { momentOf, runFrom } from './run-moment';

const byHand = (netlist: Netlist) => netlist.sources.filter(isByHand).map((s) => s.net);

/** Sets inputs at random moments. */
function played(netlist: Netlist, roll: () => number, changes: number): Run {
  const run = new Run(netlist, { delays: 'parts' });
  const inputs = byHand(netlist);
  for (let i = 0; i < changes; i++) {
    run.advance(run.time + 1 + Math.floor(roll() * 30_000));
    run.set([[inputs[Math.floor(roll() * inputs.length)]!, roll() < 0.5 ? ONE : ZERO]]);
  }
  run.advance(run.time + 500_000);
  return run;
}

test('a run is made again with all that happened in it, and goes on alike', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const netlist = randomNetlist(seed);
    if (byHand(netlist).length === 0) continue;
    const run = played(netlist, dice(seed), 12);
    const moment = JSON.parse(JSON.stringify(momentOf(run, { delays: 'parts' })));
    const again = runFrom(netlist, { delays: 'parts' }, moment);
    expect(again.time).toBe(run.time);
    expect([...again.values]).toEqual([...run.values]);
    if (!moment.replay) continue;
    const nets = [...run.values.keys()];
    expect(again.trace.window(nets, 0, run.time)).toEqual(run.trace.window(nets, 0, run.time));
  }
});

test('a run that cannot be made again goes on from what storage holds', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Step');
  s.place('tff', 10, 0);
  s.place('constant', 0, 6);
  s.wire('switch1.Y', 'tff1.C');
  s.wire('constant1.Y', 'tff1.T');
  s.place('lamp', 20, 0);
  s.wire('tff1.Q', 'lamp1.A');
  const netlist = compile(s.sheet);
  const run = new Run(netlist, { delays: 'zero' });
  const [step] = byHand(netlist);
  // Without time passing the trace cannot tell these apart.
  for (const value of [ONE, ZERO, ONE, ZERO, ONE, ZERO] as Logic[]) run.set([[step!, value]]);
  const moment = momentOf(run, { delays: 'zero' });
  expect(moment.replay).toBeUndefined();
  const again = runFrom(netlist, { delays: 'zero' }, moment);
  expect([...again.values]).toEqual([...run.values]);
  expect(again.time).toBe(0);
});

test('a moment that would take for ever to come back to is left where it came', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Go');
  s.place('nand', 10, 0);
  s.wire('switch1.Y', 'nand1.A');
  s.wire('nand1.Y', 'nand1.B');
  const netlist = compile(s.sheet);
  const key = 'switch1';
  const run = runFrom(netlist, { delays: 'parts' }, { at: 2 ** 52, begun: [], replay: [[10, key, 1]] });
  expect(run.time).toBeLessThan(2 ** 52);
});
