import type { Box } from '../circuit/geometry';
import type { Align, Mark, Step, Stroke } from './figure';
import { arcData, boxData, roundBoxData } from './outlines';
import { after, type Matrix, mapped, scaleOf, stepsOfPath, UNMOVED } from './path-data';

/** A path that is made once and painted later, as the canvas has them. */
export class RecordedPath {
  private readonly pieces: string[];

  constructor(data = '') {
    this.pieces = [data];
  }

  get data(): string {
    return this.pieces.join('');
  }

  moveTo(x: number, y: number): void {
    this.pieces.push(`M${x} ${y}`);
  }

  lineTo(x: number, y: number): void {
    this.pieces.push(`L${x} ${y}`);
  }

  arc(x: number, y: number, r: number, from: number, to: number, isBack = false): void {
    this.pieces.push(arcData(x, y, r, from, to, isBack, this.data !== ''));
  }
}

interface Look {
  fillStyle: string;
  strokeStyle: string;
  lineWidth: number;
  lineCap: Stroke['cap'];
  lineJoin: string;
  font: string;
  textAlign: string;
  textBaseline: string;
  globalAlpha: number;
}

const PLAIN: Look = {
  fillStyle: '#000000',
  strokeStyle: '#000000',
  lineWidth: 1,
  lineCap: 'butt',
  lineJoin: 'miter',
  font: '400 12px sans-serif',
  textAlign: 'left',
  textBaseline: 'alphabetic',
  globalAlpha: 1,
};

const LOOKS = Object.keys(PLAIN) as (keyof Look)[];

const FONT = /^(\d+) ([\d.]+)px (.*)$/;

/** A colour as browsers name it (`#rgb`, `rgb()`, `color(srgb …)`) as `#rrggbb`, whatever its transparency; others are black. */
export function hexOf(colour: string): string {
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(colour);
  if (short)
    return `#${short
      .slice(1)
      .map((c) => c + c)
      .join('')}`.toLowerCase();
  const parts = /^rgba?\(([^)]*)\)$/
    .exec(colour)?.[1]
    ?.split(/[\s,/]+/)
    .filter(Boolean);
  if (parts)
    return `#${parts
      .slice(0, 3)
      .map((n) => Math.round(Number(n)).toString(16).padStart(2, '0'))
      .join('')}`;
  const shares = /^color\(srgb ([\d.e-]+) ([\d.e-]+) ([\d.e-]+)/.exec(colour)?.slice(1);
  if (shares)
    return hexOf(`rgb(${shares.map((share) => 255 * Math.min(1, Math.max(0, Number(share)))).join(' ')})`);
  return /^#[0-9a-f]{6}$/i.test(colour) ? colour.toLowerCase() : '#000000';
}

/** The part of a canvas context that faces are painted with; it records marks instead. */
export class PaintRecorder implements Look {
  fillStyle = PLAIN.fillStyle;
  strokeStyle = PLAIN.strokeStyle;
  lineWidth = PLAIN.lineWidth;
  lineCap = PLAIN.lineCap;
  lineJoin = PLAIN.lineJoin;
  font = PLAIN.font;
  textAlign = PLAIN.textAlign;
  textBaseline = PLAIN.textBaseline;
  globalAlpha = PLAIN.globalAlpha;
  readonly marks: Mark[] = [];
  private dash: readonly number[] = [];
  private steps: Step[] = [];
  private matrix: Matrix;
  private area: Box | null = null;
  private readonly saved: (Look & { dash: readonly number[]; matrix: Matrix; area: Box | null })[] = [];

  /**
   * @param widthOf the width in pixels of a text in a font, as CSS names it.
   * @param dx where the left edge of the painting stands in the figure, in pixels.
   */
  constructor(
    private readonly widthOf: (text: string, font: string) => number,
    dx = 0,
    dy = 0,
  ) {
    this.matrix = { ...UNMOVED, e: dx, f: dy };
  }

  private look(): Look {
    return Object.fromEntries(LOOKS.map((name) => [name, this[name]])) as unknown as Look;
  }

  save(): void {
    this.saved.push({ ...this.look(), dash: this.dash, matrix: this.matrix, area: this.area });
  }

  restore(): void {
    const was = this.saved.pop();
    if (!was) return;
    const { dash, matrix, area, ...look } = was;
    Object.assign(this, look);
    this.dash = dash;
    this.matrix = matrix;
    this.area = area;
  }

  translate(x: number, y: number): void {
    this.matrix = after(this.matrix, { ...UNMOVED, e: x, f: y });
  }

  scale(x: number, y: number): void {
    this.matrix = after(this.matrix, { ...UNMOVED, a: x, d: y });
  }

  rotate(angle: number): void {
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    this.matrix = after(this.matrix, { a: cos, b: sin, c: -sin, d: cos, e: 0, f: 0 });
  }

  beginPath(): void {
    this.steps = [];
  }

  private add(d: string): void {
    this.steps.push(...stepsOfPath(d, this.matrix));
  }

  moveTo(x: number, y: number): void {
    this.steps.push({ to: 'move', at: mapped(this.matrix, x, y) });
  }

  lineTo(x: number, y: number): void {
    this.steps.push({ to: 'line', at: mapped(this.matrix, x, y) });
  }

  bezierCurveTo(a: number, b: number, c: number, d: number, x: number, y: number): void {
    const { matrix } = this;
    this.steps.push({
      to: 'curve',
      by: [mapped(matrix, a, b), mapped(matrix, c, d)],
      at: mapped(matrix, x, y),
    });
  }

  closePath(): void {
    this.steps.push({ to: 'close' });
  }

  rect(x: number, y: number, width: number, height: number): void {
    this.add(boxData(x, y, width, height));
  }

  roundRect(x: number, y: number, width: number, height: number, r = 0): void {
    this.add(roundBoxData(x, y, width, height, r));
  }

  arc(x: number, y: number, r: number, from = 0, to = 2 * Math.PI, isBack = false): void {
    this.add(arcData(x, y, r, from, to, isBack, this.steps.length > 0));
  }

  /** A path that this recorder can paint, where the canvas has one of its own. */
  recordedPath(data?: string): RecordedPath {
    return new RecordedPath(data);
  }

  /** Only boxes are clipped to. */
  clip(): void {
    const points = this.steps.flatMap((step) => (step.to === 'close' ? [] : [step.at]));
    const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
    this.area = { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
  }

  private mark(steps: readonly Step[], fill: string | null, isStroked: boolean): void {
    if (steps.length === 0 || this.globalAlpha === 0) return;
    const scale = scaleOf(this.matrix);
    const stroke = isStroked
      ? {
          colour: hexOf(this.strokeStyle),
          width: this.lineWidth * scale,
          dash: this.dash.map((length) => length * scale),
          cap: this.lineCap,
        }
      : null;
    this.marks.push({
      is: 'path',
      steps: [...steps],
      fill: fill && hexOf(fill),
      stroke,
      opacity: this.globalAlpha,
      clip: this.area,
    });
  }

  private stepsFor(path: RecordedPath | undefined): readonly Step[] {
    return path ? stepsOfPath(path.data, this.matrix) : this.steps;
  }

  stroke(path?: RecordedPath): void {
    this.mark(this.stepsFor(path), null, true);
  }

  fill(path?: RecordedPath): void {
    this.mark(this.stepsFor(path), this.fillStyle, false);
  }

  fillRect(x: number, y: number, width: number, height: number): void {
    if (width !== 0 && height !== 0)
      this.mark(stepsOfPath(boxData(x, y, width, height), this.matrix), this.fillStyle, false);
  }

  strokeRect(x: number, y: number, width: number, height: number): void {
    this.mark(stepsOfPath(boxData(x, y, width, height), this.matrix), null, true);
  }

  clearRect(): void {}

  /** The one picture that faces paint is of a sheet from far away; figures are painted at full size. */
  drawImage(): void {}

  setLineDash(dash: readonly number[]): void {
    this.dash = [...dash];
  }

  measureText(text: string): { width: number } {
    return { width: this.widthOf(text, this.font) };
  }

  fillText(text: string, x: number, y: number): void {
    if (text.trim() === '' || this.globalAlpha === 0) return;
    const [, weight = '400', size = '12', family = ''] = FONT.exec(this.font) ?? [];
    const { matrix } = this;
    const scale = scaleOf(matrix);
    const base =
      this.textBaseline === 'middle'
        ? 0.35 * Number(size)
        : this.textBaseline === 'top'
          ? 0.8 * Number(size)
          : 0;
    this.marks.push({
      is: 'text',
      at: mapped(matrix, x, y + base),
      runs: [{ text, low: false, barred: false }],
      size: Number(size) * scale,
      weight: Number(weight),
      face: /mono/i.test(family) ? 'mono' : 'text',
      align: ALIGNS[this.textAlign] ?? 'left',
      colour: hexOf(this.fillStyle),
      angle: (Math.atan2(matrix.b, matrix.a) * 180) / Math.PI,
      width: this.widthOf(text, this.font) * scale,
      opacity: this.globalAlpha,
      clip: this.area,
    });
  }
}

const ALIGNS: Readonly<Record<string, Align>> = {
  left: 'left',
  start: 'left',
  center: 'center',
  right: 'right',
  end: 'right',
};
