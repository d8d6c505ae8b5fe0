import { begunWork } from '../exercise/begin';
import { foundText, type Returned, sumOf } from '../exercise/returned';
import { buildTask, exerciseOf } from '../testing/exercises';
import { expectDone } from '../values/result';
import { identify } from './read-content';
import { readReturned, writeReturned } from './returned-file';

const task = buildTask({ kind: 'table', inputs: ['A'], outputs: [{ name: 'Y', rows: '10' }] } as never, [
  'not',
]);
const exercise = exerciseOf([task]);
const returned: Returned = {
  name: 'Ada Sample',
  handedIn: '2026-09-02T08:00:00.000Z',
  returned: '2026-09-03T08:00:00.000Z',
  tasks: {
    task1: {
      points: 0.5,
      of: 1,
      solved: false,
      found: '1 of 2 rows right; wrong: row 0',
      complaints: ['OR is not allowed in this task, and 1 of it is used.'],
      remarks: [{ id: 'r1', text: 'Look at row 0.', points: -0.5, at: { part: 'not1' } }],
    },
  },
  lesson: begunWork(exercise, 'work'),
};

test('marked work comes back from its file as it was, and is known by its heading', () => {
  const text = writeReturned(returned);
  expect(expectDone(readReturned(text))).toEqual(returned);
  expect(expectDone(identify('anything.json', text, 'shelf')).format.id).toBe('returned');
  expect(identify('anything.json', text, 'marking')).toMatchObject({ ok: false });
  expect(sumOf(returned)).toEqual({ points: 0.5, of: 1 });
});

test('what is no marked work is refused with what is wrong', () => {
  const problem = (change: object) => {
    const read = readReturned(JSON.stringify({ ...JSON.parse(writeReturned(returned)), ...change }));
    return read.ok ? null : read.problem.message;
  };
  expect(problem({})).toBeNull();
  expect(problem({ name: '' })).toContain('the name is empty');
  expect(problem({ tasks: { constructor: {} } })).not.toBeNull();
  expect(problem({ tasks: { task1: { ...returned.tasks.task1, points: -1 } } })).toContain(
    'tasks › task1 › points',
  );
  expect(problem({ lesson: { ...JSON.parse(writeReturned(returned)).lesson, exercise: null } })).toContain(
    'answers no exercise',
  );
  expect(problem({ version: 99 })).not.toBeNull();
});

test('what was found is said in a line', () => {
  const mark = {
    right: 1,
    of: 2,
    word: 'row',
    complaints: [],
    solved: false,
    wrong: 'row 0',
    gist: '',
    detail: null,
  };
  expect(foundText({ mark })).toBe('1 of 2 rows right; wrong: row 0');
  expect(foundText({ mark: { ...mark, solved: true } })).toBe('right');
  expect(foundText({ mark: { ...mark, solved: null } })).toBe('');
  expect(foundText({ mark: { ...mark, of: 1, right: 0, wrong: null } })).toBe('not right');
});
