import type { Exercise, Work } from '../circuit/exercise';
import { LESSON_VERSION, type Lesson } from '../circuit/lesson';
import { LessonFile } from '../circuit/lesson-schema';
import type { Sheet } from '../circuit/sheet';
import { WorkSchema } from '../exercise/exercise-schema';
import { sheetFromFile } from '../parts/sheet-from-file';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue } from '../values/schema';
import { exerciseContent } from './exercise-content';
import { LESSON_STEPS } from './migrations/lesson';
import { type JsonFile, migrated } from './migrations/migrate';
import { headingProblem, readJson } from './read-json';

/** Reads a lesson file; refused as a whole with one sentence, or read as a whole. */
export function readLesson(text: string): Result<Lesson> {
  const json = readJson(text);
  return json.ok ? lessonFromJson(json.value) : json;
}

/** Reads a lesson from parsed JSON, for files that hold one inside. */
export function lessonFromJson(value: unknown): Result<Lesson> {
  const heading = headingProblem(value, 'manege-lesson', LESSON_VERSION);
  if (heading) return refusal(heading);
  const parsed = LessonFile.safeParse(migrated(value as JsonFile, LESSON_STEPS));
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const { id, title, settings } = parsed.data;
  const exercise = parsed.data.exercise === null ? done(null) : exerciseInside(parsed.data.exercise);
  if (!exercise.ok) return exercise;
  const work = parsed.data.work === undefined ? done(undefined) : workInside(parsed.data.work);
  if (!work.ok) return work;
  const sheets: Sheet[] = [];
  for (const file of parsed.data.sheets) {
    if (sheets.some((s) => s.id === file.id)) return refused('twice', `two sheets have the id ${file.id}`);
    const sheet = sheetFromFile(file);
    if (!sheet.ok) return refusal(within(`on sheet “${file.name}”`, sheet.problem));
    sheets.push(sheet.value);
  }
  return done({
    id,
    title,
    settings,
    exercise: exercise.value,
    ...(work.value ? { work: work.value } : {}),
    sheets,
  });
}

function exerciseInside(value: unknown): Result<Exercise> {
  const read = exerciseContent(value);
  return read.ok ? read : refusal(within('its exercise', read.problem));
}

function workInside(value: unknown): Result<Work> {
  const parsed = WorkSchema.safeParse(value);
  if (parsed.success) return done(parsed.data);
  return refusal(within('the work at its exercise', located(firstIssue(parsed.error))));
}
