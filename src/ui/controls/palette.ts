import { COLOUR_INKS, type InkName, type Inks } from '@/core/figure/inks';

/** The theme's colours as the canvas needs them. */
export type Palette = Inks & {
  /** How much thicker lines, and how much larger labels are drawn than usual. */
  readonly lines: number;
  readonly letters: number;
};

const NAMES = Object.keys(COLOUR_INKS) as InkName[];

/** Reads the colours of the theme that is on now. */
export function readPalette(): Palette {
  const style = getComputedStyle(document.documentElement);
  const factor = (name: string) => Number(style.getPropertyValue(name)) || 1;
  const colours = Object.fromEntries(
    NAMES.map((n) => [n, style.getPropertyValue(`--${n}`).trim() || '#000']),
  );
  return { ...colours, lines: factor('--line-scale'), letters: factor('--text-scale') } as unknown as Palette;
}

export interface Fonts {
  readonly text: string;
  readonly mono: string;
}

export const FONTS: Fonts = {
  text: '"Atkinson Hyperlegible Next", system-ui, sans-serif',
  mono: '"Atkinson Hyperlegible Mono", ui-monospace, monospace',
};
