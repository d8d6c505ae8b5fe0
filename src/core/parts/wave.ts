import type { Wave } from '../circuit/time-setup';
import { readWord, wordValue } from '../values/radix';
import { readDuration } from '../values/time';
import type { Levels } from './part-kind';
import { squareAt } from './square-wave';

/** The value of an input of so many bits over time. Unreadable entries of the wave's `data` are left out. */
export function waveLevels(wave: Wave, width: number): Levels {
  const { pattern, step, high, phase, place, seed } = wave;
  const size = 2 ** width;
  switch (pattern) {
    case 'periodic':
      return (time) => {
        if (time < phase) return { value: 0, next: phase };
        const { isFirst, next } = squareAt(time, step, high, phase);
        return { value: isFirst ? size - 1 : 0, next };
      };
    case 'count':
      return (time) => {
        const row = Math.floor(time / step);
        const count = Math.floor(row / 2 ** place);
        return { value: count % size, next: (count + 1) * 2 ** place * step };
      };
    case 'random':
      return (time) => {
        const at = Math.floor(time / step);
        return { value: scattered(seed, at) % size, next: (at + 1) * step };
      };
    case 'levels': {
      const changes = readMoments(wave.data, width).sort((a, b) => a.at - b.at);
      return changeLevels(changes, changes.at(-1)?.at ?? 0, wave.repeat);
    }
    case 'values':
    case 'bits': {
      const values = pattern === 'bits' ? readBits(wave, size - 1) : readValues(wave.data, width);
      const changes = values.map((value, i) => ({ at: i * step, value }));
      if (wave.endsAtZero && !wave.repeat) changes.push({ at: changes.length * step, value: 0 });
      return changeLevels(changes, changes.length * step, wave.repeat);
    }
  }
}

/** Levels that stay as they are at a time in ps from then on. */
export function stayingFrom(levels: Levels, at: number): Levels {
  return (time) => (time < at ? levels(time) : { value: levels(at).value, next: Number.POSITIVE_INFINITY });
}

/** A number that looks like chance and is the same for the same seed and step (a 32-bit mix of both). */
function scattered(seed: number, step: number): number {
  let x = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ Math.imul(step + 1, 0xc2b2ae35);
  x = Math.imul(x ^ (x >>> 15), 0x2c1b3c6d);
  x = Math.imul(x ^ (x >>> 12), 0x297a2d39);
  return (x ^ (x >>> 15)) >>> 0;
}

interface LevelChange {
  /** Ps. */
  readonly at: number;
  readonly value: number;
}

/**
 * Levels from their changes, in order of time; 0 before the first.
 * @param length in ps, after which they repeat if they do.
 */
function changeLevels(changes: readonly LevelChange[], length: number, repeats: boolean): Levels {
  const turns = repeats && length > 0;
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

/**
 * `0ns 0, 40ns 1`: pairs with commas or new lines between; a bare number is in ns. Other entries are left
 * out.
 */
export function readMoments(data: string, width: number): LevelChange[] {
  const changes: LevelChange[] = [];
  for (const pair of data.split(/[,;\n]/)) {
    const found = /^\s*(.*?[\da-zµ.])[\s:=]+(\S+)\s*$/i.exec(pair);
    if (!found) continue;
    const at = readDuration(found[1]!);
    const bits = readWord(found[2]!, width);
    if (at !== null && bits) changes.push({ at, value: wordValue(bits) ?? 0 });
  }
  return changes;
}

/** `3 5 0x7`: one value after the other. */
function readValues(data: string, width: number): number[] {
  return data
    .split(/[\s,;]+/)
    .map((word) => readWord(word, width))
    .filter((bits) => bits !== null)
    .map((bits) => wordValue(bits) ?? 0);
}

/** `0110`: all bits of the input at 0 or at 1. */
function readBits({ data, first }: Wave, all: number): number[] {
  const letters = [...data].filter((c) => c === '0' || c === '1');
  if (first === 'least') letters.reverse();
  return letters.map((c) => (c === '1' ? all : 0));
}
