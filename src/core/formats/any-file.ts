import type { Exercise } from '../circuit/exercise';
import type { Lesson } from '../circuit/lesson';
import { done, type Result, refused } from '../values/result';
import { exerciseFromJson } from './exercise-file';
import { type HandIn, handInFromJson } from './hand-in-file';
import { lessonFromJson } from './lesson-file';
import { readJson } from './read-json';

export type AnyFile =
  | { readonly is: 'lesson'; readonly lesson: Lesson }
  | { readonly is: 'exercise'; readonly exercise: Exercise }
  | { readonly is: 'hand-in'; readonly handIn: HandIn };

/** Reads whichever of our three kinds of file it is, for places where any of them may be dropped. */
export function readAny(text: string): Result<AnyFile> {
  const json = readJson(text);
  if (!json.ok) return json;
  const format = (json.value as { format?: unknown } | null)?.format;
  if (format === 'manege-exercise') {
    const read = exerciseFromJson(json.value);
    return read.ok ? done({ is: 'exercise', exercise: read.value }) : read;
  }
  if (format === 'manege-hand-in') {
    const read = handInFromJson(json.value);
    return read.ok ? done({ is: 'hand-in', handIn: read.value }) : read;
  }
  if (format !== 'manege-lesson') return refused('other-format', 'it is not a file of Manege');
  const read = lessonFromJson(json.value);
  return read.ok ? done({ is: 'lesson', lesson: read.value }) : read;
}
