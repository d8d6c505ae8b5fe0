import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { isAllRight, pointsOfRow, type Row } from './marked-row';

/** Which hand-ins are listed. */
export const FILTERS = ['all', 'wrong', 'to mark', 'complaints', 'late'] as const;
export type Filter = (typeof FILTERS)[number];

/** By what they are sorted. */
export const ORDERS = ['name', 'points', 'mistake', 'time'] as const;
export type RowOrder = (typeof ORDERS)[number];

/** How the hand-ins of an exercise are listed. */
export interface View {
  readonly filter: Filter;
  readonly name: string;
  readonly order: RowOrder;
  /** The hash of an answer that they have in common, with the task; null for any. */
  readonly alike: { readonly task: number; readonly said: string } | null;
  /** Rows or readings of a task of which one is wrong in all of them; null for any. */
  readonly wrongAt: WrongAt | null;
  /** The group of the class list; null for all. */
  readonly group: string | null;
}

/** Some rows, readings or spans of a task: the first, and the one behind the last. */
export interface WrongAt {
  readonly task: number;
  readonly from: number;
  readonly to: number;
}

/** Whether one of them is wrong in a hand-in. */
export const isWrongAt = ({ answers }: Row, { task, from, to }: WrongAt): boolean =>
  answers[task]!.wrongUnits.some((unit) => unit >= from && unit < to);

export const ALL_OF_THEM: View = {
  filter: 'all',
  name: '',
  order: 'name',
  group: null,
  alike: null,
  wrongAt: null,
};

type Passes = (row: Row, marks: ClassMarks, due: string | null) => boolean;

const PASSES: Readonly<Record<Filter, Passes>> = {
  all: () => true,
  wrong: (row) => !isAllRight(row) && row.marks.some(({ mark }) => mark.solved === false),
  'to mark': (row, marks) => pointsOfRow(row, marks).open > 0,
  complaints: (row) => row.marks.some(({ mark }) => mark.complaints.length > 0),
  late: ({ handIn }, _, due) => due !== null && Date.parse(handIn.handedIn) > Date.parse(due),
};

/** The hand-ins that are listed, in their order. @param groupOf the group of a student, from the class list. */
export function filteredRows(
  rows: readonly Row[],
  marks: ClassMarks,
  view: View,
  due: string | null,
  groupOf: (row: Row) => string | null,
): Row[] {
  const name = view.name.trim().toLowerCase();
  const found = rows.filter(
    (row) =>
      PASSES[view.filter](row, marks, due) &&
      row.handIn.name.toLowerCase().includes(name) &&
      (view.alike === null || row.answers[view.alike.task]!.said === view.alike.said) &&
      (view.wrongAt === null || isWrongAt(row, view.wrongAt)) &&
      (view.group === null || groupOf(row) === view.group),
  );
  const place = view.order === 'mistake' ? byMistake(found) : new Map<Row, number>();
  const points = new Map(found.map((row) => [row, pointsOfRow(row, marks).sure]));
  const by: Readonly<Record<RowOrder, (a: Row, b: Row) => number>> = {
    name: () => 0,
    points: (a, b) => points.get(a)! - points.get(b)!,
    mistake: (a, b) => (place.get(a) ?? 0) - (place.get(b) ?? 0),
    time: (a, b) => Date.parse(a.handIn.handedIn) - Date.parse(b.handIn.handedIn),
  };
  return found.sort(by[view.order]);
}

/** Hand-ins by their first wrong answer: those that say the same stand together, the most frequent first. */
function byMistake(rows: readonly Row[]): Map<Row, number> {
  const wrongIn = ({ answers }: Row) => answers.findIndex(({ mark }) => mark.solved === false);
  const nameOf = (row: Row) => `${wrongIn(row)} ${row.answers[wrongIn(row)]?.said}`;
  const counts = new Map<string, number>();
  for (const row of rows) counts.set(nameOf(row), (counts.get(nameOf(row)) ?? 0) + 1);
  const order = [...counts].sort(([, a], [, b]) => b - a).map(([name]) => name);
  // Those that are all right come last.
  return new Map(rows.map((row) => [row, wrongIn(row) === -1 ? order.length : order.indexOf(nameOf(row))]));
}

/** How many of the hand-ins pass each filter. */
export const countsOf = (
  rows: readonly Row[],
  marks: ClassMarks,
  due: string | null,
): Readonly<Record<Filter, number>> =>
  Object.fromEntries(
    FILTERS.map((filter) => [filter, rows.filter((row) => PASSES[filter](row, marks, due)).length]),
  ) as Record<Filter, number>;
