import { readTime } from '@/core/values/time';

const HERTZ: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** Ps of `20 ns`, of `20` as ns, or of a period of `4 Hz`; 0 for 0 Hz; null where it is none of them. */
export function durationOf(text: string): number | null {
  const said = text.trim();
  const frequency = /^(\d+(?:\.\d+)?)\s*(hz|khz|mhz|ghz)$/i.exec(said);
  if (frequency) {
    const hertz = Number(frequency[1]) * HERTZ[frequency[2]!.toLowerCase()]!;
    return hertz > 0 ? Math.round(1e12 / hertz) : 0;
  }
  if (/^\d+(\.\d+)?$/.test(said)) return Math.round(Number(said) * 1000);
  return readTime(said);
}
