import { areCanonicalParts, areCanonicalWires } from '../circuit/canonical-contents';
import type { Exercise, Work } from '../circuit/exercise';
import { LESSON_VERSION, type Lesson } from '../circuit/lesson';
import { LessonFile } from '../circuit/lesson-schema';
import { MOST_PARTS, MOST_WIRES } from '../circuit/limits';
import type { Sheet } from '../circuit/sheet';
import { WorkSchema } from '../exercise/exercise-schema';
import { sheetFromFile } from '../parts/sheet-from-file';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue } from '../values/schema';
import { exerciseContent } from './exercise-content';
import { LESSON_STEPS } from './migrations/lesson';
import { isObject, type JsonFile, migrated } from './migrations/migrate';
import { headingProblem, readJson } from './read-json';
import { fromTables } from './sheet-tables';

/** Reads a lesson file; refused as a whole with one sentence, or read as a whole. */
export function readLesson(text: string): Result<Lesson> {
  const json = readJson(text);
  return json.ok ? lessonFromJson(json.value) : json;
}

/** Reads a lesson from parsed JSON, for files that hold one inside. */
export function lessonFromJson(value: unknown): Result<Lesson> {
  const heading = headingProblem(value, 'manege-lesson', LESSON_VERSION);
  if (heading) return refusal(heading);
  const whole = withoutTables(value as JsonFile);
  if (!whole.ok) return whole;
  const { file, contents } = canonicalApart(migrated(whole.value, LESSON_STEPS));
  const parsed = LessonFile.safeParse(file);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const { id, title, settings } = parsed.data;
  const exercise = parsed.data.exercise === null ? done(null) : exerciseInside(parsed.data.exercise);
  if (!exercise.ok) return exercise;
  const work = parsed.data.work === undefined ? done(undefined) : workInside(parsed.data.work);
  if (!work.ok) return work;
  const sheets: Sheet[] = [];
  for (const [i, read] of parsed.data.sheets.entries()) {
    const file = { ...read, ...contents[i] };
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

/** Replaces the tables of large sheets by the parts and wires that they stand for. */
function withoutTables(file: JsonFile): Result<JsonFile> {
  if (!Array.isArray(file.sheets)) return done(file);
  const sheets: unknown[] = [];
  for (const [i, sheet] of file.sheets.entries()) {
    if (!isObject(sheet) || !('tables' in sheet)) {
      sheets.push(sheet);
      continue;
    }
    const { tables, ...others } = sheet;
    const contents = fromTables(tables);
    if (!contents.ok) return refusal(within(`at sheets › ${i + 1} › tables`, contents.problem));
    sheets.push({ ...others, ...contents.value });
  }
  return done({ ...file, sheets });
}

type Contents = Pick<LessonFile['sheets'][number], 'parts' | 'wires'>;

/** Takes parts and wires in canonical form out of a file: they need no schema. @returns them for each sheet. */
function canonicalApart(file: JsonFile): { file: JsonFile; contents: Partial<Contents>[] } {
  if (!Array.isArray(file.sheets)) return { file, contents: [] };
  const contents: Partial<Contents>[] = [];
  const sheets = file.sheets.map((sheet: unknown) => {
    const own: { -readonly [name in keyof Contents]?: Contents[name] } = {};
    contents.push(own);
    if (!isObject(sheet)) return sheet;
    const { parts, wires } = sheet;
    if (Array.isArray(parts) && parts.length <= MOST_PARTS && areCanonicalParts(parts)) own.parts = parts;
    if (Array.isArray(wires) && wires.length <= MOST_WIRES && areCanonicalWires(wires)) own.wires = wires;
    return { ...sheet, ...(own.parts && { parts: [] }), ...(own.wires && { wires: [] }) };
  });
  return { file: { ...file, sheets }, contents };
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
