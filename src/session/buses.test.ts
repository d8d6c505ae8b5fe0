import type { Lesson } from '@/core/circuit/lesson';
import { emptyLesson } from '@/core/circuit/lesson';
import { cell } from '@/core/logic/table/truth-table';
import { updateDerived } from '@/core/synthesis/update-derived';
import { partOf, sheetOfParts } from '@/core/testing/rig';
import { moveParts } from './changes/parts';
import { rowNow } from './moment';
import { Session } from './session';

const lessonOf = (...sheets: Lesson['sheets']): Lesson => ({ ...emptyLesson('test-lesson', 'Test'), sheets });

const adder = sheetOfParts(
  [
    partOf('switch', 'a', { width: 2 }, 0, 'A'),
    partOf('switch', 'b', { width: 2 }, 1, 'B'),
    partOf('constant', 'zero', { value: 0 }),
    partOf('adder', 'add', { width: 2 }, 0, ''),
    partOf('number', 's', { width: 2 }, 2, 'S'),
    partOf('lamp', 'c', {}, 3, 'Carry'),
  ],
  ['a.Y-add.A', 'b.Y-add.B', 'zero.Y-add.CI', 'add.S-s.A', 'add.CO-c.A'],
);

test('a bank of switches is flipped bit by bit, and a bus has a column a bit', () => {
  const session = new Session(lessonOf(adder));
  session.setUpdateDerived(updateDerived);
  const { netlist, table } = session.state;
  expect(netlist.inputColumns.map((c) => c.name)).toEqual(['A[1]', 'A[0]', 'B[1]', 'B[0]']);
  expect(netlist.outputColumns.map((c) => c.name)).toEqual(['S[1]', 'S[0]', 'Carry']);
  if (table.state !== 'ready') throw new Error('no table');
  for (let row = 0; row < 16; row++) {
    const sum = (row >> 2) + (row & 3);
    expect([2, 1, 0].map((o) => cell(table.table, 2 - o, row)).join('')).toBe(
      [(sum >> 1) & 1, sum & 1, sum >> 2].join(''),
    );
  }
  session.flip('a', 1);
  session.flip('b');
  expect([...session.state.on].sort()).toEqual(['a.1', 'b']);
  expect(rowNow(session.state.netlist, session.state.values)).toBe(0b1001);
  session.goToRow(0b0110);
  expect([...session.state.on].sort()).toEqual(['a', 'b.1']);
  session.stepRow(-1);
  expect(rowNow(session.state.netlist, session.state.values)).toBe(0b0101);
});

test('a moment with bits of a bus comes back as it was', () => {
  const lesson = lessonOf(adder);
  const standing = { on: new Set(['a.1', 'b']), tried: new Map(), circuit: null };
  const session = new Session(lesson, { standings: new Map([[lesson.sheets[0]!.id, standing]]) });
  session.setUpdateDerived(updateDerived);
  expect(rowNow(session.state.netlist, session.state.values)).toBe(0b1001);
});

const bus = sheetOfParts(
  [
    ...['A', 'EA', 'B', 'EB'].map((label, i) => partOf('switch', `s${i}`, {}, i, label)),
    partOf('tri', 't1', {}, 0, 'Left'),
    partOf('tri', 't2', {}, 0, 'Right'),
    partOf('lamp', 'l', {}, 4, 'L'),
  ],
  ['s0.Y-t1.A', 's1.Y-t1.EN', 's2.Y-t2.A', 's3.Y-t2.EN', 't1.Y-l.A', 't2.Y-l.A'],
);

test('two three-state buffers that fight are named while they do, and only then', () => {
  const session = new Session(lessonOf(bus));
  session.setUpdateDerived(updateDerived);
  expect(session.state.diagnostics).toEqual([]);
  for (const part of ['s0', 's1', 's3']) session.flip(part);
  expect(session.state.diagnostics).toMatchObject([
    {
      code: 'conflict',
      message: expect.stringContaining('Left and Right drive the same wire against each other'),
    },
  ]);
  expect(session.state.conflicts.size).toBe(1);
  session.flip('s3');
  expect(session.state.diagnostics).toEqual([]);
});

test('moving parts neither compiles anew nor starts the run anew', () => {
  const counter = sheetOfParts(
    [
      partOf('clock', 'c', { hertz: 1 }, 0, 'C'),
      partOf('counter', 'n', { width: 2 }, 0, ''),
      partOf('number', 'd', { width: 2 }, 1, 'N'),
    ],
    ['c.Y-n.C', 'n.Q-d.A'],
  );
  const session = new Session(lessonOf(counter));
  session.setUpdateDerived(updateDerived);
  for (let i = 0; i < 3; i++) session.time.stepHalf();
  const { netlist, values, now } = session.state;
  moveParts(session, new Set(['n']), { x: 3, y: 1 });
  expect(session.state.netlist).toBe(netlist);
  expect(session.state.values).toBe(values);
  expect(session.state.now).toBe(now);
  expect(session.sheet.parts.get('n')!.at.x).toBe(counter.parts.get('n')!.at.x + 3);
  session.undo();
  expect(session.state.netlist).toBe(netlist);
  expect(session.sheet.parts.get('n')!.at.x).toBe(counter.parts.get('n')!.at.x);
});

test('one change is shown once', () => {
  const session = new Session(lessonOf(adder));
  session.setUpdateDerived(updateDerived);
  let shown = 0;
  session.store.subscribe(() => shown++);
  session.flip('a');
  expect(shown).toBe(1);
  session.goToRow(3);
  expect(shown).toBe(2);
  session.edit('remove c', { type: 'removePart', sheet: 'sheet1', id: 'c' });
  expect(shown).toBe(3);
});

test('blocks run on the page with what is inside them', () => {
  const port = (id: string, direction: 'in' | 'out') => partOf('port', id, { direction });
  const inner = sheetOfParts(
    [port('A', 'in'), partOf('not', 'n'), port('Y', 'out')],
    ['A.Y-n.A', 'n.Y-Y.A'],
    'inner',
  );
  const outer = sheetOfParts(
    [
      partOf('switch', 's', {}, 0, 'S'),
      partOf('block', 'b', { sheet: 'inner', title: 'inner', inputs: 'A', outputs: 'Y' }),
      partOf('lamp', 'l', {}, 1, 'L'),
    ],
    ['s.Y-b.A', 'b.Y-l.A'],
    'outer',
  );
  const session = new Session(lessonOf(outer, inner));
  session.setUpdateDerived(updateDerived);
  const lamp = () => session.state.values[session.state.netlist.outputs[0]!.nets[0]!];
  expect(lamp()).toBe(1);
  session.flip('s');
  expect(lamp()).toBe(0);
  session.openSheet('inner');
  expect(session.state.netlist.inputs.map((t) => t.name)).toEqual(['A']);
  session.flip('A');
  expect(lamp()).toBe(0);
});
