import { strFromU8, strToU8, unzlibSync, zlibSync } from 'fflate';
import type { Lesson } from '../../circuit/lesson';
import { fromBase64Url, toBase64Url } from '../../sealing/base64url';
import { MOST_REPLAYED, type RunMoment } from '../../simulate/run-moment';
import { done, located, type Result, refusal, refused, within } from '../../values/result';
import { firstIssue, type Infer, list, text, z } from '../../values/schema';
import { lessonFromJson } from '../lesson-file';
import { readJson } from '../read-json';
import { lessonToFile } from '../write-lesson';
import { DICTIONARY_1 } from './dictionary';

/** Characters of a fragment from which a lesson goes as a file: browsers and servers of courses begin to cut there. */
export const LONGEST_LESSON_FRAGMENT = 60_000;
/** Bytes of JSON that are unpacked at most. */
const MOST_BYTES = 20_000_000;
const Key = text(4000);
const Bit = z.union([z.literal(0), z.literal(1)]);
const Time = z.number().check(z.minimum(0), z.maximum(Number.MAX_SAFE_INTEGER));

/** A `RunMoment`. */
export const MomentFile = z.object({
  at: Time,
  held: z.optional(z.record(Key, z.enum(['0', '1', 'X', 'Z']))),
  begun: z.optional(list(Key, 10_000)),
  replay: z.optional(list(z.tuple([Time, Key, Bit]), MOST_REPLAYED)),
});

/** The view of a lesson that a link restores. */
const LinkViewFile = z.object({
  /** The id of the sheet that is open. */
  sheet: text(64),
  /** The ids of the open faces; an id that this version does not know is ignored. */
  faces: list(text(40), 40),
  /** Inputs at 1, by `sourceKey`. */
  on: list(Key, 10_000),
  moment: z.optional(MomentFile),
});
export type LinkView = Readonly<Omit<Infer<typeof LinkViewFile>, 'moment'>> & {
  readonly moment?: RunMoment | undefined;
};

export interface LessonLink {
  readonly lesson: Lesson;
  readonly view: LinkView;
}

/**
 * Encodes a lesson and its view as the fragment of a link, without `#`: `1.`, then JSON compressed with the dictionary of
 * links (zlib, RFC 1950) in base64url (RFC 4648).
 */
export function lessonToFragment({ lesson, view }: LessonLink): string {
  const json = JSON.stringify({ lesson: lessonToFile(lesson), view });
  return `1.${toBase64Url(zlibSync(strToU8(json), { level: 9, dictionary: strToU8(DICTIONARY_1) }))}`;
}

/** Reads the fragment of a link as `lessonToFragment` writes it. */
export function lessonFromFragment(fragment: string): Result<LessonLink> {
  const version = /^(\d+)\./.exec(fragment);
  if (version && version[1] !== '1')
    return refused('newer-link', 'it was made by a newer version of Manege: reload the page to get that one');
  let read: Result<unknown>;
  try {
    const packed = fromBase64Url(fragment.slice(version?.[0].length ?? 0));
    const unpacked = unzlibSync(packed, {
      dictionary: strToU8(DICTIONARY_1),
      out: new Uint8Array(roomFor(packed)),
    });
    read = readJson(strFromU8(unpacked));
  } catch {
    read = refused('damaged-link', '');
  }
  if (!read.ok)
    return refused(
      'damaged-link',
      'the link is damaged or was cut short: ask for it again, or for the lesson as a file',
    );
  const content = z.object({ lesson: z.unknown(), view: LinkViewFile }).safeParse(read.value);
  if (!content.success) return refusal(within('the link', located(firstIssue(content.error))));
  const lesson = lessonFromJson(content.data.lesson);
  return lesson.ok ? done({ lesson: lesson.value, view: content.data.view }) : lesson;
}

/** Bytes that a packed text may have unpacked: deflate makes a text shorter by 1,032 at the very best. */
const roomFor = (packed: Uint8Array): number => Math.min(MOST_BYTES, 1100 * packed.length + 1000);
