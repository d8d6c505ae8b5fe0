import type { Exercise, Task, TaskPicture, Tells } from '@/core/circuit/exercise';
import { AnyTask, ExerciseSchema } from '@/core/exercise/exercise-schema';
import { taskKindOf } from '@/core/exercise/kinds';
import { done, located, type Result, refusal } from '@/core/values/result';
import { firstIssue } from '@/core/values/schema';
import { randomId } from '@/store/database';
import type { TaskBody } from './forms/task-form';

/** What stands above every kind of task. */
export interface TaskHeading {
  readonly title: string;
  readonly words: string;
  readonly pictures?: readonly TaskPicture[] | undefined;
  readonly points: number;
  readonly tells: Tells;
  readonly tries: number | null;
}

/** A heading as it is usually begun. */
export const headingFor = (title: string): TaskHeading => ({
  title,
  words: '',
  points: 1,
  tells: 'wanted',
  tries: null,
});

/** The lowest number whose id no task has: ids stay when tasks are moved or go. */
function freeId(tasks: readonly Task[]): string {
  for (let n = tasks.length + 1; ; n++) if (!tasks.some(({ id }) => id === `task${n}`)) return `task${n}`;
}

/** A task of a kind with a heading; refused with the first thing that does not fit. */
export function taskOf(
  kind: string,
  heading: TaskHeading,
  body: TaskBody,
  among: readonly Task[] = [],
): Result<Task> {
  // A picture that is no longer named would only make the link longer.
  const named = heading.pictures?.filter(({ name }) => heading.words.includes(`![${name}]`));
  const pictures = named && named.length > 0 ? { pictures: named } : { pictures: undefined };
  const tells = taskKindOf({ kind }).isMarkedByHand ? 'nothing' : heading.tells;
  const made = AnyTask.safeParse({ id: freeId(among), kind, ...heading, ...pictures, tells, ...body });
  return made.success ? done(made.data) : refusal(located(firstIssue(made.error)));
}

/** A new exercise of some tasks. */
export function exerciseOf(title: string, tasks: readonly Task[]): Result<Exercise> {
  const made = ExerciseSchema.safeParse({
    id: randomId(),
    title,
    words: '',
    edition: 1,
    made: new Date().toISOString(),
    order: 'free',
    tasks,
  });
  return made.success ? done(made.data) : refusal(firstIssue(made.error));
}
