import { type Figure, fitted, recoloured } from '@/core/figure/figure';
import { BLACK_INKS, COLOUR_INKS, type InkName, type Inks } from '@/core/figure/inks';
import { elementMarks } from './element-marks';

/** The colours of a figure, as a person chooses them. */
export type Ink = 'in colour' | 'black';

export const INKS: Readonly<Record<Ink, Inks>> = { 'in colour': COLOUR_INKS, black: BLACK_INKS };

/** The figure of a face as it is seen, in the colours of the light theme or black. */
export function faceFigure(pane: HTMLElement, title: string, ink: Ink): Figure {
  const marks = inLight(() => elementMarks(pane, INKS[ink]));
  const figure = fitted(title, marks, '#ffffff');
  return recoloured(figure, ink === 'black' ? blackened : whitened);
}

/** Looks at the page as it is in the light theme; nothing of that is painted. */
function inLight<T>(look: () => T): T {
  const { dataset } = document.documentElement;
  const was = dataset.theme;
  dataset.theme = 'light';
  try {
    return look();
  } finally {
    if (was === undefined) delete dataset.theme;
    else dataset.theme = was;
  }
}

/** The page's own paper is that of the figure. */
const PAPERS: ReadonlySet<string> = new Set(['#fbf8f2', '#f3ede1']);
const whitened = (colour: string): string => (PAPERS.has(colour) ? '#ffffff' : colour);

const NAMED = new Map(
  (Object.keys(COLOUR_INKS) as InkName[]).map((name) => [COLOUR_INKS[name], BLACK_INKS[name]]),
);

/** Colours that have no name in a figure become white, pale or black by their brightness. */
function blackened(colour: string): string {
  const known = NAMED.get(whitened(colour)) ?? (isGrey(colour) ? colour : undefined);
  if (known) return known;
  const bright = brightness(colour);
  return bright > 0.93 ? '#ffffff' : bright > 0.75 ? '#ececec' : '#000000';
}

const channels = (colour: string) =>
  [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16) / 255);
const isGrey = (colour: string): boolean =>
  new Set([1, 3, 5].map((at) => colour.slice(at, at + 2))).size === 1;

/** Luma of a colour as ITU-R BT.601 weighs it, 0 to 1. */
function brightness(colour: string): number {
  const [red, green, blue] = channels(colour) as [number, number, number];
  return 0.299 * red + 0.587 * green + 0.114 * blue;
}
