import type { Box, Point } from '../circuit/geometry';
import { latexRuns } from '../values/latex';
import type { Figure, Mark, PathMark, Step, TextMark } from './figure';

/** Big points in a CSS pixel: 96 pixels and 72 of them are an inch. */
const POINTS = 72 / 96;

const n = (value: number) => String(+value.toFixed(2));
const pt = (pixels: number) => `${n(pixels * POINTS)}bp`;
const at = ({ x, y }: Point) => `(${n(x)},${n(y)})`;

/**
 * A figure as a `tikzpicture` with plain paths and nodes, for a document that loads `tikz`; nothing else is needed.
 * Letters take the fonts of the document.
 */
export function figureTikz({ title, width, height, ground, marks }: Figure): string {
  const colours = new Map<string, string>();
  const colour = (hex: string): string => {
    const name = colours.get(hex) ?? `manege${colours.size + 1}`;
    colours.set(hex, name);
    return name;
  };
  const lines: string[] = [];
  if (ground) lines.push(`\\fill[${colour(ground)}] (0,0) rectangle ${at({ x: width, y: height })};`);
  let clip: Box | null = null;
  const end = () => {
    if (clip) lines.push('\\end{scope}');
  };
  for (const mark of marks) {
    if (mark.clip !== clip) {
      end();
      clip = mark.clip;
      if (clip) {
        const box = `${at({ x: clip.x0, y: clip.y0 })} rectangle ${at({ x: clip.x1, y: clip.y1 })}`;
        lines.push('\\begin{scope}', `\\clip ${box};`);
      }
    }
    lines.push(markLine(mark, colour));
  }
  end();
  const definitions = [...colours].map(
    ([hex, name]) => `\\definecolor{${name}}{HTML}{${hex.slice(1).toUpperCase()}}`,
  );
  return `${[
    `% ${title.replaceAll(/[\p{C}\p{Zl}\p{Zp}]/gu, ' ')}`,
    `\\begin{tikzpicture}[x=${pt(1)},y=-${pt(1)},line join=round]`,
    ...definitions,
    // The picture is as large as its ground, whatever its letters need.
    `\\useasboundingbox (0,0) rectangle ${at({ x: width, y: height })};`,
    ...lines,
    '\\end{tikzpicture}',
  ].join('\n')}\n`;
}

const markLine = (mark: Mark, colour: (hex: string) => string): string =>
  mark.is === 'text' ? textLine(mark, colour) : pathLine(mark, colour);

function pathLine({ steps, fill, stroke, opacity }: PathMark, colour: (hex: string) => string): string {
  const options: string[] = [];
  if (fill) options.push(`fill=${colour(fill)}`);
  if (stroke) {
    options.push(`draw=${colour(stroke.colour)}`, `line width=${pt(stroke.width)}`);
    if (stroke.cap !== 'butt') options.push(`line cap=${stroke.cap === 'round' ? 'round' : 'rect'}`);
    if (stroke.dash.length > 0) options.push(`dash pattern=${dashPattern(stroke.dash)}`);
  }
  if (opacity < 1) options.push(`opacity=${n(opacity)}`);
  return `\\path[${options.join(',')}] ${steps.map(stepText).join('')};`;
}

/** A pattern of an odd number of lengths is gone through twice, as in SVG. */
function dashPattern(dash: readonly number[]): string {
  const even = dash.length % 2 === 0 ? dash : [...dash, ...dash];
  return even.map((length, i) => `${i % 2 === 0 ? 'on' : 'off'} ${pt(length)}`).join(' ');
}

function stepText(step: Step, i: number): string {
  if (step.to === 'close') return ' -- cycle';
  if (step.to === 'curve') return ` .. controls ${at(step.by[0])} and ${at(step.by[1])} .. ${at(step.at)}`;
  return step.to === 'move' ? `${i > 0 ? ' ' : ''}${at(step.at)}` : ` -- ${at(step.at)}`;
}

const ANCHORS = { left: 'base west', center: 'base', right: 'base east' } as const;

function textLine(mark: TextMark, colour: (hex: string) => string): string {
  const { runs, size, weight, face, align, angle, opacity } = mark;
  const font = `\\fontsize{${pt(size)}}{${pt(1.2 * size)}}\\selectfont${face === 'mono' ? '\\ttfamily' : '\\sffamily'}${weight > 500 ? '\\bfseries' : ''}`;
  const options = [
    `anchor=${ANCHORS[align]}`,
    'inner sep=0pt',
    `text=${colour(mark.colour)}`,
    `font=${font}`,
  ];
  if (Math.abs(angle) >= 0.01) options.push(`rotate=${n(-angle)}`);
  if (opacity < 1) options.push(`opacity=${n(opacity)}`);
  return `\\node[${options.join(',')}] at ${at(mark.at)} {${latexRuns(runs)}};`;
}
