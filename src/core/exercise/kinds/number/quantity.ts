import { PS_PER_SECOND, readFrequency, readTime } from '../../../values/time';

/** What a number counts: nothing in particular, a time, or a frequency. */
export const QUANTITIES = ['number', 'time', 'frequency'] as const;
export type Quantity = (typeof QUANTITIES)[number];

/**
 * Reads an answer: `13`, `-3`, `0b1101`, `0xD`, `1.5e3`; a time with its unit, `12.5 ns`; a frequency with its unit, `80 MHz`.
 * @returns seconds, Hz or the number itself; null where it is none, or the unit is missing.
 */
export function readQuantity(text: string, quantity: Quantity): number | null {
  const plain = text.trim().replaceAll(',', '.').replaceAll('µ', 'u').replaceAll('−', '-');
  if (plain === '') return null;
  if (quantity === 'time') {
    const ps = readTime(plain);
    return ps === null ? null : ps / PS_PER_SECOND;
  }
  if (quantity === 'frequency') return readFrequency(plain);
  const based = /^(-?)0([bx])([0-9a-f]+)$/i.exec(plain);
  if (based) {
    const value = Number.parseInt(based[3]!, based[2]!.toLowerCase() === 'b' ? 2 : 16);
    const fits = based[2]!.toLowerCase() === 'x' || /^[01]+$/.test(based[3]!);
    return fits && Number.isSafeInteger(value) ? (based[1] ? -value : value) : null;
  }
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d{1,3})?$/i.test(plain) ? Number(plain) : null;
}
