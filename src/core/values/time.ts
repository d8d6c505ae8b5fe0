/** Picoseconds in a second. */
export const PS_PER_SECOND = 1e12;

/** Picoseconds in each unit of time. */
export const PS_PER_UNIT = { s: PS_PER_SECOND, ms: 1e9, us: 1e6, ns: 1e3, ps: 1, fs: 1e-3 } as const;
export type TimeUnit = keyof typeof PS_PER_UNIT;

const HERTZ = { ghz: 1e9, mhz: 1e6, khz: 1e3, hz: 1 } as const;

/** Picoseconds of `40ns`, `1.5 us`, `20 ms`; null where there is no unit or no number. */
export function readTime(text: string): number | null {
  const found = /^(\d+(?:\.\d+)?(?:e[+-]?\d+)?)\s*(ps|ns|us|µs|ms|s)$/i.exec(text.trim());
  if (!found) return null;
  const unit = found[2]!.toLowerCase().replace('µ', 'u') as TimeUnit;
  return Math.round(Number(found[1]) * PS_PER_UNIT[unit]);
}

/** Hz of `4 Hz`, `1.5MHz`; null where there is no unit or no number. */
export function readFrequency(text: string): number | null {
  const found = /^(\d+(?:\.\d+)?)\s*(hz|khz|mhz|ghz)$/i.exec(text.trim());
  return found ? Number(found[1]) * HERTZ[found[2]!.toLowerCase() as keyof typeof HERTZ] : null;
}

/**
 * Picoseconds of `20 ns`, of `20` as ns, or of a period of `4 Hz`; 0 for 0 Hz; null if it is none of them.
 */
export function readDuration(text: string): number | null {
  const hertz = readFrequency(text);
  if (hertz !== null) return hertz > 0 ? Math.round(PS_PER_SECOND / hertz) : 0;
  if (/^\s*\d+(\.\d+)?\s*$/.test(text)) return Math.round(Number(text) * PS_PER_UNIT.ns);
  return readTime(text);
}

const SCALES = [
  ['s', PS_PER_UNIT.s],
  ['ms', PS_PER_UNIT.ms],
  ['µs', PS_PER_UNIT.us],
  ['ns', PS_PER_UNIT.ns],
] as const;

/** A time in ps in the unit that reads best: `1.25 s`, `40 ns`, `0 s`. */
export function timeText(ps: number): string {
  if (ps === 0) return '0 s';
  const [unit, scale] = SCALES.find(([, s]) => Math.abs(ps) >= s) ?? (['ps', 1] as const);
  return `${+(ps / scale).toPrecision(6)} ${unit}`;
}

const FREQUENCIES = [
  ['GHz', HERTZ.ghz],
  ['MHz', HERTZ.mhz],
  ['kHz', HERTZ.khz],
  ['Hz', HERTZ.hz],
] as const;

/** A frequency in Hz in the unit that reads best: `4 Hz`, `33.3 MHz`. */
export function frequencyText(hertz: number): string {
  const [unit, scale] = FREQUENCIES.find(([, s]) => hertz >= s) ?? FREQUENCIES[3];
  return `${+(hertz / scale).toPrecision(4)} ${unit}`;
}
