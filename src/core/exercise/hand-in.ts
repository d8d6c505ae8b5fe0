import type { Exercise } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { markAll, type Verdicts } from './marking';

/** Complaints that a hand-in tells, and their letters. */
const MOST_COMPLAINTS = 100;
const MOST_LETTERS = 500;

/** What a check found when the work was handed in. */
export interface HandedResult {
  readonly right: number;
  readonly of: number;
  readonly complaints: readonly string[];
}

/** A student's hand-in: a name, the work, the results of the checks then, and when. */
export interface HandIn {
  readonly exercise: { readonly id: string; readonly title: string; readonly edition: number };
  readonly name: string;
  /** By the ids of the tasks; told, and never believed. */
  readonly results: Readonly<Record<string, HandedResult>>;
  /** ISO 8601. */
  readonly handedIn: string;
  /** Seconds during which the student worked at it. */
  readonly seconds: number;
  readonly lesson: Lesson;
  /** How it was drawn, packed, where the student sends it along; see `edit-frames-file.ts`. */
  readonly drawn?: string | undefined;
}

/** The work at an exercise as it is handed in. */
export function handInOf(
  exercise: Exercise,
  lesson: Lesson,
  name: string,
  seconds: number,
  at: Date,
  verdicts: Verdicts | null = null,
): HandIn {
  const { id, title, edition } = exercise;
  const results: Record<string, HandedResult> = {};
  for (const { task, mark } of markAll(exercise, lesson, verdicts))
    results[task.id] = {
      right: mark.right,
      of: mark.of,
      complaints: mark.complaints.slice(0, MOST_COMPLAINTS).map((c) => c.slice(0, MOST_LETTERS)),
    };
  return { exercise: { id, title, edition }, name, results, handedIn: at.toISOString(), seconds, lesson };
}

/**
 * A student's saved lesson as a hand-in, under the name of its file; null for a lesson that answers no exercise.
 * @param at when the file was last changed, as far as that is known.
 */
export function handInOfLesson(lesson: Lesson, name: string, at: Date): HandIn | null {
  if (!lesson.exercise) return null;
  return handInOf(lesson.exercise, lesson, name.slice(0, 120) || 'Without a name', 0, at);
}
