import { readWord, wordValue } from '../values/radix';
import { readTime } from '../values/time';
import type { Levels } from './part-kind';

export type Pattern = 'times' | 'cycles' | 'bits' | 'count';

export interface StimulusPattern {
  readonly pattern: Pattern;
  readonly data: string;
  /** Ps. */
  readonly step: number;
  readonly width: number;
  readonly mostFirst: boolean;
  readonly repeat: boolean;
}

/** The levels of a stimulus over time. Unreadable entries of `data` are left out. */
export function levelsOf(plan: StimulusPattern): Levels {
  const { pattern, step, width, repeat } = plan;
  if (pattern === 'count') {
    const rows = 2 ** width;
    return (time) => {
      const row = Math.floor(time / step);
      if (!repeat && row >= rows - 1) return { value: rows - 1, next: Number.POSITIVE_INFINITY };
      return { value: row % rows, next: (row + 1) * step };
    };
  }
  const changes = pattern === 'times' ? timedChanges(plan) : steppedChanges(plan);
  const last = changes.at(-1);
  if (!last) return () => ({ value: 0, next: Number.POSITIVE_INFINITY });
  const length = pattern === 'times' ? last.at : last.at + step;
  const turns = repeat && length > 0;
  return (time) => {
    const begun = turns ? Math.floor(time / length) * length : 0;
    const within = time - begun;
    let low = -1;
    for (let high = changes.length - 1; low < high; ) {
      const middle = (low + high + 1) >> 1;
      if (changes[middle]!.at <= within) low = middle;
      else high = middle - 1;
    }
    const next = changes[low + 1]?.at ?? (turns ? length : Number.POSITIVE_INFINITY);
    return { value: low === -1 ? 0 : changes[low]!.value, next: begun + next };
  };
}

interface LevelChange {
  readonly at: number;
  readonly value: number;
}

function timedChanges({ data, width }: StimulusPattern): LevelChange[] {
  return readMoments(data, width).sort((a, b) => a.at - b.at);
}

/**
 * `0ns 0, 40ns 1`: pairs with commas or new lines between; a bare number is in ns. Other entries are left
 * out.
 */
export function readMoments(data: string, width: number): LevelChange[] {
  const changes: LevelChange[] = [];
  for (const pair of data.split(/[,;\n]/)) {
    const found = /^\s*(\d+(?:\.\d+)?\s*[a-zµ]*)[\s:=]+(\S+)\s*$/i.exec(pair);
    if (!found) continue;
    const at = /^[\d.]+$/.test(found[1]!.trim()) ? Math.round(Number(found[1]) * 1000) : readTime(found[1]!);
    const bits = readWord(found[2]!, width);
    if (at !== null && bits) changes.push({ at, value: wordValue(bits) ?? 0 });
  }
  return changes;
}

function steppedChanges({ pattern, data, step, width, mostFirst }: StimulusPattern): LevelChange[] {
  if (pattern === 'cycles')
    return data
      .split(/[\s,;]+/)
      .map((word) => readWord(word, width))
      .filter((bits) => bits !== null)
      .map((bits, i) => ({ at: i * step, value: wordValue(bits) ?? 0 }));
  const letters = [...data].filter((c) => c === '0' || c === '1');
  if (!mostFirst) letters.reverse();
  const all = 2 ** width - 1;
  return letters.map((c, i) => ({ at: i * step, value: c === '1' ? all : 0 }));
}
