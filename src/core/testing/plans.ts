import type { Plan } from '../circuit/plan';
import { filled, plannedFor } from '../logic/planned';
import { expectDone, type Result, sentence } from '../values/result';

/** A table that is filled in, by its line of names and its columns as letters. */
export function planOf(line: string, ...columns: string[]): Plan {
  const made = expectDone(plannedFor(line));
  return columns.reduce(
    (all, letters, o) => filled(all, o, new Map([...letters].map((c, row) => [row, c]))),
    made,
  );
}

/** The columns of what was made, or what was wrong. */
export const columnsOf = (made: Result<Plan>) =>
  made.ok ? made.value.outputs.map((o) => o.rows) : sentence(made.problem);
