import { compile } from '../netlist/compile';
import { partOf, Rig, sheetAround, sheetOfParts } from '../testing/rig';

const port = (id: string, direction: 'in' | 'out', width = 1, rank = 0) =>
  partOf('port', id, { direction, width }, rank);

test('a slice takes neighbouring bits of a bus', () => {
  const rig = Rig.of('slice', { width: 8, high: 6, low: 3 });
  expect(rig.set({ A: '01101010' }).word('Y')).toBe('1101');
  expect(Rig.of('slice', { width: 4, high: 2, low: 2 }).set({ A: '0100' }).word('Y')).toBe('1');
});

test('a join lays its inputs together, the top one highest', () => {
  const rig = Rig.of('join', { widths: [2, 1, 3] });
  expect(rig.set({ I2: '10', I1: '1', I0: '001' }).word('Y')).toBe('101001');
});

test('an extension repeats zeros or the sign', () => {
  expect(Rig.of('extend', { from: 3, to: 6, by: 'zero' }).set({ A: '101' }).word('Y')).toBe('000101');
  expect(Rig.of('extend', { from: 3, to: 6, by: 'sign' }).set({ A: '101' }).word('Y')).toBe('111101');
});

test('three-state buffers share a wire; who is let in decides, nobody leaves it floating, two may conflict', () => {
  const sheet = sheetOfParts(
    [
      ...['A', 'EA', 'B', 'EB'].map((id, i) => port(id, 'in', 1, i)),
      partOf('tri', 't1'),
      partOf('tri', 't2', { enable: 'low' }),
      port('Y', 'out'),
    ],
    ['A.Y-t1.A', 'EA.Y-t1.EN', 'B.Y-t2.A', 'EB.Y-t2.EN', 't1.Y-Y.A', 't2.Y-Y.A'],
  );
  const rig = new Rig(sheet);
  expect(rig.netlist.diagnostics).toEqual([]);
  const y = (EA: number, EB: number) => rig.set({ A: 1, B: 0, EA, EB }).word('Y');
  expect([y(1, 1), y(0, 0), y(0, 1), y(1, 0)]).toEqual(['1', '0', 'Z', 'X']);
  expect(rig.set({ EA: 'X', EB: 1 }).word('Y')).toBe('X');
});

test.each([
  ['up', '1'],
  ['down', '0'],
])('a pull-%s gives way to a driver', (to, idle) => {
  const sheet = sheetOfParts(
    [
      port('A', 'in'),
      port('E', 'in', 1, 1),
      partOf('tri', 't'),
      partOf('pull', 'r', { to }),
      port('Y', 'out'),
    ],
    ['A.Y-t.A', 'E.Y-t.EN', 't.Y-Y.A', 'r.A-Y.A'],
  );
  const rig = new Rig(sheet);
  expect(rig.netlist.diagnostics).toEqual([]);
  expect(rig.set({ A: 1, E: 0 }).word('Y')).toBe(idle);
  expect(rig.set({ A: 1, E: 1 }).word('Y')).toBe('1');
  expect(rig.set({ A: 0, E: 1 }).word('Y')).toBe('0');
});

test('a pulled wire that nobody drives has the value of the pull', () => {
  const sheet = sheetOfParts([partOf('pull', 'r'), port('Y', 'out')], ['r.A-Y.A']);
  expect(new Rig(sheet).word('Y')).toBe('1');
  expect(compile(sheet).diagnostics).toEqual([]);
});

test('labels of the same name are one net, a bus too', () => {
  const label = (id: string, name: string) => partOf('label', id, { width: 3 }, 0, name);
  const sheet = sheetOfParts(
    [
      port('A', 'in', 3),
      port('B', 'in', 3, 1),
      label('l1', 'Bus'),
      label('l2', 'Bus'),
      label('l3', 'Other'),
      label('l4', 'Other'),
      port('Y', 'out', 3),
      port('W', 'out', 3, 1),
    ],
    ['A.Y-l1.A', 'l2.A-Y.A', 'B.Y-l3.A', 'l4.A-W.A'],
  );
  const rig = new Rig(sheet).set({ A: 5, B: 2 });
  expect([rig.number('Y'), rig.number('W')]).toEqual([5, 2]);
});

test('a gate of several bits works bit by bit, its bubbles too', () => {
  const rig = Rig.of('and', { width: 4, inverted: [1] });
  expect(rig.set({ A: '1100', B: '1010' }).word('Y')).toBe('0100');
  expect(Rig.of('buffer', { width: 2 }).set({ A: '1Z' }).word('Y')).toBe('1X');
});

test('displays take what they show', () => {
  for (const [kind, params] of [
    ['lamp', { width: 4 }],
    ['number', { width: 4 }],
    ['digit', {}],
  ] as const) {
    const sheet = sheetOfParts([port('A', 'in', 4), partOf(kind, 'd', params, 1, 'D')], ['A.Y-d.A']);
    expect(new Rig(sheet).set({ A: 9 }).number('D')).toBe(9);
  }
  expect(sheetAround('segments').parts.size).toBe(8);
});

test('wires of unequal width are named with their remedy', () => {
  const sheet = sheetOfParts([port('A', 'in', 4), port('Y', 'out', 8)], ['A.Y-Y.A']);
  const [found] = compile(sheet).diagnostics;
  expect(found).toMatchObject({ code: 'width-mismatch', severity: 'problem' });
  expect(found!.message).toBe(
    'The wire between A (4 bits) and Y (8 bits) joins unequal widths. Widen the 4 bits with an extension to 8 bits, or join them with others.',
  );
});
