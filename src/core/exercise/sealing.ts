import type { Exercise, Task } from '../circuit/exercise';
import { type KeyPair, seal, unseal } from '../sealing/seal';
import { done, type Result, refusal, refused, within } from '../values/result';
import { firstIssue } from '../values/schema';
import { taskKindOf, withCircuits } from './kinds';
import { isToSeal, secrecyOf } from './sealed';
import { digestOf } from './verdicts';

/**
 * An exercise as it is handed out: where a check tells nothing, the wanted answer is sealed to the teacher's key; where it tells
 * “right or not yet”, a digest stands there as well. Slow: a tenth of a second or two for each digest.
 */
export async function sealedExercise(exercise: Exercise, publicKey: string): Promise<Exercise> {
  const tasks: Task[] = [];
  for (const task of exercise.tasks) tasks.push(await sealedTask(task, publicKey));
  return { ...exercise, tasks };
}

async function sealedTask(task: Task, publicKey: string): Promise<Task> {
  if (!isToSeal(task)) return task;
  const { openPart, hashed } = taskKindOf(task);
  const sealed = { to: publicKey, box: seal(JSON.stringify(task.key), publicKey) };
  if (secrecyOf(task) === 'sealed')
    return { ...task, asked: openPart?.(task) ?? task.asked, key: null, sealed };
  const digest = await digestOf(hashed!.wanted(task));
  return { ...task, key: hashed!.blank(task), sealed, digest };
}

/** The exercise with its wanted answers again; refused where a task is sealed to another key. */
export function unsealedExercise(exercise: Exercise, keys: KeyPair): Result<Exercise> {
  const tasks: Task[] = [];
  for (const task of exercise.tasks) {
    if (!task.sealed) {
      tasks.push(task);
      continue;
    }
    const opened = unseal(task.sealed.box, keys);
    if (!opened.ok) return refusal(within(`“${task.title}”`, opened.problem));
    const key = keyIn(task, opened.value);
    if (!key.ok) return key;
    const { sealed: _, digest: __, ...open } = task;
    tasks.push({ ...open, key: key.value });
  }
  return done({ ...exercise, tasks });
}

function keyIn(task: Task, text: string): Result<unknown> {
  try {
    const where = `what is sealed in “${task.title}”`;
    const read = taskKindOf(task).key.safeParse(JSON.parse(text));
    if (!read.success) return refusal(within(where, firstIssue(read.error)));
    const whole = withCircuits({ ...task, key: read.data });
    return whole.ok ? done(whole.value.key) : refusal(within(where, whole.problem));
  } catch {
    return refused('damaged', `what is sealed in “${task.title}” is damaged`);
  }
}
