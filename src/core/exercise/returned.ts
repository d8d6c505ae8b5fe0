import type { Lesson } from '../circuit/lesson';
import type { Marked } from './marking';
import type { Remark } from './teacher-marks';

/** What a student gets back for one task. */
export interface ReturnedTask {
  /** Null where none were given. */
  readonly points: number | null;
  readonly of: number;
  readonly solved: boolean | null;
  /** How much was found right, and which of it is not, in words. */
  readonly found: string;
  readonly complaints: readonly string[];
  readonly remarks: readonly Remark[];
}

/** A student's work as it comes back from the teacher: with points and remarks, and nothing of anybody else. */
export interface Returned {
  readonly name: string;
  /** ISO 8601. */
  readonly handedIn: string;
  /** ISO 8601. */
  readonly returned: string;
  /** By the ids of the tasks. */
  readonly tasks: Readonly<Record<string, ReturnedTask>>;
  /** The work, with its exercise. */
  readonly lesson: Lesson;
}

/** How much of an answer was found right, in words: `3 of 4 rows right; wrong: row 2`. */
export function foundText({ mark: { right, of, word, solved, wrong } }: Marked): string {
  if (solved === null) return '';
  if (solved) return 'right';
  const some = of > 1 ? `${right} of ${of} ${word}s right` : 'not right';
  return wrong ? `${some}; wrong: ${wrong}` : some;
}

/** The points of all tasks that were given, and of how many. */
export const sumOf = ({ tasks }: Pick<Returned, 'tasks'>): { readonly points: number; readonly of: number } =>
  Object.values(tasks).reduce(
    (sum, task) => ({ points: sum.points + (task.points ?? 0), of: sum.of + task.of }),
    { points: 0, of: 0 },
  );
