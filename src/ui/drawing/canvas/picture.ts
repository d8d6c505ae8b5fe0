import { boundingBox, grown } from '@/core/circuit/geometry';
import { footprintOf } from '@/core/drawing/geometry/placement';
import { STEP } from '@/core/drawing/geometry/viewport';
import { type Figure, fitted } from '@/core/figure/figure';
import { BLACK_INKS, COLOUR_INKS, type Inks } from '@/core/figure/inks';
import type { SessionState } from '@/session/state';
import { paletteOf, recordedMarks } from '@/ui/figure/element-marks';
import { figurePng } from '@/ui/figure/paint-figure';
import { pinNotesNow } from '@/ui/session/sheet-plan';
import { paint } from './painter';
import { PLAIN } from './scene';
import { sceneOf } from './scene-of';

/** Pixels of a picture for each of the screen. */
const SHARP = 3;
/** Grid steps of paper around the drawing. */
const MARGIN = 2;
/** Grid steps around the parts within which wires are looked for. */
const AROUND = 40;

/** A sheet as it is now as a figure, signals and all: the same shapes as on the screen. */
export async function sheetFigureNow(state: SessionState, inks: Inks = COLOUR_INKS): Promise<Figure> {
  await document.fonts.ready;
  const scene = { ...sceneOf(state), notes: await pinNotesNow(state) };
  const parts = boundingBox([...scene.sheet.parts.values()].map(footprintOf));
  const box = grown(parts ?? { x0: 0, y0: 0, x1: 20, y1: 10 }, AROUND);
  const size = { width: (box.x1 - box.x0) * STEP, height: (box.y1 - box.y0) * STEP };
  const view = { x: box.x0, y: box.y0, scale: 1 };
  const marks = recordedMarks((g) => paint(g, size, view, scene, PLAIN, paletteOf(inks)));
  return fitted(scene.sheet.name, marks, inks.paper, MARGIN * STEP);
}

/** A sheet as it is now on white, sharp enough to print. */
export const pictureOf = async (state: SessionState): Promise<Blob> =>
  figurePng(await sheetFigureNow(state), SHARP);

/** Prints a sheet by itself in black, as large as a page takes it; the title of the lesson and of the sheet stand above it. */
export async function printSheet(state: SessionState, title: string): Promise<void> {
  const address = URL.createObjectURL(await figurePng(await sheetFigureNow(state, BLACK_INKS), SHARP));
  const page = document.createElement('div');
  page.className = 'printed';
  const heading = document.createElement('p');
  heading.textContent = title;
  const picture = document.createElement('img');
  picture.alt = title;
  page.append(heading, picture);
  document.body.append(page);
  const clear = () => {
    page.remove();
    URL.revokeObjectURL(address);
  };
  try {
    picture.src = address;
    await picture.decode();
    window.addEventListener('afterprint', clear, { once: true });
    window.print();
  } catch (error) {
    clear();
    throw error;
  }
}
