import type { Align, Mark, Step, Stroke } from '@/core/figure/figure';
import { roundBoxData } from '@/core/figure/outlines';
import { hexOf } from '@/core/figure/paint-recorder';
import { after, type Matrix, mapped, scaleOf, stepsOfPath, UNMOVED } from '@/core/figure/path-data';
import type { Palette } from '@/ui/controls/palette';
import { textWidth } from './paint-figure';

/** Where the figure's corner is in the window, and the colours of canvases. */
export interface Around {
  readonly left: number;
  readonly top: number;
  readonly palette: Palette;
}

const NOT_DRAWN = 'defs, marker, clipPath, title, desc, style, [data-figure="none"]';

export const lineMark = (data: string, stroke: Stroke): Mark => ({
  is: 'path',
  steps: stepsOfPath(data),
  fill: null,
  stroke,
  opacity: 1,
  clip: null,
});

/** What a drawing of the page shows, as marks. */
export function svgMarks(svg: SVGSVGElement, around: Around): Mark[] {
  const marks: Mark[] = [];
  const walk = (element: Element, opacity: number) => {
    if (element.matches(NOT_DRAWN)) return;
    const style = getComputedStyle(element);
    if (style.display === 'none' || style.visibility === 'hidden') return;
    const seen = opacity * Number(style.opacity);
    if (seen === 0) return;
    if (element instanceof SVGTextElement) marks.push(...letterMarks(element, style, around, seen));
    else if (element instanceof SVGGeometryElement) marks.push(...shapeMarks(element, style, around, seen));
    else for (const child of element.children) walk(child, seen);
  };
  for (const child of svg.children) walk(child, Number(getComputedStyle(svg).opacity));
  return marks;
}

function matrixOf(element: SVGGraphicsElement, { left, top }: Around): Matrix {
  const m = element.getScreenCTM();
  if (!m) return UNMOVED;
  return { a: m.a, b: m.b, c: m.c, d: m.d, e: m.e - left, f: m.f - top };
}

/** The path data of an outline. */
function dataOf(element: SVGGeometryElement): string {
  const at = (name: string) => Number(element.getAttribute(name) ?? 0);
  switch (element.tagName) {
    case 'path':
      return element.getAttribute('d') ?? '';
    case 'rect':
      return roundBoxData(at('x'), at('y'), at('width'), at('height'), at('rx'));
    case 'circle':
    case 'ellipse': {
      const [rx, ry] = element.tagName === 'circle' ? [at('r'), at('r')] : [at('rx'), at('ry')];
      return `M${at('cx') - rx} ${at('cy')}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0Z`;
    }
    case 'line':
      return `M${at('x1')} ${at('y1')}L${at('x2')} ${at('y2')}`;
    default: {
      const points = element.getAttribute('points') ?? '';
      return `M${points}${element.tagName === 'polygon' ? 'Z' : ''}`;
    }
  }
}

const CAPS: readonly string[] = ['butt', 'round', 'square'];

function strokeOf(style: CSSStyleDeclaration, scale: number): Stroke | null {
  const width = Number.parseFloat(style.strokeWidth) * scale;
  if (style.stroke === 'none' || !(width > 0)) return null;
  const dash = style.strokeDasharray === 'none' ? [] : style.strokeDasharray.split(/[\s,]+/);
  return {
    colour: hexOf(style.stroke),
    width,
    dash: dash.map((length) => Number.parseFloat(length) * scale),
    cap: CAPS.includes(style.strokeLinecap) ? (style.strokeLinecap as Stroke['cap']) : 'butt',
  };
}

function shapeMarks(
  element: SVGGeometryElement,
  style: CSSStyleDeclaration,
  around: Around,
  opacity: number,
): Mark[] {
  const m = matrixOf(element, around);
  const steps = stepsOfPath(dataOf(element), m);
  if (steps.length === 0) return [];
  const marks: Mark[] = [];
  const add = (fill: string | null, stroke: Stroke | null, share: string) => {
    const own = opacity * Number(share);
    if (own > 0) marks.push({ is: 'path', steps, fill, stroke, opacity: own, clip: null });
  };
  const tiled = idIn(style.fill);
  if (tiled) marks.push(...tileMarks(tiled, element.getBBox(), m, opacity));
  else if (style.fill !== 'none') add(hexOf(style.fill), null, style.fillOpacity);
  const stroke = strokeOf(style, scaleOf(m));
  if (stroke) {
    add(null, stroke, style.strokeOpacity);
    const head = idIn(style.markerEnd);
    if (head) marks.push(...headMarks(head, steps, stroke.width, opacity));
  }
  return marks;
}

/** The element that a value of CSS leads to: `url("#holes")`. */
const idIn = (value: string): string | undefined => /url\(["']?[^"')]*#([^"')]+)/.exec(value)?.[1];

/** More tiles than a board has holes form a texture; they need no detail. */
const MOST_TILES = 10_000;

/** A pattern in user space, tile by tile, wherever a whole one fits. @param id of its `pattern` element. */
function tileMarks(id: string, box: DOMRect, m: Matrix, opacity: number): Mark[] {
  const pattern = document.getElementById(id);
  if (!(pattern instanceof SVGPatternElement)) return [];
  const [x, y, width, height] = [pattern.x, pattern.y, pattern.width, pattern.height].map(
    (length) => length.baseVal.value,
  ) as [number, number, number, number];
  if (!(width > 0 && height > 0) || (box.width / width) * (box.height / height) > MOST_TILES) return [];
  const marks: Mark[] = [];
  const first = (at: number, from: number, step: number) => at + Math.ceil((from - at) / step - 1e-6) * step;
  for (let top = first(y, box.y, height); top + height <= box.y + box.height + 1e-6; top += height)
    for (let left = first(x, box.x, width); left + width <= box.x + box.width + 1e-6; left += width)
      for (const shape of pattern.children) {
        if (!(shape instanceof SVGGeometryElement)) continue;
        const style = getComputedStyle(shape);
        const moved = after(m, { ...UNMOVED, e: left, f: top });
        marks.push({
          is: 'path',
          steps: stepsOfPath(dataOf(shape), moved),
          fill: style.fill === 'none' ? null : hexOf(style.fill),
          stroke: strokeOf(style, scaleOf(moved)),
          opacity: opacity * Number(style.opacity) * Number(style.fillOpacity),
          clip: null,
        });
      }
  return marks;
}

/** The head of an arrow at the end of a course. @param id of its `marker` element. */
function headMarks(id: string, steps: readonly Step[], width: number, opacity: number): Mark[] {
  const marker = document.getElementById(id);
  const last = steps.at(-1);
  const before = steps.at(-2);
  if (
    !(marker instanceof SVGMarkerElement) ||
    !last ||
    !before ||
    last.to === 'close' ||
    before.to === 'close'
  )
    return [];
  const from = last.to === 'curve' ? last.by[1] : before.at;
  const angle = Math.atan2(last.at.y - from.y, last.at.x - from.x);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const box = marker.viewBox.baseVal;
  const scale = (marker.markerWidth.baseVal.value / (box.width || 1)) * width;
  const m = after(
    { a: cos, b: sin, c: -sin, d: cos, e: last.at.x, f: last.at.y },
    {
      ...UNMOVED,
      a: scale,
      d: scale,
      e: -scale * marker.refX.baseVal.value,
      f: -scale * marker.refY.baseVal.value,
    },
  );
  return [...marker.querySelectorAll('path')].map((path) => ({
    is: 'path',
    steps: stepsOfPath(path.getAttribute('d') ?? '', m),
    fill: hexOf(getComputedStyle(path).fill),
    stroke: null,
    opacity,
    clip: null,
  }));
}

const ALIGNS: Readonly<Record<string, Align>> = { start: 'left', middle: 'center', end: 'right' };

function letterMarks(
  element: SVGTextElement,
  style: CSSStyleDeclaration,
  around: Around,
  opacity: number,
): Mark[] {
  const text = element.textContent?.trim() ?? '';
  if (text === '') return [];
  const m = matrixOf(element, around);
  const scale = scaleOf(m);
  const size = Number.parseFloat(style.fontSize);
  const [x, y] = ['x', 'y'].map((name) => Number.parseFloat(element.getAttribute(name) ?? '0')) as [
    number,
    number,
  ];
  const isMiddle = /central|middle/.test(style.dominantBaseline);
  const align = ALIGNS[style.textAnchor] ?? 'left';
  const width = textWidth(text, `${style.fontWeight} ${size}px ${style.fontFamily}`);
  const marks: Mark[] = [];
  // A casing around letters keeps a line that runs below them away.
  if (style.paintOrder.startsWith('stroke') && style.stroke !== 'none') {
    const left = x + { left: 0, center: -width / 2, right: -width }[align];
    const top = y - (isMiddle ? 0.5 : 0.8) * size;
    marks.push({
      is: 'path',
      steps: stepsOfPath(roundBoxData(left - 2, top, width + 4, size, 2), m),
      fill: hexOf(style.stroke),
      stroke: null,
      opacity,
      clip: null,
    });
  }
  marks.push({
    is: 'text',
    at: mapped(m, x, y + (isMiddle ? 0.35 * size : 0)),
    runs: [{ text, low: false, barred: false }],
    size: size * scale,
    weight: Number(style.fontWeight) || 400,
    face: /mono/i.test(style.fontFamily) ? 'mono' : 'text',
    align,
    colour: hexOf(style.fill),
    angle: (Math.atan2(m.b, m.a) * 180) / Math.PI,
    width: width * scale,
    opacity: opacity * Number(style.fillOpacity),
    clip: null,
  });
  return marks;
}
