import type { Exercise } from '../circuit/exercise';
import type { Student } from '../exercise/class-list';
import type { HandIn } from '../exercise/hand-in';
import { taskKindOf } from '../exercise/kinds';
import { type Marked, pointsOf } from '../exercise/marking';
import { csvFile } from '../values/csv';

/** A hand-in with the marks of its tasks, in their order. */
export interface MarkedRow {
  readonly handIn: Omit<HandIn, 'lesson'>;
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

/** What a line tells besides the name; what is told of each task comes once for each. */
export const COLUMNS = [
  'number and group',
  'how much is right',
  'answers',
  'points a task',
  'points',
  'complaints',
  'remarks',
  'handed in',
  'what is wrong',
] as const;
export type Column = (typeof COLUMNS)[number];

/**
 * The marks as CSV, a line a hand-in: for each task how much is right, what the answer is and its points, then their sum.
 * @param given what a teacher gave for a hand-in.
 * @param columns what a line tells; everything where nothing is chosen.
 */
export function markingCsv<R extends MarkedRow>(
  { tasks }: Pick<Exercise, 'tasks'>,
  rows: readonly R[],
  given: (row: R) => Given = byRule,
  columns: readonly Column[] = COLUMNS,
): string {
  const isOne = tasks.length === 1;
  const told = rows.map((row) => ({ row, own: given(row) }));
  const hasList = told.some(({ own }) => own.student !== undefined);
  const has = (column: Column) => columns.includes(column);
  const only = <T>(column: Column, cells: readonly T[]): readonly T[] => (has(column) ? cells : []);
  const heads = tasks.flatMap((task, i) => {
    const { gistName } = taskKindOf(task);
    const own = isOne ? '' : `${i + 1} `;
    return [
      ...only('how much is right', [`${own}right`, `${own}of`]),
      ...only('answers', [`${own}${gistName.toLowerCase()}`]),
      ...(isOne ? [] : only('points a task', [`${own}points`])),
    ];
  });
  const wrong = tasks.map((_, i) => (isOne ? 'wrong' : `${i + 1} wrong`));
  return csvFile([
    [
      'name',
      ...(hasList ? only('number and group', ['number', 'group']) : []),
      ...heads,
      ...only('points', ['points', 'points to give']),
      ...only('complaints', ['complaints']),
      ...only('remarks', ['remarks']),
      ...only('handed in', ['handed in', 'minutes']),
      ...only('what is wrong', wrong),
    ],
    ...told.map(({ row: { handIn, marks }, own: { points, remarks, student } }) => {
      const sure = points.reduce<number>((sum, p) => sum + (p ?? 0), 0);
      const open = marks.reduce((sum, { task }, i) => sum + (points[i] === null ? task.points : 0), 0);
      return [
        handIn.name,
        ...(hasList ? only('number and group', [student?.number ?? '', student?.group ?? '']) : []),
        ...marks.flatMap(({ mark }, i) => [
          ...only('how much is right', [mark.right, mark.of]),
          ...only('answers', [mark.gist]),
          ...(isOne ? [] : only('points a task', [points[i] ?? ''])),
        ]),
        ...only('points', [sure, open]),
        ...only('complaints', [complaintsOf(marks)]),
        ...only('remarks', [remarks.join(' ')]),
        ...only('handed in', [handIn.handedIn, Math.round(handIn.seconds / 60)]),
        ...only(
          'what is wrong',
          marks.map(({ mark }) => mark.wrong ?? ''),
        ),
      ];
    }),
  ]);
}
