import type { WireColour } from '../circuit/sheet';
import type { LampColour, Paint } from '../parts/shape';

/** Every colour that a figure is painted with, by its meaning. */
export type InkName =
  | Paint
  | 'grid'
  | 'unknown'
  | 'undriven'
  | 'conflict'
  | 'one-soft'
  | 'good'
  | 'bad'
  | 'accent-soft'
  | `lamp-${LampColour}`
  | `wire-${WireColour}`;

export type Inks = Readonly<Record<InkName, string>>;

/** The light theme on white: a picture is mostly put on paper. */
export const COLOUR_INKS: Inks = {
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
  good: '#3e7c59',
  bad: '#b3303c',
  'accent-soft': '#f2e6ef',
  'wire-rose': '#f3b5c4',
  'wire-violet': '#d3bdf0',
  'wire-blue': '#b4d2f2',
  'wire-teal': '#a5dcd4',
  'wire-green': '#c4dfa6',
  'wire-sand': '#e8cfa8',
};

const BLACK = '#000000';
const PALE = '#d9d9d9';

/** Black on white, for paper: signals differ by weight and pattern, areas by a grey that leaves letters readable. */
export const BLACK_INKS: Inks = {
  ...COLOUR_INKS,
  ink: BLACK,
  quiet: BLACK,
  accent: BLACK,
  hairline: '#a0a0a0',
  zero: BLACK,
  one: BLACK,
  unknown: BLACK,
  undriven: '#808080',
  conflict: BLACK,
  good: BLACK,
  bad: BLACK,
  'lamp-red': '#808080',
  'lamp-green': '#808080',
  'lamp-blue': '#808080',
  'one-soft': '#ececec',
  'accent-soft': '#ececec',
  'wire-rose': PALE,
  'wire-violet': PALE,
  'wire-blue': PALE,
  'wire-teal': PALE,
  'wire-green': PALE,
  'wire-sand': PALE,
};
