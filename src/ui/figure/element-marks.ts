import type { Align, Mark, Stroke } from '@/core/figure/figure';
import type { Inks } from '@/core/figure/inks';
import { roundBoxData } from '@/core/figure/outlines';
import { hexOf, PaintRecorder } from '@/core/figure/paint-recorder';
import { stepsOfPath } from '@/core/figure/path-data';
import { painterOf } from '@/ui/controls/painted';
import type { Palette } from '@/ui/controls/palette';
import { textWidth } from './paint-figure';
import { type Around, lineMark, svgMarks } from './svg-marks';

/*
 * What an element of the page shows, as marks of a figure: letters where they stand, borders, grounds, drawings and canvases. Bars,
 * fields and buttons that stand around it are no part of it.
 */

/** Elements for hands, and words for screen readers; the buttons of a table are its cells, and some lines of a text are buttons. */
const LEFT_OUT =
  '.pane-head, .sr-only, label, input, select, textarea, script, style, [role="status"], [data-figure="none"], button:not([role="grid"] *, table *, [data-figure="whole"] *)';

const SIDES = ['Top', 'Right', 'Bottom', 'Left'] as const;

/** @param inks the colours of canvases; all others are those of the theme that is on. */
export function elementMarks(root: HTMLElement, inks: Inks): Mark[] {
  const { left, top } = root.getBoundingClientRect();
  const around: Around = { left, top, palette: paletteOf(inks) };
  const style = getComputedStyle(root);
  return contentOf(root, style, around, hexOf(style.backgroundColor));
}

/** @param behind the colour of the ground that is painted already. */
function elementOf(element: HTMLElement, around: Around, behind: string): Mark[] {
  if (element.matches(LEFT_OUT)) return [];
  const style = getComputedStyle(element);
  if (style.display === 'none' || style.visibility === 'hidden' || Number(style.opacity) === 0) return [];
  if (element instanceof HTMLCanvasElement) return canvasMarks(element, around);
  const marks: Mark[] = [];
  const box = element.getBoundingClientRect();
  const [x, y] = [box.left - around.left, box.top - around.top];
  let ground = behind;
  if (isSeen(style.backgroundColor) && box.width > 0 && box.height > 0) {
    ground = hexOf(style.backgroundColor);
    const radius = Number.parseFloat(style.borderTopLeftRadius) || 0;
    if (ground !== behind) marks.push(areaMark(roundBoxData(x, y, box.width, box.height, radius), ground));
  }
  marks.push(
    ...borderMarks(style, x, y, box.width, box.height),
    ...contentOf(element, style, around, ground),
  );
  return marks;
}

function contentOf(element: HTMLElement, style: CSSStyleDeclaration, around: Around, ground: string): Mark[] {
  const marks: Mark[] = [];
  for (const child of element.childNodes) {
    if (child instanceof Text) marks.push(...textMarks(child, style, around));
    else if (child instanceof SVGSVGElement) marks.push(...svgMarks(child, around));
    else if (child instanceof HTMLElement) marks.push(...elementOf(child, around, ground));
  }
  return marks;
}

const isSeen = (colour: string): boolean => !/^(transparent|rgba\(.*[, /]\s*0\))$/.test(colour);

const areaMark = (data: string, fill: string): Mark => ({
  is: 'path',
  steps: stepsOfPath(data),
  fill,
  stroke: null,
  opacity: 1,
  clip: null,
});

function borderMarks(
  style: CSSStyleDeclaration,
  x: number,
  y: number,
  width: number,
  height: number,
): Mark[] {
  const strokes = SIDES.map((side): Stroke | null => {
    const thick = Number.parseFloat(style[`border${side}Width`]);
    const how = style[`border${side}Style`];
    const colour = style[`border${side}Color`];
    if (!thick || how === 'none' || how === 'hidden' || !isSeen(colour)) return null;
    const dash = how === 'dashed' ? [3 * thick, 2 * thick] : how === 'dotted' ? [thick, thick] : [];
    return { colour: hexOf(colour), width: thick, dash, cap: 'butt' };
  });
  const [first] = strokes;
  const half = (i: number) => (strokes[i]?.width ?? 0) / 2;
  const [x0, y0, x1, y1] = [x + half(3), y + half(0), x + width - half(1), y + height - half(2)];
  const isWhole = first && strokes.every((s) => s && s.width === first.width && s.colour === first.colour);
  if (isWhole) {
    const radius = Number.parseFloat(style.borderTopLeftRadius) || 0;
    return [lineMark(roundBoxData(x0, y0, x1 - x0, y1 - y0, Math.max(0, radius - half(0))), first)];
  }
  const courses = [
    `M${x} ${y0}H${x + width}`,
    `M${x1} ${y}V${y + height}`,
    `M${x} ${y1}H${x + width}`,
    `M${x0} ${y}V${y + height}`,
  ];
  return strokes.flatMap((stroke, i) => (stroke ? [lineMark(courses[i]!, stroke)] : []));
}

/** The words of a text node, those on one line together. */
function textMarks(node: Text, style: CSSStyleDeclaration, around: Around): Mark[] {
  const all = node.data;
  if (all.trim() === '') return [];
  const range = document.createRange();
  const lines: { text: string; left: number; right: number; top: number; height: number }[] = [];
  for (const word of all.matchAll(/\S+/g)) {
    range.setStart(node, word.index);
    range.setEnd(node, word.index + word[0].length);
    const { left, right, top, height } = range.getBoundingClientRect();
    if (height === 0) continue;
    const last = lines.at(-1);
    if (last && Math.abs(last.top - top) < 2 && left >= last.left) {
      last.text += ` ${word[0]}`;
      last.right = right;
    } else lines.push({ text: word[0], left, right, top, height });
  }
  const size = Number.parseFloat(style.fontSize);
  const align = alignOf(style.textAlign);
  return lines.map(({ text, left, right, top, height }) => {
    const x = { left, center: (left + right) / 2, right }[align];
    return {
      is: 'text',
      at: { x: x - around.left, y: top - around.top + height / 2 + BASELINE * size },
      runs: [{ text, low: false, barred: false }],
      size,
      weight: Number(style.fontWeight) || 400,
      face: /mono/i.test(style.fontFamily) ? 'mono' : 'text',
      align,
      colour: hexOf(style.color),
      angle: 0,
      width: right - left,
      opacity: 1,
      clip: null,
    };
  });
}

/** How far the line of writing stands below the middle of a line, as a share of the height of letters. */
const BASELINE = 0.34;

const alignOf = (align: string): Align =>
  align === 'center' ? 'center' : align === 'right' || align === 'end' ? 'right' : 'left';

function canvasMarks(canvas: HTMLCanvasElement, { left, top, palette }: Around): Mark[] {
  const paint = painterOf(canvas);
  if (!paint) return [];
  const box = canvas.getBoundingClientRect();
  return recordedMarks((g) => paint(g, palette), box.left - left, box.top - top);
}

/** What is painted, as marks; without the ground, which is painted first. */
export function recordedMarks(paint: (g: CanvasRenderingContext2D) => void, dx = 0, dy = 0): Mark[] {
  const recorder = new PaintRecorder(textWidth, dx, dy);
  paint(recorder as unknown as CanvasRenderingContext2D);
  const [first, ...rest] = recorder.marks;
  return first?.is === 'path' && first.fill && !first.stroke ? rest : recorder.marks;
}

/** The palette of a canvas with these inks, as large as usual. */
export const paletteOf = (inks: Inks): Palette => ({ ...inks, lines: 1, letters: 1 });
