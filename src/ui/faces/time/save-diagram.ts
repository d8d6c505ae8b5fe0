import { load } from '@/loading/load';
import { painterOf } from '@/ui/controls/painted';
import { readPalette } from '@/ui/controls/palette';
import { fileName, saveFile } from '@/ui/controls/save-file';

/** Saves the diagram as it is shown. @param title of the lesson. */
export async function saveDiagram(
  kind: 'svg' | 'png',
  title: string,
  canvas: HTMLCanvasElement,
): Promise<void> {
  const paint = painterOf(canvas);
  if (!paint) return;
  const { fitted, figureSvg, figurePng, recordedMarks } = await load(
    'the picture writer',
    () => import('@/ui/figure/pictures'),
  );
  const palette = readPalette();
  const figure = fitted(
    title,
    recordedMarks((g) => paint(g, palette)),
    palette.raised,
  );
  if (kind === 'svg') saveFile(fileName(title, '-time.svg'), figureSvg(figure), 'image/svg+xml');
  else saveFile(fileName(title, '-time.png'), await figurePng(figure, 2), 'image/png');
}
