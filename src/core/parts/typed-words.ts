/*
 * Words behind a part's name that several kinds understand; null where a word is none of them.
 */

/** A number of bits: `8`, `8bit`, `8-bit`. Whether there may be so many, the kind's schema says. */
export function typedBits(word: string): number | null {
  const found = /^(\d+)(?:-?bits?)?$/.exec(word);
  return found ? Number(found[1]) : null;
}

export function typedWidth(word: string): { width: number } | null {
  const width = typedBits(word);
  return width === null ? null : { width };
}

/** A whole number, whether or not it is within limits. */
export const typedWhole = (word: string): number | null => (/^\d+$/.test(word) ? Number(word) : null);

/** `fall`, `falling`, `negative-edge`. */
export function typedEdge(word: string): { edge: 'rising' | 'falling' } | null {
  const [, edge] =
    /^(rise|rising|positive|pos|fall|falling|negative|neg)(?:-edge)?(?:-triggered)?$/.exec(word) ?? [];
  return edge === undefined ? null : { edge: /^[rp]/.test(edge) ? 'rising' : 'falling' };
}

export function typedEnable(word: string): { enable: 'yes' } | null {
  return word === 'enable' || word === 'en' ? { enable: 'yes' } : null;
}

/** The word itself if it is one of those. */
export function typedOneOf<const W extends string>(word: string, words: readonly W[]): W | null {
  return words.find((w) => w === word) ?? null;
}
