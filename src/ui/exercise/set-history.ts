import type { Exercise, Task } from '@/core/circuit/exercise';

/** What an exercise was, is, and was before it was undone. */
export interface SetHistory {
  readonly past: readonly Exercise[];
  readonly now: Exercise;
  readonly future: readonly Exercise[];
  /** The text that the last step typed, so that what is typed on belongs to it; null for any other step. */
  readonly typing: string | null;
}

/** Steps that can be undone, at most. */
const MOST_STEPS = 200;

export const begun = (now: Exercise): SetHistory => ({ past: [], now, future: [], typing: null });

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
export function changed({ past, now, typing }: SetHistory, next: Exercise): SetHistory {
  const typed = typedIn(now, next);
  const goesOn = typed !== null && typed === typing;
  return {
    past: goesOn ? past : [...past, now].slice(-MOST_STEPS),
    now: next,
    future: [],
    typing: typed,
  };
}

/** The history one step back; the same where there is none. */
export function undone(history: SetHistory): SetHistory {
  const { past, now, future } = history;
  const before = past.at(-1);
  return before ? { past: past.slice(0, -1), now: before, future: [now, ...future], typing: null } : history;
}

/** The history one step forward again; the same where there is none. */
export function redone(history: SetHistory): SetHistory {
  const { past, now, future } = history;
  const [next, ...rest] = future;
  return next ? { past: [...past, now], now: next, future: rest, typing: null } : history;
}
