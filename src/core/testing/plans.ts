import type { Plan } from '../circuit/plan';
import { filled, plannedFor } from '../logic/planned';

/** A table that is filled in, by its line of names and its columns as letters. */
export function planOf(line: string, ...columns: string[]): Plan {
  const made = plannedFor(line);
  if (!made.ok) throw new Error(made.problem);
  return columns.reduce(
    (all, letters, o) => filled(all, o, new Map([...letters].map((c, row) => [row, c]))),
    made.plan,
  );
}

type Made = { readonly ok: true; readonly plan: Plan } | { readonly ok: false; readonly problem: string };

/** The columns of what was made, or what was wrong. */
export const columnsOf = (made: Made) => (made.ok ? made.plan.outputs.map((o) => o.rows) : made.problem);
