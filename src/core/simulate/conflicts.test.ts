import { partOf, Rig, sheetOfParts } from '../testing/rig';
import { conflictsOf } from './conflicts';

const sheet = sheetOfParts(
  [
    ...['A', 'B', 'EA', 'EB'].map((id, i) => partOf('switch', id, {}, i)),
    partOf('tri', 't1'),
    partOf('tri', 't2'),
    partOf('lamp', 'L'),
  ],
  ['A.Y-t1.A', 'B.Y-t2.A', 'EA.Y-t1.EN', 'EB.Y-t2.EN', 't1.Y-L.A', 't2.Y-L.A'],
);

test('two that drive against each other are named; agreement and letting go are no conflict', () => {
  const rig = new Rig(sheet);
  const drivers = (values: Record<string, number>) => {
    rig.set(values);
    return conflictsOf(rig.netlist, rig.run.values).map((c) => c.drivers);
  };
  expect(drivers({ A: 1, B: 0, EA: 1, EB: 1 })).toEqual([['t1', 't2']]);
  expect(drivers({ B: 1 })).toEqual([]);
  expect(drivers({ B: 0, EB: 0 })).toEqual([]);
});
