import { TaskId } from '../exercise/exercise-schema';
import type { Returned } from '../exercise/returned';
import { Remarks } from '../exercise/teacher-marks';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue, list, text, title, z } from '../values/schema';
import { lessonFromJson } from './lesson-file';
import { headingProblem, readJson } from './read-json';
import { lessonToFile } from './write-lesson';

export const RETURNED_VERSION = 1;

const Points = z.number().check(z.minimum(0), z.maximum(1000));

const Content = z.object({
  name: title(120, 'the name is empty'),
  handedIn: z.datetime(),
  returned: z.datetime(),
  tasks: z.record(
    TaskId,
    z.object({
      points: z.nullable(Points),
      of: Points,
      solved: z.nullable(z.boolean()),
      found: text(2000),
      complaints: list(text(500), 1000),
      remarks: Remarks,
    }),
  ),
  lesson: z.unknown(),
});

export function writeReturned({ lesson, ...rest }: Returned): string {
  const file = {
    format: 'manege-returned',
    version: RETURNED_VERSION,
    ...rest,
    lesson: lessonToFile(lesson),
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

export function readReturned(content: string): Result<Returned> {
  const json = readJson(content);
  return json.ok ? returnedFromJson(json.value) : json;
}

export function returnedFromJson(value: unknown): Result<Returned> {
  const heading = headingProblem(value, 'manege-returned', RETURNED_VERSION);
  if (heading) return refusal(heading);
  const parsed = Content.safeParse(value);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const lesson = lessonFromJson(parsed.data.lesson);
  if (!lesson.ok) return refusal(within('its work', lesson.problem));
  if (!lesson.value.exercise) return refused('no-exercise', 'its work answers no exercise');
  return done({ ...parsed.data, lesson: lesson.value });
}
