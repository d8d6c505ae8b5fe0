import type { Netlist, Terminal } from '../netlist/netlist';
import { sameName } from '../values/names';
import { counted } from '../values/wording';

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

/** The terminals in the expected order, null for one that is missing or has another width, and the complaints about them. */
export function fittingTerminals(
  expected: readonly { readonly name: string; readonly width: number }[],
  there: readonly Terminal[],
  word: 'input' | 'output',
  complaints: string[],
): (Terminal | null)[] {
  const names = expected.map((s) => s.name);
  return matchedTerminals(names, there, word, complaints).map((at, i) => {
    const terminal = there[at];
    const { name, width } = expected[i]!;
    if (!terminal || terminal.nets.length === width) return terminal ?? null;
    complaints.push(
      `The ${word} “${name}” has ${counted(terminal.nets.length, 'bit')} here, and ${width} in the task.`,
    );
    return null;
  });
}

/** Adds the problems of a circuit to the complaints. */
export function complainOfProblems(netlist: Netlist, complaints: string[]): void {
  for (const d of netlist.diagnostics) if (d.severity === 'problem') complaints.push(d.message);
}
