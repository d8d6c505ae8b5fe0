import type { Edit } from '@/core/circuit/edit';
import type { Answer, GivenCircuit, Task } from '@/core/circuit/exercise';
import { type Lesson, sheetOf } from '@/core/circuit/lesson';
import { standInSheets } from '@/core/exercise/begin';
import type { Mark } from '@/core/exercise/kinds/task-kind';
import { markTask, type Verdicts } from '@/core/exercise/marking';
import { DONE, done, type Result, refused } from '@/core/values/result';
import type { Session } from '../session';

/** The answer to a task as it stands in the lesson. */
export const answerNow = (session: Session, task: Task): Answer | null =>
  session.state.lesson.work?.tasks[task.id]?.answer ?? null;

/** Fills in a student's answer; one step of undo for what is filled in without a pause. */
export function setAnswer(session: Session, task: Task, answer: Answer): Result<undefined> {
  const work = session.state.lesson.work?.tasks[task.id];
  if (!work) return refused('no-such-task', 'this task is not of this exercise');
  return session.edit(
    `answer “${task.title}”`,
    { type: 'changeWork', task: task.id, work: { ...work, answer } },
    `answer ${task.id}`,
  );
}

const isAnswerTo = (task: Task, edit: Edit): boolean =>
  edit.type === 'group'
    ? edit.edits.some((inner) => isAnswerTo(task, inner))
    : edit.type === 'changeWork' && edit.task === task.id;

/** Fills in an answer that cannot be taken back, as what follows gives it away. */
export function setFinalAnswer(session: Session, task: Task, answer: Answer): Result<undefined> {
  const work = session.state.lesson.work?.tasks[task.id];
  if (!work) return refused('no-such-task', 'this task is not of this exercise');
  return session.noteEdit({ type: 'changeWork', task: task.id, work: { ...work, answer } }, (edit) =>
    isAnswerTo(task, edit),
  );
}

/** The checks that may still be made of a task; null for as many as wanted. */
export function triesLeft(session: Session, task: Task): number | null {
  if (task.tries === null) return null;
  return Math.max(0, task.tries - (session.state.lesson.work?.checks[task.id]?.count ?? 0));
}

/**
 * Checks the work at a task, and counts that it was checked.
 * @param lesson the work as it is checked.
 */
export function checkTask(
  session: Session,
  task: Task,
  lesson: Lesson = session.state.lesson,
  verdicts: Verdicts | null = null,
): Result<Mark> {
  if (triesLeft(session, task) === 0) return refused('no-tries', 'all checks of this task are used');
  const mark = markTask(task, lesson, verdicts);
  const count = (session.state.lesson.work?.checks[task.id]?.count ?? 0) + 1;
  const noted = session.noteEdit({
    type: 'noteChecks',
    task: task.id,
    checks: { count, solved: mark.solved === true },
  });
  return noted.ok ? done(mark) : noted;
}

/** Opens the sheet of a task. */
export function openTask(session: Session, task: Task): Result<undefined> {
  const work = session.state.lesson.work?.tasks[task.id];
  if (!work) return refused('no-such-task', 'this task is not of this exercise');
  session.openSheet(work.sheet);
  return DONE;
}

/** Puts the circuit that stands in for what another task was to have built on sheets of the lesson, to be used as a block. */
export function takeStandIn(session: Session, task: Task, circuit: GivenCircuit): Result<undefined> {
  const taken = session.transaction(`take the given “${task.title}”`, (made) => {
    for (const sheet of standInSheets(task, circuit))
      if (!sheetOf(made.lesson, sheet.id))
        made.make({ type: 'addSheet', sheet, at: made.lesson.sheets.length });
  });
  if (!taken.ok) return taken;
  session.sayUndoable(`“Given ${task.title}” can be placed as a block now.`);
  return DONE;
}
