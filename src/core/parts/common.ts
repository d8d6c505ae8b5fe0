import type { Params } from '../circuit/lesson';
import { text, whole, z } from '../values/schema';
import type { Setting } from './part-kind';
import { roundedBox, type Shape } from './shape';

export const MOST_BITS = 32;
/** What only hands bits on may be wider. */
export const MOST_WIRES = 256;

/** Delays of one part that differ from those of its kind, in ps. */
export const ownDelay = {
  delayRise: z.optional(whole(0, 1_000_000_000)),
  delayFall: z.optional(whole(0, 1_000_000_000)),
};

/** How long the data must stand still around the clock edge where that differs from the kind's, in ps. */
export const ownWindow = {
  setup: z.optional(whole(0, 1_000_000_000)),
  hold: z.optional(whole(0, 1_000_000_000)),
};

/** What stands over an input or output, and the key that moves it in front of a class. */
export const caption = z._default(text(12), '');
export const boundKey = z._default(text(1), '');

export const captionSetting: Setting = {
  param: 'caption',
  label: 'Caption',
  control: 'short',
  hint: 'over it: 8, MSB',
};
export const keySetting: Setting = {
  param: 'key',
  label: 'Key',
  control: 'short',
  hint: 'a letter or digit',
};

/** A caption as a shape over a body that ends at that height. */
export function captionShapes(params: Params, top: number): Shape[] {
  const said = params.caption as string | undefined;
  return said
    ? [{ shape: 'text', x: 0, y: top - 0.75, text: said, size: 0.85, align: 'center', paint: 'quiet' }]
    : [];
}

/** The bound key as a small key cap under a part, right of its value. */
export function keyShapes(params: Params, bottom: number): Shape[] {
  const key = params.key as string | undefined;
  if (!key) return [];
  return [
    {
      shape: 'path',
      d: roundedBox(0.75, bottom + 0.25, 2.05, bottom + 1.55, 0.3),
      fill: 'paper',
      stroke: 'quiet',
      weight: 0.08,
    },
    {
      shape: 'text',
      x: 1.4,
      y: bottom + 0.9,
      text: key.toUpperCase(),
      size: 0.8,
      align: 'center',
      face: 'mono',
      paint: 'quiet',
    },
  ];
}

export const bits = (least = 1, most = MOST_BITS, usual = least) => z._default(whole(least, most), usual);

export const widthSetting: Setting = {
  param: 'width',
  label: 'Bits',
  control: 'number',
  least: 1,
  most: MOST_BITS,
};

/** Where a port stands on the block: inputs usually left, outputs right. */
export const PIN_SIDES = ['usual', 'left', 'right', 'top', 'bottom'] as const;
export type PinSide = (typeof PIN_SIDES)[number];

/** What storage holds at first: as the lesson says, or always the same. */
export const powerUp = z._default(z.enum(['lesson', '0', '1', 'X']), 'lesson');

export const powerUpSetting: Setting = {
  param: 'powerUp',
  label: 'At power-up',
  control: 'choice',
  options: [
    { value: 'lesson', label: 'as the lesson says' },
    { value: '0', label: '0' },
    { value: '1', label: '1' },
    { value: 'X', label: 'unknown' },
  ],
};

/** Reads one typed word as a number of bits: `8`, `8bit`, `8-bit`. */
export function typedBits(word: string, least = 1, most = MOST_BITS): number | null {
  const found = /^(\d{1,3})(?:-?bits?)?$/.exec(word);
  const n = found ? Number(found[1]) : Number.NaN;
  return n >= least && n <= most ? n : null;
}

/** The width that one typed word sets, or null where it is no number of bits. */
export function typedWidth(word: string): Params | null {
  const width = typedBits(word);
  return width ? { width } : null;
}

/** `1 bit`, `8 bits`. */
export function bitsText(width: number): string {
  return width === 1 ? '1 bit' : `${width} bits`;
}
