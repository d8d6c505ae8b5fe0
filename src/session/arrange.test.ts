import { courseOf } from '@/core/drawing/geometry/placement';
import { readLesson } from '@/core/formats/lesson-file';
import { writeSvg } from '@/core/formats/svg';
import { writeLesson } from '@/core/formats/write-lesson';
import { findKind, kindOf } from '@/core/parts/catalogue';
import { defaultParams } from '@/core/parts/params';
import { updateDerived } from '@/core/synthesis/update-derived';
import { interlock, Sketch } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { numberSelected, spreadFromSelected, tidySheet } from './changes/arrange';
import { copied, pasteText, repeatSelected } from './changes/clipboard';
import { drawBy, setParam } from './changes/parts';
import { place, placeFrom } from './changes/place';
import { typedLine } from './changes/statement';
import { colourWires, pinProbe, pullSelected } from './changes/wires';
import { selectNet, selectPartsOnNet, selectWires } from './select';
import { Session } from './session';

const select = (session: Session, parts: string[], wires: string[] = []) =>
  session.select({ parts: new Set(parts), wires: new Set(wires) });

test('copies are repeated with a step, their labels counted on, in one step of undo', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A0');
  const session = new Session(s.lesson);
  select(session, ['switch1']);
  repeatSelected(session, 3, { x: 0, y: 6 });
  const parts = [...session.sheet.parts.values()];
  expect(parts.map((p) => [p.label, p.at.y])).toEqual([
    ['A0', 0],
    ['A1', 6],
    ['A2', 12],
    ['A3', 18],
  ]);
  expect([...session.state.selection.parts]).toEqual(['switch4']);
  session.undo();
  expect(session.sheet.parts.size).toBe(1);
});

test('labels are counted from top to bottom', () => {
  const session = new Session(interlock().lesson);
  select(session, ['switch3', 'switch1', 'switch2']);
  numberSelected(session, 'Bar4');
  expect(['switch1', 'switch2', 'switch3'].map((id) => session.sheet.parts.get(id)!.label)).toEqual([
    'Bar4',
    'Bar5',
    'Bar6',
  ]);
});

test('a net is selected from a wire, its parts from the net, and wires from a part', () => {
  const session = new Session(interlock().lesson);
  select(session, [], ['w1']);
  selectNet(session);
  expect([...session.state.selection.wires].sort()).toEqual(['w1', 'w4']);
  selectPartsOnNet(session);
  expect([...session.state.selection.parts].sort()).toEqual(['and1', 'and2', 'switch1']);
  select(session, ['not1']);
  selectWires(session);
  expect([...session.state.selection.wires].sort()).toEqual(['w5', 'w6']);
});

test('a colour changes how a wire looks and nothing else', () => {
  const session = new Session(interlock().lesson);
  session.goToRow(5);
  const before = session.state.values;
  select(session, [], ['w1']);
  colourWires(session, 'rose');
  expect(session.sheet.wires.get('w1')!.colour).toBe('rose');
  expect(session.state.values).toBe(before);
  expect(session.state.tried.has(5)).toBe(true);
  colourWires(session, undefined);
  expect(session.sheet.wires.get('w1')!.colour).toBeUndefined();
});

test('room is made beyond the selected part; a tidied sheet has a way back', () => {
  const session = new Session(interlock().lesson);
  const at = (id: string) => session.sheet.parts.get(id)!.at;
  select(session, ['and1']);
  spreadFromSelected(session, 'across', 4);
  expect([at('switch1').x, at('and1').x, at('lamp1').x]).toEqual([0, 20, 34]);
  const before = JSON.stringify([...session.sheet.parts.values()]);
  expect(tidySheet(session).ok).toBe(true);
  expect(session.state.notice!.undoes).toBe(session.state.history.undo.at(-1)!.id);
  session.undo();
  expect(JSON.stringify([...session.sheet.parts.values()])).toBe(before);
});

test('a probe stands on its wire, and notes leave what was tried alone', () => {
  const session = new Session(interlock().lesson);
  const at = courseOf(session.sheet, session.sheet.wires.get('w7')!)[0]!;
  pinProbe(session, 'w7', { x: at.x + 2, y: at.y });
  expect(session.state.netlist.outputs.map((o) => o.name)).toContain('P1');
  session.goToRow(3);
  expect(session.state.tried.has(3)).toBe(true);
  place(session, findKind('note')!, {}, [''], { x: 0, y: 60 });
  expect(session.state.tried.has(3)).toBe(true);
});

test('a truth table on the sheet follows its inputs and outputs', () => {
  const session = new Session(interlock().lesson);
  session.setUpdateDerived(updateDerived);
  const [id] = expectDone(place(session, findKind('truth')!, {}, [''], { x: 0, y: 60 }));
  const columns = () => session.sheet.parts.get(id!)!.params.columns;
  expect(columns()).toBe('Key\tBars\tClear\tDrive\tWarn');
  place(session, findKind('switch')!, {}, ['Bell'], { x: 0, y: 40 });
  expect(columns()).toBe('Key\tBars\tClear\tBell\tDrive\tWarn');
  session.undo();
  expect(columns()).toBe('Key\tBars\tClear\tDrive\tWarn');
});

test('a value that does not fit any of several parts changes none, and says why', () => {
  const session = new Session(interlock().lesson);
  const before = session.sheet;
  expect(setParam(session, ['and1', 'and2'], 'inputs', 99)).toMatchObject({
    problem: { message: expect.stringContaining('at most 16') },
  });
  expect(session.sheet).toBe(before);
  expect(setParam(session, ['and1', 'and2'], 'inputs', 4).ok).toBe(true);
  expect(['and1', 'and2'].map((id) => session.sheet.parts.get(id)!.params.inputs)).toEqual([4, 4]);
});

test('what is placed from a wire is joined to it, or says what it would need', () => {
  const session = new Session(interlock().lesson);
  const from = { part: 'and1', port: 'Y' };
  const lamps = findKind('lamp')!;
  const [id] = expectDone(placeFrom(session, [from], lamps, defaultParams(lamps), 'Bell', { x: 40, y: 30 }));
  expect([...session.sheet.wires.values()].some((w) => 'part' in w.to && w.to.part === id)).toBe(true);
  expect(placeFrom(session, [from], findKind('clock')!, {}, '', { x: 40, y: 40 }).ok).toBe(false);
  expect(session.state.notice!.text).toBe('Clock has no pin for this wire: an input of 1 bit is needed.');
});

test('blocks are taken to another lesson with their sheets', () => {
  const here = new Session(new Sketch().lesson);
  here.setUpdateDerived(updateDerived);
  for (const line of [
    'sheet Half adder',
    'S = a xor b',
    'C = a and b',
    'sheet Use',
    'S, C = half adder(A, B)',
  ])
    expect(typedLine(here, line, { x: 4, y: 4 }).ok).toBe(true);
  expect(here.state.notice!.text).toBe('The switches and lamps of “Half adder” are its ports now.');
  here.select({ parts: new Set(here.sheet.parts.keys()), wires: new Set() });
  const text = copied(here)!;
  const there = new Session(interlock().lesson);
  there.setUpdateDerived(updateDerived);
  pasteText(there, text);
  expect(there.state.lesson.sheets.map((s) => s.name)).toEqual(['Sheet 1', 'Half adder']);
  expect(there.state.notice!.text).toMatch(/“Half adder” came along/);
  expect(there.state.diagnostics).toEqual([]);
  there.undo();
  expect(there.state.lesson.sheets).toHaveLength(1);
  pasteText(there, 'Day\tTickets\nMon\t12');
  expect([...there.sheet.parts.values()].at(-1)).toMatchObject({ kind: 'table' });
});

test('some parts are drawn by the other standard, kept in the file, as one step of undo that disturbs no run', () => {
  const session = new Session(interlock().lesson);
  session.flip('switch1');
  const { netlist, values } = session.state;
  const plain = writeSvg(session.sheet);
  const rectangles = writeSvg(session.sheet, { symbols: 'rectangular', crossings: 'plain' });
  const gates = [...session.sheet.parts.values()].filter((p) => kindOf(p).family === 'Gates');
  drawBy(
    session,
    gates.map((p) => p.id),
    'rectangular',
  );
  expect(writeSvg(session.sheet)).toBe(rectangles);
  expect(writeSvg(session.sheet)).not.toBe(plain);
  expect(session.state.netlist).toBe(netlist);
  expect(session.state.values).toEqual(values);
  const read = readLesson(writeLesson(session.state.lesson));
  const kept = read.ok ? [...read.value.sheets[0]!.parts.values()] : [];
  expect(kept.filter((p) => p.symbols === 'rectangular').length).toBe(gates.length);
  session.undo();
  expect(writeSvg(session.sheet)).toBe(plain);
});

test('a selected wire is pulled aside by steps, and stops with a word where something stands', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'A');
  s.place('lamp', 20, 8, 'Y');
  const wire = s.wire('switch1.Y', 'lamp1.A');
  const session = new Session(s.lesson);
  const upright = () => {
    const points = courseOf(session.sheet, session.sheet.wires.get(wire)!);
    return points.find((p, i) => i > 0 && points[i - 1]!.x === p.x)!.x;
  };
  select(session, [], [wire]);
  const before = upright();
  expect(pullSelected(session, { x: 1, y: 0 })?.ok).toBe(true);
  expect(upright()).toBe(before + 1);
  for (let i = 0; i < 40; i++) pullSelected(session, { x: 1, y: 0 });
  expect(upright()).toBeLessThan(courseOf(session.sheet, session.sheet.wires.get(wire)!).at(-1)!.x);
  expect(session.state.notice?.text).toContain('cannot go that way');
  while (upright() !== before) session.undo();
  select(session, ['lamp1'], [wire]);
  expect(pullSelected(session, { x: 1, y: 0 })).toBeNull();
});
