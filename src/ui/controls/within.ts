/** A pixel clamped to a range; to its beginning if the range is empty. */
export function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(value, most));
}
