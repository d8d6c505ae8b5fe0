import { runsOf } from '@/core/values/markup';
import { FONTS } from '@/ui/controls/palette';

let font = { weight: 400, face: FONTS.text };

export function setFont(g: CanvasRenderingContext2D, weight: number, size: number, face: string): void {
  font = { weight, face };
  g.font = `${weight} ${size}px ${face}`;
}

/** Writes a text with its subscripts and bars, in the font that was set last. */
export function writeText(
  g: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  size: number,
  align: 'left' | 'center' | 'right',
): void {
  g.textBaseline = 'alphabetic';
  if (!/[_~]/.test(text)) {
    g.textAlign = align;
    g.fillText(text, x, y);
    return;
  }
  const { weight, face } = font;
  const sized = (low: boolean) => setFont(g, weight, low ? size * 0.72 : size, face);
  const runs = runsOf(text).map((run) => {
    sized(run.low);
    return { ...run, width: g.measureText(run.text).width };
  });
  const whole = runs.reduce((sum, run) => sum + run.width, 0);
  let at = align === 'left' ? x : align === 'right' ? x - whole : x - whole / 2;
  g.textAlign = 'left';
  for (const { text: said, low, barred, width } of runs) {
    sized(low);
    const base = low ? y + size * 0.22 : y;
    g.fillText(said, at, base);
    if (barred) g.fillRect(at, y - size * 0.86, width, size * 0.08);
    at += width;
  }
  sized(false);
}
