import type { Exercise } from '../circuit/exercise';
import type { Student } from '../exercise/class-list';
import type { HandIn } from '../exercise/hand-in';
import { taskKindOf } from '../exercise/kinds';
import { type Marked, pointsOf } from '../exercise/marking';
import { csvFile } from '../values/csv';

/** A hand-in with the marks of its tasks, in their order. */
export interface MarkedRow {
  readonly handIn: HandIn;
  readonly marks: readonly Marked[];
}

/** Points that are sure, and how many a person still has to give. */
export function pointsSoFar(marks: readonly Marked[]): { readonly sure: number; readonly open: number } {
  const points = marks.map(pointsOf);
  return {
    sure: points.reduce<number>((sum, p) => sum + (p ?? 0), 0),
    open: marks.reduce((sum, { task }, i) => sum + (points[i] === null ? task.points : 0), 0),
  };
}

const complaintsOf = (marks: readonly Marked[]) => marks.flatMap(({ mark }) => mark.complaints).join(' ');

/** What a teacher gave for a hand-in: points by the tasks, null where they are still to be given, and remarks. */
export interface Given {
  readonly points: readonly (number | null)[];
  readonly remarks: readonly string[];
  /** Who it is in the class list; null for none of them, absent where there is no list. */
  readonly student?: Pick<Student, 'number' | 'group'> | null;
}

/** Points as the rule without a teacher has them, and no remarks. */
const byRule = ({ marks }: MarkedRow): Given => ({ points: marks.map(pointsOf), remarks: [] });

/**
 * The marks as CSV, a line a hand-in: for each task how much is right, what the answer is and its points, then their sum.
 * @param given what a teacher gave for a hand-in.
 */
export function markingCsv<R extends MarkedRow>(
  { tasks }: Pick<Exercise, 'tasks'>,
  rows: readonly R[],
  given: (row: R) => Given = byRule,
): string {
  const isOne = tasks.length === 1;
  const hasList = rows.some((row) => given(row).student !== undefined);
  const heads = tasks.flatMap((task, i) => {
    const { gistName } = taskKindOf(task);
    const own = isOne ? '' : `${i + 1} `;
    return [`${own}right`, `${own}of`, `${own}${gistName.toLowerCase()}`, ...(isOne ? [] : [`${own}points`])];
  });
  return csvFile([
    [
      'name',
      ...(hasList ? ['number', 'group'] : []),
      ...heads,
      'points',
      'points to give',
      'complaints',
      'remarks',
      'handed in',
      'minutes',
    ],
    ...rows.map((row) => {
      const { handIn, marks } = row;
      const { points, remarks, student } = given(row);
      const sure = points.reduce<number>((sum, p) => sum + (p ?? 0), 0);
      const open = marks.reduce((sum, { task }, i) => sum + (points[i] === null ? task.points : 0), 0);
      return [
        handIn.name,
        ...(hasList ? [student?.number ?? '', student?.group ?? ''] : []),
        ...marks.flatMap(({ mark }, i) => [
          mark.right,
          mark.of,
          mark.gist,
          ...(isOne ? [] : [points[i] ?? '']),
        ]),
        sure,
        open,
        complaintsOf(marks),
        remarks.join(' '),
        handIn.handedIn,
        Math.round(handIn.seconds / 60),
      ];
    }),
  ]);
}
