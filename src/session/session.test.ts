import type { Edit } from '@/core/circuit/edit';
import { writeLesson } from '@/core/formats/write-lesson';
import { truthTable } from '@/core/logic/table/truth-table';
import { compile } from '@/core/netlist/compile';
import { findKind } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import { interlock, pin, Sketch } from '@/core/testing/sketch';
import { timeText } from '@/core/values/time';
import { copied, duplicateSelected, pasteText } from './changes/clipboard';
import { reorder } from './changes/columns';
import { renameLesson } from './changes/lesson';
import { moveParts, relabel, removeSelected, setParam } from './changes/parts';
import { place } from './changes/place';
import { addSheet } from './changes/sheets';
import { wire } from './changes/wires';
import { rowNow } from './moment';
import { selectAll } from './select';
import { Session } from './session';
import { spokenPart } from './spoken';
import type { SessionState } from './state';

const letter = (s: SessionState, output: number) => s.values[s.netlist.outputs[output]!.nets[0]!];

function chase(): Session {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clock', { hertz: 2 });
  s.place('dff', 20, 0);
  s.place('lamp', 40, 0, 'L');
  s.wire('clock1.Y', 'dff1.C');
  s.wire("dff1.Q'", 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  return new Session(s.lesson);
}

describe('the row', () => {
  test('follows the switches, the switches follow the row, and what was tried is counted', () => {
    const session = new Session(interlock().lesson);
    session.flip('switch1');
    expect(rowNow(session.state.netlist, session.state.values)).toBe(4);
    expect(letter(session.state, 1)).toBe(1);
    session.goToRow(7);
    expect([...session.state.on].sort()).toEqual(['switch1', 'switch2', 'switch3']);
    expect(letter(session.state, 0)).toBe(1);
    session.stepRow(1);
    expect(rowNow(session.state.netlist, session.state.values)).toBe(0);
    session.stepRow(-1);
    expect([...session.state.tried.keys()].sort()).toEqual([0, 4, 7]);
  });

  test('what was tried is forgotten when the circuit becomes another, not when it is moved', () => {
    const session = new Session(interlock().lesson);
    session.goToRow(3);
    moveParts(session, new Set(['and1']), { x: 1, y: 0 });
    expect(session.state.tried.size).toBe(1);
    setParam(session, ['and1'], 'inputs', 4);
    expect(session.state.tried.size).toBe(0);
    expect([...session.state.on].sort()).toEqual(['switch2', 'switch3']);
  });

  test('columns are reordered, and the table with them', () => {
    const session = new Session(interlock().lesson);
    reorder(session, ['switch3', 'switch1', 'switch2', 'lamp2', 'lamp1']);
    const { table } = session.state;
    expect(table.state === 'ready' && [table.table.inputs, table.table.outputs]).toEqual([
      ['Clear', 'Key', 'Bars'],
      ['Warn', 'Drive'],
    ]);
    expect(table.state === 'ready' && table.table).toEqual(truthTable(compile(session.sheet)));
  });

  test('a new label is in the table’s heading at once', () => {
    const session = new Session(interlock().lesson);
    relabel(session, 'lamp1', 'Go');
    const { table } = session.state;
    expect(table.state === 'ready' && table.table.outputs).toEqual(['Go', 'Warn']);
  });
});

describe('the time', () => {
  test('steps by half periods, shows the past, and comes back', () => {
    const session = chase();
    expect(session.state.table.state).toBe('none');
    session.time.stepHalf();
    expect(session.state.now).toBe(0.25e12);
    expect(letter(session.state, 0)).toBe(1);
    session.time.stepHalf();
    session.time.stepHalf();
    expect(letter(session.state, 0)).toBe(0);
    session.time.goToTime(0.3e12);
    expect(session.state.cursor).toBe(0.3e12);
    expect(letter(session.state, 0)).toBe(1);
    session.time.stepHalfBack();
    expect([session.state.cursor, letter(session.state, 0)]).toEqual([0.25e12, 1]);
    session.time.stepHalfBack();
    expect([session.state.cursor, letter(session.state, 0)]).toEqual([0, 0]);
    session.time.stepHalf();
    expect(session.state.cursor).toBe(0.25e12);
    session.time.goToTime(9e12);
    expect([session.state.cursor, session.state.now, letter(session.state, 0)]).toEqual([null, 0.75e12, 0]);
  });

  test('runs at its pace and begins again', () => {
    const session = chase();
    session.time.play(true);
    for (let i = 0; i < 5; i++) session.time.tick(100);
    expect(session.state.now).toBe(0.5e12);
    session.time.restart();
    expect([session.state.now, session.state.playing]).toEqual([0, false]);
  });

  test('an edit in the middle keeps time and what flip-flops hold', () => {
    const session = chase();
    session.time.stepHalf();
    place(session, findKind('lamp')!, {}, ['Other'], { x: 40, y: 10 });
    expect(session.state.now).toBe(0.25e12);
    wire(session, pin("dff1.Q'"), pin('lamp2.A'));
    expect([letter(session.state, 0), letter(session.state, 1)]).toEqual([1, 0]);
  });

  test('is written in the unit that reads best', () => {
    expect([0, 250e9, 1e12, 15_000, 999].map(timeText)).toEqual(['0 s', '250 ms', '1 s', '15 ns', '999 ps']);
  });
});

describe('edits', () => {
  test('are undone and redone byte for byte, and each goes to the keeper', () => {
    const kept: Edit[] = [];
    const session = new Session(interlock().lesson, {
      sink: { edit: (e) => kept.push(e), moment: () => {} },
    });
    const before = writeLesson(session.state.lesson);
    place(session, findKind('nand')!, { inputs: 2 }, [''], { x: 50, y: 50 });
    wire(session, pin('switch1.Y'), pin('nand1.A'));
    moveParts(session, new Set(['nand1', 'switch1']), { x: 2, y: 3 });
    selectAll(session);
    removeSelected(session);
    expect(session.sheet.parts.size).toBe(0);
    const after = writeLesson(session.state.lesson);
    for (let i = 0; i < 4; i++) session.undo();
    expect(writeLesson(session.state.lesson)).toBe(before);
    for (let i = 0; i < 4; i++) session.redo();
    expect(writeLesson(session.state.lesson)).toBe(after);
    expect(kept).toHaveLength(12);
  });

  test('what cannot be is refused with a notice, and nothing changes', () => {
    const session = new Session(interlock().lesson);
    expect(session.edit('remove Key', { type: 'removePart', sheet: 'sheet1', id: 'switch1' }).ok).toBe(false);
    expect(session.state.notice?.text).toMatch(/still hangs on switch1/);
    session.setReadOnly(true);
    expect(renameLesson(session, 'x').ok).toBe(false);
    expect(session.state.lesson.title).toBe('Test');
  });

  test('several parts are placed below each other under their labels, clear of what is there', () => {
    const session = new Session(interlock().lesson);
    place(session, findKind('switch')!, {}, ['A', 'B'], { x: 0, y: 0 });
    const [a, b] = ['switch4', 'switch5'].map((id) => session.sheet.parts.get(id)!);
    expect([a!.label, b!.label]).toEqual(['A', 'B']);
    expect(a!.at).not.toEqual({ x: 0, y: 0 });
    expect(b!.at.y).toBeGreaterThan(a!.at.y);
    place(session, findKind('switch')!, {}, [''], { x: 0, y: 90 });
    expect(session.sheet.parts.get('switch6')!.label).toBe('S1');
  });

  test('a copy goes over the clipboard as text, and foreign text is refused', () => {
    const session = new Session(interlock().lesson);
    expect(copied(session)).toBeNull();
    selectAll(session);
    const text = copied(session)!;
    pasteText(session, text);
    expect(session.sheet.parts.size).toBe(16);
    pasteText(session, 'hello');
    expect(session.state.notice?.tone).toBe('bad');
    duplicateSelected(session);
    expect(session.sheet.parts.size).toBe(24);
  });

  test('each sheet has its own circuit', () => {
    const session = new Session(interlock().lesson);
    addSheet(session);
    expect([session.sheet.name, session.state.netlist.inputs.length]).toEqual(['Sheet 2', 0]);
    session.openSheet('sheet1');
    expect(session.state.netlist.inputs).toHaveLength(3);
    session.openSheet('sheet2');
    session.undo();
    expect(session.sheet.id).toBe('sheet1');
  });
});

test('problems of the run are listed with those of the drawing', () => {
  const s = new Sketch();
  s.place('not', 0, 0);
  s.wire('not1.Y', 'not1.A');
  const { diagnostics } = new Session(s.lesson).state;
  expect(diagnostics.map((d) => d.code)).toEqual(['unsettled']);
  expect(diagnostics[0]!.message).toContain('NOT 1 never settles');
});

test('outputs that drive against each other are a conflict only while they differ', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('switch', 0, 10, 'B');
  s.place('lamp', 20, 0);
  s.wire('switch1.Y', 'lamp1.A');
  s.wire('switch2.Y', 'lamp1.A');
  const session = new Session(s.lesson);
  expect(session.state.conflicts.size).toBe(0);
  session.flip('switch1');
  expect(session.state.conflicts.size).toBe(1);
  const said = (id: string) => spokenPart(session.state, session.sheet, session.sheet.parts.get(id)!);
  expect([said('switch1'), said('switch2')].map((w) => w.split(', ')[2])).toEqual(['1', '0']);
  session.flip('switch2');
  expect(session.state.conflicts.size).toBe(0);
});

test('a part is read out with its neighbours and its value', () => {
  const session = new Session(interlock().lesson);
  session.flip('switch1');
  const said = (id: string) => spokenPart(session.state, session.sheet, session.sheet.parts.get(id)!);
  expect(said('switch1')).toBe('Key, switch, 1, drives AND 1 and AND 2');
  expect(said('and2')).toBe('AND 2, two-input AND, from Key and NOT 1, output 1, drives Warn');
  expect(said('lamp2')).toBe('Warn, lamp, from AND 2, on');
  expect(defaultParams(findKind('and')!)).toEqual({ inputs: 2, width: 1, inverted: [] });
});
