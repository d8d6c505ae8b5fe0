import type { Digest, Exercise, Task } from '../circuit/exercise';
import { type Lesson, sheetOf } from '../circuit/lesson';
import { emptySheet, type Sheet } from '../circuit/sheet';
import { textHash } from '../values/text-hash';
import { idsUnder, standInId } from './begin';
import { taskKindOf } from './kinds';
import type { Mark, Solution } from './kinds/task-kind';
import { FREE, type SheetRules } from './rules';
import { isSealed } from './sealed';

/** A task with the mark of a student's work at it. */
export interface Marked {
  readonly task: Task;
  readonly mark: Mark;
}

const NOTHING_DRAWN = emptySheet('nothing', 'Nothing');

/** A student's work at a task; an empty sheet where nothing was begun. */
export function solutionOf(task: Task, lesson: Lesson): Solution {
  const work = lesson.work?.tasks[task.id];
  const answer = work?.answer?.kind === task.kind ? work.answer : null;
  const sheet = sheetOf(lesson, work?.sheet ?? '') ?? NOTHING_DRAWN;
  const builtIn = (other: string) => [lesson.work?.tasks[other]?.sheet ?? '', standInId(other)];
  return { sheet, sheets: lesson.sheets, answer, builtIn };
}

/** The mark of a task that cannot be judged without the teacher's key. */
const SEALED: Mark = {
  right: 0,
  of: 1,
  word: 'task',
  complaints: [],
  solved: null,
  wrong: null,
  gist: 'sealed',
  detail: null,
};

/** Whether an answer, as a text, is the one of a digest. */
export type Verdicts = (digest: Digest, answer: string) => boolean;

/**
 * The mark of a student's work at a task.
 * @param verdicts answers to what stands there as a digest, where they were found; see `verdicts.ts`. Without them it is not
 *   marked.
 */
export function markTask(task: Task, lesson: Lesson, verdicts: Verdicts | null = null): Mark {
  if (isSealed(task) && !(task.digest && verdicts)) return SEALED;
  const mark = taskKindOf(task).mark(task, solutionOf(task, lesson));
  if (!task.digest) return mark;
  const given = digestible(task, mark);
  const solved = given !== null && verdicts!(task.digest, given);
  const { complaints, gist } = mark;
  return { ...SEALED, right: solved ? 1 : 0, complaints, solved, gist };
}

/** The text of an answer that its digest is held against; null where it cannot be right. */
const digestible = (task: Task, mark: Mark): string | null =>
  taskKindOf(task).hashed?.given(task, mark) ?? null;

/** The texts of a student's work that have to be held against digests. */
export const digestibles = (
  tasks: readonly Task[],
  lesson: Lesson,
): { readonly digest: Digest; readonly answer: string }[] =>
  tasks.flatMap((task) => {
    if (!task.digest) return [];
    const answer = digestible(task, taskKindOf(task).mark(task, solutionOf(task, lesson)));
    return answer === null ? [] : [{ digest: task.digest, answer }];
  });

/** The marks of all tasks, in their order. */
export const markAll = (exercise: Exercise, lesson: Lesson, verdicts: Verdicts | null = null): Marked[] =>
  exercise.tasks.map((task) => ({ task, mark: markTask(task, lesson, verdicts) }));

/** The task that is done on a sheet, or undefined. */
export const taskOnSheet = ({ exercise, work }: Lesson, sheet: string): Task | undefined =>
  exercise?.tasks.find((task) => work?.tasks[task.id]?.sheet === sheet);

/** The task whose given circuit has a block with this inside, or undefined. */
const taskOfBlock = ({ exercise }: Lesson, sheet: string): Task | undefined =>
  exercise?.tasks.find((task) => (task.given ? idsUnder(task.id, task.given).indexOf(sheet) > 0 : false));

/** What the exercise of a lesson, if it has one, lets be done on a sheet. */
export function rulesOn(lesson: Lesson, sheet: Pick<Sheet, 'id'>): SheetRules {
  const { exercise } = lesson;
  if (!exercise) return FREE;
  const rules = (task: Task) => taskKindOf(task).rules(task, solutionOf(task, lesson).answer);
  const task = taskOnSheet(lesson, sheet.id) ?? taskOfBlock(lesson, sheet.id);
  if (task) return rules(task);
  // A sheet of the student's own serves any of the tasks.
  const all = exercise.tasks.map(rules);
  if (all.some(({ parts }) => parts === null)) return FREE;
  return { ...FREE, parts: new Set(all.flatMap(({ parts }) => [...parts!])) };
}

/** What may be done on the sheet of a task that is only looked at: everything is told, and the board is there for a task on it. */
export const rulesForLook = (task: Task): SheetRules => ({
  ...FREE,
  guide: taskKindOf(task).rules(task, null).guide,
});

/** Points for a mark: all or nothing; null while a person has to tell. */
export const pointsOf = ({ task, mark }: Marked): number | null =>
  mark.solved === null ? null : mark.solved ? task.points : 0;

/** What an answer says, as a short text that equal answers have in common; null where nothing was done, or nothing can be told. */
export function saidBy({ task, mark }: Marked): string | null {
  if (mark.detail === null) return null;
  const said = taskKindOf(task).said(task, mark);
  return said === null ? null : textHash(said);
}

/** What is wrong in an answer, in a few words for a teacher; null where nothing is, or nothing can be said. */
export const mistakeIn = ({ task, mark }: Marked): string | null =>
  mark.detail === null ? mark.wrong : (taskKindOf(task).mistake?.(task, mark) ?? mark.wrong);

/** An exercise with its tasks as they were in the edition that a hand-in answers: it is marked by what it was asked. */
export function asAsked(exercise: Exercise, editions: readonly Exercise[], edition: number): Exercise {
  const then = editions.find((e) => e.edition === edition);
  if (!then) return exercise;
  return {
    ...exercise,
    tasks: exercise.tasks.map((task) => then.tasks.find(({ id }) => id === task.id) ?? task),
  };
}
