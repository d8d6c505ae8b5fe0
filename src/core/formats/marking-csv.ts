import type { Exercise } from '../circuit/exercise';
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

/** The marks as CSV, a line a hand-in: for each task how much is right and what the answer is, then the points. */
export function markingCsv({ tasks }: Pick<Exercise, 'tasks'>, rows: readonly MarkedRow[]): string {
  const isOne = tasks.length === 1;
  const heads = tasks.flatMap((task, i) => {
    const { gistName } = taskKindOf(task);
    const own = isOne ? '' : `${i + 1} `;
    return [`${own}right`, `${own}of`, `${own}${gistName.toLowerCase()}`];
  });
  return csvFile([
    ['name', ...heads, 'points', 'points to give', 'complaints', 'handed in', 'minutes'],
    ...rows.map(({ handIn, marks }) => {
      const { sure, open } = pointsSoFar(marks);
      return [
        handIn.name,
        ...marks.flatMap(({ mark }) => [mark.right, mark.of, mark.gist]),
        sure,
        open,
        complaintsOf(marks),
        handIn.handedIn,
        Math.round(handIn.seconds / 60),
      ];
    }),
  ]);
}
