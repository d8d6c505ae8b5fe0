import { done, type Refused, type Result, refused } from '../values/result';
import { listed } from '../values/wording';
import {
  type FileContent,
  type Format,
  formatOfFile,
  isReadAt,
  type ReadOptions,
  type ReadPlace,
} from './format';
import { FORMATS } from './kinds';
import { readJson } from './read-json';

/** A file whose format is known. */
export interface KnownFile {
  readonly format: Format;
  readonly text: string;
  /** Its content where it is JSON. */
  readonly json: unknown;
}

/**
 * Identifies a file that has come in at a place: by its ending, or, for our JSON files under any name, by its
 * heading.
 */
export function identify(file: string, text: string, place: ReadPlace): Result<KnownFile> {
  const byEnding = formatOfFile(FORMATS, file);
  if (byEnding && byEnding.heading === undefined)
    return isReadAt(place)(byEnding)
      ? done({ format: byEnding, text, json: undefined })
      : notHere(byEnding, place);
  const json = readJson(text);
  if (!json.ok) return json;
  const heading = (json.value as { format?: unknown } | null)?.format;
  const format = FORMATS.find((f) => f.heading !== undefined && f.heading === heading);
  if (!format) return refused('other-format', 'it is not a file of Manege');
  if (!isReadAt(place)(format)) return notHere(format, place);
  return done({ format, text, json: json.value });
}

function notHere({ noun, home }: Format, place: ReadPlace): Refused {
  const needed = listed(
    [...new Set(FORMATS.filter(isReadAt(place)).map((format) => format.kin ?? format.noun))],
    'or',
  );
  const hint = home && place !== 'command line' ? ` (${home})` : '';
  return refused('not-read-here', `it is ${noun}${hint}, and ${needed} is needed here`);
}

/** The name of a file without the ending of its format. */
export function titleOfFile(file: string, { endings }: Format): string {
  const ending = endings.find((e) => file.toLowerCase().endsWith(e));
  return ending ? file.slice(0, -ending.length) : file;
}

/** Reads a file whose format is known. */
export async function readKnown(file: KnownFile, options: ReadOptions): Promise<Result<FileContent>> {
  return (await file.format.read!.load())(file, options);
}
