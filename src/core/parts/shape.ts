/** Colours by meaning; the painter and the SVG writer look up their values in each theme. */
export type Paint =
  | 'ink'
  | 'raised'
  | 'paper'
  | 'quiet'
  | 'accent'
  | 'hairline'
  | 'zero'
  | 'one'
  | `lamp-${LampColour}`;

/** The colours of light that a lamp can have instead of that of a 1. */
export const LAMP_COLOURS = ['red', 'green', 'blue'] as const;
export type LampColour = (typeof LAMP_COLOURS)[number];

/**
 * One stroke of a drawing, in grid steps with the part's own origin; `weight` is a line width in grid steps.
 * Text is always painted upright, whatever way the part is turned.
 */
export type Shape =
  | {
      readonly shape: 'path';
      /** SVG path data. */
      readonly d: string;
      readonly fill?: Paint;
      readonly stroke?: Paint;
      readonly weight?: number;
    }
  | {
      readonly shape: 'circle';
      readonly x: number;
      readonly y: number;
      readonly r: number;
      readonly fill?: Paint;
      readonly stroke?: Paint;
      readonly weight?: number;
    }
  | {
      readonly shape: 'text';
      readonly x: number;
      readonly y: number;
      readonly text: string;
      /** Height of the letters in grid steps. */
      readonly size: number;
      readonly align?: 'left' | 'center' | 'right';
      readonly paint?: Paint;
      readonly face?: 'text' | 'mono';
      /** Whether it tells a value at the moment, and not what the part is. */
      readonly isSignal?: boolean;
      readonly bold?: boolean;
    };

/** The stroke of every symbol. */
export const LINE = 0.14;

/** A part's outline, filled like raised paper. */
export function outline(d: string): Shape {
  return { shape: 'path', d, fill: 'raised', stroke: 'ink', weight: LINE };
}

/** The small circle of an inverted pin, its centre given. */
export function bubble(x: number, y: number): Shape {
  return { shape: 'circle', x, y, r: 0.3, fill: 'raised', stroke: 'ink', weight: LINE };
}

/** SVG path data of a rectangle with rounded corners. */
export function roundedBox(x0: number, y0: number, x1: number, y1: number, r: number): string {
  return (
    `M${x0 + r} ${y0}H${x1 - r}A${r} ${r} 0 0 1 ${x1} ${y0 + r}V${y1 - r}A${r} ${r} 0 0 1 ${x1 - r} ${y1}` +
    `H${x0 + r}A${r} ${r} 0 0 1 ${x0} ${y1 - r}V${y0 + r}A${r} ${r} 0 0 1 ${x0 + r} ${y0}Z`
  );
}

/** A table on the sheet: its heading, its rows, and the row of the moment if there is one. */
export interface TableLook {
  readonly heading: readonly string[];
  readonly rows: readonly (readonly string[])[];
  readonly at: number | null;
}
