import type { Edit } from '@/core/circuit/edit';
import { emptySheet } from '@/core/circuit/sheet';
import { writeLesson } from '@/core/formats/write-lesson';
import { findKind } from '@/core/parts/catalogue';
import { updateDerived } from '@/core/synthesis/update-derived';
import { interlock, pin } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { tidySheet } from './changes/arrange';
import { renameLesson, renameSheet } from './changes/lesson';
import { letGo, moveParts, relabel, removeSelected, setParam } from './changes/parts';
import { place } from './changes/place';
import { fillCell, setSpec, specOfCircuit } from './changes/table';
import { wire } from './changes/wires';
import { Session } from './session';
import type { Beginning } from './state';

const lamp = findKind('lamp')!;
const text = (session: Session) => writeLesson(session.state.lesson);
const names = (session: Session) => session.state.history.undo.map((step) => step.name);

/** A lesson with a truth table on its sheet, which follows the drawing. */
function withTable(beginning: Beginning = {}): Session {
  const begun = new Session(interlock().lesson, { updateDerived });
  expectDone(place(begun, findKind('truth')!, {}, [''], { x: 0, y: 60 }));
  return new Session(begun.state.lesson, beginning);
}

describe('an edit says the truth', () => {
  test('where what must follow it has not been fetched, it is refused with a reason and nothing is selected', () => {
    const journal: Edit[] = [];
    const session = withTable({ sink: { edit: (edit) => journal.push(edit), moment: () => {} } });
    const before = text(session);
    const placed = place(session, lamp, {}, ['Bell'], { x: 60, y: 0 });
    expect(placed).toMatchObject({ ok: false, problem: { code: 'not-loaded' } });
    expect(session.state.notice).toMatchObject({ tone: 'bad' });
    expect([text(session), session.state.selection.parts.size, journal.length]).toEqual([before, 0, 0]);
  });

  test('of two quick placements both are there at once, with what follows them', () => {
    const session = withTable({ updateDerived });
    const [bell] = expectDone(place(session, lamp, {}, ['Bell'], { x: 60, y: 0 }));
    const [horn] = expectDone(place(session, lamp, {}, ['Horn'], { x: 60, y: 10 }));
    expect([bell, horn].map((id) => session.sheet.parts.get(id!)?.label)).toEqual(['Bell', 'Horn']);
    expect([...session.state.selection.parts]).toEqual([horn]);
    const table = [...session.sheet.parts.values()].find((p) => p.kind === 'truth')!;
    expect(table.params.columns).toBe('Key\tBars\tClear\tDrive\tWarn\tBell\tHorn');
  });

  test('of two quick cells of a table none is lost', () => {
    const session = withTable({ updateDerived });
    expectDone(setSpec(session, specOfCircuit(session)!, 'begin a table'));
    expectDone(fillCell(session, 'Drive', 0, '1'));
    expectDone(fillCell(session, 'Warn', 0, '1'));
    expect(session.sheet.plan!.outputs.map((o) => o.rows[0])).toEqual(['1', '1']);
  });

  test('in a lesson that is only looked at, it is refused whatever it needs', () => {
    for (const session of [
      withTable({ readOnly: true }),
      new Session(interlock().lesson, { readOnly: true }),
    ]) {
      const before = text(session);
      for (const edited of [
        place(session, lamp, {}, ['Bell'], { x: 60, y: 0 }),
        relabel(session, 'lamp1', 'Go'),
        renameLesson(session, 'Other'),
      ])
        expect(edited).toMatchObject({ ok: false, problem: { code: 'read-only' } });
      expect(session.undo().ok).toBe(true);
      expect(text(session)).toBe(before);
    }
  });

  test('of a transaction in which one edit does not apply nothing is made', () => {
    const session = new Session(interlock().lesson);
    const before = text(session);
    const made = session.transaction('two things', (t) => {
      t.make({ type: 'changeLesson', change: { title: 'Half' } });
      t.make({ type: 'removePart', sheet: 'sheet1', id: 'nowhere' });
      return t.make({ type: 'addSheet', sheet: emptySheet('sheet9', 'Never'), at: 1 });
    });
    expect(made).toMatchObject({ ok: false, problem: { code: 'edit-does-not-apply' } });
    expect(text(session)).toBe(before);
    expect(session.state.history.undo).toEqual([]);
    expect(session.state.notice?.text).toContain('there is no part nowhere');
  });
});

describe('undo', () => {
  test('has a step with a name for each thing that was done', () => {
    const session = new Session(interlock().lesson);
    expectDone(place(session, lamp, {}, ['Bell'], { x: 60, y: 0 }));
    expectDone(place(session, lamp, {}, ['A', 'B'], { x: 60, y: 20 }));
    expectDone(wire(session, pin('and1.Y'), pin('lamp3.A')));
    expectDone(moveParts(session, new Set(['lamp3', 'and1', 'and2']), { x: 1, y: 0 }));
    expectDone(relabel(session, 'lamp3', 'Horn'));
    expectDone(renameSheet(session, 'sheet1', 'Safety'));
    session.select({ parts: new Set(['lamp3']), wires: new Set() });
    expectDone(removeSelected(session));
    expect(names(session)).toEqual([
      'place Lamp',
      'place 2 × Lamp',
      'draw a wire',
      'move 3 parts',
      'label Horn',
      'rename the sheet to “Safety”',
      'remove Horn',
    ]);
    session.undo();
    expect(session.state.history.redo.at(-1)!.name).toBe('remove Horn');
    expect(session.sheet.parts.has('lamp3')).toBe(true);
  });

  test('steps of the same field become one while the hand stays there', () => {
    const session = new Session(interlock().lesson);
    const start = text(session);
    for (const name of ['B', 'Be', 'Bel', 'Bell']) expectDone(relabel(session, 'lamp1', name));
    expect(names(session)).toEqual(['label Bell']);
    for (let i = 0; i < 5; i++) expectDone(moveParts(session, new Set(['lamp1']), { x: 1, y: 0 }));
    expect(names(session)).toEqual(['label Bell', 'move Bell']);
    session.undo();
    session.undo();
    expect(text(session)).toBe(start);
    session.redo();
    session.redo();
    expect(session.sheet.parts.get('lamp1')).toMatchObject({ label: 'Bell' });
  });

  test('a column that is filled in is one step, the next column another', () => {
    const session = new Session(interlock().lesson);
    expectDone(setSpec(session, specOfCircuit(session)!, 'begin a table'));
    for (let row = 0; row < 8; row++) expectDone(fillCell(session, 'Drive', row, '1'));
    for (let row = 0; row < 8; row++) expectDone(fillCell(session, 'Warn', row, 'x'));
    expect(names(session)).toEqual(['begin a table', 'fill in Drive', 'fill in Warn']);
    session.undo();
    expect(session.sheet.plan!.outputs.map((o) => o.rows)).toEqual(['11111111', '00001100']);
  });

  test.each<[string, (session: Session) => void]>([
    ['is selected', (s) => s.select({ parts: new Set(['and1']), wires: new Set() })],
    ['is flipped', (s) => s.flip('switch1')],
    ['has the hand', (s) => s.endStep()],
    ['is undone and redone', (s) => [s.undo(), s.redo()]],
    ['is edited', (s) => expectDone(renameLesson(s, 'Other'))],
  ])('a step ends when something else %s', (_, doSomethingElse) => {
    const session = new Session(interlock().lesson);
    expectDone(setParam(session, ['and1'], 'inputs', 4));
    expectDone(setParam(session, ['and1'], 'inputs', 5));
    expect(names(session)).toHaveLength(1);
    doSomethingElse(session);
    expectDone(setParam(session, ['and1'], 'inputs', 6));
    session.undo();
    expect(session.sheet.parts.get('and1')!.params.inputs).toBe(5);
  });

  test('a message takes back its own step alone, and goes with the next edit', () => {
    const session = new Session(interlock().lesson);
    expectDone(tidySheet(session));
    const offered = () => {
      const { notice, history } = session.state;
      return notice !== null && notice.undoes === history.undo.at(-1)?.id;
    };
    expect(offered()).toBe(true);
    session.undo();
    expect([offered(), session.state.notice]).toEqual([false, null]);
    expectDone(tidySheet(session));
    expectDone(relabel(session, 'lamp1', 'Go'));
    expect(session.state.notice).toBeNull();
  });

  test('copies that are let go are one step, and are selected', () => {
    const session = new Session(interlock().lesson);
    session.select({ parts: new Set(['and1']), wires: new Set() });
    const copy = { ...session.sheet.parts.get('and1')!, id: 'and9', at: { x: 60, y: 60 } };
    expectDone(letGo(session, { type: 'addPart', sheet: 'sheet1', part: copy }, true));
    expect([...session.state.selection.parts]).toEqual(['and9']);
    expect(names(session)).toEqual(['copy AND 1']);
  });
});
