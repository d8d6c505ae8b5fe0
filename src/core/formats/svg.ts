import { boundingBox, grown, type Point } from '../circuit/geometry';
import {
  DEFAULT_SETTINGS,
  isPinEnd,
  type Part,
  type Settings,
  type Sheet,
  type Symbols,
  type WireColour,
} from '../circuit/sheet';
import { crossingsOf, HOP, type Step, stepsOf } from '../drawing/geometry/crossings';
import { noteTexts, type PinNotes } from '../drawing/geometry/pin-notes';
import { courseOf, footprintOf, labelPlace, oriented, pinsOf, textSide } from '../drawing/geometry/placement';
import { spatialIndexOf } from '../drawing/geometry/spatial-index';
import { kindOf } from '../parts/catalogue';
import type { Paint, Shape } from '../parts/shape';
import { X } from '../values/logic';
import { runsOf } from '../values/markup';

/** Pixels of a grid step. */
const STEP = 12;
/** The light theme: a picture is mostly put on paper. */
const COLOURS: Record<Paint, string> = {
  ink: '#2a2331',
  raised: '#ffffff',
  paper: '#fbf8f2',
  quiet: '#6e6678',
  accent: '#7a3b69',
  hairline: '#e4ddd0',
  zero: '#8a8494',
  one: '#e39a12',
  'lamp-red': '#d6402f',
  'lamp-green': '#2f9e44',
  'lamp-blue': '#2b7fd4',
};
const WIRE_PAINTS: Record<WireColour, string> = {
  rose: '#f3b5c4',
  violet: '#d3bdf0',
  blue: '#b4d2f2',
  teal: '#a5dcd4',
  green: '#c4dfa6',
  sand: '#e8cfa8',
};
const FONTS = {
  text: 'Atkinson Hyperlegible Next, sans-serif',
  mono: 'Atkinson Hyperlegible Mono, monospace',
};

/** Characters that XML 1.0 has no place for: controls, lone halves of pairs, two that are none (section 2.2). */
const NOT_IN_XML = /[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu;

const escaped = (text: string) =>
  text
    .replaceAll(NOT_IN_XML, '\ufffd')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
const n = (value: number) => String(+value.toFixed(3));

/**
 * A sheet as a picture (SVG 1.1): the same shapes as on the screen, without signals.
 * @param settings whether gates have distinctive or rectangular outlines, and how crossings are drawn.
 * @param notes designators and numbers of pins, where they are shown.
 */
export function writeSvg(
  sheet: Sheet,
  { symbols: standard, crossings }: Pick<Settings, 'symbols' | 'crossings'> = DEFAULT_SETTINGS,
  notes?: PinNotes,
): string {
  const courses = [...sheet.wires.values()].map((w) => ({ wire: w, points: courseOf(sheet, w) }));
  const corners = courses.flatMap(({ points }) => points.map(({ x, y }) => ({ x0: x, y0: y, x1: x, y1: y })));
  const box = grown(
    boundingBox([...[...sheet.parts.values()].map(footprintOf), ...corners]) ?? {
      x0: 0,
      y0: 0,
      x1: 10,
      y1: 10,
    },
    2,
  );
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const lines: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width * STEP)}" height="${n(height * STEP)}" viewBox="${n(box.x0)} ${n(box.y0)} ${n(width)} ${n(height)}" role="img">`,
    `<title>${escaped(sheet.name)}</title>`,
    `<rect x="${n(box.x0)}" y="${n(box.y0)}" width="${n(width)}" height="${n(height)}" fill="${COLOURS.raised}"/>`,
    `<g fill="none" stroke="${COLOURS.ink}" stroke-linejoin="round">`,
  ];
  const hops = crossings === 'plain' ? null : crossingsOf(sheet);
  const widthOf = (part: string, port: string) =>
    pinsOf(sheet.parts.get(part)!).find((p) => p.port.name === port)?.port.width ?? 1;
  for (const { wire, points } of courses) {
    if (points.length < 2) continue;
    const bits = Math.max(1, ...[wire.from, wire.to].map((e) => (isPinEnd(e) ? widthOf(e.part, e.port) : 1)));
    if (wire.colour)
      lines.push(
        `<path d="${pathOf(points)}" stroke="${WIRE_PAINTS[wire.colour]}" stroke-width="0.85" stroke-linecap="round"/>`,
      );
    const over = hops?.get(wire.id);
    const d = over && crossings !== 'plain' ? hopPath(stepsOf(points, over), crossings) : pathOf(points);
    lines.push(`<path d="${d}" stroke-width="${bits > 1 ? 0.3 : 0.12}"/>`);
  }
  for (const part of sheet.parts.values())
    for (const { at, out, port } of pinsOf(part))
      lines.push(
        `<path d="${pathOf([at, { x: at.x - out.x * port.lead, y: at.y - out.y * port.lead }])}" stroke-width="${port.width > 1 ? 0.3 : 0.12}"/>`,
      );
  lines.push('</g>');
  for (const dots of spatialIndexOf(sheet).joints().values())
    for (const { at } of dots)
      lines.push(`<circle cx="${n(at.x)}" cy="${n(at.y)}" r="0.3" fill="${COLOURS.ink}"/>`);
  for (const part of sheet.parts.values()) lines.push(...partLines(part, standard));
  for (const [id, note] of notes ?? []) {
    const part = sheet.parts.get(id);
    for (const { at, text, size, align, isRef } of part ? noteTexts(sheet, part, note) : []) {
      const paint = isRef ? ` fill="${COLOURS.accent}" font-weight="700"` : ` fill="${COLOURS.quiet}"`;
      lines.push(
        textLine(at, text, size, align, `${paint} font-family="${isRef ? FONTS.text : FONTS.mono}"`),
      );
    }
  }
  return `${[...lines, '</svg>'].join('\n')}\n`;
}

function pathOf(points: readonly Point[]): string {
  return points.map((p, i) => `${i === 0 ? 'M' : 'L'}${n(p.x)} ${n(p.y)}`).join('');
}

function hopPath(steps: readonly Step[], style: 'gap' | 'bridge'): string {
  return steps
    .map(({ to, over }, i) => {
      const point = `${n(to.x)} ${n(to.y)}`;
      if (i === 0 || (over && style === 'gap')) return `M${point}`;
      return over ? `A${HOP} ${HOP} 0 0 ${to.x > steps[i - 1]!.to.x ? 1 : 0} ${point}` : `L${point}`;
    })
    .join('');
}

function partLines(part: Part, usual: Symbols): string[] {
  const kind = kindOf(part);
  const shapes = kind.symbol(part.params, { standard: part.symbols ?? usual, value: () => X, held: false });
  const lines = [`<g transform="translate(${n(part.at.x)} ${n(part.at.y)})">`];
  for (const shape of shapes) lines.push(shapeLine(shape, part));
  lines.push('</g>');
  const label = labelLine(part);
  return label ? [...lines, label] : lines;
}

const ANCHOR = { left: 'start', center: 'middle', right: 'end' } as const;

function textLine(at: Point, text: string, size: number, align: keyof typeof ANCHOR, more = ''): string {
  let low = false;
  const runs = runsOf(text).map((run) => {
    // A lowered run of text raises the next one again.
    const shift = run.low === low ? '' : ` dy="${n((run.low ? 0.22 : -0.22) * size)}"`;
    low = run.low;
    const small = run.low ? ` font-size="${n(size * 0.72)}"` : '';
    const bar = run.barred ? ' text-decoration="overline"' : '';
    return shift || small || bar
      ? `<tspan${shift}${small}${bar}>${escaped(run.text)}</tspan>`
      : escaped(run.text);
  });
  return `<text x="${n(at.x)}" y="${n(at.y)}" font-size="${n(size)}" text-anchor="${ANCHOR[align]}"${more}>${runs.join('')}</text>`;
}

function shapeLine(shape: Shape, part: Part): string {
  if (shape.shape === 'text') {
    const at = oriented(shape, part);
    const align = textSide(shape.align, part);
    const more = ` fill="${COLOURS[shape.paint ?? 'ink']}" font-family="${FONTS[shape.face ?? 'text']}"${shape.bold ? ' font-weight="700"' : ''}`;
    return textLine({ x: at.x, y: at.y + shape.size * 0.35 }, shape.text, shape.size, align, more);
  }
  const turns = [part.turn !== 0 && `rotate(${90 * part.turn})`, part.mirrored && 'scale(-1 1)'].filter(
    Boolean,
  );
  const turn = turns.length ? ` transform="${turns.join(' ')}"` : '';
  const paint = `fill="${shape.fill ? COLOURS[shape.fill] : 'none'}"${
    shape.stroke
      ? ` stroke="${COLOURS[shape.stroke]}" stroke-width="${n(shape.weight ?? 0.1)}" stroke-linecap="round"`
      : ''
  }`;
  return shape.shape === 'circle'
    ? `<circle cx="${n(shape.x)}" cy="${n(shape.y)}" r="${n(shape.r)}" ${paint}${turn}/>`
    : `<path d="${shape.d}" ${paint}${turn}/>`;
}

function labelLine(part: Part): string | null {
  const place = labelPlace(part);
  const more = ` fill="${COLOURS.ink}" font-family="${FONTS.text}" font-weight="600"`;
  return place && textLine(place.at, part.label, 1.15, place.align, more);
}
