import { DEFAULT_WAVE } from '@/core/circuit/default-wave';
import { emptyLesson } from '@/core/circuit/lesson';
import { readLesson } from '@/core/formats/lesson-file';
import { writeLesson } from '@/core/formats/write-lesson';
import { Sketch } from '@/core/testing/sketch';
import { glitchesOf } from '@/core/timing/measure';
import { expectDone } from '@/core/values/result';
import { typedLine } from './changes/statement';
import {
  drawLevel,
  driveThroughAll,
  forgetExpected,
  freshStimulusName,
  keepExpected,
  putStimulus,
  removeStimulus,
  setDelays,
  setTimeSetup,
  showHazard,
  timeSetupOf,
  withWave,
} from './changes/time';
import { shortestPeriod } from './moment';
import { Session } from './session';
import { AS_FAST } from './state';
import { stepMoment } from './step';

/** A session with typed statements drawn on its sheet. */
function drawn(...lines: string[]): Session {
  const session = new Session(emptyLesson('time-test', 'Time'));
  for (const line of lines) {
    expectDone(typedLine(session, line, { x: 4, y: 4 }));
  }
  return session;
}

/** Lets the page's frames pass until the run stops. */
function settle(session: Session): void {
  for (let i = 0; i < 2000 && session.state.playing; i++) session.time.tick(16);
  expect(session.state.playing).toBe(false);
}

/** A flip-flop that toggles at each clock of 1 Hz, and seven that keep their state. */
function toggling(): Session {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk');
  s.place('dff', 10, 0, 'Q');
  s.place('not', 20, 8);
  s.place('lamp', 24, 0, 'Y');
  s.wire('clock1.Y', 'dff1.C');
  s.wire('dff1.Q', 'not1.A');
  s.wire('not1.Y', 'dff1.D');
  s.wire('dff1.Q', 'lamp1.A');
  for (let i = 0; i < 7; i++) s.place('dff', 10, 20 + 10 * i);
  return new Session(s.lesson);
}

const output = (session: Session) => session.state.values[session.state.netlist.outputColumns[0]!.nets[0]];
const partOf = (session: Session, name: string) =>
  session.state.netlist.inputs.find((t) => t.name === name)!.part;

test('all rows are laid in time, saved with the lesson, and taken back in one step', () => {
  const session = drawn('Y = A and B');
  driveThroughAll(session, 10_000);
  settle(session);
  expect(session.state.now).toBe(40_000);
  session.time.goToTime(35_000);
  expect(output(session)).toBe(1);
  session.time.goToTime(15_000);
  expect(output(session)).toBe(0);
  const read = readLesson(writeLesson(session.state.lesson));
  expect(read.ok && read.value.sheets[0]!.time).toEqual(timeSetupOf(session));
  session.undo();
  expect(timeSetupOf(session).stimuli).toEqual([]);
  expect(session.state.now).toBe(0);
});

test('stimuli have names of their own, and one that is deleted comes back', () => {
  const session = drawn('Y = A and B');
  const a = partOf(session, 'A');
  drawLevel(session, a, 10_000, 30_000);
  expect(timeSetupOf(session)).toMatchObject({ driven: 'Stimulus', stimuli: [{ name: 'Stimulus' }] });
  drawLevel(session, a, 15_000, 20_000);
  expect(timeSetupOf(session).stimuli[0]!.inputs).toEqual([
    { part: a, wave: { ...DEFAULT_WAVE, data: '10 1, 15 0, 20 1, 30 0' } },
  ]);
  expect(freshStimulusName(session)).toBe('Stimulus 2');
  const [stimulus] = timeSetupOf(session).stimuli;
  putStimulus(session, { ...stimulus!, name: 'Other' }, 'rename it', { was: 'Stimulus' });
  expect(timeSetupOf(session).stimuli.map((s) => s.name)).toEqual(['Other']);
  expect(withWave(stimulus!, a, null).inputs).toEqual([]);
  removeStimulus(session, 'Other');
  expect(timeSetupOf(session)).toMatchObject({ driven: '', stimuli: [] });
  session.undo();
  expect(timeSetupOf(session).driven).toBe('Other');
});

test('a switch that a stimulus drives says so when it is pressed, and those beside it still move', () => {
  const session = drawn('Y = A and B');
  const [a, b] = [partOf(session, 'A'), partOf(session, 'B')];
  drawLevel(session, a, 10_000, 30_000);
  session.flip(a);
  expect(session.state.notice?.text).toMatch('A stimulus drives this input now');
  expect(session.state.on.has(a)).toBe(false);
  session.dismissNotice();
  session.flip(b);
  expect([session.state.on.has(b), session.state.notice]).toEqual([true, null]);
});

test('with delays a switch starts a wave that comes to rest, and can be stepped through both ways', () => {
  const session = drawn('Y = (A nand B) nand A');
  setDelays(session, 'unit');
  session.flip(partOf(session, 'A'));
  expect(session.state.playing).toBe(true);
  settle(session);
  // From 1 to 0: the last gate falls 1 ns after the switch.
  expect(output(session)).toBe(0);
  stepMoment(session, true);
  stepMoment(session, true);
  expect(output(session)).toBe(1);
  stepMoment(session);
  stepMoment(session);
  expect(output(session)).toBe(0);
  session.time.stepEvent();
  expect(session.state.notice?.text).toBe('Nothing is pending: the circuit has settled.');
});

test('it runs to a time, until a signal is as wanted, and says when that never comes', () => {
  const session = toggling();
  session.time.runUntil({ is: 'time', time: 2.25e12 });
  settle(session);
  expect(session.state.now).toBe(2.25e12);
  const { nets } = session.state.netlist.outputs[0]!;
  const before = output(session);
  session.time.runUntil({ is: 'values', nets, values: [before === 1 ? 0 : 1] });
  settle(session);
  expect(output(session)).not.toBe(before);
  session.time.stepTime(-1e12);
  expect(session.state.cursor).toBe(session.state.now - 1e12);
  const still = drawn('Y = A and B');
  setDelays(still, 'parts');
  still.time.runUntil({ is: 'values', nets: still.state.netlist.outputs[0]!.nets, values: [1] });
  settle(still);
  expect(still.state.notice?.text).toBe('The circuit settled before getting there.');
});

test('power-up can be shaken, and switches stay', () => {
  const session = toggling();
  const held = () =>
    [...session.state.netlist.storage]
      .map((g) => session.state.values[session.state.netlist.out[g]!])
      .join('');
  const seen = new Set<string>();
  for (let i = 0; i < 12; i++) {
    session.time.restart(true);
    seen.add(held());
  }
  expect(seen.size).toBeGreaterThan(3);
  session.time.restart();
  expect(held()).toBe('00000000');
});

test('a hazard of the map is seen as a glitch in the diagram', () => {
  const session = drawn("Platform = North Turn' + Turn South");
  const names = session.state.netlist.inputColumns.map((c) => c.name);
  // North and South stay 1 while Turn falls.
  const row = names.reduce((sum, name) => sum * 2 + (name === 'Turn' ? 0 : 1), 0);
  showHazard(session, names, row, names.indexOf('Turn'));
  settle(session);
  const { nets } = session.state.netlist.outputs[0]!;
  const [glitch] = glitchesOf(session.trace, nets, 5000, 10_000);
  // Turn falls at 20 ns: both products are 0 from 21 to 22 ns, and the sum a gate later.
  expect(glitch).toMatchObject({ from: 22_000, to: 23_000 });
  session.undo();
  expect(session.state.lesson.settings.delays).toBe('zero');
  expect(timeSetupOf(session).stimuli).toEqual([]);
  showHazard(session, ['North', 'Gone'], 0, 0);
  expect(timeSetupOf(session).stimuli).toEqual([]);
});

test('what only looks otherwise leaves the run as it is', () => {
  const session = toggling();
  session.time.stepHalf();
  session.time.stepHalf();
  const { now } = session.state;
  setTimeSetup(session, { hidden: [partOf(session, 'Clk')] }, 'hide a lane');
  expect(session.state.now).toBe(now);
});

test('what is expected of the outputs is kept with the stimulus, and drives nothing', () => {
  const session = drawn('Sum = A xor B');
  keepExpected(session);
  expect(timeSetupOf(session).stimuli).toEqual([]);
  driveThroughAll(session, 10_000);
  settle(session);
  const { trace } = session;
  keepExpected(session);
  // The run, and all that it knows, stay as they are.
  expect(session.trace).toBe(trace);
  expect(session.state.now).toBe(40_000);
  const [stimulus] = timeSetupOf(session).stimuli;
  expect(stimulus!.expected).toEqual({
    until: 40_000,
    outputs: [{ part: session.state.netlist.outputs[0]!.part, course: '0:0 10000:1 30000:0' }],
  });
  // It goes into the file and comes back, and is one step of undo.
  const read = readLesson(writeLesson(session.state.lesson));
  expect(read.ok && read.value.sheets[0]!.time!.stimuli[0]!.expected).toEqual(stimulus!.expected);
  session.undo();
  expect(timeSetupOf(session).stimuli[0]!.expected).toBeUndefined();
  expect(session.trace).toBe(trace);
  session.redo();
  forgetExpected(session);
  expect(timeSetupOf(session).stimuli[0]!.expected).toBeUndefined();
});

test('a clock that a stimulus gives sets the pace as a clock on the sheet does', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Push');
  s.place('dff', 10, 0, 'Turn');
  s.place('lamp', 24, 0, 'Lit');
  s.wire('switch1.Y', 'dff1.C');
  s.wire('dff1.Q', 'lamp1.A');
  const session = new Session(s.lesson);
  expect(shortestPeriod(session.state.netlist)).toBeNull();
  const wave = { ...DEFAULT_WAVE, pattern: 'periodic', step: 250_000, high: 125_000 } as const;
  putStimulus(session, { name: 'Pushed', inputs: [{ part: 'switch1', wave }] }, 'push');
  expect(shortestPeriod(session.state.netlist)).toBe(250_000);
  expect(session.state.pace).toBe(1_000_000);
});

test('as fast as it goes, no frame in which the faces are told or paint has a run in it', () => {
  const session = toggling();
  session.time.setPace(AS_FAST);
  session.time.play(true);
  session.time.tick(16);
  const frames = Array.from({ length: 60 }, () => {
    const [time, now] = [session.time.run.time, session.state.now];
    session.time.tick(16);
    return { runs: session.time.run.time !== time, tells: session.state.now !== now };
  });
  const told = frames.flatMap(({ tells }, i) => (tells ? [i] : []));
  expect(told.length).toBeGreaterThan(5);
  for (const i of told) {
    expect(frames[i]!.runs).toBe(false);
    if (i + 1 < frames.length) expect(frames[i + 1]).toEqual({ runs: false, tells: false });
  }
  // The others all have.
  expect(frames.filter(({ runs }) => runs).length).toBeGreaterThan(35);
  session.time.play(false);
});
