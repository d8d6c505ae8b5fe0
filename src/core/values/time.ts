/** Picoseconds in a second. */
export const PS_PER_SECOND = 1e12;

/** Picoseconds in each unit of time. */
export const PS_PER_UNIT = { s: PS_PER_SECOND, ms: 1e9, us: 1e6, ns: 1e3, ps: 1, fs: 1e-3 } as const;
export type TimeUnit = keyof typeof PS_PER_UNIT;

/** The distance in ps between a time and the next one that a number can hold: 1 up to 2^53 ps, two and a half hours. */
const spacing = (time: number) => (time < 2 ** 53 ? 1 : 2 ** (Math.floor(Math.log2(time)) - 52));

/** The last time in ps before another; by 1 ps while numbers are exact. */
export const justBefore = (time: number): number => time - spacing(time);
/** The first time in ps after another. */
export const justAfter = (time: number): number => time + spacing(time);

const HERTZ = { ghz: 1e9, mhz: 1e6, khz: 1e3, hz: 1 } as const;

/** The prefixes of units that are written out, and as they are abbreviated. */
const PREFIXES = { milli: 'm', micro: 'u', nano: 'n', pico: 'p', kilo: 'k', mega: 'm', giga: 'g' } as const;
const WRITTEN_OUT = new RegExp(`(?<![a-z])(${Object.keys(PREFIXES).join('|')})?(seconds?|hertz)\\b`, 'gi');
/** The text with `milliseconds` as `ms` and `kilohertz` as `khz`. */
const abbreviated = (text: string): string =>
  text.replace(
    WRITTEN_OUT,
    (_, prefix: string | undefined, unit: string) =>
      (prefix ? PREFIXES[prefix.toLowerCase() as keyof typeof PREFIXES] : '') +
      (/^h/i.test(unit) ? 'hz' : 's'),
  );

const NUMBER = String.raw`(\d+(?:\.\d*)?(?:e[+-]?\d+)?|\.\d+(?:e[+-]?\d+)?)`;
const BARE = new RegExp(`^${NUMBER}$`, 'i');
const ONE_TIME = new RegExp(
  String.raw`${NUMBER}\s*(ps|ns|us|µs|ms|s|sec|min|minutes?|h|hours?|d|days?)(?![a-zµ])\s*`,
  'iy',
);
const ONE_FREQUENCY = new RegExp(`^${NUMBER}\\s*(hz|khz|mhz|ghz)$`, 'i');

/** Picoseconds in the units that only people use. */
const LONG_UNITS = { min: 60 * PS_PER_SECOND, h: 3600 * PS_PER_SECOND, d: 86_400 * PS_PER_SECOND } as const;

function psPerUnit(word: string): number {
  const unit = word.toLowerCase().replace('µ', 'u');
  if (unit in PS_PER_UNIT) return PS_PER_UNIT[unit as TimeUnit];
  if (unit.startsWith('s')) return PS_PER_SECOND;
  return unit.startsWith('m') ? LONG_UNITS.min : unit.startsWith('h') ? LONG_UNITS.h : LONG_UNITS.d;
}

/** Picoseconds of `40ns`, `.2 s`, `1.5 us`, `4 h 33 min`; null where there is no unit or no number. */
export function readTime(text: string): number | null {
  const typed = abbreviated(text.trim());
  let sum = 0;
  ONE_TIME.lastIndex = 0;
  for (let read = 0; read === 0 || read < typed.length; read = ONE_TIME.lastIndex) {
    ONE_TIME.lastIndex = read;
    const found = ONE_TIME.exec(typed);
    if (!found) return null;
    sum += Number(found[1]) * psPerUnit(found[2]!);
  }
  return Math.round(sum);
}

/** Hz of `4 Hz`, `1.5MHz`; null where there is no unit or no number. */
export function readFrequency(text: string): number | null {
  const found = ONE_FREQUENCY.exec(abbreviated(text.trim()));
  return found ? Number(found[1]) * HERTZ[found[2]!.toLowerCase() as keyof typeof HERTZ] : null;
}

/**
 * What a person types where a time or a frequency is asked for, in a unit: `2 kHz`, `20 ms`, or a bare number, which
 * counts in that unit. A period stands for its frequency, and a frequency for its period; 0 Hz for a period of 0.
 * Null if it is none of them.
 */
export function readIn(unit: TimeUnit | 'Hz', text: string): number | null {
  const typed = text.trim();
  if (BARE.test(typed)) return Number(typed);
  const ps = readTime(typed);
  const hertz = readFrequency(typed);
  if (unit === 'Hz') return hertz ?? (ps ? PS_PER_SECOND / ps : null);
  const time = ps ?? (hertz === null ? null : hertz > 0 ? Math.round(PS_PER_SECOND / hertz) : 0);
  return time === null ? null : time / PS_PER_UNIT[unit];
}

/** Picoseconds of a time as `readIn` reads it; a bare number is in ns. */
export function readDuration(text: string): number | null {
  const ns = readIn('ns', text);
  return ns === null ? null : Math.round(ns * PS_PER_UNIT.ns);
}

const SCALES = [
  ['s', PS_PER_UNIT.s],
  ['ms', PS_PER_UNIT.ms],
  ['µs', PS_PER_UNIT.us],
  ['ns', PS_PER_UNIT.ns],
] as const;

/** From here on a time is told in minutes, hours and days. */
const MANY_SECONDS = 120;

/** A time in ps in the unit that reads best, in six digits: `1.25 s`, `40 ns`, `0 s`, `4 h 33 min`. */
export const timeText = (ps: number): string => toldTime(ps, 6);

/** As `timeText`, in twelve digits: `1.00000125 s`. */
export const fineTimeText = (ps: number): string => toldTime(ps, 12);

function toldTime(ps: number, most: number): string {
  if (ps === 0) return '0 s';
  if (Math.abs(ps) >= MANY_SECONDS * PS_PER_SECOND) return longTimeText(ps);
  const digits = (scale: number) => +(ps / scale).toPrecision(most);
  // 999.9999 ms are told as 1 s.
  const [unit, scale] = SCALES.find(([, s]) => Math.abs(digits(s)) >= 1) ?? (['ps', 1] as const);
  return `${digits(scale)} ${unit}`;
}

function longTimeText(ps: number): string {
  let seconds = +(Math.abs(ps) / PS_PER_SECOND).toFixed(3);
  const words: string[] = [];
  for (const [unit, length] of [
    ['d', 86_400],
    ['h', 3600],
    ['min', 60],
  ] as const) {
    const count = Math.floor(seconds / length);
    if (count > 0) words.push(`${count} ${unit}`);
    seconds = +(seconds - count * length).toFixed(3);
  }
  if (seconds > 0) words.push(`${seconds} s`);
  return (ps < 0 ? '-' : '') + words.join(' ');
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
