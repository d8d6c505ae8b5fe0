import type { Netlist, Terminal } from '../netlist/netlist';
import { sameName } from '../values/names';

/** The terminals in the expected order, -1 for a missing one, and the complaints about them. */
export function matchedTerminals(
  expected: readonly string[],
  there: readonly Terminal[],
  word: 'input' | 'output',
  complaints: string[],
): number[] {
  for (const [i, t] of there.entries())
    if (there.findIndex((o) => sameName(o.name, t.name)) < i)
      complaints.push(`Two ${word} parts are called “${t.name}”: give each a name of its own.`);
  // A lamp more shows something on the way to the answer; an input more would decide about it.
  for (const t of there)
    if (word === 'input' && !expected.some((name) => sameName(name, t.name)))
      complaints.push(`The task has no input called “${t.name}”.`);
  return expected.map((name) => {
    const at = there.findIndex((t) => sameName(t.name, name));
    if (at === -1) complaints.push(`The ${word} “${name}” is missing.`);
    return at;
  });
}

/** Adds the problems of a circuit to the complaints. */
export function complainOfProblems(netlist: Netlist, complaints: string[]): void {
  for (const d of netlist.diagnostics) if (d.severity === 'problem') complaints.push(d.message);
}
