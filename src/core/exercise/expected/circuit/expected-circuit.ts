import { compile } from '../../../netlist/compile';
import type { Netlist, Terminal } from '../../../netlist/netlist';
import { type Infer, z } from '../../../values/schema';
import { sheetsGiven } from '../../begin';
import { GivenCircuit } from '../../given-schema';

/** A circuit that does what is wanted: its first sheet, with those of its blocks behind it. */
export const ExpectedCircuit = z.object({ kind: z.literal('circuit'), circuit: GivenCircuit });
export type ExpectedCircuit = Infer<typeof ExpectedCircuit>;

const compiled = new WeakMap<ExpectedCircuit, Netlist>();

/** The wanted circuit, compiled; the same each time. */
export function netlistOf(expected: ExpectedCircuit): Netlist {
  const known = compiled.get(expected);
  if (known) return known;
  const sheets = sheetsGiven(expected.circuit);
  const netlist = compile(sheets[0]!, sheets);
  compiled.set(expected, netlist);
  return netlist;
}

/** The period in ps of an input that is a clock, else null. */
export function periodOf(netlist: Netlist, { part }: Terminal): number | null {
  const source = netlist.sources.find((s) => s.kind === 'clock' && s.part === part);
  return source?.kind === 'clock' ? source.wave.low + source.wave.high : null;
}
