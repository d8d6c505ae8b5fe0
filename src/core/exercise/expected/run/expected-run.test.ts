import fc from 'fast-check';
import { DEFAULT_WAVE } from '../../../circuit/default-wave';
import type { Stimulus } from '../../../circuit/time-setup';
import { compile } from '../../../netlist/compile';
import { buildTask } from '../../../testing/exercises';
import { randomDesign } from '../../../testing/random-design';
import { Sketch } from '../../../testing/sketch';
import { expectDone } from '../../../values/result';
import { check } from '../../check';
import { isAsExpected, readingText } from '../../expected-rows';
import { type BuildTask, partsAllowed } from '../../kinds/build';
import { run } from '.';
import { ExpectedRun, runOfSheet } from './expected-run';
import { readingTurned } from './set-up';

const NONE: ReadonlySet<string> = new Set();
const ALLOWED = ['tff', 'dff', 'constant', 'clock', 'not', 'join', 'register', 'button'];

/** A clock of 100 MHz, high for the second half of each 10 ns, at a flip-flop that turns over. */
function divider(): Sketch {
  const s = new Sketch();
  s.place('clock', 0, 8, 'Clk', { hertz: 1e8 });
  s.place('switch', 0, 0, 'Turn');
  s.place('tff', 12, 4);
  s.place('lamp', 24, 2, 'Half');
  s.wire('switch1.Y', 'tff1.T');
  s.wire('clock1.Y', 'tff1.C');
  s.wire('tff1.Q', 'lamp1.A');
  return s;
}

function runOf(s: Sketch, count: number, stimulus: Stimulus | null = null, on = NONE): ExpectedRun {
  const made = runOfSheet(s.sheet, s.lesson, stimulus, on, count);
  return expectDone(made).expected;
}

const allowedFor = (expected: ExpectedRun, parts: readonly string[] = ALLOWED) =>
  partsAllowed(buildTask(expected, parts) as BuildTask);
const checked = (s: Sketch, expected: ExpectedRun) => check(s.sheet, expected, allowedFor(expected));

test('a clocked sheet is read just before each active edge', () => {
  const expected = runOf(divider(), 6, null, new Set(['switch1:0', 'switch1']));
  expect(expected.readings).toEqual([4999, 14_999, 24_999, 34_999, 44_999, 54_999]);
  expect(expected.outputs).toEqual([{ name: 'Half', width: 1, values: ['0', '1', '0', '1', '0', '1'] }]);
  const { inputs, when, input, rows } = run.rows(expected);
  expect([inputs, rows, when!(1), input(0, 3)]).toEqual([['Turn'], 6, '15 ns', '1']);
});

test('a stimulus drives what it names, and the other inputs stay as they are', () => {
  const levels = { ...DEFAULT_WAVE, data: '0 1, 20 0' };
  const stimulus = { name: 'First two', inputs: [{ part: 'switch1', wave: levels }] };
  expect(runOf(divider(), 5, stimulus).outputs[0]!.values).toEqual(['0', '1', '0', '0', '0']);
});

test('without a clock it is read before each change, and once behind the last', () => {
  const s = new Sketch();
  s.place('switch', 0, 0, 'In');
  s.place('not', 10, 0);
  s.place('lamp', 20, 0, 'Out');
  s.wire('switch1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp1.A');
  const stimulus = {
    name: 'Moments',
    inputs: [{ part: 'switch1', wave: { ...DEFAULT_WAVE, data: '10 1, 30 0' } }],
  };
  const expected = runOf(s, 16, stimulus);
  expect(expected.readings).toEqual([9999, 29_999, 49_999]);
  expect(expected.outputs[0]!.values).toEqual(['1', '0', '1']);
});

test('a sheet solves its own run; another is right where it agrees, and is told what is missing', () => {
  const s = divider();
  const expected = runOf(s, 6, null, new Set(['switch1:0', 'switch1']));
  expect(checked(s, expected)).toMatchObject({
    right: 6,
    rows: 6,
    complaints: [],
    solved: true,
  });

  const other = new Sketch();
  other.place('clock', 0, 0, 'clk ', { hertz: 1 });
  other.place('lamp', 20, 0, 'Half', { width: 2 });
  other.wire('clock1.Y', 'lamp1.A');
  const { complaints, solved, right } = checked(other, expected);
  expect([solved, right]).toEqual([false, 0]);
  expect(complaints).toContain('The input “Turn” is missing.');
  expect(complaints).toContain('The output “Half” has 2 bits here, and 1 in the task.');
});

test('an output that stays where it is has some readings right, and an x takes either', () => {
  const s = divider();
  const expected = runOf(s, 6, null, new Set(['switch1:0', 'switch1']));
  const still = new Sketch();
  still.place('switch', 0, 0, 'Turn');
  still.place('clock', 0, 6, 'Clk');
  still.place('constant', 0, 12);
  still.place('lamp', 20, 0, 'Half');
  still.wire('constant1.Y', 'lamp1.A');
  const before = checked(still, expected);
  expect(before.rowIsRight.filter(Boolean)).toHaveLength(3);
  const first = before.rowIsRight.indexOf(false);
  const turned = readingTurned(expected, expected, 0, first);
  expect(checked(still, turned).right).toBe(4);
  expect(readingTurned(turned, expected, 0, first)).toEqual(expected);
});

test('what swings by itself is stopped, on both sides', () => {
  const s = divider();
  s.place('not', 40, 0);
  s.place('lamp', 50, 0, 'Swing');
  s.wire('not1.Y', 'not1.A');
  s.wire('not1.Y', 'lamp2.A');
  const lesson = { ...s.lesson, settings: { ...s.lesson.settings, delays: 'unit' as const } };
  s.lesson = { ...lesson, sheets: lesson.sheets };
  const slow = {
    name: 'Slow',
    inputs: [
      { part: 'clock1', wave: { ...DEFAULT_WAVE, pattern: 'periodic' as const, step: 1e12, high: 5e11 } },
    ],
  };
  expect(runOfSheet(s.sheet, s.lesson, slow, NONE, 4)).toMatchObject({
    ok: false,
    problem: { message: expect.stringContaining('of 4 readings come within 250,000 steps') },
  });
  const expected = { ...runOf(divider(), 4, { name: 'Slow', inputs: slow.inputs }), delays: 'unit' as const };
  const oscillating = divider();
  oscillating.place('not', 40, 0);
  oscillating.wire('not1.Y', 'not1.A');
  expect(checked(oscillating, expected).complaints.join()).toContain('something in the circuit oscillates');
});

test('a stimulus that changes a million times between two readings, without a change, is stopped as well', () => {
  const expected = runOf(divider(), 4);
  const still = { ...DEFAULT_WAVE, pattern: 'bits' as const, data: '00', step: 1, repeat: true };
  const hostile: ExpectedRun = {
    ...expected,
    inputs: expected.inputs.map((input) => ({ ...input, wave: still })),
    readings: [1, 2, 3, 4].map((s) => s * 1e12),
  };
  const { complaints, right } = checked(divider(), hostile);
  expect(right).toBe(0);
  expect(complaints.join()).toContain('After 0 of 4 readings the run was stopped');
});

test.each([
  [0, 'give a number of readings from 1 to 1000'],
  [1001, 'give a number of readings from 1 to 1000'],
  [1.5, 'give a number of readings from 1 to 1000'],
])('%d readings are refused', (count, problem) => {
  const s = divider();
  expect(runOfSheet(s.sheet, s.lesson, null, NONE, count)).toMatchObject({
    ok: false,
    problem: { message: problem },
  });
});

test('a sheet without inputs or outputs says what to place', () => {
  const s = new Sketch();
  expect(runOfSheet(s.sheet, s.lesson, null, NONE, 4)).toMatchObject({
    problem: { code: 'no-input' },
  });
  s.place('switch', 0, 0);
  expect(runOfSheet(s.sheet, s.lesson, null, NONE, 4)).toMatchObject({
    problem: { code: 'no-output' },
  });
});

test('what does not fit together is refused with the place', () => {
  const expected = runOf(divider(), 4);
  const complaint = (change: Partial<ExpectedRun>) => {
    const read = ExpectedRun.safeParse({ ...expected, ...change });
    return read.success ? null : `${read.error.issues[0]!.path.join('.')}: ${read.error.issues[0]!.message}`;
  };
  const [half] = expected.outputs;
  expect(complaint({})).toBeNull();
  expect(complaint({ readings: [1, 2, 2, 3] })).toBe(
    'readings.2: readings stand in the order of time, each once',
  );
  expect(complaint({ outputs: [{ ...half!, values: ['0'] }] })).toBe(
    'outputs.0: Half has 1 values where 4 are needed',
  );
  expect(complaint({ outputs: [{ ...half!, width: 2 }] })).toBe(
    'outputs.0: Half has a value that is not of 2 bits',
  );
  expect(complaint({ outputs: [{ ...half!, name: 'Turn' }] })).toBe(': the name Turn stands twice');
});

test('every design with storage solves its own run, whatever drives it', () => {
  let made = 0;
  fc.assert(
    fc.property(
      randomDesign({ storage: true, loops: false, blocks: true }, 12),
      fc.integer({ min: 0, max: 999 }),
      fc.constantFrom('zero' as const, 'unit' as const, 'parts' as const),
      (design, seed, delays) => {
        const lesson = { ...design, settings: { ...design.settings, delays } };
        const sheet = lesson.sheets[0]!;
        const inputs = compile(sheet, lesson.sheets).inputs.map(({ part }, i) => ({
          part,
          wave: { ...DEFAULT_WAVE, pattern: 'random' as const, step: 100_000, seed: seed + i },
        }));
        const own = runOfSheet(sheet, lesson, { name: 'Random', inputs }, NONE, 12);
        if (!own.ok) return;
        const { expected } = own.value;
        made++;
        expect(check(sheet, expected, allowedFor(expected), lesson.sheets).right).toBe(12);
        const [output] = expected.outputs;
        const other = output!.values.map((v) => [...v].map((b) => (b === '0' ? '1' : '0')).join(''));
        const outputs = [{ ...output!, values: other }, ...expected.outputs.slice(1)];
        const changed: ExpectedRun = { ...expected, outputs };
        const wrong = check(sheet, changed, allowedFor(expected), lesson.sheets);
        expect(wrong.right).toBe(0);
      },
    ),
    { numRuns: 150 },
  );
  expect(made).toBeGreaterThan(75);
});

test('a clock may be placed where an input goes up and down by itself', () => {
  const expected = runOf(divider(), 4);
  expect(allowedFor(expected, [])).toEqual(new Set(['clock']));
  const plain = { ...expected, inputs: expected.inputs.filter((i) => i.name !== 'Clk') };
  expect(allowedFor(plain, [])).toEqual(new Set());
});

test('words of bits are told as numbers, and compared bit by bit', () => {
  expect(['1', 'x', '0110', '01x0', '-'].map(readingText)).toEqual(['1', 'x', '6', '01x0', '-']);
  fc.assert(
    fc.property(fc.array(fc.constantFrom('0', '1', 'x'), { minLength: 1, maxLength: 9 }), (want) => {
      const given = want.map((w) => (w === 'x' ? '1' : w)).join('');
      expect(isAsExpected(want.join(''), given)).toBe(true);
      const at = want.findIndex((w) => w !== 'x');
      if (at === -1) return;
      const other = [...given].with(at, given[at] === '0' ? '1' : '0').join('');
      expect(isAsExpected(want.join(''), other)).toBe(false);
      expect(isAsExpected(want.join(''), '-')).toBe(false);
    }),
  );
});
