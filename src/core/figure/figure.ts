import type { Box, Point } from '../circuit/geometry';
import { runsOf, type TextRun } from '../values/markup';

/*
 * A picture as data: lines, areas and letters in pixels, y downwards. Faces of a page and sheets become figures, and figures are
 * written as SVG, TikZ or pixels.
 */

/** A step of a path, to absolute coordinates. */
export type Step =
  | { readonly to: 'move' | 'line'; readonly at: Point }
  | { readonly to: 'curve'; readonly by: readonly [Point, Point]; readonly at: Point }
  | { readonly to: 'close' };

/** How a line is drawn. */
export interface Stroke {
  /** `#rrggbb`. */
  readonly colour: string;
  readonly width: number;
  /** Lengths of dashes and gaps; none for a whole line. */
  readonly dash: readonly number[];
  readonly cap: 'butt' | 'round' | 'square';
}

interface Painted {
  /** 0 to 1. */
  readonly opacity: number;
  /** Nothing is painted outside it. */
  readonly clip: Box | null;
}

export interface PathMark extends Painted {
  readonly is: 'path';
  readonly steps: readonly Step[];
  /** `#rrggbb`, or nothing. */
  readonly fill: string | null;
  readonly stroke: Stroke | null;
}

export type Align = 'left' | 'center' | 'right';

export interface TextMark extends Painted {
  readonly is: 'text';
  /** The place of its left end, middle or right end on the line of writing. */
  readonly at: Point;
  readonly runs: readonly TextRun[];
  /** Height of its letters. */
  readonly size: number;
  readonly weight: number;
  readonly face: 'text' | 'mono';
  readonly align: Align;
  readonly colour: string;
  /** Degrees clockwise about its place. */
  readonly angle: number;
  /** Measured width in pixels; null where no font was asked. */
  readonly width: number | null;
}

export type Mark = PathMark | TextMark;

/** Letters that nothing has measured. @param at in pixels. */
export function lettersAt(
  at: Point,
  text: string,
  size: number,
  align: Align,
  look: { readonly colour: string; readonly weight?: number; readonly face?: 'text' | 'mono' },
): TextMark {
  const { colour, weight = 400, face = 'text' } = look;
  const plain = { angle: 0, width: null, opacity: 1, clip: null };
  return { is: 'text', at, runs: runsOf(text), size, weight, face, align, colour, ...plain };
}

export interface Figure {
  readonly title: string;
  readonly width: number;
  readonly height: number;
  /** Background colour, `#rrggbb`; null for a transparent one. */
  readonly ground: string | null;
  /** In the order in which they are painted. */
  readonly marks: readonly Mark[];
}

/** Width of a letter as a share of its height, where no font can be asked. */
const LETTER = 0.56;

const widthOf = (mark: TextMark): number =>
  mark.width ??
  mark.runs.reduce((sum, { text, low }) => sum + text.length * LETTER * mark.size * (low ? 0.72 : 1), 0);

/** Bounding box of a mark, cut to its clip; null where nothing of it is left. */
export function boxOf(mark: Mark): Box | null {
  const box = mark.is === 'text' ? textBox(mark) : pathBox(mark);
  const { clip } = mark;
  if (!box || !clip) return box;
  const cut = {
    x0: Math.max(box.x0, clip.x0),
    y0: Math.max(box.y0, clip.y0),
    x1: Math.min(box.x1, clip.x1),
    y1: Math.min(box.y1, clip.y1),
  };
  return cut.x0 < cut.x1 && cut.y0 < cut.y1 ? cut : null;
}

function textBox(mark: TextMark): Box {
  const { at, size, align, angle } = mark;
  const width = widthOf(mark);
  const left = { left: 0, center: -width / 2, right: -width }[align];
  if (angle === 0)
    return { x0: at.x + left, y0: at.y - size, x1: at.x + left + width, y1: at.y + 0.3 * size };
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const corners = [left, left + width].flatMap((x) =>
    [-size, 0.3 * size].map((y) => ({ x: at.x + x * cos - y * sin, y: at.y + x * sin + y * cos })),
  );
  return around(corners)!;
}

function pathBox({ steps, stroke }: PathMark): Box | null {
  const points = steps.flatMap((step) =>
    step.to === 'close' ? [] : step.to === 'curve' ? [...step.by, step.at] : [step.at],
  );
  const box = around(points);
  const half = (stroke?.width ?? 0) / 2;
  return box && { x0: box.x0 - half, y0: box.y0 - half, x1: box.x1 + half, y1: box.y1 + half };
}

function around(points: readonly Point[]): Box | null {
  if (points.length === 0) return null;
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const { x, y } of points) {
    box.x0 = Math.min(box.x0, x);
    box.y0 = Math.min(box.y0, y);
    box.x1 = Math.max(box.x1, x);
    box.y1 = Math.max(box.y1, y);
  }
  return box;
}

/** A mark at another place. */
export function movedMark(mark: Mark, dx: number, dy: number): Mark {
  const move = ({ x, y }: Point): Point => ({ x: x + dx, y: y + dy });
  const clip = mark.clip && {
    x0: mark.clip.x0 + dx,
    y0: mark.clip.y0 + dy,
    x1: mark.clip.x1 + dx,
    y1: mark.clip.y1 + dy,
  };
  if (mark.is === 'text') return { ...mark, at: move(mark.at), clip };
  const steps = mark.steps.map(
    (step): Step =>
      step.to === 'close'
        ? step
        : step.to === 'curve'
          ? { ...step, by: [move(step.by[0]), move(step.by[1])], at: move(step.at) }
          : { ...step, at: move(step.at) },
  );
  return { ...mark, steps, clip };
}

/** Width of the empty edge, in pixels. */
const MARGIN = 8;

/** A figure just large enough for its visible marks; the others are left out. @param margin in pixels. */
export function fitted(
  title: string,
  marks: readonly Mark[],
  ground: string | null,
  margin = MARGIN,
): Figure {
  const seen = marks.flatMap((mark) => {
    const box = boxOf(mark);
    return box ? [{ mark, box }] : [];
  });
  const box = around(
    seen.flatMap(({ box: { x0, y0, x1, y1 } }) => [
      { x: x0, y: y0 },
      { x: x1, y: y1 },
    ]),
  ) ?? { x0: 0, y0: 0, x1: 120, y1: 60 };
  return {
    title,
    width: Math.ceil(box.x1 - box.x0 + 2 * margin),
    height: Math.ceil(box.y1 - box.y0 + 2 * margin),
    ground,
    marks: seen.map(({ mark }) => movedMark(mark, margin - box.x0, margin - box.y0)),
  };
}

/** The same figure with its colours given by a function. */
export function recoloured(figure: Figure, colourOf: (colour: string) => string): Figure {
  return {
    ...figure,
    ground: figure.ground && colourOf(figure.ground),
    marks: figure.marks.map((mark) =>
      mark.is === 'text'
        ? { ...mark, colour: colourOf(mark.colour) }
        : {
            ...mark,
            fill: mark.fill && colourOf(mark.fill),
            stroke: mark.stroke && { ...mark.stroke, colour: colourOf(mark.stroke.colour) },
          },
    ),
  };
}
