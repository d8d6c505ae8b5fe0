import type { Exercise, Expected, Task } from '../circuit/exercise';

/** A task to build a circuit. */
export const buildTask = (key: Expected, parts: readonly string[], more: Partial<Task> = {}): Task => ({
  id: 'task1',
  kind: 'build',
  title: 'T',
  words: '',
  points: 1,
  tells: 'wanted',
  tries: null,
  given: null,
  asked: { parts, drawing: 'free', blocks: [], limits: {}, standIn: null },
  key,
  ...more,
});

/** An exercise of some tasks. */
export const exerciseOf = (tasks: readonly Task[], more: Partial<Exercise> = {}): Exercise => ({
  id: 'exercise-1',
  title: 'T',
  words: '',
  edition: 1,
  made: '2026-09-01T08:00:00.000Z',
  order: 'free',
  tasks,
  ...more,
});
