import { type Exercise, ORDERS, type Task, TELLS } from '../circuit/exercise';
import { list, type Schema, text, title, whole, z } from '../values/schema';
import { GivenCircuit } from './given-schema';
import { TASK_KINDS } from './kinds';
import type { TaskKind } from './kinds/task-kind';

/** Most pictures in the words of a task. */
export const MOST_PICTURES = 8;

/** Most tasks of an exercise. */
export const MOST_TASKS = 60;

export const TaskId = z.string().check(
  z.regex(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, 'an id is letters, digits, - and _, at most 40'),
  // Work is kept by these ids, in plain objects.
  z.refine((id) => !(id in Object.prototype), 'this word cannot be an id'),
);

const Base64Url = text(200_000).check(z.regex(/^[A-Za-z0-9_-]+$/, 'a sealed answer is base64url'));

const Digits = z.string().check(z.regex(/^[A-Za-z0-9_-]{16,100}$/, 'a digest is base64url'));

/** A task of one kind. */
const taskOf = ({ kind, asked, key }: Pick<TaskKind, 'kind' | 'asked' | 'key'>) =>
  z.object({
    id: TaskId,
    kind: z.literal(kind),
    title: title(120, 'the task has no title'),
    words: text(20_000),
    pictures: z.optional(list(z.object({ name: title(60), circuit: GivenCircuit }), MOST_PICTURES)),
    points: z.number().check(z.minimum(0), z.maximum(1000)),
    tells: z.enum(TELLS),
    tries: z.nullable(whole(1, 99)),
    given: z.nullable(GivenCircuit),
    asked,
    key: z.nullable(key),
    sealed: z.optional(z.object({ to: Base64Url, box: Base64Url })),
    digest: z.optional(z.object({ salt: Digits, hash: Digits })),
  });

type TaskSchema = ReturnType<typeof taskOf>;

const KINDS = TASK_KINDS as unknown as readonly TaskKind[];

/** A task in a file, of any kind, told apart by `kind`. */
export const AnyTask = z.discriminatedUnion(
  'kind',
  KINDS.map(taskOf) as [TaskSchema, ...TaskSchema[]],
) as unknown as Schema<Task>;

/** What does not fit between the places in which a wanted answer can stand, else null. */
function whyKeyIsStrange({ key, sealed, digest }: Pick<Task, 'key' | 'sealed' | 'digest'>): string | null {
  if (digest && !sealed) return 'it has a digest of its wanted answer, and no sealed answer';
  if (key === null) return sealed && !digest ? null : 'its wanted answer is missing';
  return sealed && !digest ? 'its wanted answer is there twice, sealed and open' : null;
}

/** The content of an exercise file, without its heading. */
export const ExerciseSchema = z
  .object({
    id: z.string().check(z.regex(/^[a-z0-9-]{4,64}$/i)),
    title: title(120, 'the exercise has no title'),
    words: text(20_000),
    edition: whole(1, 1_000_000),
    made: z.datetime(),
    order: z.enum(ORDERS),
    tasks: z
      .array(AnyTask)
      .check(z.minLength(1, 'an exercise has at least one task'), z.maxLength(MOST_TASKS)),
  })
  .check((context) => {
    for (const [i, task] of context.value.tasks.entries()) {
      const message = whyKeyIsStrange(task);
      if (message)
        context.issues.push({ code: 'custom', message, path: ['tasks', i, 'key'], input: context.value });
    }
    const ids = context.value.tasks.map((t) => t.id);
    for (const [i, id] of ids.entries())
      if (ids.indexOf(id) !== i)
        context.issues.push({
          code: 'custom',
          message: `two tasks have the id ${id}`,
          path: ['tasks', i],
          input: context.value,
        });
  }) as unknown as Schema<Exercise>;

/** A student's answer in a file, of any kind. */
const AnyAnswer = z.discriminatedUnion('kind', KINDS.flatMap(({ answer }) => answer ?? []) as never);

/** A student's work at an exercise in a file. */
export const WorkSchema = z.object({
  tasks: z.record(TaskId, z.object({ sheet: text(64), answer: z.nullable(AnyAnswer) })),
  checks: z._default(z.record(TaskId, z.object({ count: whole(0, 1_000_000), solved: z.boolean() })), {}),
});
