import { strFromU8, strToU8, unzlibSync, zlibSync } from 'fflate';
import { TaskId } from '../exercise/exercise-schema';
import { type HandIn, handInOfLesson } from '../exercise/hand-in';
import { fromBase64Url, toBase64Url } from '../sealing/base64url';
import { done, located, type Result, refusal, refused, within } from '../values/result';
import { firstIssue, list, text, title, whole, z } from '../values/schema';
import { LONGEST_FRAMES } from './edit-frames-file';
import { lessonFromJson } from './lesson-file';
import { HAND_IN_STEPS } from './migrations/hand-in';
import { type JsonFile, migrated } from './migrations/migrate';
import { headingProblem, readJson } from './read-json';
import { lessonToFile } from './write-lesson';

export const HAND_IN_VERSION = HAND_IN_STEPS.length + 1;

const Heading = z.object({
  exercise: z.object({ id: text(64), title: text(120), edition: whole(1, 1_000_000) }),
  name: title(120, 'the name is empty'),
  /** What the checks found then, by the ids of the tasks. It is told, and never believed. */
  results: z.record(
    TaskId,
    z.object({ right: whole(0, 2 ** 20), of: whole(0, 2 ** 20), complaints: list(text(500), 1000) }),
  ),
  handedIn: z.datetime(),
  /** Seconds during which the student worked at it. */
  seconds: z.number().check(z.minimum(0), z.maximum(1e8)),
  lesson: z.unknown(),
  /** How it was drawn, packed; read when it is looked at. */
  drawn: z.optional(text(LONGEST_FRAMES)),
});

export function writeHandIn(handIn: HandIn): string {
  const { lesson, ...rest } = handIn;
  const file = { format: 'manege-hand-in', version: HAND_IN_VERSION, ...rest };
  return `${JSON.stringify({ ...file, lesson: lessonToFile({ ...lesson, exercise: null }) }, null, 2)}\n`;
}

export function readHandIn(text: string): Result<HandIn> {
  const json = readJson(text);
  return json.ok ? handInFromJson(json.value) : json;
}

/** What stands before a hand-in that is text, so that it is known among other words. */
const TEXT_MARK = 'manege-hand-in:';
/** Longest text that is unpacked at all, and what it may become. */
const LONGEST_TEXT = 200_000;
const LARGEST = 4_000_000;

/** A hand-in as one word that can be pasted: JSON, zlib (RFC 1950), base64url (RFC 4648). */
export const handInToText = (handIn: HandIn): string =>
  TEXT_MARK + toBase64Url(zlibSync(strToU8(writeHandIn(handIn)), { level: 9 }));

/** The hand-ins among pasted words, each as it is read; other words are passed over. */
export function handInsInText(text: string): Result<HandIn>[] {
  const words = text.split(/\s+/).filter((word) => word.startsWith(TEXT_MARK));
  return words.map((word) => {
    const packed = word.slice(TEXT_MARK.length);
    if (packed.length > LONGEST_TEXT)
      return refused('too-long', 'the text is far longer than a hand-in needs');
    try {
      return readHandIn(strFromU8(unzlibSync(fromBase64Url(packed), { out: new Uint8Array(LARGEST) })));
    } catch {
      return refused(
        'damaged-text',
        'the text is damaged or was cut short: ask for it again, or for the file',
      );
    }
  });
}

/**
 * Reads a hand-in, or a student's saved lesson in its place: any file of theirs will do.
 * @param name the name under which a saved lesson is handed in: that of its file.
 */
export function readAnyHandIn(text: string, name: string, at: Date): Result<HandIn> {
  const json = readJson(text);
  if (!json.ok) return json;
  if ((json.value as { format?: unknown } | null)?.format !== 'manege-lesson')
    return handInFromJson(json.value);
  const lesson = lessonFromJson(json.value);
  if (!lesson.ok) return lesson;
  const handIn = handInOfLesson(lesson.value, name, at);
  return handIn ? done(handIn) : refused('no-exercise', 'it is a lesson that answers no exercise');
}

export function handInFromJson(value: unknown): Result<HandIn> {
  const heading = headingProblem(value, 'manege-hand-in', HAND_IN_VERSION);
  if (heading) return refusal(heading);
  const parsed = Heading.safeParse(migrated(value as JsonFile, HAND_IN_STEPS));
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const lesson = lessonFromJson(parsed.data.lesson);
  if (!lesson.ok) return refusal(within('its circuit', lesson.problem));
  return done({ ...parsed.data, lesson: lesson.value });
}
