import type { Figure, Mark, TextMark } from '@/core/figure/figure';
import { setFont } from '@/ui/controls/paint-text';
import { FONTS } from '@/ui/controls/palette';

/** Width in pixels of a text in a font of this page. */
export function textWidth(text: string, font: string): number {
  measure ??= document.createElement('canvas').getContext('2d');
  if (!measure) return 0.56 * text.length * Number(/([\d.]+)px/.exec(font)?.[1] ?? 12);
  measure.font = font;
  return measure.measureText(text).width;
}
let measure: CanvasRenderingContext2D | null = null;

/** Paints a figure on a context that is scaled to its pixels. */
export function paintFigure(g: CanvasRenderingContext2D, { width, height, ground, marks }: Figure): void {
  if (ground) {
    g.fillStyle = ground;
    g.fillRect(0, 0, width, height);
  }
  for (const mark of marks) {
    g.save();
    g.globalAlpha = mark.opacity;
    if (mark.clip) {
      const { x0, y0, x1, y1 } = mark.clip;
      g.beginPath();
      g.rect(x0, y0, x1 - x0, y1 - y0);
      g.clip();
    }
    paintMark(g, mark);
    g.restore();
  }
}

function paintMark(g: CanvasRenderingContext2D, mark: Mark): void {
  if (mark.is === 'text') {
    paintLetters(g, mark);
    return;
  }
  g.beginPath();
  for (const step of mark.steps) {
    if (step.to === 'close') g.closePath();
    else if (step.to === 'curve') {
      const [p, q] = step.by;
      g.bezierCurveTo(p.x, p.y, q.x, q.y, step.at.x, step.at.y);
    } else if (step.to === 'move') g.moveTo(step.at.x, step.at.y);
    else g.lineTo(step.at.x, step.at.y);
  }
  if (mark.fill) {
    g.fillStyle = mark.fill;
    g.fill();
  }
  if (mark.stroke) {
    const { colour, width, dash, cap } = mark.stroke;
    g.strokeStyle = colour;
    g.lineWidth = width;
    g.lineCap = cap;
    g.lineJoin = 'round';
    g.setLineDash([...dash]);
    g.stroke();
  }
}

function paintLetters(g: CanvasRenderingContext2D, mark: TextMark): void {
  const { at, runs, size, weight, face, align, colour, angle } = mark;
  g.translate(at.x, at.y);
  g.rotate((angle * Math.PI) / 180);
  g.fillStyle = colour;
  g.textBaseline = 'alphabetic';
  g.textAlign = 'left';
  const font = (low: boolean) => setFont(g, weight, low ? size * 0.72 : size, FONTS[face]);
  const widths = runs.map(({ text, low }) => {
    font(low);
    return g.measureText(text).width;
  });
  const whole = widths.reduce((sum, width) => sum + width, 0);
  let x = { left: 0, center: -whole / 2, right: -whole }[align];
  for (const [i, { text, low, barred }] of runs.entries()) {
    font(low);
    g.fillText(text, x, low ? 0.22 * size : 0);
    if (barred) g.fillRect(x, -0.86 * size, widths[i]!, 0.08 * size);
    x += widths[i]!;
  }
}

/** The longest side of a picture in pixels that browsers paint everywhere. */
const LONGEST = 12_000;

/** Pixels of a picture for each of the figure: what is asked for, or as many as a browser can paint. */
export const sharpness = ({ width, height }: Figure, asked: number): number =>
  Math.min(asked, LONGEST / Math.max(width, height));

/** A figure as PNG. @param scale pixels for each of the figure. */
export async function figurePng(figure: Figure, scale: number): Promise<Blob> {
  await document.fonts.ready;
  const ratio = sharpness(figure, scale);
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(figure.width * ratio);
  canvas.height = Math.ceil(figure.height * ratio);
  const g = canvas.getContext('2d');
  if (!g) throw new Error('this browser cannot paint pictures');
  g.setTransform(ratio, 0, 0, ratio, 0, 0);
  paintFigure(g, figure);
  return new Promise((done, fail) => {
    canvas.toBlob(
      (blob) => (blob ? done(blob) : fail(new Error('the picture became too large'))),
      'image/png',
    );
  });
}
