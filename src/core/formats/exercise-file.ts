import { strFromU8, strToU8, unzlibSync, zlibSync } from 'fflate';
import type { Exercise } from '../circuit/exercise';
import { fromBase64Url, toBase64Url } from '../sealing/base64url';
import { type Result, refusal, refused } from '../values/result';
import { exerciseContent } from './exercise-content';
import { EXERCISE_STEPS } from './migrations/exercise';
import { type JsonFile, migrated } from './migrations/migrate';
import { headingProblem, readJson } from './read-json';

export const EXERCISE_VERSION = EXERCISE_STEPS.length + 1;

/** Longest fragment that is unpacked at all. */
const LONGEST_FRAGMENT = 200_000;

export function writeExercise(exercise: Exercise): string {
  return `${JSON.stringify({ format: 'manege-exercise', version: EXERCISE_VERSION, ...exercise }, null, 2)}\n`;
}

export function readExercise(text: string): Result<Exercise> {
  const json = readJson(text);
  return json.ok ? exerciseFromJson(json.value) : json;
}

export function exerciseFromJson(value: unknown): Result<Exercise> {
  const heading = headingProblem(value, 'manege-exercise', EXERCISE_VERSION);
  if (heading) return refusal(heading);
  return exerciseContent(migrated(value as JsonFile, EXERCISE_STEPS));
}

/** The exercise as the fragment of a link, without `#`: JSON, zlib (RFC 1950), base64url (RFC 4648). */
export function exerciseToFragment(exercise: Exercise): string {
  return toBase64Url(zlibSync(strToU8(writeExercise(exercise)), { level: 9 }));
}

export function exerciseFromFragment(fragment: string): Result<Exercise> {
  if (fragment.length > LONGEST_FRAGMENT)
    return refused('link-too-long', 'the link is far longer than any exercise needs');
  try {
    const packed = fromBase64Url(fragment);
    const out = new Uint8Array(1_000_000);
    const text = strFromU8(unzlibSync(packed, { out }));
    return readExercise(text);
  } catch {
    return refused(
      'damaged-link',
      'the link is damaged or was cut short: ask for it again, or for the exercise as a file',
    );
  }
}
