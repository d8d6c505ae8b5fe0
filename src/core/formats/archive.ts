import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { done, type Result, refused } from '../values/result';
import { MOST_BYTES, MOST_UNPACKED, sizeText } from './size-limit';

/** A file in an archive; its name may hold folders. */
export interface ArchivedFile {
  readonly name: string;
  readonly text: string;
}

export const MOST_ARCHIVED = 5000;

/** Whether bytes are those of a zip archive. */
export const isArchive = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3;

/** Files as one zip archive. */
export const archived = (files: readonly ArchivedFile[]): Uint8Array<ArrayBuffer> =>
  zipSync(Object.fromEntries(files.map(({ name, text }) => [name, strToU8(text)])), {
    level: 6,
  }) as Uint8Array<ArrayBuffer>;

/** The files of a zip archive; refused before anything is unpacked where they would be too much. */
export function unarchived(bytes: Uint8Array): Result<ArchivedFile[]> {
  let size = 0;
  let count = 0;
  let isTooMuch = false;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (name.endsWith('/')) return false;
        size += originalSize;
        isTooMuch ||= ++count > MOST_ARCHIVED || size > MOST_UNPACKED || originalSize > MOST_BYTES;
        return !isTooMuch;
      },
    });
    if (isTooMuch)
      return refused(
        'archive-too-large',
        `it unpacks to more than ${MOST_ARCHIVED} files, ${sizeText(MOST_UNPACKED)}, or ${sizeText(MOST_BYTES)} in one`,
      );
    return done(Object.entries(files).map(([name, content]) => ({ name, text: strFromU8(content) })));
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    return refused('damaged-archive', `it is no zip archive, or was cut short (${why})`);
  }
}
