import { emptyLesson } from '@/core/circuit/lesson';
import { findKind } from '@/core/parts/catalogue';
import { updateDerived } from '@/core/synthesis/update-derived';
import { interlock } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { tidySheet } from './changes/arrange';
import { reorder } from './changes/columns';
import { relabel, removeSelected, setParam } from './changes/parts';
import { place } from './changes/place';
import { addSheet, portsForSheet, removeSheet } from './changes/sheets';
import { typedLine } from './changes/statement';
import { putStimulus } from './changes/time';
import { Persistence, standingsOf } from './persistence';
import { Session } from './session';

function opened(lesson = emptyLesson('live', 'Live')): Session {
  return new Session(lesson, { updateDerived });
}

const set = (session: Session, kind: string, label = '', params = {}, x = 4) =>
  expectDone(place(session, findKind(kind)!, params, [label], { x, y: 30 }));
const type = (session: Session, line: string) => expectDone(typedLine(session, line, { x: 4, y: 4 }));

/** What stands at a named output now. */
function at(session: Session, name: string): number {
  const { netlist, values } = session.state;
  return values[netlist.outputColumns.find((c) => c.name === name)!.nets[0]]!;
}

const partCalled = (session: Session, label: string) =>
  [...session.sheet.parts.values()].find((p) => p.label === label)!.id;

test('switches, tried rows and the moment belong to their sheet', () => {
  const session = opened();
  type(session, 'Drive = Key and Bars');
  session.goToRow(1);
  const first = session.state.rootId;
  expectDone(addSheet(session, 'Two'));
  type(session, 'Bell = North or South');
  expect([...session.state.on]).toEqual([]);
  session.flip(partCalled(session, 'North'));
  expect(at(session, 'Bell')).toBe(1);
  const second = session.state.rootId;

  session.openSheet(first);
  expect([...session.state.on]).toEqual([partCalled(session, 'Bars')]);
  expect([...session.state.tried]).toEqual([[1, '0']]);
  session.openSheet(second);
  expect(at(session, 'Bell')).toBe(1);
  expect([...session.state.tried.keys()]).toEqual([2]);
});

test('a sheet that is left keeps its run, and comes back after its removal was undone', () => {
  const session = opened();
  set(session, 'clock', 'Clk', { hertz: 1 });
  set(session, 'dff', 'Q', {}, 30);
  type(session, 'Q.C = Clk');
  type(session, 'Q.D = Next');
  const first = session.state.rootId;
  session.time.goToTime(0);
  session.time.stepHalf();
  session.time.stepHalf();
  session.time.stepHalf();
  const { now } = session.state;
  expect(now).toBeGreaterThan(0);
  session.time.goToTime(now / 2);
  const { trace } = session;
  expectDone(addSheet(session, 'Two'));
  expect(session.state.now).toBe(0);
  session.openSheet(first);
  expect(session.state.now).toBe(now);
  expect(session.state.cursor).toBe(now / 2);
  expect(session.trace).toBe(trace);

  expectDone(removeSheet(session, first));
  expect(session.state.rootId).not.toBe(first);
  expectDone(session.undo());
  session.openSheet(first);
  expect(session.state.now).toBe(now);
});

test('a new part does not take the position of an earlier one; undo brings that back', () => {
  const session = opened();
  set(session, 'switch', 'Key');
  const key = partCalled(session, 'Key');
  session.flip(key);
  session.select({ parts: new Set([key]), wires: new Set() });
  expectDone(removeSelected(session));
  expectDone(session.undo());
  expect(session.state.on.has(key)).toBe(true);
  session.select({ parts: new Set([key]), wires: new Set() });
  expectDone(removeSelected(session));
  set(session, 'switch', 'Bars');
  expect(partCalled(session, 'Bars')).toBe(key);
  expect([...session.state.on]).toEqual([]);
});

test('what leaves the circuit as it is leaves tried rows, run and moment as they are', () => {
  const session = opened(interlock().lesson);
  session.goToRow(6);
  session.goToRow(1);
  const before = [...session.state.tried];
  const { trace } = session;
  set(session, 'table');
  set(session, 'formula');
  expectDone(tidySheet(session));
  relabel(session, 'lamp1', 'Go');
  expectDone(portsForSheet(session, session.state.rootId));
  expect([...session.state.tried]).toEqual(before);
  expect(session.trace).toBe(trace);
  expect(session.state.notice?.text).not.toContain('has changed');
  // Another order of the columns gives rows and outputs other places.
  expectDone(reorder(session, ['switch3', 'switch2', 'switch1', 'lamp2', 'lamp1']));
  expect([...session.state.tried]).toEqual([
    [0b011, '00'],
    [0b100, '00'],
  ]);
  expectDone(putStimulus(session, { name: 'Ride', inputs: [] }, 'add a stimulus'));
  expect(session.state.tried.size).toBe(2);
});

test('a change of the circuit says what it ended, and its undo brings the rows back', () => {
  const session = opened(interlock().lesson);
  session.goToRow(4);
  session.goToRow(1);
  expectDone(session.edit('loosen', { type: 'removeWire', sheet: session.state.sheetId, id: 'w1' }));
  expect(session.state.tried.size).toBe(0);
  expect(session.state.notice?.text).toBe('The circuit has changed: 2 tried rows are open again.');
  // What else is said of the same step is said with it.
  session.sayUndoable('A wire is removed.');
  expect(session.state.notice?.text).toMatch(/^A wire is removed\. The circuit has changed: 2 tried/);
  expectDone(session.undo());
  expect([...session.state.tried.keys()]).toEqual([4, 1]);
});

test('storage that was unknown while it was wired begins anew', () => {
  const session = opened();
  set(session, 'counter', 'Bell', { clear: 'high' });
  set(session, 'clock', 'Clk', { hertz: 1 }, 60);
  type(session, 'Bell.C = Clk');
  for (let i = 0; i < 4; i++) session.time.stepHalf();
  const bell = partCalled(session, 'Bell');
  const bits = () => session.state.netlist.netsOfPin(bell, 'Q')!.map((net) => session.state.values[net]);
  expect(bits()).toContain(2);
  type(session, 'Bell.CLR = Reset');
  expect(bits()).toEqual([0, 0, 0, 0]);
  for (let i = 0; i < 4; i++) session.time.stepHalf();
  expect(bits()).toEqual([0, 1, 0, 0]);
});

test('all sheets come back as they stood; rows of a circuit that has become another do not', async () => {
  const session = opened();
  let kept: Parameters<typeof standingsOf>[0] | undefined;
  const writer = { edit: () => {}, retry: () => {}, close: () => {}, isBehind: false };
  const persistence = new Persistence(
    session,
    () => writer as never,
    async (moment) => {
      kept = { lesson: 'live', seconds: 0, ...moment };
    },
  );
  session.setSink(persistence);
  type(session, 'Drive = Key and Bars');
  session.goToRow(3);
  const first = session.state.rootId;
  expectDone(addSheet(session, 'Two'));
  type(session, 'Bell = North or South');
  session.goToRow(2);
  const second = session.state.rootId;
  persistence.close();

  const again = new Session(session.state.lesson, { sheetId: second, standings: standingsOf(kept!) });
  expect([...again.state.tried.keys()]).toEqual([2]);
  again.openSheet(first);
  expect([...again.state.tried.keys()]).toEqual([3]);
  expect(at(again, 'Drive')).toBe(1);

  session.openSheet(first);
  setParam(
    session,
    [...session.sheet.parts.values()].filter((p) => p.kind === 'and').map((p) => p.id),
    'inputs',
    3,
  );
  const changed = new Session(session.state.lesson, { sheetId: second, standings: standingsOf(kept!) });
  changed.openSheet(first);
  expect(changed.state.tried.size).toBe(0);
  expect(changed.state.on.size).toBe(2);
});

test('a switch that is placed on a block’s sheet from outside begins at 0, whatever switch had its id', () => {
  const session = opened();
  type(session, 'Y = A and B');
  const inner = session.state.rootId;
  expectDone(portsForSheet(session, inner));
  set(session, 'switch', 'Spare');
  const spare = partCalled(session, 'Spare');
  session.flip(spare);
  expectDone(addSheet(session, 'Two'));
  set(session, 'block', '', { sheet: inner, title: 'Sheet 1', inputs: 'A, B', outputs: 'Y' });
  const [block] = [...session.sheet.parts.keys()];
  session.enter(block!);
  session.select({ parts: new Set([spare]), wires: new Set() });
  expectDone(removeSelected(session));
  set(session, 'switch', 'Other');
  expect(partCalled(session, 'Other')).toBe(spare);
  session.openSheet(inner);
  expect(session.state.on.has(spare)).toBe(false);
});
