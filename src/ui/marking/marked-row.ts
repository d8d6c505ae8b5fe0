import type { Exercise } from '@/core/circuit/exercise';
import type { HandIn } from '@/core/exercise/hand-in';
import { markAll } from '@/core/exercise/marking';
import type { MarkedRow } from '@/core/formats/marking-csv';
import { verdictsFor } from '@/ui/exercise/verdicts';

/** A hand-in with its marks. */
export interface Row extends MarkedRow {
  readonly key: number;
  readonly file: string;
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

/** An exercise with its tasks as they were in the edition that a hand-in answers: it is marked by what it was asked. */
export function asAsked(exercise: Exercise, editions: readonly Exercise[], edition: number): Exercise {
  const then = editions.find((e) => e.edition === edition);
  if (!then) return exercise;
  return {
    ...exercise,
    tasks: exercise.tasks.map((task) => then.tasks.find(({ id }) => id === task.id) ?? task),
  };
}

/** The tasks of which a hand-in claims another result than is found: 1 for the first. */
export const otherClaims = ({ handIn, marks }: MarkedRow): number[] =>
  marks.flatMap(({ task, mark: { right, of } }, i) => {
    const claim = handIn.results[task.id];
    return claim && (claim.right !== right || claim.of !== of) ? [i + 1] : [];
  });

/** Checks a hand-in against its exercise. */
export async function mark(key: number, file: string, handIn: HandIn, exercise: Exercise): Promise<Row> {
  const verdicts = await verdictsFor(exercise.tasks, handIn.lesson);
  return { key, file, handIn, earlier: [], marks: markAll(exercise, handIn.lesson, verdicts) };
}

/** Whether every task is found solved. */
export const isAllRight = ({ marks }: MarkedRow): boolean => marks.every(({ mark: { solved } }) => solved);
