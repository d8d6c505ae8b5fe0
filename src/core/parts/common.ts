import { whole, z } from '../values/schema';
import type { Setting } from './part-kind';

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

export const bits = (least = 1, most = MOST_BITS, usual = least) => z._default(whole(least, most), usual);

export const widthSetting: Setting = {
  param: 'width',
  label: 'Bits',
  control: 'number',
  least: 1,
  most: MOST_BITS,
};

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

/** `1 bit`, `8 bits`. */
export function bitsText(width: number): string {
  return width === 1 ? '1 bit' : `${width} bits`;
}
