import { strFromU8, strToU8, unzlibSync, zlibSync } from 'fflate';
import { SheetFile } from '../circuit/lesson-schema';
import { flatSheet } from '../exercise/begin';
import { type EditFrame, MOST_FRAMES } from '../exercise/edit-frames';
import { sheetFromFile } from '../parts/sheet-from-file';
import { fromBase64Url, toBase64Url } from '../sealing/base64url';
import { done, located, type Result, refusal, refused } from '../values/result';
import { firstIssue, list, text, z } from '../values/schema';

/** Longest text of frames that stands in a hand-in, and what it may become. */
export const LONGEST_FRAMES = 200_000;
const LARGEST = 16_000_000;

/** Each sheet of a step may be a frame, and each sheet once more for how it was before. */
const Frames = list(z.object({ step: text(200), sheet: SheetFile }), 4 * MOST_FRAMES);

/** How the sheets came about as one word: JSON, zlib (RFC 1950), base64url (RFC 4648); the oldest are left out where it is too long. */
export function packFrames(frames: readonly EditFrame[]): string {
  const packed = toBase64Url(zlibSync(strToU8(JSON.stringify(frames)), { level: 6 }));
  return packed.length <= LONGEST_FRAMES || frames.length < 2
    ? packed.slice(0, LONGEST_FRAMES)
    : packFrames(frames.slice(Math.ceil(frames.length / 4)));
}

/** Reads how the sheets came about. */
export function readFrames(packed: string): Result<EditFrame[]> {
  const damaged = refused('damaged-frames', 'how it was drawn is damaged in this file');
  if (packed.length > LONGEST_FRAMES) return damaged;
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(unzlibSync(fromBase64Url(packed), { out: new Uint8Array(LARGEST) })));
  } catch {
    return damaged;
  }
  const parsed = Frames.safeParse(json);
  if (!parsed.success) return refusal(located(firstIssue(parsed.error)));
  const frames: EditFrame[] = [];
  for (const { step, sheet } of parsed.data) {
    const read = sheetFromFile(sheet);
    if (!read.ok) return read;
    frames.push({ step, sheet: flatSheet(read.value) });
  }
  return done(frames);
}
