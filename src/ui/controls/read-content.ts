import {
  type FileContent,
  formatOfFile,
  isReadAt,
  type ReadOptions,
  type ReadPlace,
} from '@/core/formats/format';
import { GZIP_ENDING } from '@/core/formats/gzip';
import { FORMATS } from '@/core/formats/kinds';
import { identify, titleOfFile } from '@/core/formats/read-content';
import { mapped, type Result } from '@/core/values/result';
import { load } from '@/loading/load';
import { randomId } from '@/store/database';
import { readInWorker } from '@/workers/file-client';
import type { ReadFile } from './read-files';

/**
 * The `accept` attribute of a button for files at a place. Browsers look at the last part of an ending only.
 */
export const acceptedAt = (place: ReadPlace): string =>
  [
    GZIP_ENDING,
    ...new Set(
      FORMATS.filter(isReadAt(place)).flatMap(({ endings, heading, mimeType }) => [
        ...endings.map((ending) => ending.slice(ending.lastIndexOf('.'))),
        ...(heading === undefined ? [] : [mimeType]),
      ]),
    ),
  ].join(',');

/** Characters of a file that is read by a worker, whatever it is. */
const LARGE = 500_000;

type Options = Omit<ReadOptions, 'title'>;

/** Reads a file that is read quickly, with its reader fetched. */
async function readHere(
  name: string,
  text: string,
  place: ReadPlace,
  options: Options,
): Promise<{ read: Result<FileContent>; isOurs: boolean }> {
  const known = identify(name, text, place);
  if (!known.ok) return { read: known, isOurs: false };
  const { format } = known.value;
  const read = await load(`the reader of ${format.noun}`, () => format.read!.load());
  const isOurs = format.heading !== undefined;
  return { read: read(known.value, { ...options, title: titleOfFile(name, format) }), isOurs };
}

/**
 * Reads a file that was dropped or chosen at a place.
 * @param more files that came together with it, and a list that collects notes about the result.
 */
export async function readContent(
  { name, text }: ReadFile,
  place: ReadPlace,
  more: Pick<ReadOptions, 'includes'> & { readonly notes?: string[] } = {},
): Promise<Result<FileContent>> {
  if (!text.ok) return text;
  const options: Options = {
    laidOut: true,
    everything: true,
    includes: more.includes,
    tell: (note: string) => void more.notes?.push(note),
  };
  const isSlow = formatOfFile(FORMATS, name)?.read?.isSlow || text.value.length > LARGE;
  const { read, isOurs } = await (isSlow ? readInWorker : readHere)(name, text.value, place, options);
  // A file of another program has no identity of its own.
  if (isOurs) return read;
  return mapped(read, (content) =>
    content.is === 'lesson' ? { ...content, lesson: { ...content.lesson, id: randomId() } } : content,
  );
}
