import type { Exercise } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import type { HandIn } from './hand-in';
import type { Marked } from './marking';
import { type Answered, type ClassMarks, pointsFor, type Remark, remarksOn } from './teacher-marks';

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
export function foundText({ mark: { right, of, word, solved, wrong } }: Pick<Marked, 'mark'>): string {
  if (solved === null) return '';
  if (solved) return 'right';
  const some = of > 1 ? `${right} of ${of} ${word}s right` : 'not right';
  return wrong ? `${some}; wrong: ${wrong}` : some;
}

/** Most letters and complaints that go back; a hostile hand-in makes no larger file. */
const MOST_FOUND = 2000;
const MOST_COMPLAINTS = 100;
const MOST_LETTERS = 500;

/**
 * A student's work as it goes back.
 * @param answers by the tasks.
 * @param exercise as it goes along: with its wanted answers, or with those sealed.
 */
export const returnedWork = (
  { name, handedIn, lesson }: Pick<HandIn, 'name' | 'handedIn' | 'lesson'>,
  answers: readonly Answered[],
  marks: ClassMarks,
  exercise: Exercise,
  now: Date,
): Returned => ({
  name,
  handedIn,
  returned: now.toISOString(),
  tasks: Object.fromEntries(
    answers.map((answered) => [
      answered.task.id,
      {
        points: pointsFor(marks, answered),
        of: answered.task.points,
        solved: answered.mark.solved,
        found: foundText(answered).slice(0, MOST_FOUND),
        complaints: answered.mark.complaints.slice(0, MOST_COMPLAINTS).map((c) => c.slice(0, MOST_LETTERS)),
        remarks: remarksOn(marks, answered),
      },
    ]),
  ),
  lesson: { ...lesson, exercise },
});

/** The points of all tasks that were given, and of how many. */
export const sumOf = ({ tasks }: Pick<Returned, 'tasks'>): { readonly points: number; readonly of: number } =>
  Object.values(tasks).reduce(
    (sum, task) => ({ points: sum.points + (task.points ?? 0), of: sum.of + task.of }),
    { points: 0, of: 0 },
  );
