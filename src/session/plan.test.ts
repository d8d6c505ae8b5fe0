import { emptyLesson } from '@/core/circuit/lesson';
import { probeCandidates } from '@/core/drawing/editing/probe-columns';
import { readLesson } from '@/core/formats/lesson-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { namesLine, specFromNames, withLetters } from '@/core/logic/specification/spec-edits';
import { cell } from '@/core/logic/table/truth-table';
import { updateDerived } from '@/core/synthesis/update-derived';
import { interlock } from '@/core/testing/sketch';
import { drawSpec } from './changes/draw-table';
import { placeFormulas } from './changes/formula-note';
import { relabel } from './changes/parts';
import { showProbeColumn } from './changes/probe-columns';
import { fillCell, setSpec, specInHand, specOfCircuit, turnCell } from './changes/table';
import { Session } from './session';

function planned(line: string, ...columns: string[]): Session {
  const session = new Session(emptyLesson('plan-test', 'Plan'));
  session.setUpdateDerived(updateDerived);
  const made = specFromNames(line);
  if (!made.ok) throw new Error(made.problem.message);
  setSpec(
    session,
    columns.reduce(
      (plan, letters, o) => withLetters(plan, o, new Map([...letters].map((c, r) => [r, c]))),
      made.value,
    ),
    'begin a table',
  );
  return session;
}
const column = (session: Session, output = 0) => {
  const { table } = session.state;
  if (table.state !== 'ready') return table.state;
  return Array.from({ length: table.table.rows }, (_, row) => cell(table.table, output, row)).join('');
};

test.each(['sop', 'pos', 'nand', 'nor', 'xor', 'minterms'] as const)(
  'a filled table is drawn as %s',
  (form) => {
    const session = planned('Key, Bars, Clear = Drive, Warn', '00000001', '00001100');
    drawSpec(session, { form, mostInputs: 2, isShared: true });
    expect([column(session), column(session, 1)]).toEqual(['00000001', '00001100']);
    session.undo();
    expect(session.sheet.parts.size).toBe(0);
  },
);

test('open cells are said to have been taken as either', () => {
  const session = planned('A, B = Y', '0.1.');
  drawSpec(session, { form: 'sop', mostInputs: 8, isShared: false });
  expect(session.state.notice?.text).toMatch(/^2 cells are still open/);
  expect(column(session)).toMatch(/^0.1.$/);
  // Y = A is the simplest: a switch and a lamp, and no gate.
  expect(session.sheet.parts.size).toBe(3);
});

test('the table that was filled in is kept in the file and comes back with undo', () => {
  const session = planned('A, B = Y', '0110');
  const read = readLesson(writeLesson(session.state.lesson));
  expect(read.ok && read.value.sheets[0]!.plan).toEqual(session.sheet.plan);
  setSpec(session, undefined, 'remove the table');
  expect(session.sheet.plan).toBeUndefined();
  session.undo();
  expect(session.sheet.plan?.outputs[0]?.rows).toBe('0110');
});

test('a formula on the sheet follows the circuit', () => {
  const session = new Session(interlock().lesson);
  session.setUpdateDerived(updateDerived);
  placeFormulas(session, 'sop', 'bar');
  const note = () => [...session.sheet.parts.values()].find((p) => p.kind === 'formula')!.params.text;
  expect(note()).toBe('Drive = Key Bars Clear\nWarn = Key ~{Bars}');
  relabel(session, 'switch1', 'Lock');
  expect(note()).toBe('Drive = Lock Bars Clear\nWarn = Lock ~{Bars}');
  session.undo();
  expect(note()).toBe('Drive = Key Bars Clear\nWarn = Key ~{Bars}');
});

test('a drawn circuit has its table at hand, to be changed from there in one step', () => {
  const session = new Session(interlock().lesson);
  expect(session.sheet.plan).toBeUndefined();
  expect(namesLine(specInHand(session)!)).toBe('Key, Bars, Clear = Drive, Warn');
  turnCell(session, 'Drive', 6);
  expect(session.sheet.plan?.outputs.map((o) => o.rows)).toEqual(['00000011', '00001100']);
  fillCell(session, 'warn', 0, 'x');
  expect(session.sheet.plan?.outputs[1]?.rows).toBe('x0001100');
  turnCell(session, 'Warn', 0);
  expect(session.sheet.plan?.outputs[1]?.rows).toBe('10001100');
  // A name that is no output of the table changes nothing.
  fillCell(session, 'Horn', 0, '1');
  for (let n = 0; n < 3; n++) session.undo();
  expect(session.sheet.plan).toBeUndefined();
});

test('what a probe half-way shows is no output that is wanted', () => {
  const session = new Session(interlock().lesson);
  const not = probeCandidates(session.sheet, session.state.netlist).find((one) => one.part === 'not1')!;
  showProbeColumn(session, not, true);
  expect(session.state.netlist.outputColumns).toHaveLength(3);
  expect(specOfCircuit(session)!.outputs.map((o) => o.name)).toEqual(['Drive', 'Warn']);
});

test('a sheet with nothing on it, or with storage, has no table at hand', () => {
  const empty = new Session(emptyLesson('plan-test', 'Plan'));
  expect(specInHand(empty)).toBeNull();
  turnCell(empty, 'Y', 0);
  expect(empty.sheet.plan).toBeUndefined();
});
