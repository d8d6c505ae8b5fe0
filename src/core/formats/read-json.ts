import { done, type Problem, problem, type Result, refusal, refused } from '../values/result';
import { tooLarge } from './size-limit';

const DEEPEST = 40;

/** Finds out how deep brackets are nested outside strings, without recursion. */
function depthOf(text: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (quoted) {
      if (c === 92) i++;
      else if (c === 34) quoted = false;
    } else if (c === 34) quoted = true;
    else if (c === 123 || c === 91) deepest = Math.max(deepest, ++depth);
    else if (c === 125 || c === 93) depth--;
  }
  return deepest;
}

/** Reads JSON with limits on size and depth. */
export function readJson(text: string): Result<unknown> {
  const large = tooLarge(text.length);
  if (large) return refusal(large);
  if (text.trim() === '') return refused('empty', 'it is empty');
  if (depthOf(text) > DEEPEST) return refused('too-deep', `it is nested deeper than ${DEEPEST} levels`);
  try {
    return done(JSON.parse(text.replace(/^\uFEFF/, '')));
  } catch (error) {
    const why = error instanceof Error ? error.message.replaceAll(/\s+/g, ' ').slice(0, 120) : 'unreadable';
    return refused('not-json', `it is not JSON, or was cut short (${why})`);
  }
}

const KINDS: Record<string, string> = {
  'manege-lesson': 'a lesson',
  'manege-exercise': 'an exercise',
  'manege-hand-in': 'a hand-in',
  'manege-key': 'a key',
};

/** The problem of a file that is none of ours, another kind of ours, or of an unknown version; else null. */
export function headingProblem(value: unknown, format: string, newest: number): Problem | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return problem('other-format', `it is not ${KINDS[format]} of Manege`);
  const { format: found, version } = value as { format?: unknown; version?: unknown };
  if (found !== format) {
    const other = typeof found === 'string' ? KINDS[found] : undefined;
    return problem(
      'other-format',
      other ? `it is ${other}, and ${KINDS[format]} is needed here` : `it is not ${KINDS[format]} of Manege`,
    );
  }
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return problem('no-version', 'it has no version number');
  if (version > newest)
    return problem(
      'newer-version',
      `it has version ${version}, and this Manege reads up to version ${newest}: reload the page to get the newest`,
    );
  return null;
}
