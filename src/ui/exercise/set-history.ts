import type { Exercise, Task } from '@/core/circuit/exercise';
import type { Steps } from '@/ui/controls/steps-back';
import * as steps from '@/ui/controls/steps-back';

/** The steps of an exercise that is changed. */
export interface SetHistory extends Steps<Exercise> {
  /** The text field of the last step, to which further typing belongs; null if the last step typed nothing. */
  readonly typing: string | null;
}

export const begun = (now: Exercise): SetHistory => ({ ...steps.begun(now), typing: null });

const SET_TEXTS = ['title', 'words'] as const;
const TASK_TEXTS = ['title', 'words'] as const;

/** The text in which two versions differ and in nothing else, by a name; null where they differ otherwise. */
function typedIn(before: Exercise, after: Exercise): string | null {
  for (const text of SET_TEXTS)
    if (before[text] !== after[text]) return before.tasks === after.tasks ? text : null;
  if (before.tasks.length !== after.tasks.length || before.order !== after.order) return null;
  const other = after.tasks.filter((task, i) => task !== before.tasks[i]);
  const [task] = other;
  if (!task || other.length > 1) return null;
  const was = before.tasks.find(({ id }) => id === task.id);
  if (!was) return null;
  const differs = (Object.keys({ ...was, ...task }) as (keyof Task)[]).filter(
    (key) => was[key] !== task[key],
  );
  const text = TASK_TEXTS.find((key) => differs.length === 1 && differs[0] === key);
  return text ? `${task.id} ${text}` : null;
}

/** The history after a change; what is typed into one text is one step. */
export function changed(history: SetHistory, next: Exercise): SetHistory {
  const typed = typedIn(history.now, next);
  const goesOn = typed !== null && typed === history.typing;
  return { ...steps.stepped(history, next, goesOn), typing: typed };
}

const moved = (history: SetHistory, to: Steps<Exercise>): SetHistory =>
  to === history ? history : { ...to, typing: null };

/** The history one step back; the same where there is none. */
export const undone = (history: SetHistory): SetHistory => moved(history, steps.undone(history));

/** The history one step forward again; the same where there is none. */
export const redone = (history: SetHistory): SetHistory => moved(history, steps.redone(history));
