import { load } from '@/loading/load';
import { fileName, saveFile } from '@/ui/controls/files';
import { FONTS, type Palette } from '@/ui/controls/palette';
import type { Size } from '@/ui/controls/usePainter';
import type { Diagram } from './diagram';
import { paintDiagram } from './paint-diagram';

/** A diagram as it was painted last. */
export interface PaintedDiagram {
  readonly diagram: Diagram;
  readonly palette: Palette;
}

/** Saves the diagram as it is shown. @param title of the lesson. */
export async function saveDiagram(
  kind: 'svg' | 'png',
  title: string,
  canvas: HTMLCanvasElement,
  size: Size,
  painted: PaintedDiagram,
): Promise<void> {
  if (kind === 'png') {
    canvas.toBlob((blob) => blob && saveFile(fileName(title, '-time.png'), blob, 'image/png'));
    return;
  }
  const g = canvas.getContext('2d');
  if (!g) return;
  const { SvgContext } = await load('the picture writer', () => import('./svg-context'));
  const svg = new SvgContext(size.width, size.height, g);
  paintDiagram(svg as unknown as CanvasRenderingContext2D, size, painted.diagram, painted.palette, FONTS);
  saveFile(fileName(title, '-time.svg'), svg.text(), 'image/svg+xml');
}
