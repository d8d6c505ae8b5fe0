import { readFileSync } from 'node:fs';
import { LESSON_VERSION } from '../../circuit/lesson';
import { markAll } from '../../exercise/marking';
import { interlock } from '../../testing/sketch';
import { expectDone } from '../../values/result';
import { readExercise } from '../exercise-file';
import { readHandIn } from '../hand-in-file';
import { readLesson } from '../lesson-file';
import { writeLesson } from '../write-lesson';
import { EXERCISE_STEPS } from './exercise';
import { LESSON_STEPS } from './lesson';

const fixture = (name: string) => readFileSync(`src/core/formats/migrations/fixtures/${name}.json`, 'utf8');

test('each version but the newest has its step', () => {
  expect(LESSON_VERSION).toBe(LESSON_STEPS.length + 1);
});

describe('version 1', () => {
  test('an exercise says what is expected without a kind: it is a table', () => {
    const exercise = expectDone(readExercise(fixture('exercise.v1')));
    expect(exercise).toMatchObject({ edition: 1, order: 'free' });
    expect(exercise.tasks).toHaveLength(1);
    expect(exercise.tasks[0]!.key).toEqual({
      kind: 'table',
      inputs: ['Key', 'Bars', 'Clear'],
      outputs: [
        { name: 'Drive', rows: '00000001' },
        { name: 'Warn', rows: '00001100' },
      ],
    });
  });

  test('a hand-in is read with its circuit, and marked', () => {
    const exercise = expectDone(readExercise(fixture('exercise.v1')));
    const { lesson, name } = expectDone(readHandIn(fixture('hand-in.v1')));
    expect(name).toBe('Ben Sample');
    const [only] = markAll(exercise, lesson);
    expect(only!.mark).toMatchObject({ right: 7, of: 8, solved: false, wrong: 'row 6 (Warn)' });
  });

  test('the work at a run keeps its exercise', () => {
    const work = expectDone(readLesson(fixture('lesson-with-run.v1')));
    expect(work.exercise!.tasks[0]!.key).toMatchObject({ kind: 'run', readings: [999_999, 2_999_999] });
    expect(expectDone(readLesson(writeLesson(work)))).toEqual(work);
  });

  test('a lesson without an exercise stays as it is', () => {
    const { lesson } = interlock();
    const old = writeLesson(lesson).replace(`"version": ${LESSON_VERSION}`, '"version": 1');
    expect(expectDone(readLesson(old))).toEqual(lesson);
  });

  test.each([
    ['no exercise at all', { wanted: 7 }],
    ['a kind that never was', { wanted: { is: 'riddle', inputs: [], outputs: [] } }],
    ['nothing wanted', {}],
  ])('a damaged exercise is refused in one sentence: %s', (_, change) => {
    const file = JSON.parse(fixture('exercise.v1'));
    const { wanted: __, ...rest } = file;
    const read = readExercise(JSON.stringify({ ...rest, ...change }));
    expect(read).toMatchObject({
      ok: false,
      problem: { message: expect.stringMatching(/^at tasks › 1 › key/) },
    });
  });

  test('a version from the future is refused with what to do', () => {
    const future = fixture('exercise.v1').replace('"version": 1', `"version": ${EXERCISE_STEPS.length + 2}`);
    expect(readExercise(future)).toMatchObject({ problem: { code: 'newer-version' } });
  });
});
