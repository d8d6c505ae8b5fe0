import type { SpecTable } from '../circuit/spec-table';
import { specFromNames, withLetters } from '../logic/specification/spec-edits';
import { expectDone, type Result, sentence } from '../values/result';

/** A table that is filled in, by its line of names and its columns as letters. */
export function specOf(line: string, ...columns: string[]): SpecTable {
  const made = expectDone(specFromNames(line));
  return columns.reduce(
    (all, letters, o) => withLetters(all, o, new Map([...letters].map((c, row) => [row, c]))),
    made,
  );
}

/** The columns of a result, or its problem. */
export const specColumns = (made: Result<SpecTable>) =>
  made.ok ? made.value.outputs.map((o) => o.rows) : sentence(made.problem);
