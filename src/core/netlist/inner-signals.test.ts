import { Sketch } from '../testing/sketch';
import { compile } from './compile';
import { innerSignals } from './inner-signals';

test('storage and labelled parts are signals of their own; switches, lamps and plain gates are not', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Bell');
  s.place('and', 10, 0);
  s.place('or', 10, 10, 'Turn');
  s.place('dff', 20, 0);
  s.place('lamp', 40, 0, 'Lit');
  for (const pin of ['and1.A', 'and1.B', 'or1.A', 'or1.B']) s.wire('switch1.Y', pin);
  s.wire('and1.Y', 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  const netlist = compile(s.sheet);
  const found = innerSignals(s.sheet, netlist);
  expect(found.map((t) => t.part)).toEqual(['or1', 'dff1']);
  expect(found[0]).toEqual({ part: 'or1', name: 'Turn', nets: netlist.netsOfPin('or1', 'Y') });
  expect(found[1]!.nets).toEqual(netlist.outputs[0]!.nets);
});
