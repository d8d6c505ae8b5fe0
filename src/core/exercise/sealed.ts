import type { Task } from '../circuit/exercise';
import { taskKindOf } from './kinds';

/** Whether the wanted answer of a task is sealed. */
export const isSealed = ({ sealed }: Task): boolean => sealed !== undefined;

/** Why the wanted answer of a task cannot be sealed, as a clause; null where it can. */
export const whyNotSealed = (task: Task): string | null => taskKindOf(task).unsealable?.(task) ?? null;

/** Whether a task is sealed when it is handed out: students learn nothing of its answer before it is marked. */
export const isToSeal = (task: Task): boolean =>
  task.tells === 'nothing' && !isSealed(task) && whyNotSealed(task) === null;
