import { WIRE_COLOURS, type WireColour } from '@/core/circuit/sheet';
import { LAMP_COLOURS, type Paint } from '@/core/parts/shape';

/** The theme's colours as the canvas needs them. */
export type Palette = Readonly<
  Record<
    | Paint
    | 'grid'
    | 'unknown'
    | 'undriven'
    | 'conflict'
    | 'one-soft'
    | 'bad'
    | 'accent-soft'
    | `wire-${WireColour}`,
    string
  >
> & {
  /** How much thicker lines, and how much larger labels are drawn than usual. */
  readonly lines: number;
  readonly letters: number;
};

const NAMES: readonly Exclude<keyof Palette, 'lines' | 'letters'>[] = [
  'ink',
  'raised',
  'paper',
  'quiet',
  'accent',
  'hairline',
  'zero',
  'one',
  'grid',
  'unknown',
  'undriven',
  'conflict',
  'one-soft',
  'bad',
  'accent-soft',
  ...LAMP_COLOURS.map((c) => `lamp-${c}` as const),
  ...WIRE_COLOURS.map((c) => `wire-${c}` as const),
];

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
