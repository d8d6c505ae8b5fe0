/** The part of a canvas context that the diagram is painted with, written as SVG instead. */
export class SvgContext {
  fillStyle = '#000';
  strokeStyle = '#000';
  lineWidth = 1;
  font = '12px sans-serif';
  textAlign: 'left' | 'right' | 'center' = 'left';
  textBaseline = 'alphabetic';
  private path: string[] = [];
  private dash: readonly number[] = [];
  private readonly shapes: string[] = [];
  private clips = 0;
  private open = 0;

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly measure: CanvasRenderingContext2D,
  ) {}

  save(): void {}

  restore(): void {
    for (; this.open > 0; this.open--) this.shapes.push('</g>');
  }

  beginPath(): void {
    this.path = [];
  }

  moveTo(x: number, y: number): void {
    this.path.push(`M${short(x)} ${short(y)}`);
  }

  lineTo(x: number, y: number): void {
    this.path.push(`L${short(x)} ${short(y)}`);
  }

  bezierCurveTo(a: number, b: number, c: number, d: number, x: number, y: number): void {
    this.path.push(`C${[a, b, c, d, x, y].map(short).join(' ')}`);
  }

  rect(x: number, y: number, width: number, height: number): void {
    this.path.push(`M${short(x)} ${short(y)}h${short(width)}v${short(height)}h${short(-width)}z`);
  }

  /** Whole circles only. */
  arc(x: number, y: number, r: number): void {
    const [w, s] = [short(r), short(2 * r)];
    this.path.push(`M${short(x - r)} ${short(y)}a${w} ${w} 0 1 0 ${s} 0a${w} ${w} 0 1 0 -${s} 0`);
  }

  clip(): void {
    const id = `clip${++this.clips}`;
    this.shapes.push(
      `<clipPath id="${id}"><path d="${this.path.join('')}"/></clipPath><g clip-path="url(#${id})">`,
    );
    this.open++;
  }

  stroke(): void {
    const dash = this.dash.length > 0 ? ` stroke-dasharray="${this.dash.join(' ')}"` : '';
    this.shapes.push(
      `<path d="${this.path.join('')}" fill="none" stroke="${this.strokeStyle}" stroke-width="${this.lineWidth}"${dash}/>`,
    );
  }

  fill(): void {
    this.shapes.push(`<path d="${this.path.join('')}" fill="${this.fillStyle}"/>`);
  }

  fillRect(x: number, y: number, width: number, height: number): void {
    this.shapes.push(
      `<rect x="${short(x)}" y="${short(y)}" width="${short(width)}" height="${short(height)}" fill="${this.fillStyle}"/>`,
    );
  }

  setLineDash(dash: readonly number[]): void {
    this.dash = dash;
  }

  measureText(text: string): { width: number } {
    this.measure.font = this.font;
    return this.measure.measureText(text);
  }

  fillText(text: string, x: number, y: number): void {
    const [, weight, size, family] = /^(\d+) ([\d.]+)px (.*)$/.exec(this.font) ?? [
      '',
      '400',
      '12',
      'sans-serif',
    ];
    const anchor = { left: 'start', center: 'middle', right: 'end' }[this.textAlign];
    this.shapes.push(
      `<text x="${short(x)}" y="${short(y)}" text-anchor="${anchor}" font-weight="${weight}" font-size="${size}" font-family="${escaped(family!)}" fill="${this.fillStyle}">${escaped(text)}</text>`,
    );
  }

  /** All that was painted, as the text of a file. */
  text(): string {
    const size = `width="${this.width}" height="${this.height}" viewBox="0 0 ${this.width} ${this.height}"`;
    return `<svg xmlns="http://www.w3.org/2000/svg" ${size}>\n${this.shapes.join('\n')}\n</svg>\n`;
  }
}

const short = (n: number) => String(+n.toFixed(2));
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
