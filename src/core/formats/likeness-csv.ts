import type { LikePair, Reason } from '../likeness/likeness';
import { csvFile } from '../values/csv';

const told = (reasons: readonly Reason[], isFor: boolean): string =>
  reasons
    .filter((reason) => reason.isFor === isFor)
    .map(({ task, text }) => `${task + 1}: ${text}`)
    .join('. ');

/** Pairs of hand-ins with what speaks for and against, as CSV, the most alike first. @param names of the students. */
export const likenessCsv = (pairs: readonly LikePair[], names: readonly string[]): string =>
  csvFile([
    ['one', 'other', 'bits', 'for', 'against'],
    ...pairs.map(({ one, other, bits, reasons }) => [
      names[one]!,
      names[other]!,
      Math.round(bits * 10) / 10,
      told(reasons, true),
      told(reasons, false),
    ]),
  ]);
