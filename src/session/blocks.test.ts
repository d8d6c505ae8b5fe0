import { emptyLesson, type Lesson } from '@/core/circuit/lesson';
import { blocksFor } from '@/core/netlist/blocks';
import { findKind } from '@/core/parts/catalogue';
import { readTyped, suggestions } from '@/core/parts/typed';
import { updateDerived } from '@/core/synthesis/update-derived';
import { partOf, sheetOfParts } from '@/core/testing/rig';
import { interlock, pin } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { renameSheet } from './changes/lesson';
import { relabel, removeSelected } from './changes/parts';
import { place } from './changes/place';
import { addSheet, duplicateSheet, portsForSheet, removeSheet } from './changes/sheets';
import { wire } from './changes/wires';
import { placeable } from './placeable';
import { Session } from './session';
import { spokenPart } from './spoken';

/** A half adder with switches and lamps, as one draws it first. */
function lesson(): Lesson {
  const sheet = sheetOfParts(
    [
      partOf('switch', 'a', {}, 0, 'A'),
      partOf('switch', 'b', {}, 1, 'B'),
      partOf('xor', 'x'),
      partOf('and', 'g'),
      partOf('lamp', 's', {}, 2, 'S'),
      partOf('lamp', 'c', {}, 3, 'C'),
    ],
    ['a.Y-x.A', 'b.Y-x.B', 'a.Y-g.A', 'b.Y-g.B', 'x.Y-s.A', 'g.Y-c.A'],
  );
  return { ...emptyLesson('test-lesson', 'Test'), sheets: [{ ...sheet, name: 'Half adder' }] };
}

/** Two sheets: the half adder as a block on the second, wired to switches and lamps. */
function withBlock(): Session {
  const session = new Session(lesson());
  session.setUpdateDerived(updateDerived);
  portsForSheet(session, 'sheet1');
  addSheet(session);
  const [kind] = blocksFor(session.state.lesson, session.state.sheetId);
  place(session, kind!, {}, [''], { x: 20, y: 10 });
  place(session, findKind('switch')!, {}, ['P', 'Q'], { x: 0, y: 5 });
  place(session, findKind('lamp')!, {}, ['Sum', 'Carry'], { x: 40, y: 5 });
  wire(session, pin('switch1.Y'), pin('block1.A'));
  wire(session, pin('switch2.Y'), pin('block1.B'));
  wire(session, pin('block1.S'), pin('lamp1.A'));
  wire(session, pin('block1.C'), pin('lamp2.A'));
  return session;
}

const ones = (session: Session) => {
  const { table } = session.state;
  if (table.state !== 'ready') throw new Error('no table');
  return table.table.ones.map((column) => column[0]);
};

test('switches and lamps become ports in one step, and the circuit stays the same', () => {
  const session = new Session(lesson());
  session.setUpdateDerived(updateDerived);
  const before = ones(session);
  portsForSheet(session, 'sheet1');
  expect([...session.sheet.parts.values()].map((p) => p.kind).sort()).toEqual([
    'and',
    'port',
    'port',
    'port',
    'port',
    'xor',
  ]);
  expect(ones(session)).toEqual(before);
  session.flip('a');
  expect([...session.state.on]).toEqual(['a']);
  session.undo();
  expect(session.sheet.parts.get('a')!.kind).toBe('switch');
});

test('a sheet with ports is offered as a block by its name, and runs as one', () => {
  const session = withBlock();
  expect(session.state.diagnostics).toEqual([]);
  expect(ones(session)).toEqual([0b0110, 0b1000]);
  const read = readTyped('half adder', blocksFor(session.state.lesson, session.state.sheetId));
  expect(read).toMatchObject({ value: { params: { sheet: 'sheet1', inputs: 'A, B', outputs: 'S, C' } } });
});

test('a sheet is not offered on itself, nor on one that it holds', () => {
  const session = withBlock();
  const { lesson: now } = session.state;
  expect(blocksFor(now, 'sheet1')).toEqual([]);
  expect(blocksFor(now, 'sheet2').map((k) => k.name)).toEqual(['Half adder']);
});

test('all uses follow the names and ports of their sheet, and undo takes both back', () => {
  const session = withBlock();
  session.openSheet('sheet1');
  relabel(session, 's', 'Total');
  session.openSheet('sheet2');
  expect(session.sheet.parts.get('block1')!.params.outputs).toBe('Total, C');
  expect(ones(session)).toEqual([0b0110, 0b1000]);
  session.undo();
  expect(session.sheet.parts.get('block1')!.params.outputs).toBe('S, C');
  expect(ones(session)).toEqual([0b0110, 0b1000]);
});

test('a port that is removed takes its wires along, and says so', () => {
  const session = withBlock();
  session.openSheet('sheet1');
  session.select({ parts: new Set(['s']), wires: new Set() });
  removeSelected(session);
  expect(session.state.notice?.text).toMatch(/1 wire ended on a port that the block no longer has/);
  session.openSheet('sheet2');
  expect(session.sheet.parts.get('block1')!.params.outputs).toBe('C');
  session.undo();
  expect(ones(session)).toEqual([0b0110, 0b1000]);
});

test('a change inside shows outside', () => {
  const session = withBlock();
  session.openSheet('sheet1');
  session.select({ parts: new Set(['g']), wires: new Set() });
  removeSelected(session);
  session.openSheet('sheet2');
  expect(session.state.netlist.diagnostics.map((d) => d.code)).toContain('loose-input');
  session.undo();
  expect(ones(session)).toEqual([0b0110, 0b1000]);
});

test('inside a block one sees the values of that very use, and comes back', () => {
  const session = withBlock();
  session.flip('switch1');
  const { netlist, now } = session.state;
  session.enter('block1');
  expect([session.state.path, session.sheet.name]).toEqual([['block1'], 'Half adder']);
  const value = (part: string, port: string) => session.state.values[session.state.view.ownNet(part, port)!];
  expect([value('x', 'Y'), value('g', 'Y')]).toEqual([1, 0]);
  session.goToRow(3);
  expect([value('x', 'Y'), value('g', 'Y')]).toEqual([0, 1]);
  // The same circuit runs on: nothing was compiled again, nothing restarted.
  expect([session.state.netlist, session.state.now]).toEqual([netlist, now]);
  session.leave(0);
  expect([session.state.path, session.sheet.name]).toEqual([[], 'Sheet 2']);
  expect(spokenPart(session.state, session.sheet, session.sheet.parts.get('lamp2')!)).toBe(
    'Carry, lamp, from Block 1, on',
  );
});

test('an edit inside a block is an edit of its sheet, and undo may lead out of it', () => {
  const session = withBlock();
  session.enter('block1');
  session.select({ parts: new Set(['g']), wires: new Set() });
  removeSelected(session);
  expect(session.state.lesson.sheets[0]!.parts.has('g')).toBe(false);
  expect(session.state.path).toEqual(['block1']);
  expect(session.state.diagnostics.map((d) => d.code)).toEqual(['loose-input']);
  session.undo();
  expect(ones(session)).toEqual([0b0110, 0b1000]);
  // Back past the placing of the block there is no inside any more.
  while (session.state.history.undo.length > 1) session.undo();
  expect(session.state.path).toEqual([]);
});

test('a block of nothing cannot be gone into', () => {
  const session = withBlock();
  removeSheet(session, 'sheet1');
  session.enter('block1');
  expect(session.state.path).toEqual([]);
  expect(session.state.notice?.text).toMatch(/nothing inside this block/);
});

test('removing a sheet that is used says what it breaks', () => {
  const session = withBlock();
  removeSheet(session, 'sheet1');
  expect(session.state.notice?.text).toBe(
    'Sheet “Half adder” removed. A block of it now has nothing inside.',
  );
  expect(session.state.diagnostics.map((d) => d.code)).toContain('unknown-block');
  session.undo();
  expect(session.state.diagnostics).toEqual([]);
});

test('a sheet without ports says how to place them', () => {
  const session = new Session(lesson());
  session.setUpdateDerived(updateDerived);
  addSheet(session);
  portsForSheet(session, session.state.sheetId);
  expect(session.state.notice?.text).toMatch(/type|typing/);
});

test('a signal that never rests inside a block is told of the block', () => {
  const ring = sheetOfParts(
    [partOf('port', 'A'), partOf('nand', 'g'), partOf('port', 'Y', { direction: 'out' })],
    ['A.Y-g.A', 'g.Y-g.B', 'g.Y-Y.A'],
    'ring',
  );
  const outer = sheetOfParts(
    [
      partOf('switch', 's', {}, 0, 'S'),
      partOf('block', 'b', { sheet: 'ring', title: 'ring', inputs: 'A', outputs: 'Y' }, 0, 'Bell'),
    ],
    ['s.Y-b.A'],
    'outer',
  );
  const session = new Session({ ...emptyLesson('test-lesson', 'T'), sheets: [outer, ring] });
  session.setUpdateDerived(updateDerived);
  session.flip('s');
  expect(session.state.diagnostics).toMatchObject([
    {
      code: 'unsettled',
      message: expect.stringMatching(/^The signal through Bell never settles/),
      pins: [{ part: 'b' }],
    },
  ]);
});

test('a sheet that is called as a part is told so, and both can be placed', () => {
  const session = withBlock();
  session.openSheet('sheet1');
  expect(renameSheet(session, 'sheet1', 'Adder').ok).toBe(true);
  expect(session.state.notice?.text).toBe(
    '“Adder” places the part Adder. To place this sheet as a block elsewhere, type “block Adder”.',
  );
  session.openSheet('sheet2');
  const kinds = placeable(session);
  const typed = (text: string) => {
    const read = readTyped(text, kinds);
    return read.ok ? [read.value.kind.kind, read.value.params.sheet ?? null] : null;
  };
  expect(typed('adder')).toEqual(['adder', null]);
  expect(typed('block adder')).toEqual(['block', 'sheet1']);
  // Whoever chooses it from the list gets it as well.
  const listed = suggestions('block adder', kinds)[0]!;
  expect(typed(listed.typed[0]!)).toEqual(['block', 'sheet1']);
});

test('a copy of a sheet stands behind it, with its table, and is open; it is a sheet of its own', () => {
  const session = new Session(interlock().lesson);
  session.edit('fill in', {
    type: 'changeSheet',
    id: 'sheet1',
    change: { plan: { inputs: ['A'], outputs: [{ name: 'Y', rows: '01' }] } },
  });
  expectDone(duplicateSheet(session, 'sheet1'));
  const [first, copy] = session.state.lesson.sheets;
  expect([first!.name, copy!.name]).toEqual(['Sheet 1', 'Sheet 2']);
  expect(session.state.rootId).toBe(copy!.id);
  expect(copy!.plan).toEqual(first!.plan);
  session.select({ parts: new Set(['not1']), wires: new Set() });
  expectDone(removeSelected(session));
  expect(session.state.lesson.sheets[0]!.parts.has('not1')).toBe(true);
});
