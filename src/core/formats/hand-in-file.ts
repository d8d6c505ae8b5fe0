import { z } from 'zod';
import type { Lesson } from '../circuit/lesson';
import { lessonFromJson, lessonToFile } from './lesson-file';
import { checkHeading, firstIssue, type Read, readJson, refused } from './read-json';

export const HAND_IN_VERSION = 1;

const Heading = z.object({
  exercise: z.object({ id: z.string().max(64), title: z.string().max(120) }),
  name: z.string().trim().min(1, 'the name is empty').max(120),
  result: z.object({
    right: z.int().min(0),
    rows: z.int().min(1),
    complaints: z.array(z.string().max(500)).max(1000),
  }),
  handedIn: z.iso.datetime(),
  /** Seconds during which the student worked at it. */
  seconds: z.number().min(0).max(1e8),
  lesson: z.unknown(),
});

/** What a student gives back: a name, the circuit, what the check said then, and when. */
export interface HandIn extends Omit<z.infer<typeof Heading>, 'lesson'> {
  readonly lesson: Lesson;
}

export function writeHandIn(handIn: HandIn): string {
  const { lesson, ...rest } = handIn;
  const file = { format: 'manege-hand-in', version: HAND_IN_VERSION, ...rest };
  return `${JSON.stringify({ ...file, lesson: lessonToFile({ ...lesson, exercise: null }) }, null, 2)}\n`;
}

export function readHandIn(text: string): Read<HandIn> {
  const json = readJson(text);
  return json.ok ? handInFromJson(json.value) : json;
}

export function handInFromJson(value: unknown): Read<HandIn> {
  const heading = checkHeading(value, 'manege-hand-in', HAND_IN_VERSION);
  if (heading) return refused(heading);
  const parsed = Heading.safeParse(value);
  if (!parsed.success) return refused(firstIssue(parsed.error));
  const lesson = lessonFromJson(parsed.data.lesson);
  if (!lesson.ok) return refused(`its circuit: ${lesson.problem}`);
  return { ok: true, value: { ...parsed.data, lesson: lesson.value } };
}
