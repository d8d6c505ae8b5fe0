import {
  type Box,
  boundingBox,
  contains,
  grown,
  type Point,
  type Turn,
  turned,
} from '../../circuit/geometry';
import { type End, isPinEnd, type Params, type Part, type Sheet, type Wire } from '../../circuit/sheet';
import { kindOf } from '../../parts/catalogue';
import type { Appearance, Port } from '../../parts/part-kind';
import { ZERO } from '../../values/logic';
import { plainText } from '../../values/markup';

/** A port with its place on the sheet. */
export interface Pin {
  readonly part: string;
  readonly port: Port;
  readonly at: Point;
  /** One grid step straight out of the part. */
  readonly out: Point;
}

const SIDES: Record<Port['side'], Point> = {
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
  top: { x: 0, y: -1 },
  bottom: { x: 0, y: 1 },
};

/** Turns a direction of the part's own as the part stands on the sheet. */
export function oriented(p: Point, part: Pick<Part, 'turn' | 'mirrored'>): Point {
  return turned(part.mirrored ? { x: -p.x, y: p.y } : p, part.turn);
}

/** Brings a point of the part's own coordinates onto the sheet. */
function onSheet(p: Point, part: Part): Point {
  const t = oriented(p, part);
  return { x: t.x + part.at.x, y: t.y + part.at.y };
}

/** Brings a point of the sheet into the part's own coordinates. */
export function inPart(p: Point, part: Part): Point {
  const t = turned({ x: p.x - part.at.x, y: p.y - part.at.y }, ((4 - part.turn) % 4) as Turn);
  return part.mirrored ? { x: -t.x, y: t.y } : t;
}

/** Which way a text runs that is drawn upright on a part, whatever way that is turned. */
export function textSide(
  own: 'left' | 'center' | 'right' | undefined,
  part: Pick<Part, 'turn' | 'mirrored'>,
): 'left' | 'center' | 'right' {
  if (part.turn % 2 === 1) return 'center';
  const swapped = (part.turn === 2) !== (part.mirrored === true);
  if (!swapped || own === 'center') return own ?? 'left';
  return own === 'right' ? 'left' : 'right';
}

/** A pin relative to the place of its part. */
export interface LocalPin {
  readonly port: Port;
  readonly at: Point;
  readonly out: Point;
}

/**
 * The geometry shared by all parts of one kind with equal parameters and orientation, relative to their place, in grid steps; computed
 * lazily.
 */
interface SharedGeometry {
  readonly part: Part;
  pins?: readonly LocalPin[];
  body?: Box;
  extent?: Box;
  /** All that is painted but the label. */
  painted?: Box;
  captions?: readonly Box[];
}

const ORIGIN: Point = { x: 0, y: 0 };
/** Thousands of parts share one parameter object (`sharedParams`), so a few entries serve all of them. */
const geometries = new WeakMap<Params, SharedGeometry[]>();

function sharedGeometryOf(part: Part): SharedGeometry {
  let alike = geometries.get(part.params);
  if (!alike) {
    alike = [];
    geometries.set(part.params, alike);
  }
  for (const geometry of alike) {
    const was = geometry.part;
    if (was.turn === part.turn && was.kind === part.kind && !was.mirrored === !part.mirrored) return geometry;
  }
  const { kind, turn, mirrored, params } = part;
  const geometry = { part: { id: '', kind, at: ORIGIN, turn, mirrored, label: '', rank: 0, params } };
  alike.push(geometry);
  return geometry;
}

const moved = (box: Box, { x, y }: Point): Box => ({
  x0: box.x0 + x,
  y0: box.y0 + y,
  x1: box.x1 + x,
  y1: box.y1 + y,
});

const pinsByPart = new WeakMap<Part, readonly Pin[]>();

export function pinsOf(part: Part): readonly Pin[] {
  let pins = pinsByPart.get(part);
  if (!pins) {
    const { x, y } = part.at;
    pins = localPinsOf(part).map(({ port, at, out }) => ({
      part: part.id,
      port,
      at: { x: at.x + x, y: at.y + y },
      out,
    }));
    pinsByPart.set(part, pins);
  }
  return pins;
}

/** The pins of a part relative to its place. Unlike `pinsOf` it keeps nothing for the single part, which counts on large sheets. */
export function localPinsOf(part: Part): readonly LocalPin[] {
  const geometry = sharedGeometryOf(part);
  geometry.pins ??= kindOf(part)
    .ports(part.params)
    .map((port) => ({ port, at: oriented(port, part), out: oriented(SIDES[port.side], part) }));
  return geometry.pins;
}

/** The pin of that name, relative to the place of its part; null if there is none. */
export function localPinOf(part: Part, port: string): LocalPin | null {
  for (const pin of localPinsOf(part)) if (pin.port.name === port) return pin;
  return null;
}

/** The body on the sheet. */
export function bodyOf(part: Part): Box {
  const geometry = sharedGeometryOf(part);
  geometry.body ??= localBody(part);
  return moved(geometry.body, part.at);
}

function localBody(part: Part): Box {
  const b = kindOf(part).body(part.params);
  const p = oriented({ x: b.x0, y: b.y0 }, part);
  const q = oriented({ x: b.x1, y: b.y1 }, part);
  return { x0: Math.min(p.x, q.x), y0: Math.min(p.y, q.y), x1: Math.max(p.x, q.x), y1: Math.max(p.y, q.y) };
}

/** Body and pins together. */
export function extentOf(part: Part): Box {
  const geometry = sharedGeometryOf(part);
  geometry.extent ??= localExtent(geometry.part);
  return moved(geometry.extent, part.at);
}

function localExtent(part: Part): Box {
  let { x0, y0, x1, y1 } = bodyOf(part);
  for (const { at } of localPinsOf(part)) {
    x0 = Math.min(x0, at.x);
    y0 = Math.min(y0, at.y);
    x1 = Math.max(x1, at.x);
    y1 = Math.max(y1, at.y);
  }
  return { x0, y0, x1, y1 };
}

/** How wide a label is, roughly, in grid steps: the painter measures, the layout only keeps clear of it. */
const LETTER = 0.62;

/** Height of the letters of labels in grid steps; and from their baseline to the top of capitals. */
export const LABEL_SIZE = 1.15;
const CAPITAL = 0.8;

/** The widths of letters of the text face, bold, as shares of their size, rounded up; others are `USUAL`. */
const WIDTHS: readonly (readonly [letters: RegExp, width: number])[] = [
  [/[ijl'|.,:;!`]/, 0.32],
  [/[frtI()[\]{}" -]/, 0.42],
  [/[mwMW@%]/, 0.9],
  [/[A-Z0-9&#+=~<>$]/, 0.72],
];
const USUAL = 0.6;
const widthOf = (letter: string) => WIDTHS.find(([letters]) => letters.test(letter))?.[1] ?? USUAL;

/** Grid steps between a body and its label. */
const LABEL_GAP = 0.6;

/** Of parts with a label; the others have that of their shape. */
const footprints = new WeakMap<Part, Box>();

/** Everything that is painted of a part, its label with it. */
export function footprintOf(part: Part): Box {
  if (!part.label) return moved(paintedOf(part), part.at);
  let box = footprints.get(part);
  if (!box) {
    const label = labelBox({ ...part, at: ORIGIN });
    box = moved(label ? boundingBox([paintedOf(part), label])! : paintedOf(part), part.at);
    footprints.set(part, box);
  }
  return box;
}

function paintedOf(part: Part): Box {
  const geometry = sharedGeometryOf(part);
  geometry.painted ??= findPainted(geometry.part);
  return geometry.painted;
}

function findPainted(part: Part): Box {
  const e = extentOf(part);
  const below = kindOf(part).role ? e.y1 + 1.4 : e.y1;
  return boundingBox([{ ...e, y1: below }, ...captionsOf(part)])!;
}

/** How tall a line of text is beside the height of its letters. */
const LINE_OF_TEXT = 1.2;

/** The boxes of the texts that a part carries outside its body: a frequency, a place value, a key. */
export function captionsOf(part: Part): Box[] {
  const geometry = sharedGeometryOf(part);
  geometry.captions ??= findCaptions(geometry.part);
  return geometry.captions.map((box) => moved(box, part.at));
}

function findCaptions(part: Part): Box[] {
  const kind = kindOf(part);
  if (kind.isNote) return [];
  const body = grown(kind.body(part.params), 0.3);
  const look: Appearance = { standard: 'distinctive', value: () => ZERO, held: false };
  return kind.symbol(part.params, look).flatMap((shape): Box[] => {
    if (shape.shape !== 'text' || contains(body, shape)) return [];
    const { x, y } = onSheet(shape, part);
    const wide = shape.text.length * shape.size * LETTER;
    const tall = shape.size * LINE_OF_TEXT;
    const side = textSide(shape.align, part);
    const x0 = side === 'left' ? x : side === 'right' ? x - wide : x - wide / 2;
    return [{ x0, y0: y - tall / 2, x1: x0 + wide, y1: y + tall / 2 }];
  });
}

/** Where the letters of a part's label are written, on their baseline; null where none is drawn. */
export function labelPlace(part: Part): { at: Point; align: 'left' | 'right' | 'center' } | null {
  const body = bodyOf(part);
  const middle = (body.y0 + body.y1) / 2 + 0.4;
  const above = body.y0 - LABEL_GAP;
  switch (part.label ? labelSide(part) : 'none') {
    case 'left':
      return { at: { x: body.x0 - LABEL_GAP, y: middle }, align: 'right' };
    case 'right':
      return { at: { x: body.x1 + LABEL_GAP, y: middle }, align: 'left' };
    case 'top': {
      const beside = labelBesidePins(part);
      return beside === null
        ? { at: { x: (body.x0 + body.x1) / 2, y: above }, align: 'center' }
        : { at: { x: beside, y: above }, align: 'left' };
    }
    default:
      return null;
  }
}

/** The room that the label of a part takes, roughly; null where none is drawn. */
export function labelBox(part: Part): Box | null {
  const e = extentOf(part);
  const wide = plainText(part.label).length * LETTER + LABEL_GAP;
  const [x, y] = [(e.x0 + e.x1) / 2, (e.y0 + e.y1) / 2];
  switch (part.label ? labelSide(part) : 'none') {
    case 'left':
      return { x0: e.x0 - wide, y0: y - 0.7, x1: e.x0, y1: y + 0.7 };
    case 'right':
      return { x0: e.x1, y0: y - 0.7, x1: e.x1 + wide, y1: y + 0.7 };
    case 'top': {
      const beside = labelBesidePins(part);
      if (beside === null) return { x0: x - wide / 2, y0: e.y0 - 1.7, x1: x + wide / 2, y1: e.y0 };
      const { y0 } = bodyOf(part);
      return { x0: beside - 0.3, y0: y0 - 1.7, x1: beside - 0.3 + wide, y1: y0 };
    }
    default:
      return null;
  }
}

/** The letters of a part's label alone, roughly; null where none is drawn. */
export function lettersOf(part: Part): Box | null {
  const place = labelPlace(part);
  if (!place) return null;
  const { x, y } = place.at;
  const wide = LABEL_SIZE * [...plainText(part.label)].reduce((sum, letter) => sum + widthOf(letter), 0);
  const x0 = place.align === 'left' ? x : place.align === 'right' ? x - wide : x - wide / 2;
  return { x0, y0: y - CAPITAL, x1: x0 + wide, y1: y };
}

type LabelSide = 'left' | 'right' | 'top' | 'none';

/** The side of the body on which the label is free of wires, whatever way the part is turned. */
export function labelSide(part: Part): LabelSide {
  const usual = usualLabelSide(part);
  if (usual === 'none' || isFreeOfPins(part, usual)) return usual;
  return (['top', 'right', 'left'] as const).find((side) => isFreeOfPins(part, side)) ?? usual;
}

/** Where a label over a part begins that has pins there: to the right of them; null where it stands in the middle. */
function labelBesidePins(part: Part): number | null {
  const above = localPinsOf(part).filter(({ out }) => out.y < 0);
  return above.length === 0 ? null : Math.max(...above.map(({ at }) => at.x)) + part.at.x + 0.7;
}

function usualLabelSide(part: Part): LabelSide {
  const own = kindOf(part).labelSide;
  const side = typeof own === 'function' ? own(part.params) : own;
  if (side === 'left' || side === 'right') {
    if (part.turn % 2 === 1 || (part.turn === 2) === (part.mirrored === true)) return side;
    return side === 'left' ? 'right' : 'left';
  }
  return side;
}

const isFreeOfPins = (part: Part, side: 'left' | 'right' | 'top'): boolean =>
  localPinsOf(part).every(({ out }) =>
    side === 'top' ? out.y >= 0 : side === 'left' ? out.x >= 0 : out.x <= 0,
  );

/** The objects of a sheet that decide where ends lie. */
type Parts = Pick<Sheet, 'parts'> & Partial<Sheet>;

/** Where an end lies on the sheet, or null where its part or port is not there. */
export function endPoint(sheet: Parts, end: End): Point | null {
  if (!isPinEnd(end)) return end.at;
  return pinOf(sheet, end.part, end.port)?.at ?? null;
}

export function pinOf(sheet: Parts, partId: string, port: string): Pin | null {
  const part = sheet.parts.get(partId);
  return (part && pinsOf(part).find((p) => p.port.name === port)) ?? null;
}

/**
 * The course of a wire from end to end, orthogonal whatever the file says: where two points are not in line a
 * corner is put between them. Empty where an end is missing.
 */
export function courseOf(sheet: Parts, wire: Wire): readonly Point[] {
  const holder = (end: End) => (isPinEnd(end) ? sheet.parts.get(end.part) : undefined);
  const [from, to] = [holder(wire.from), holder(wire.to)];
  const known = courses.get(wire);
  if (known && known.from === from && known.to === to) return known.points;
  const points = findPoints(sheet, wire);
  courses.set(wire, { from, to, points });
  return points;
}

/** Courses found before, with the parts at their ends: while those stay as they are, so does the course. */
const courses = new WeakMap<
  Wire,
  { readonly from: Part | undefined; readonly to: Part | undefined; readonly points: readonly Point[] }
>();

function findPoints(sheet: Parts, wire: Wire): Point[] {
  const a = endPoint(sheet, wire.from);
  const b = endPoint(sheet, wire.to);
  if (!a || !b) return [];
  const points: Point[] = [a];
  for (const p of [...wire.course, b]) {
    const last = points.at(-1)!;
    if (last.x !== p.x && last.y !== p.y) points.push({ x: p.x, y: last.y });
    points.push(p);
  }
  return points;
}
