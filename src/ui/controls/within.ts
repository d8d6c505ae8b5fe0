/** A pixel moved into a stretch; to its beginning where it is too short. */
export function within(value: number, least: number, most: number): number {
  return Math.max(least, Math.min(value, most));
}
