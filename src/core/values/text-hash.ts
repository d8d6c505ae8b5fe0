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
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909);
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909);
  return (4294967296 * (2097151 & b) + (a >>> 0)).toString(36);
}
