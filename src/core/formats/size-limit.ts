import { type Problem, problem } from '../values/result';

/** Most bytes of a file that is opened; larger ones are refused before they are read. */
export const MOST_BYTES = 20 * 1024 * 1024;

/** Bytes of all files of an archive together, unpacked, and of data that a file states once and refers to many times. */
export const MOST_UNPACKED = 10 * MOST_BYTES;

/** `12.3 MB`, for messages. */
export function sizeText(bytes: number): string {
  if (bytes < 1024 ** 2) return `${Math.ceil(bytes / 1024)} kB`;
  return bytes < 1024 ** 3 ? `${(bytes / 1024 ** 2).toFixed(1)} MB` : `${(bytes / 1024 ** 3).toFixed(1)} GB`;
}

/** The problem of a file of that many bytes; null if it can be opened. */
export function tooLarge(bytes: number, most = MOST_BYTES): Problem | null {
  if (bytes <= most) return null;
  return problem('file-too-large', `it has ${sizeText(bytes)}; files up to ${sizeText(most)} are opened`);
}
