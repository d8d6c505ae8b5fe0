import { boundingBox } from '@/core/circuit/geometry';
import { footprintOf } from '@/core/drawing/geometry/placement';
import { STEP } from '@/core/drawing/geometry/viewport';
import type { SessionState } from '@/session/state';
import type { Palette } from '@/ui/controls/palette';
import { pinNotesNow } from '@/ui/session/sheet-plan';
import { paint } from './painter';
import { PLAIN } from './scene';
import { sceneOf } from './scene-of';

/** The light theme on white paper, for pictures that are printed or handed on. */
const LIGHT: Palette = {
  ink: '#2a2331',
  raised: '#ffffff',
  paper: '#ffffff',
  quiet: '#6e6678',
  accent: '#7a3b69',
  hairline: '#e4ddd0',
  zero: '#8a8494',
  one: '#e39a12',
  'lamp-red': '#d6402f',
  'lamp-green': '#2f9e44',
  'lamp-blue': '#2b7fd4',
  grid: '#ffffff',
  unknown: '#7b5cc4',
  undriven: '#b9b2c0',
  conflict: '#c4203b',
  'one-soft': '#fcefd6',
  bad: '#b3303c',
  'accent-soft': '#f2e6ef',
  'wire-rose': '#f3b5c4',
  'wire-violet': '#d3bdf0',
  'wire-blue': '#b4d2f2',
  'wire-teal': '#a5dcd4',
  'wire-green': '#c4dfa6',
  'wire-sand': '#e8cfa8',
  lines: 1,
  letters: 1,
};

/** Pixels of a picture for each of the screen, and the longest that one of its sides may become. */
const SHARP = 3;
const LONGEST = 12_000;
/** Grid steps of paper around the drawing. */
const MARGIN = 2;

/** A sheet as it is now, signals and all, on white: the same shapes as on the screen, sharp enough to print. */
export async function pictureOf(state: SessionState, palette: Palette = LIGHT): Promise<Blob> {
  await document.fonts.ready;
  const scene = { ...sceneOf(state), notes: await pinNotesNow(state) };
  const box = boundingBox([...scene.sheet.parts.values()].map(footprintOf)) ?? {
    x0: 0,
    y0: 0,
    x1: 20,
    y1: 10,
  };
  const [w, h] = [box.x1 - box.x0 + 2 * MARGIN, box.y1 - box.y0 + 2 * MARGIN];
  const ratio = Math.min(SHARP, LONGEST / (Math.max(w, h) * STEP));
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(w * STEP * ratio);
  canvas.height = Math.ceil(h * STEP * ratio);
  const g = canvas.getContext('2d');
  if (!g) throw new Error('this browser cannot paint pictures');
  g.setTransform(ratio, 0, 0, ratio, 0, 0);
  const view = { x: box.x0 - MARGIN, y: box.y0 - MARGIN, scale: 1 };
  paint(g, { width: w * STEP, height: h * STEP }, view, scene, PLAIN, palette);
  return new Promise((done, fail) => {
    canvas.toBlob(
      (blob) => (blob ? done(blob) : fail(new Error('the picture became too large'))),
      'image/png',
    );
  });
}

/** Prints a sheet by itself, as large as a page takes it; the title of the lesson and of the sheet stand above it. */
export async function printSheet(state: SessionState, title: string): Promise<void> {
  const address = URL.createObjectURL(await pictureOf(state));
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
