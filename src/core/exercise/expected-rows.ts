/** The expectation as a table: a row for each combination of the inputs, or for each reading of a run. */
export interface ExpectedRows {
  /** Names of the inputs that have a column: a clock has none, as it stands the same whenever it is read. */
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: number;
  /** The word for a row: `row`, `reading`, or `proof` where there is one for the whole. */
  readonly word: 'row' | 'reading' | 'proof';
  /** When each row is read; null where rows have no time. */
  readonly when: ((row: number) => string) | null;
  readonly input: (column: number, row: number) => string;
  /** A word of 0, 1 and x, the highest bit first. */
  readonly output: (column: number, row: number) => string;
}

/** A word of bits as people read it: one bit as it is, several as a number where all of them are known. */
export function readingText(word: string): string {
  return word.length > 1 && /^[01]+$/.test(word) ? BigInt(`0b${word}`).toString() : word;
}

/** Whether a value is as expected, bit by bit; an x takes any. */
export function isAsExpected(expected: string, given: string): boolean {
  return (
    expected.length === given.length &&
    [...expected].every((w, i) => (w === 'x' ? given[i] !== '-' : w === given[i]))
  );
}
