import { type Refused, refused } from '../values/result';
import { MOST_BYTES, sizeText } from './size-limit';

/*
 * Single files compressed with gzip (RFC 1952), by the ending of their name. Every readable format may be; a lesson of 100,000 gates
 * shrinks from 11 to 3 MB.
 */

export const GZIP_ENDING = '.gz';
export const GZIP_TYPE = 'application/gzip';

export const isGzipName = (name: string): boolean => name.toLowerCase().endsWith(GZIP_ENDING);

/** The name without the ending of gzip, if it has that. */
export const withoutGzip = (name: string): string =>
  isGzipName(name) ? name.slice(0, -GZIP_ENDING.length) : name;

export const unpacksToMore = (): Refused =>
  refused('file-too-large', `it unpacks to more than ${sizeText(MOST_BYTES)}, the most of a file`);

export const damagedGzip = (): Refused =>
  refused('damaged-gzip', 'it is not packed as its name says (gzip), or was cut short');
