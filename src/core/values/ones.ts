/** How many of the 32 bits of a word are 1. */
export function onesIn(word: number): number {
  let sums = word - ((word >>> 1) & 0x5555_5555);
  sums = (sums & 0x3333_3333) + ((sums >>> 2) & 0x3333_3333);
  return Math.imul((sums + (sums >>> 4)) & 0x0f0f_0f0f, 0x0101_0101) >>> 24;
}
