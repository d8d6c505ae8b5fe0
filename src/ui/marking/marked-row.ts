import type { Exercise } from '@/core/circuit/exercise';
import { byStudent, type FoundHandIn } from '@/core/exercise/found';
import { asAsked, type Marked } from '@/core/exercise/marking';
import { type Answered, type ClassMarks, pointsFor } from '@/core/exercise/teacher-marks';
import type { MarkedRow } from '@/core/formats/marking-csv';

/** A hand-in with its marks. */
export interface Row extends FoundHandIn {
  /** Its number in the store. */
  readonly key: number;
  /** Its marks without their details, by the tasks. */
  readonly marks: readonly Marked[];
  /** What the same student handed in before, the latest first. */
  readonly earlier: readonly Row[];
}

/** A hand-in as a row. @param exercise as it is now, and as it was in its earlier editions. */
export function rowOf(
  key: number,
  found: FoundHandIn,
  exercise: Exercise,
  editions: readonly Exercise[],
): Row {
  const { tasks } = asAsked(exercise, editions, found.handIn.exercise.edition);
  const marks = found.answers.map(({ mark }, at) => ({ task: tasks[at]!, mark }));
  return { ...found, key, marks, earlier: [] };
}

/** The latest hand-in of each student, with the earlier ones; students in the order of their names. */
export const latestRows = (rows: readonly Row[]): Row[] =>
  byStudent([...rows].sort((a, b) => a.key - b.key)).map(([latest, ...earlier]) => ({ ...latest!, earlier }));

/** The tasks of which a hand-in claims another result than is found: 1 for the first. */
export const otherClaims = ({ handIn, marks }: MarkedRow): number[] =>
  marks.flatMap(({ task, mark: { right, of } }, i) => {
    const claim = handIn.results[task.id];
    return claim && (claim.right !== right || claim.of !== of) ? [i + 1] : [];
  });

/** An answer of a hand-in, for its points and remarks. */
export const answerIn = ({ id, marks, answers }: Row, at: number): Answered => ({
  task: marks[at]!.task,
  mark: marks[at]!.mark,
  handIn: id,
  said: answers[at]!.said,
});

/** Points of a hand-in: those that are sure, and how many a person still has to give. */
export function pointsOfRow(row: Row, marks: ClassMarks): { readonly sure: number; readonly open: number } {
  let [sure, open] = [0, 0];
  for (const [at, { task }] of row.marks.entries()) {
    const points = pointsFor(marks, answerIn(row, at));
    if (points === null) open += task.points;
    else sure += points;
  }
  return { sure, open };
}

/** Whether every task is found solved. */
export const isAllRight = ({ marks }: MarkedRow): boolean => marks.every(({ mark: { solved } }) => solved);

/** A wrong answer that several have given. */
export interface SharedMistake {
  /** The task, from 0. */
  readonly task: number;
  readonly said: string;
  readonly count: number;
  /** In a few words. */
  readonly mistake: string;
}

/** The wrong answers that at least two have given, the most frequent first. */
export function mistakesOf(rows: readonly Row[]): SharedMistake[] {
  const found = new Map<string, SharedMistake>();
  for (const { answers } of rows)
    for (const [task, { said, mark, mistake: own }] of answers.entries()) {
      if (said === null || mark.solved !== false) continue;
      const key = `${task} ${said}`;
      const mistake = found.get(key)?.mistake ?? own ?? (mark.gist || 'the same answer');
      found.set(key, { task, said, count: (found.get(key)?.count ?? 0) + 1, mistake });
    }
  return [...found.values()].filter(({ count }) => count > 1).sort((a, b) => b.count - a.count);
}
