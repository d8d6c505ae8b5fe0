import fc from 'fast-check';
import type { Answer, Task } from '../circuit/exercise';
import { buildTask, exerciseOf } from '../testing/exercises';
import { randomSheet } from '../testing/random-circuit';
import { begunWork } from './begin';
import { tableOfSheet } from './expected/table/expected-table';
import { taskKindOf } from './kinds';
import type { Mark } from './kinds/task-kind';
import { guessingTime, secrecyOf, secrecyText } from './sealed';
import { digestOf, verdictsOn } from './verdicts';

const heading = buildTask({ kind: 'table' }, [], { tells: 'verdict' });
const solution = (answer: Answer | null) => ({ sheet: begun, sheets: [begun], answer, builtIn: () => [] });
const begun = begunWork(exerciseOf([heading]), 'work').sheets[0]!;

const table = (cells: readonly string[]): Task => ({
  ...heading,
  kind: 'table',
  asked: {
    rows: cells.length,
    columns: [{ name: 'Y', cells: null, isInput: false }],
    values: ['0', '1'],
    isPredicted: false,
  },
  key: { columns: [cells] },
});
const formula = (rows: string): Task => ({
  ...heading,
  kind: 'formula',
  asked: { inputs: ['A', 'B'], output: 'Y', form: 'any', mostLiterals: null, showsTable: false },
  key: { function: { inputs: ['A', 'B'], output: 'Y', rows } },
});
const diagram = (levels: string): Task => ({
  ...heading,
  kind: 'diagram',
  asked: { cell: 10, cells: levels.length, lanes: [{ name: 'Q', levels: null }], isPredicted: false },
  key: { lanes: [levels] },
});

/** The text of an answer that is held against the digest of a task. */
function textOf(task: Task, answer: Answer | null, sheet = begun): string | null {
  const kind = taskKindOf(task);
  const blank = { ...task, key: kind.hashed!.blank(task) };
  const mark: Mark = kind.mark(blank, { ...solution(answer), sheet, sheets: [sheet] });
  return kind.hashed!.given(blank, mark);
}
const wantedOf = (task: Task) => taskKindOf(task).hashed!.wanted(task);

/** Letters of answers with don't-cares among them, at least one cared for. */
const letters = fc
  .array(fc.constantFrom('0', '1', 'x'), { minLength: 4, maxLength: 4 })
  .map((all) => all.join(''))
  .filter((all) => /[01]/.test(all));

test('the text of an answer is the wanted one exactly where the answer is right', () => {
  fc.assert(
    fc.property(letters, letters, (wanted, given) => {
      const levels = given.replaceAll('x', '1');
      const isRight = [...wanted].every((w, i) => w === 'x' || w === levels[i]);
      const lanes = { kind: 'diagram', lanes: [levels] } as Answer;
      expect(textOf(diagram(wanted), lanes) === wantedOf(diagram(wanted))).toBe(isRight);
      const cells = { kind: 'table', columns: [[...given]], isFinal: false } as Answer;
      expect(textOf(table([...wanted]), cells) === wantedOf(table([...wanted]))).toBe(wanted === given);
      const terms = [...levels].flatMap((l, row) =>
        l === '1' ? [`(${row & 2 ? 'A' : '¬A'} ∧ ${row & 1 ? 'B' : '¬B'})`] : [],
      );
      const typed = { kind: 'formula', text: terms.join(' ∨ ') || '0' } as Answer;
      expect(textOf(formula(wanted), typed) === wantedOf(formula(wanted))).toBe(isRight);
    }),
    { numRuns: 200 },
  );
});

test('a circuit is right by its rows alone, and by no others', () => {
  fc.assert(
    fc.property(randomSheet({ inputs: 3, gates: 6 }), fc.nat(), fc.boolean(), (sheet, at, isOpen) => {
      const own = tableOfSheet(sheet, [sheet]);
      if (!own.ok) return;
      const [first, ...others] = own.value.outputs;
      const row = at % first!.rows.length;
      const turned = (to: string) => ({
        ...own.value,
        outputs: [
          { ...first!, rows: first!.rows.slice(0, row) + to + first!.rows.slice(row + 1) },
          ...others,
        ],
      });
      const kinds = [...sheet.parts.values()].map(({ kind }) => kind);
      const task = (key: typeof own.value) => buildTask(key, kinds, { tells: 'verdict' });
      const right = task(isOpen ? turned('x') : own.value);
      expect(textOf(right, null, sheet)).toBe(wantedOf(right));
      const other = task(turned(first!.rows[row] === '1' ? '0' : '1'));
      expect(textOf(other, null, sheet)).not.toBe(wantedOf(other));
    }),
    { numRuns: 40 },
  );
});

test('a blank holds no bit of the answer', () => {
  for (const make of [formula, diagram, (wanted: string) => table([...wanted])]) {
    const [a, b] = ['0110', '1011'].map((wanted) => {
      const task = make(wanted);
      return taskKindOf(task).hashed!.blank(task);
    });
    expect(a).toEqual(b);
  }
});

test('digests of one answer differ, and each takes that answer alone', async () => {
  const [a, b] = [await digestOf('0110'), await digestOf('0110')];
  expect(a.salt).not.toBe(b.salt);
  expect(a.hash).not.toBe(b.hash);
  const task = { ...diagram('01'), key: { lanes: ['00'] }, digest: await digestOf('01') };
  const lesson = begunWork(exerciseOf([task]), 'work');
  const answered = (lanes: string) => ({
    ...lesson,
    work: {
      ...lesson.work!,
      tasks: { task1: { sheet: 'task1', answer: { kind: 'diagram', lanes: [lanes] } as Answer } },
    },
  });
  expect((await verdictsOn([task], answered('01')))(task.digest, '01')).toBe(true);
  expect((await verdictsOn([task], answered('10')))(task.digest, '10')).toBe(false);
});

test('what a file keeps secret is said with the time that guessing takes', () => {
  expect([2, 8, 16, 32, 70].map(guessingTime)).toEqual([
    'a second',
    '26 seconds',
    '2 hours',
    '14 years',
    'more than a thousand years',
  ]);
  expect(secrecyText(diagram('01x1'))).toBe(
    'Only a slow hash of the answer stands in the file. Whoever can check can try: all 8 answers are tried in a second.',
  );
  expect(secrecyText({ ...diagram('01'), tells: 'places' })).toBe(
    'The wanted answer can be read by one who takes the file apart.',
  );
  const near = {
    ...heading,
    kind: 'number',
    asked: { quantity: 'time', bits: null },
    key: { value: '5 ns', tolerance: 0.1 },
  };
  expect(secrecyOf(near)).toBe('open');
  expect(secrecyText(near)).toContain('many right answers; the wanted answer can be read');
  expect(secrecyText({ ...near, tells: 'nothing' })).toContain('sealed to your key');
});
