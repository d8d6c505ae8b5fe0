import type { core } from '../values/schema';

/** What came in from outside: the thing itself, or one sentence that says what is wrong and where. */
export type Read<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problem: string };

export const refused = (problem: string): { ok: false; problem: string } => ({ ok: false, problem });

/** Most bytes of a file that is opened; larger ones are refused before they are read. */
export const MOST_BYTES = 20 * 1024 * 1024;
const DEEPEST = 40;

/** `12.3 MB`, for messages. */
export function sizeText(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.ceil(bytes / 1024)} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

/** A sentence if a file of that size is not opened, else null. */
export function tooLarge(bytes: number): string | null {
  return bytes > MOST_BYTES
    ? `it has ${sizeText(bytes)}; files up to ${sizeText(MOST_BYTES)} are opened`
    : null;
}

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
export function readJson(text: string): Read<unknown> {
  const large = tooLarge(text.length);
  if (large) return refused(large);
  if (text.trim() === '') return refused('it is empty');
  if (depthOf(text) > DEEPEST) return refused(`it is nested deeper than ${DEEPEST} levels`);
  try {
    return { ok: true, value: JSON.parse(text.replace(/^\uFEFF/, '')) };
  } catch (error) {
    const why = error instanceof Error ? error.message.replaceAll(/\s+/g, ' ').slice(0, 120) : 'unreadable';
    return refused(`it is not JSON, or was cut short (${why})`);
  }
}

const KINDS: Record<string, string> = {
  'manege-lesson': 'a lesson',
  'manege-exercise': 'an exercise',
  'manege-hand-in': 'a hand-in',
};

/** Says so where a file is none of ours, another kind of ours, or of a version that is not known. */
export function checkHeading(value: unknown, format: string, newest: number): string | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return `it is not ${KINDS[format]} of Manege`;
  const { format: found, version } = value as { format?: unknown; version?: unknown };
  if (found !== format) {
    const other = typeof found === 'string' ? KINDS[found] : undefined;
    return other
      ? `it is ${other}, and ${KINDS[format]} is needed here`
      : `it is not ${KINDS[format]} of Manege`;
  }
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return 'it has no version number';
  if (version > newest)
    return `it has version ${version}, and this Manege reads up to version ${newest}: reload the page to get the newest`;
  return null;
}

/** The first complaint of a schema with the path to the place: `sheets › 1 › name: …`. */
export function firstIssue(error: core.$ZodError): string {
  const issue = error.issues[0]!;
  const place = issue.path.map((p) => (typeof p === 'number' ? p + 1 : String(p))).join(' › ');
  return place ? `at ${place}: ${issue.message}` : issue.message;
}
