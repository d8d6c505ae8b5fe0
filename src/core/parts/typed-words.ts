import { MOST_BITS } from './limits';

/*
 * Words behind a part's name that several kinds understand; null where a word is none of them.
 */

/** A number of bits: `8`, `8bit`, `8-bit`. */
export function typedBits(word: string, least = 1, most = MOST_BITS): number | null {
  const found = /^(\d{1,3})(?:-?bits?)?$/.exec(word);
  const n = found ? Number(found[1]) : Number.NaN;
  return n >= least && n <= most ? n : null;
}

export function typedWidth(word: string): { width: number } | null {
  const width = typedBits(word);
  return width ? { width } : null;
}

/** A whole number within limits. */
export function typedWhole(word: string, least: number, most: number): number | null {
  const n = /^\d+$/.test(word) ? Number(word) : Number.NaN;
  return n >= least && n <= most ? n : null;
}

export function typedEdge(word: string): { edge: 'rising' | 'falling' } | null {
  if (word === 'rise' || word === 'rising') return { edge: 'rising' };
  if (word === 'fall' || word === 'falling') return { edge: 'falling' };
  return null;
}

export function typedEnable(word: string): { enable: 'yes' } | null {
  return word === 'enable' || word === 'en' ? { enable: 'yes' } : null;
}

/** The word itself if it is one of those. */
export function typedOneOf<const W extends string>(word: string, words: readonly W[]): W | null {
  return words.find((w) => w === word) ?? null;
}
