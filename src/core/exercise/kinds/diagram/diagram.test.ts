import fc from 'fast-check';
import { DEFAULT_WAVE } from '../../../circuit/default-wave';
import { DEFAULT_SETTINGS } from '../../../circuit/sheet';
import { NO_TIME_SETUP } from '../../../circuit/time-setup';
import { randomSheet } from '../../../testing/random-circuit';
import { interlock, Sketch } from '../../../testing/sketch';
import { expectDone } from '../../../values/result';
import { excerptFor } from '../../begin';
import { type DiagramAnswer, type DiagramTask, diagram, drawn, spansOf } from '.';
import { diagramTask, type WholeDiagram, wholeDiagram } from './set-up';

const NONE: ReadonlySet<string> = new Set();
const solution = (answer: DiagramAnswer | null) => ({
  sheet: interlock().sheet,
  sheets: [],
  answer,
  builtIn: () => [],
});
const outputsOf = ({ lanes }: WholeDiagram) =>
  new Set(lanes.filter(({ isInput }) => !isInput).map(({ name }) => name));
const taskFor = (whole: WholeDiagram, asked = outputsOf(whole)): DiagramTask => ({
  id: 'task1',
  kind: 'diagram',
  title: 'T',
  words: '',
  points: 1,
  tells: 'wanted',
  tries: null,
  given: null,
  ...diagramTask(whole, asked, false),
});

/** A clock of 2 Hz at a flip-flop that turns over at each edge. */
function divider(): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 8, 'Clk', { hertz: 2 });
  s.place('constant', 0, 0, '', { value: 1 });
  s.place('tff', 12, 4);
  s.place('lamp', 24, 2, 'Half');
  s.wire('constant1.Y', 'tff1.T');
  s.wire('clock1.Y', 'tff1.C');
  s.wire('tff1.Q', 'lamp1.A');
  return s;
}

test('a clocked sheet is read in half periods', () => {
  const s = divider();
  const whole = expectDone(wholeDiagram(s.sheet, s.lesson.sheets, DEFAULT_SETTINGS, NONE, 8));
  expect(whole).toEqual({
    cell: 250e9,
    cells: 8,
    lanes: [
      { name: 'Clk', isInput: true, levels: '01010101' },
      { name: 'Half', isInput: false, levels: '01100110' },
    ],
  });
});

test('a cell may be a delay: what comes late is seen late', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  s.place('not', 8, 0);
  s.place('lamp', 16, 0, 'Out');
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const wave = { ...DEFAULT_WAVE, pattern: 'levels' as const, data: '4 1' };
  const stimulus = { name: 'Once', inputs: [{ part: 'switch1', wave }] };
  const sheet = { ...s.sheet, time: { ...NO_TIME_SETUP, stimuli: [stimulus], driven: 'Once' } };
  const settings = { ...DEFAULT_SETTINGS, delays: 'unit' as const };
  const whole = expectDone(wholeDiagram(sheet, [sheet], settings, NONE, 8, 1000));
  expect(whole.lanes.map(({ levels }) => levels)).toEqual(['00001111', '11111000']);
});

test('what cannot be drawn is refused with what to do', () => {
  const { sheet } = interlock();
  expect(wholeDiagram(sheet, [sheet], DEFAULT_SETTINGS, NONE, 8)).toMatchObject({
    problem: { message: expect.stringContaining('place a clock, or choose a stimulus') },
  });
  const empty = new Sketch();
  expect(wholeDiagram(empty.sheet, [empty.sheet], DEFAULT_SETTINGS, NONE, 8)).toMatchObject({
    problem: { code: 'no-output' },
  });
});

test('its own lanes are right; a span that differs anywhere is wrong, and told with its times', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 3, gates: 8 }), fc.nat(1000), fc.nat(), (random, seed, at) => {
      const inputs = [...random.parts.values()].filter(({ kind }) => kind === 'switch');
      const wave = (i: number) => ({
        ...DEFAULT_WAVE,
        pattern: 'random' as const,
        step: 10_000,
        seed: seed + i,
      });
      const stimulus = { name: 'Any', inputs: inputs.map(({ id }, i) => ({ part: id, wave: wave(i) })) };
      const sheet = { ...random, time: { ...NO_TIME_SETUP, stimuli: [stimulus], driven: 'Any' } };
      const whole = expectDone(wholeDiagram(sheet, [sheet], DEFAULT_SETTINGS, NONE, 12, 10_000));
      const task = taskFor(whole);
      expect(diagram.strange(task)).toBeNull();
      const own: DiagramAnswer = { kind: 'diagram', lanes: task.key.lanes, isFinal: false };
      const mark = diagram.mark(task, solution(own));
      expect(mark).toMatchObject({ solved: true, wrong: null });
      const lane = at % task.key.lanes.length;
      const cell = at % 12;
      const levels = task.key.lanes[lane]!;
      if (levels[cell] === 'x') return;
      const turned = levels.slice(0, cell) + (levels[cell] === '1' ? '0' : '1') + levels.slice(cell + 1);
      const other = diagram.mark(task, solution({ ...own, lanes: own.lanes.with(lane, turned) }));
      expect(other).toMatchObject({ solved: false, right: mark.of - 1 });
      const wrong = other.detail.spans[lane]!.filter(({ isRight }) => !isRight);
      expect(wrong.map(({ from, to }) => from <= cell && cell < to)).toEqual([true]);
    }),
    { numRuns: 60 },
  );
});

test('spans are stretches of one level, and leave out what may be either', () => {
  expect(spansOf('0011x1')).toEqual([
    { from: 0, to: 2 },
    { from: 2, to: 4 },
    { from: 5, to: 6 },
  ]);
});

test('what is not drawn is told; strange cells of an answer count as not drawn', () => {
  const s = divider();
  const whole = expectDone(wholeDiagram(s.sheet, s.lesson.sheets, DEFAULT_SETTINGS, NONE, 4));
  const task = { ...taskFor(whole), given: excerptFor(s.sheet, s.lesson.sheets, DEFAULT_SETTINGS) };
  expect(diagram.mark(task, solution(null)).complaints).toEqual(['Nothing is drawn yet.']);
  const odd: DiagramAnswer = { kind: 'diagram', lanes: ['0?'], isFinal: false };
  expect(drawn(task, odd).lanes).toEqual(['0...']);
  expect(diagram.mark(task, solution(odd)).complaints).toEqual(['3 cells are not drawn yet.']);
  const predicted = { ...task, asked: { ...task.asked, isPredicted: true } };
  expect(diagram.rules(predicted, null).still).toContain('Observe');
  expect(diagram.rules(predicted, { ...odd, isFinal: true }).still).toBeNull();
  expect(diagram.strange({ ...task, key: { lanes: ['01'] } })).toBe('a lane has not 4 cells');
});
