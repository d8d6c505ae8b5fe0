/** Picoseconds in a second. */
export const PS_PER_SECOND = 1e12;

const UNITS: Record<string, number> = { ps: 1, ns: 1e3, us: 1e6, µs: 1e6, ms: 1e9, s: 1e12 };

/** Picoseconds of `40ns`, `1.5 us`, `20 ms`; null where there is no unit or no number. */
export function readTime(text: string): number | null {
  const found = /^(\d+(?:\.\d+)?(?:e[+-]?\d+)?)\s*(ps|ns|us|µs|ms|s)$/i.exec(text.trim());
  if (!found) return null;
  return Math.round(Number(found[1]) * UNITS[found[2]!.toLowerCase()]!);
}

const SCALES = [
  ['s', 1e12],
  ['ms', 1e9],
  ['µs', 1e6],
  ['ns', 1e3],
] as const;

/** A time in ps in the unit that reads best: `1.25 s`, `40 ns`, `0 s`. */
export function timeText(ps: number): string {
  if (ps === 0) return '0 s';
  const [unit, scale] = SCALES.find(([, s]) => Math.abs(ps) >= s) ?? (['ps', 1] as const);
  return `${+(ps / scale).toPrecision(6)} ${unit}`;
}
