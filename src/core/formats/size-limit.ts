import { type Problem, problem } from '../values/result';

/** Most bytes of a file that is opened; larger ones are refused before they are read. */
export const MOST_BYTES = 20 * 1024 * 1024;

/** `12.3 MB`, for messages. */
export function sizeText(bytes: number): string {
  return bytes < 1024 * 1024 ? `${Math.ceil(bytes / 1024)} kB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}

/** The problem of a file of that many bytes; null if it can be opened. */
export function tooLarge(bytes: number): Problem | null {
  if (bytes <= MOST_BYTES) return null;
  return problem(
    'file-too-large',
    `it has ${sizeText(bytes)}; files up to ${sizeText(MOST_BYTES)} are opened`,
  );
}
