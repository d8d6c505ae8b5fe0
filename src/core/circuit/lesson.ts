import { z } from 'zod';
import { Exercise } from './exercise';
import type { Point, Turn } from './geometry';

/** The version of the lesson file that is written; older ones are brought up to it when read. */
export const LESSON_VERSION = 1;

const Id = z.string().regex(/^[A-Za-z][A-Za-z0-9_-]{0,63}$/, 'an id is letters, digits, - and _, at most 64');
const Coordinate = z.int().min(-100_000).max(100_000);
const GridPoint = z.object({ x: Coordinate, y: Coordinate });

/** A part's parameters as the file holds them; what each kind allows stands in the parts catalogue. */
const Params = z.record(
  z.string().regex(/^[a-z][A-Za-z]{0,30}$/),
  z.union([z.string().max(200), z.number(), z.boolean(), z.array(z.int()).max(64)]),
);

/** Anything that is placed on a sheet. */
export const PartFile = z.object({
  id: Id,
  kind: Id,
  at: GridPoint,
  turn: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]).default(0),
  label: z.string().max(60).default(''),
  /** Place among the sheet's inputs or outputs, for parts that are one; ties are broken by id. */
  rank: z.int().min(0).max(1_000_000).default(0),
  params: Params.default({}),
});

/** Where a wire ends: at a part's port, or at a point of another wire. */
const EndFile = z.union([
  z.strictObject({ part: Id, port: z.string().min(1).max(40) }),
  z.strictObject({ wire: Id, at: GridPoint }),
]);

/** A wire joins two ends; `course` are the corners that it takes from the first to the second. */
export const WireFile = z.object({
  id: Id,
  from: EndFile,
  to: EndFile,
  course: z.array(GridPoint).max(200).default([]),
});

export const SheetFile = z.object({
  id: Id,
  name: z.string().trim().min(1).max(60),
  parts: z.array(PartFile).max(50_000),
  wires: z.array(WireFile).max(100_000),
});

export const Settings = z.object({
  symbols: z.enum(['distinctive', 'rectangular']).default('distinctive'),
  /** What storage parts hold when time begins. */
  powerUp: z.enum(['0', '1', 'X']).default('0'),
});

export const LessonFile = z.object({
  format: z.literal('manege-lesson'),
  version: z.literal(LESSON_VERSION),
  id: z.string().regex(/^[a-z0-9-]{4,64}$/i),
  title: z.string().trim().min(1).max(120),
  settings: Settings.default({ symbols: 'distinctive', powerUp: '0' }),
  sheets: z.array(SheetFile).min(1, 'a lesson has at least one sheet').max(500),
  /** The exercise that this lesson answers, in a student's hands. */
  exercise: Exercise.nullable().default(null),
});

export type LessonFile = z.infer<typeof LessonFile>;
export type Settings = z.infer<typeof Settings>;
export type ParamValue = string | number | boolean | readonly number[];
export type Params = Readonly<Record<string, ParamValue>>;

export interface Part {
  readonly id: string;
  readonly kind: string;
  readonly at: Point;
  readonly turn: Turn;
  readonly label: string;
  readonly rank: number;
  readonly params: Params;
}

export interface PinEnd {
  readonly part: string;
  readonly port: string;
}
export interface BranchEnd {
  readonly wire: string;
  readonly at: Point;
}
export type End = PinEnd | BranchEnd;

export interface Wire {
  readonly id: string;
  readonly from: End;
  readonly to: End;
  readonly course: readonly Point[];
}

export interface Sheet {
  readonly id: string;
  readonly name: string;
  readonly parts: ReadonlyMap<string, Part>;
  readonly wires: ReadonlyMap<string, Wire>;
}

/** The document: immutable, changed only by edits (`edit.ts`). */
export interface Lesson {
  readonly id: string;
  readonly title: string;
  readonly settings: Settings;
  readonly sheets: readonly Sheet[];
  readonly exercise: Exercise | null;
}

export function isPinEnd(end: End): end is PinEnd {
  return 'part' in end;
}

export function sameEnd(a: End, b: End): boolean {
  if (isPinEnd(a)) return isPinEnd(b) && a.part === b.part && a.port === b.port;
  return !isPinEnd(b) && a.wire === b.wire && a.at.x === b.at.x && a.at.y === b.at.y;
}

/** The sheet with that id, or undefined. */
export function sheetOf(lesson: Lesson, id: string): Sheet | undefined {
  return lesson.sheets.find((s) => s.id === id);
}

export function emptySheet(id: string, name: string): Sheet {
  return { id, name, parts: new Map(), wires: new Map() };
}

export function emptyLesson(id: string, title: string): Lesson {
  return {
    id,
    title,
    settings: { symbols: 'distinctive', powerUp: '0' },
    sheets: [emptySheet('sheet1', 'Sheet 1')],
    exercise: null,
  };
}

/** An id that is not taken, made of a prefix and the lowest number from the count onwards: `and3`. */
export function freshId(taken: { has(id: string): boolean; readonly size: number }, prefix: string): string {
  let n = taken.size + 1;
  while (taken.has(prefix + n)) n++;
  return prefix + n;
}
