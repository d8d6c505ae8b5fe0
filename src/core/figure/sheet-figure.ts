import type { Point } from '../circuit/geometry';
import {
  DEFAULT_SETTINGS,
  isPinEnd,
  type Part,
  type Settings,
  type Sheet,
  type Symbols,
} from '../circuit/sheet';
import { type Step as CourseStep, crossingsOf, HOP, stepsOf } from '../drawing/geometry/crossings';
import { noteTexts, type PinNotes } from '../drawing/geometry/pin-notes';
import { courseOf, labelPlace, oriented, pinsOf, textSide } from '../drawing/geometry/placement';
import { spatialIndexOf } from '../drawing/geometry/spatial-index';
import { kindOf } from '../parts/catalogue';
import type { Shape } from '../parts/shape';
import { X } from '../values/logic';
import { type Align, type Figure, fitted, lettersAt, type Mark, type Stroke } from './figure';
import { COLOUR_INKS, type Inks } from './inks';
import { circleData } from './outlines';
import { type Matrix, mapped, stepsOfPath } from './path-data';

/** Pixels of a grid step. */
const STEP = 12;
const WHOLE: Matrix = { a: STEP, b: 0, c: 0, d: STEP, e: 0, f: 0 };
/** Pixels of ground around a sheet. */
const MARGIN = 18;

/** Options of a sheet's figure; each has a usual value. */
export interface SheetLook {
  /** Whether gates have distinctive or rectangular outlines, and how crossings are drawn. */
  readonly settings?: Pick<Settings, 'symbols' | 'crossings'> | undefined;
  /** Designators and numbers of pins, where they are shown. */
  readonly notes?: PinNotes | undefined;
  readonly inks?: Inks | undefined;
}

/** A sheet as a figure: the same shapes as on the screen, without signals. */
export function sheetFigure(sheet: Sheet, look: SheetLook = {}): Figure {
  const { settings = DEFAULT_SETTINGS, notes, inks = COLOUR_INKS } = look;
  const marks: Mark[] = [
    ...wireMarks(sheet, settings.crossings, inks),
    ...[...sheet.parts.values()].flatMap((part) => partMarks(part, settings.symbols, inks)),
  ];
  for (const [id, note] of notes ?? []) {
    const part = sheet.parts.get(id);
    for (const { at, text, size, align, isRef } of part ? noteTexts(sheet, part, note) : [])
      marks.push(
        isRef
          ? letters(at, text, size, align, inks.accent, 700)
          : letters(at, text, size, align, inks.quiet, 400, 'mono'),
      );
  }
  return fitted(sheet.name, marks, inks.raised, MARGIN);
}

/** @param at and size in grid steps. */
const letters = (
  at: Point,
  text: string,
  size: number,
  align: Align,
  colour: string,
  weight = 400,
  face: 'text' | 'mono' = 'text',
): Mark => lettersAt(mapped(WHOLE, at.x, at.y), text, size * STEP, align, { colour, weight, face });

/** @param width in grid steps. */
const stroke = (colour: string, width: number, cap: Stroke['cap'] = 'butt'): Stroke => ({
  colour,
  width: width * STEP,
  dash: [],
  cap,
});

const line = (d: string, of: Stroke | null, fill: string | null = null, m: Matrix = WHOLE): Mark => ({
  is: 'path',
  steps: stepsOfPath(d, m),
  fill,
  stroke: of,
  opacity: 1,
  clip: null,
});

/** Line widths of a bit, and of several, in grid steps. */
const BIT = 0.12;
const BUS = 0.3;

function wireMarks(sheet: Sheet, crossings: Settings['crossings'], inks: Inks): Mark[] {
  const marks: Mark[] = [];
  const hops = crossings === 'plain' ? null : crossingsOf(sheet);
  const widthAt = (part: string, port: string) =>
    pinsOf(sheet.parts.get(part)!).find((p) => p.port.name === port)?.port.width ?? 1;
  for (const wire of sheet.wires.values()) {
    const points = courseOf(sheet, wire);
    if (points.length < 2) continue;
    const bits = Math.max(1, ...[wire.from, wire.to].map((e) => (isPinEnd(e) ? widthAt(e.part, e.port) : 1)));
    if (wire.colour) marks.push(line(courseData(points), stroke(inks[`wire-${wire.colour}`], 0.85, 'round')));
    const over = hops?.get(wire.id);
    const d = over && crossings !== 'plain' ? hopData(stepsOf(points, over), crossings) : courseData(points);
    marks.push(line(d, stroke(inks.ink, bits > 1 ? BUS : BIT)));
  }
  for (const part of sheet.parts.values())
    for (const { at, out, port } of pinsOf(part)) {
      const d = courseData([at, { x: at.x - out.x * port.lead, y: at.y - out.y * port.lead }]);
      marks.push(line(d, stroke(inks.ink, port.width > 1 ? BUS : BIT)));
    }
  for (const dots of spatialIndexOf(sheet).joints().values())
    for (const { at } of dots) marks.push(line(circleData(at.x, at.y, 0.3), null, inks.ink));
  return marks;
}

const courseData = (points: readonly Point[]): string =>
  points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x} ${p.y}`).join('');

function hopData(steps: readonly CourseStep[], style: 'gap' | 'bridge'): string {
  return steps
    .map(({ to, over }, i) => {
      const point = `${to.x} ${to.y}`;
      if (i === 0 || (over && style === 'gap')) return `M${point}`;
      return over ? `A${HOP} ${HOP} 0 0 ${to.x > steps[i - 1]!.to.x ? 1 : 0} ${point}` : `L${point}`;
    })
    .join('');
}

const COS = [1, 0, -1, 0] as const;

function partMarks(part: Part, usual: Symbols, inks: Inks): Mark[] {
  const shapes = kindOf(part).symbol(part.params, {
    standard: part.symbols ?? usual,
    value: () => X,
    held: false,
  });
  const marks = shapes
    .filter((shape) => shape.shape !== 'text' || !shape.isSignal)
    .map((shape) => shapeMark(shape, part, inks));
  const place = labelPlace(part);
  if (place) marks.push(letters(place.at, part.label, 1.15, place.align, inks.ink, 600));
  return marks;
}

function shapeMark(shape: Shape, part: Part, inks: Inks): Mark {
  if (shape.shape === 'text') {
    const { x, y } = oriented(shape, part);
    const at = { x: part.at.x + x, y: part.at.y + y + shape.size * 0.35 };
    const weight = shape.bold ? 700 : 400;
    const side = textSide(shape.align, part);
    return letters(at, shape.text, shape.size, side, inks[shape.paint ?? 'ink'], weight, shape.face);
  }
  const [cos, sin] = [COS[part.turn]!, COS[(part.turn + 3) % 4]!];
  const side = part.mirrored ? -1 : 1;
  const m: Matrix = {
    a: STEP * cos * side,
    b: STEP * sin * side,
    c: -STEP * sin,
    d: STEP * cos,
    e: STEP * part.at.x,
    f: STEP * part.at.y,
  };
  const d = shape.shape === 'circle' ? circleData(shape.x, shape.y, shape.r) : shape.d;
  const of = shape.stroke ? stroke(inks[shape.stroke], shape.weight ?? 0.1, 'round') : null;
  return line(d, of, shape.fill ? inks[shape.fill] : null, m);
}
