import { emptyLesson } from '@/core/circuit/lesson';
import { readLesson } from '@/core/formats/lesson-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { filled, plannedFor } from '@/core/logic/planned';
import { cell } from '@/core/logic/truth-table';
import { follow } from '@/core/synthesis/follow';
import { interlock } from '@/core/testing/sketch';
import { relabel } from './commands';
import { drawPlan, placeFormulas, setPlan } from './plan-commands';
import { Session } from './session';

function planned(line: string, ...columns: string[]): Session {
  const session = new Session(emptyLesson('plan-test', 'Plan'));
  session.setFollow(follow);
  const made = plannedFor(line);
  if (!made.ok) throw new Error(made.problem);
  setPlan(
    session,
    columns.reduce(
      (plan, letters, o) => filled(plan, o, new Map([...letters].map((c, r) => [r, c]))),
      made.plan,
    ),
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
    drawPlan(session, { form, mostInputs: 2, isShared: true });
    expect([column(session), column(session, 1)]).toEqual(['00000001', '00001100']);
    session.undo();
    expect(session.sheet.parts.size).toBe(0);
  },
);

test('open cells are said to have been taken as either', () => {
  const session = planned('A, B = Y', '0.1.');
  drawPlan(session, { form: 'sop', mostInputs: 8, isShared: false });
  expect(session.state.notice?.text).toMatch(/^2 cells are still open/);
  expect(column(session)).toMatch(/^0.1.$/);
  // Y = A is the simplest: a switch and a lamp, and no gate.
  expect(session.sheet.parts.size).toBe(3);
});

test('the table that was filled in is kept in the file and comes back with undo', () => {
  const session = planned('A, B = Y', '0110');
  const read = readLesson(writeLesson(session.state.lesson));
  expect(read.ok && read.value.sheets[0]!.plan).toEqual(session.sheet.plan);
  setPlan(session, undefined);
  expect(session.sheet.plan).toBeUndefined();
  session.undo();
  expect(session.sheet.plan?.outputs[0]?.rows).toBe('0110');
});

test('a formula on the sheet follows the circuit', () => {
  const session = new Session(interlock().lesson);
  session.setFollow(follow);
  placeFormulas(session, 'sop', 'bar');
  const note = () => [...session.sheet.parts.values()].find((p) => p.kind === 'formula')!.params.text;
  expect(note()).toBe('Drive = Key Bars Clear\nWarn = Key ~{Bars}');
  relabel(session, 'switch1', 'Lock');
  expect(note()).toBe('Drive = Lock Bars Clear\nWarn = Lock ~{Bars}');
  session.undo();
  expect(note()).toBe('Drive = Key Bars Clear\nWarn = Key ~{Bars}');
});
