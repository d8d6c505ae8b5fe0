/**
 * A short text that stands for a long one: 53 bits in base 36. Two multiplications a letter, mixed at the end. Texts that nobody
 * chose to collide hardly ever do; it is no protection against those that somebody did.
 */
export function textHash(text: string): string {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (let i = 0; i < text.length; i++) {
    const letter = text.charCodeAt(i);
    a = Math.imul(a ^ letter, 2654435761);
    b = Math.imul(b ^ letter, 1597334677);
  }
  return finished(a, b).toString(36);
}

/** A number of 53 bits that stands for a list of such numbers, in the way of `textHash`. */
export function numberHash(numbers: readonly number[]): number {
  let a = 0xdeadbeef;
  let b = 0x41c6ce57;
  for (const number of numbers) {
    const [low, high] = [number >>> 0, Math.floor(number / 4294967296)];
    a = Math.imul(Math.imul(a ^ low, 2654435761) ^ high, 2246822507);
    b = Math.imul(Math.imul(b ^ low, 1597334677) ^ high, 3266489909);
    a ^= a >>> 15;
    b ^= b >>> 13;
  }
  return finished(a, b);
}

/** The number that stands for a text; see `textHash`. */
export const textNumber = (text: string): number => Number.parseInt(textHash(text), 36);

function finished(a: number, b: number): number {
  const c = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  const d = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(c ^ (c >>> 13), 3266489909);
  return 4294967296 * (2097151 & d) + (c >>> 0);
}
