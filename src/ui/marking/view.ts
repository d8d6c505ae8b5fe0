import type { ClassMarks } from '@/core/exercise/teacher-marks';
import { isAllRight, pointsOfRow, type Row } from './marked-row';

/** Which hand-ins are listed. */
export const FILTERS = ['all', 'wrong', 'to mark', 'complaints'] as const;
export type Filter = (typeof FILTERS)[number];

/** By what they are sorted. */
export const ORDERS = ['name', 'points', 'time'] as const;
export type RowOrder = (typeof ORDERS)[number];

/** How the hand-ins of an exercise are listed. */
export interface View {
  readonly filter: Filter;
  readonly name: string;
  readonly order: RowOrder;
  /** The hash of an answer that they have in common, with the task; null for any. */
  readonly alike: { readonly task: number; readonly said: string } | null;
}

export const ALL_OF_THEM: View = { filter: 'all', name: '', order: 'name', alike: null };

const PASSES: Readonly<Record<Filter, (row: Row, marks: ClassMarks) => boolean>> = {
  all: () => true,
  wrong: (row) => !isAllRight(row) && row.marks.some(({ mark }) => mark.solved === false),
  'to mark': (row, marks) => pointsOfRow(row, marks).open > 0,
  complaints: (row) => row.marks.some(({ mark }) => mark.complaints.length > 0),
};

/** The hand-ins that are listed, in their order. */
export function filteredRows(rows: readonly Row[], marks: ClassMarks, view: View): Row[] {
  const name = view.name.trim().toLowerCase();
  const found = rows.filter(
    (row) =>
      PASSES[view.filter](row, marks) &&
      row.handIn.name.toLowerCase().includes(name) &&
      (view.alike === null || row.said[view.alike.task] === view.alike.said),
  );
  const points = new Map(found.map((row) => [row, pointsOfRow(row, marks).sure]));
  const by: Readonly<Record<RowOrder, (a: Row, b: Row) => number>> = {
    name: () => 0,
    points: (a, b) => points.get(a)! - points.get(b)!,
    time: (a, b) => Date.parse(a.handIn.handedIn) - Date.parse(b.handIn.handedIn),
  };
  return found.sort(by[view.order]);
}

/** How many of the hand-ins pass each filter. */
export const countsOf = (rows: readonly Row[], marks: ClassMarks): Readonly<Record<Filter, number>> =>
  Object.fromEntries(
    FILTERS.map((filter) => [filter, rows.filter((row) => PASSES[filter](row, marks)).length]),
  ) as Record<Filter, number>;
