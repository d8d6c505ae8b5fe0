import { mistakeIn } from '@/core/exercise/marking';
import { type Answered, type ClassMarks, pointsFor } from '@/core/exercise/teacher-marks';
import type { MarkedRow } from '@/core/formats/marking-csv';
import type { MarkedHandIn } from '@/workers/mark-client';

/** A hand-in with its marks. */
export interface Row extends MarkedHandIn {
  /** What the same student handed in before, the latest first. */
  readonly earlier: readonly Row[];
}

/** The latest hand-in of each student, with the earlier ones; students in the order of their names. */
export function byStudent(rows: readonly Row[]): Row[] {
  const students = new Map<string, Row[]>();
  for (const row of rows) {
    const name = row.handIn.name.trim().toLowerCase();
    students.set(name, [...(students.get(name) ?? []), row]);
  }
  return [...students.values()]
    .map((all) => {
      const [latest, ...earlier] = all.sort(
        (a, b) => Date.parse(b.handIn.handedIn) - Date.parse(a.handIn.handedIn) || b.key - a.key,
      );
      return { ...latest!, earlier };
    })
    .sort((a, b) => a.handIn.name.localeCompare(b.handIn.name));
}

/** The tasks of which a hand-in claims another result than is found: 1 for the first. */
export const otherClaims = ({ handIn, marks }: MarkedRow): number[] =>
  marks.flatMap(({ task, mark: { right, of } }, i) => {
    const claim = handIn.results[task.id];
    return claim && (claim.right !== right || claim.of !== of) ? [i + 1] : [];
  });

/** An answer of a hand-in, for its points and remarks. */
export const answerIn = ({ id, marks, said }: Row, at: number): Answered => ({
  task: marks[at]!.task,
  mark: marks[at]!.mark,
  handIn: id,
  said: said[at]!,
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
  for (const { marks, said } of rows)
    for (const [task, marked] of marks.entries()) {
      const text = said[task];
      if (text === null || text === undefined || marked.mark.solved !== false) continue;
      const key = `${task} ${text}`;
      const mistake = found.get(key)?.mistake ?? mistakeIn(marked) ?? (marked.mark.gist || 'the same answer');
      found.set(key, { task, said: text, count: (found.get(key)?.count ?? 0) + 1, mistake });
    }
  return [...found.values()].filter(({ count }) => count > 1).sort((a, b) => b.count - a.count);
}
