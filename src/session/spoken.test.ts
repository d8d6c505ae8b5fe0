import { DEFAULT_WAVE } from '@/core/circuit/default-wave';
import { interlock, Sketch } from '@/core/testing/sketch';
import { expectDone } from '@/core/values/result';
import { putStimulus } from './changes/time';
import { Session } from './session';
import { netOf, readingOrder, spokenPart } from './spoken';

const words = (session: Session, id: string) =>
  spokenPart(session.state, session.sheet, session.sheet.parts.get(id)!);

test('a part is said with its state and its neighbours', () => {
  const session = new Session(interlock().lesson);
  expect(words(session, 'and1')).toBe(
    'AND 1, three-input AND, from Key, Bars and Clear, output 0, drives Drive',
  );
  expect(words(session, 'switch1')).toBe('Key, switch, 0, drives AND 1 and AND 2');
  session.goToRow(5);
  expect(words(session, 'switch1')).toBe('Key, switch, 1, drives AND 1 and AND 2');
  expect(words(session, 'lamp2')).toBe('Warn, lamp, from AND 2, on');
  expect(words(session, 'lamp1')).toBe('Drive, lamp, from AND 1, shows 0');
});

test('a part says whether it is wired completely, and whether something is wrong', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Key');
  s.place('and', 10, 0);
  s.wire('switch1.Y', 'and1.A');
  expect(words(new Session(s.lesson), 'and1')).toMatch(/not wired completely$/);
  s.place('not', 0, 20);
  s.wire('switch1.Y', 'and1.B');
  s.wire('not1.Y', 'and1.B');
  expect(words(new Session(s.lesson), 'not1')).toMatch(/something is wrong here$/);
});

test('a sheet is read from its inputs over what lies between to its outputs', () => {
  const { sheet } = interlock();
  expect(readingOrder(sheet).map((p) => p.id)).toEqual([
    'switch1',
    'switch2',
    'switch3',
    'not1',
    'and1',
    'and2',
    'lamp1',
    'lamp2',
  ]);
});

test('a net has those that drive it and those that read it; a pin without a wire has none', () => {
  const s = interlock();
  const net = netOf(s.sheet, { part: 'switch1', port: 'Y' });
  expect(net?.drivers.map((p) => `${p.part.id}.${p.port}`)).toEqual(['switch1.Y']);
  expect(net?.readers.map((p) => `${p.part.id}.${p.port}`)).toEqual(['and1.A', 'and2.A']);
  const [wire] = s.sheet.wires.keys();
  expect(netOf(s.sheet, { wire: wire! })?.drivers).toEqual(net?.drivers);
  const alone = new Sketch();
  alone.place('not', 0, 0);
  expect(netOf(alone.sheet, { part: 'not1', port: 'A' })).toBeNull();
});

test('numbers are said in the radix in which they are shown', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'Level', { width: 8 });
  s.place('number', 20, 0, 'Signed', { width: 8, radix: 'signed' });
  s.wire('switch1.Y', 'number1.A');
  const session = new Session({ ...s.lesson, settings: { ...s.lesson.settings, buses: 'unsigned' } });
  session.flip('switch1', 7);
  expect(words(session, 'switch1')).toBe('Level, bank of 8 switches, 128, drives Signed');
  expect(words(session, 'number1')).toMatch(/, shows -128$/);
});

test('a clock that a stimulus drives is said so', () => {
  const s = new Sketch();
  s.place('clock', 0, 0, 'Clk', { hertz: 1 });
  const session = new Session(s.lesson);
  expect(words(session, 'clock1')).toMatch(/clock of 1 Hz/);
  const wave = { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 10_000, high: 5000, phase: 5000 };
  expectDone(putStimulus(session, { name: 'Ride', inputs: [{ part: 'clock1', wave }] }, 'add a stimulus'));
  expect(words(session, 'clock1')).toMatch(/clock driven by the stimulus, 100 MHz/);
});
