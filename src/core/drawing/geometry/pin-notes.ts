import type { Box, Point } from '../../circuit/geometry';
import type { Part, Sheet } from '../../circuit/sheet';
import { bodyOf, pinsOf } from './placement';
import { type Stroke, spatialIndexOf } from './spatial-index';

/** The designator of a part in its logic package, and the number of each of its pins by the name of the port. */
export interface PinNote {
  /** `U2b`. */
  readonly ref: string;
  readonly pins: ReadonlyMap<string, string>;
}

/** Designators and numbers of pins by the ids of parts. */
export type PinNotes = ReadonlyMap<string, PinNote>;

/** A text beside a part. */
export interface NoteText {
  readonly at: Point;
  readonly text: string;
  /** Height in grid steps. */
  readonly size: number;
  readonly align: 'left' | 'center' | 'right';
  readonly isRef: boolean;
}

const REF_SIZE = 1;
const NUMBER_SIZE = 0.85;

/** Width of a letter for each step of height. */
const LETTER = 0.62;

/**
 * The texts of a note, in grid steps of the sheet: the designator above the body, or where no wire runs through it, and each
 * number above the lead of its pin.
 */
export function noteTexts(sheet: Sheet, part: Part, { ref, pins }: PinNote): NoteText[] {
  const texts: NoteText[] = [{ ...placeOfRef(sheet, part, ref), text: ref, size: REF_SIZE, isRef: true }];
  for (const { port, at, out } of pinsOf(part)) {
    const text = pins.get(port.name);
    if (text === undefined) continue;
    const isUpright = out.y !== 0;
    texts.push({
      at: isUpright
        ? { x: at.x + 0.3, y: at.y + (out.y > 0 ? -0.1 : 0.8) }
        : { x: at.x - out.x * 0.1, y: at.y - 0.3 },
      text,
      size: NUMBER_SIZE,
      align: isUpright ? 'left' : out.x < 0 ? 'left' : 'right',
      isRef: false,
    });
  }
  return texts;
}

/** Above the body, below it, or beside its upper or lower edge: the first place that no wire crosses. */
function placeOfRef(sheet: Sheet, part: Part, ref: string): Pick<NoteText, 'at' | 'align'> {
  const body = bodyOf(part);
  const middle = (body.x0 + body.x1) / 2;
  const above = body.y0 - (part.label ? 2 : 0.45);
  const below = body.y1 + 1.2;
  const places: readonly Pick<NoteText, 'at' | 'align'>[] = [
    { at: { x: middle, y: above }, align: 'center' },
    { at: { x: middle, y: below }, align: 'center' },
    { at: { x: body.x1, y: above }, align: 'left' },
    { at: { x: body.x0, y: above }, align: 'right' },
    { at: { x: body.x1, y: below }, align: 'left' },
  ];
  const width = ref.length * LETTER * REF_SIZE;
  const index = spatialIndexOf(sheet);
  return (
    places.find(({ at, align }) => {
      const x0 = align === 'center' ? at.x - width / 2 : align === 'left' ? at.x : at.x - width;
      const box = { x0, y0: at.y - REF_SIZE, x1: x0 + width, y1: at.y + 0.15 };
      return !index.wiresIn(box).some((wire) => passes(wire, box));
    }) ?? places[0]!
  );
}

/** Whether a wire of straight pieces runs through a box. */
const passes = ({ points }: Stroke, box: Box): boolean =>
  points.slice(1).some((to, i) => {
    const from = points[i]!;
    return (
      Math.min(from.x, to.x) <= box.x1 &&
      Math.max(from.x, to.x) >= box.x0 &&
      Math.min(from.y, to.y) <= box.y1 &&
      Math.max(from.y, to.y) >= box.y0
    );
  });
