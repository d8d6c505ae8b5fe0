import { type Refused, refused } from '../values/result';
import { MOST_BYTES, sizeText } from './size-limit';

/*
 * Files that are packed one by one (gzip, RFC 1952): a lesson of a hundred thousand gates takes 3 MB so. Whatever is read may be.
 */

export const GZIP_ENDING = '.gz';
export const GZIP_TYPE = 'application/gzip';

export const isGzipName = (name: string): boolean => name.toLowerCase().endsWith(GZIP_ENDING);

/** The name of what a packed file holds; any other name as it is. */
export const withoutGzip = (name: string): string =>
  isGzipName(name) ? name.slice(0, -GZIP_ENDING.length) : name;

export const unpacksToMore = (): Refused =>
  refused('file-too-large', `it unpacks to more than ${sizeText(MOST_BYTES)}, the most of a file`);

export const damagedGzip = (): Refused =>
  refused('damaged-gzip', 'it is not packed as its name says (gzip), or was cut short');
