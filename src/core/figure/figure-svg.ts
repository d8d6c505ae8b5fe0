import type { Box, Point } from '../circuit/geometry';
import type { Figure, Mark, PathMark, Step, TextMark } from './figure';
import { xmlText } from './xml-text';

const FONTS = {
  text: 'Atkinson Hyperlegible Next, sans-serif',
  mono: 'Atkinson Hyperlegible Mono, monospace',
};
const ANCHOR = { left: 'start', center: 'middle', right: 'end' } as const;

const n = (value: number) => String(+value.toFixed(2));
const p = ({ x, y }: Point) => `${n(x)} ${n(y)}`;

/** A figure as SVG 1.1; one user unit is a CSS pixel. */
export function figureSvg({ title, width, height, ground, marks }: Figure): string {
  const clips = new Map<string, string>();
  const clipOf = ({ x0, y0, x1, y1 }: Box): string => {
    const box = `x="${n(x0)}" y="${n(y0)}" width="${n(x1 - x0)}" height="${n(y1 - y0)}"`;
    const id = clips.get(box) ?? `clip${clips.size + 1}`;
    clips.set(box, id);
    return ` clip-path="url(#${id})"`;
  };
  const shown = marks.map((mark) => markLine(mark, mark.clip ? clipOf(mark.clip) : ''));
  return `${[
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(width)}" height="${n(height)}" viewBox="0 0 ${n(width)} ${n(height)}" role="img">`,
    `<title>${xmlText(title)}</title>`,
    ...[...clips].map(([box, id]) => `<clipPath id="${id}"><rect ${box}/></clipPath>`),
    ...(ground ? [`<rect width="${n(width)}" height="${n(height)}" fill="${ground}"/>`] : []),
    ...shown,
    '</svg>',
  ].join('\n')}\n`;
}

const opacityOf = ({ opacity }: Mark) => (opacity < 1 ? ` opacity="${n(opacity)}"` : '');

function markLine(mark: Mark, clip: string): string {
  return mark.is === 'text' ? textLine(mark, clip) : pathLine(mark, clip);
}

function pathLine(mark: PathMark, clip: string): string {
  const { stroke, fill, steps } = mark;
  const dash = stroke && stroke.dash.length > 0 ? ` stroke-dasharray="${stroke.dash.map(n).join(' ')}"` : '';
  const cap = stroke && stroke.cap !== 'butt' ? ` stroke-linecap="${stroke.cap}"` : '';
  const line = stroke
    ? ` stroke="${stroke.colour}" stroke-width="${n(stroke.width)}" stroke-linejoin="round"${cap}${dash}`
    : '';
  return `<path d="${pathText(steps)}" fill="${fill ?? 'none'}"${line}${opacityOf(mark)}${clip}/>`;
}

/** Steps as SVG path data. */
export const pathText = (steps: readonly Step[]): string => steps.map(stepText).join('');

function stepText(step: Step): string {
  if (step.to === 'close') return 'Z';
  if (step.to === 'curve') return `C${p(step.by[0])} ${p(step.by[1])} ${p(step.at)}`;
  return `${step.to === 'move' ? 'M' : 'L'}${p(step.at)}`;
}

function textLine(mark: TextMark, clip: string): string {
  const { at, runs, size, weight, face, align, colour, angle } = mark;
  let low = false;
  const said = runs.map((run) => {
    // A lowered run of text raises the next one again.
    const shift = run.low === low ? '' : ` dy="${n((run.low ? 0.22 : -0.22) * size)}"`;
    low = run.low;
    const small = run.low ? ` font-size="${n(size * 0.72)}"` : '';
    const bar = run.barred ? ' text-decoration="overline"' : '';
    return shift || small || bar
      ? `<tspan${shift}${small}${bar}>${xmlText(run.text)}</tspan>`
      : xmlText(run.text);
  });
  const bold = weight === 400 ? '' : ` font-weight="${weight}"`;
  const turn = Math.abs(angle) < 0.01 ? '' : ` transform="rotate(${n(angle)} ${p(at)})"`;
  return `<text x="${n(at.x)}" y="${n(at.y)}" font-size="${n(size)}" text-anchor="${ANCHOR[align]}" fill="${colour}" font-family="${FONTS[face]}"${bold}${turn}${opacityOf(mark)}${clip} xml:space="preserve">${said.join('')}</text>`;
}
