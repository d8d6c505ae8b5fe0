import { emptyLesson } from '@/core/circuit/lesson';
import { check } from '@/core/exercise/check';
import { expectedKindOf } from '@/core/exercise/expected';
import { type ExpectedRun, runOfSheet } from '@/core/exercise/expected/run/expected-run';
import { Sketch } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { Session } from '../session';
import { drivenByTask, goToExpected, placeExpected } from './expected';
import { timeSetupOf } from './time';

/** A clock of 10 MHz at a flip-flop that turns over, with a lamp of one bit or a row of them. */
function divider(): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 8, 'Clk', { hertz: 1e7 });
  s.place('constant', 0, 0, '', { value: 1 });
  s.place('tff', 12, 4);
  s.place('lamp', 24, 2, 'Half');
  s.wire('constant1.Y', 'tff1.T');
  s.wire('clock1.Y', 'tff1.C');
  s.wire('tff1.Q', 'lamp1.A');
  return s;
}

function expectedOf(s: Sketch): ExpectedRun {
  const settings = { ...s.lesson.settings, delays: 'parts' as const, powerUp: '1' as const };
  const own = runOfSheet(s.sheet, { ...s.lesson, settings }, null, new Set(), 6);
  return expectDone(own).expected;
}

const PARTS = new Set(['tff', 'constant', 'clock']);

function settle(session: Session): void {
  for (let i = 0; i < 500 && session.state.playing; i++) session.time.tick(16);
  expect(session.state.playing).toBe(false);
}
const lit = (session: Session) => session.state.values[session.state.netlist.outputColumns[0]!.nets[0]];

test('a reading is gone to under the task’s run, which is put there in one step of undo', () => {
  const s = divider();
  const task = expectedOf(s);
  const session = new Session(s.lesson);
  goToExpected(session, task, 2);
  settle(session);
  expect(session.state.now).toBe(249_999);
  expect(lit(session)).toBe(1);
  expect(timeSetupOf(session)).toMatchObject({ driven: 'The task’s run' });
  const expected = timeSetupOf(session).stimuli[0]?.expected;
  expect(expected?.at).toEqual([49_999, 149_999, 249_999, 349_999, 449_999, 549_999]);
  expect(expected?.outputs).toEqual([
    { part: 'lamp1', course: '0:1 50000:0 150000:1 250000:0 350000:1 450000:0' },
  ]);
  expect(session.state.lesson.settings).toMatchObject({ delays: 'parts', powerUp: '1' });
  expect(session.state.history.undo).toHaveLength(1);

  // A second one needs no other stimulus; an earlier one begins at power-up again.
  goToExpected(session, task, 1);
  settle(session);
  expect([session.state.now, lit(session)]).toEqual([149_999, 0]);
  expect(session.state.history.undo).toHaveLength(1);
  session.undo();
  expect(timeSetupOf(session).stimuli).toEqual([]);
  expect(session.state.lesson.settings).toEqual(s.lesson.settings);
});

test('what is read there is what the check says', () => {
  const s = divider();
  const task = expectedOf(s);
  const session = new Session(s.lesson);
  const { given } = check(s.sheet, task, PARTS);
  const seen = given[0]!.length;
  for (let row = 0; row < seen; row++) {
    goToExpected(session, task, row);
    settle(session);
    expect(String(lit(session))).toBe(given[0]![row]);
  }
});

test('a hand-in that cannot be changed is driven from the start', () => {
  const s = divider();
  const task = expectedOf(s);
  const session = new Session(drivenByTask(s.lesson, task, s.sheet.id), { readOnly: true });
  goToExpected(session, task, 3);
  settle(session);
  expect([session.state.now, lit(session), session.state.notice]).toEqual([349_999, 0, null]);
});

test('a row of a function is put on the switches, and needs no run', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Bars');
  s.place('switch', 0, 6, 'Key');
  const table = { kind: 'table', inputs: ['Key', 'Bars'], outputs: [{ name: 'Warn', rows: '0010' }] };
  const session = new Session(s.lesson);
  expect(drivenByTask(s.lesson, table, s.sheet.id)).toBe(s.lesson);
  goToExpected(session, table, 2);
  expect([...session.state.on]).toEqual(['switch2']);
});

test('inputs and outputs are placed with their names, widths and clocks', () => {
  const expected = expectedOf(divider());
  const [clock] = expected.inputs;
  const more: ExpectedRun = {
    ...expected,
    inputs: [clock!, { name: 'Step', width: 3, wave: { ...clock!.wave, pattern: 'levels', data: '0 5' } }],
    outputs: [{ name: 'Total', width: 8, values: expected.readings.map(() => 'x'.repeat(8)) }],
  };
  const session = new Session(emptyLesson('placed', 'Placed'));
  placeExpected(session, expectedKindOf(more).signals(more));
  const parts = [...session.sheet.parts.values()].map(({ kind, label, params }) => [
    kind,
    label,
    params.width ?? params.hertz,
  ]);
  expect(parts).toEqual([
    ['clock', 'Clk', 1e7],
    ['switch', 'Step', 3],
    ['lamp', 'Total', 8],
  ]);
  expect(check(session.sheet, more, PARTS).complaints.filter((c) => c.includes('missing'))).toEqual([]);
});
