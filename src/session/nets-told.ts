import type { Netlist } from '@/core/netlist/netlist';
import type { SessionState } from './state';

type Seen = Pick<SessionState, 'netlist' | 'rules' | 'probed'>;

/** By the netlist, and then by the wires that were probed: both are new objects whenever they change. */
const known = new WeakMap<Netlist, WeakMap<ReadonlySet<string>, ReadonlySet<number>>>();

/**
 * The nets that show their signal although a task keeps the sheet dark: inputs, outputs and probed wires. Null if all nets do.
 */
export function netsTold({ netlist, rules, probed }: Seen): ReadonlySet<number> | null {
  if (!rules.isDark) return null;
  const byProbed = known.get(netlist) ?? new WeakMap<ReadonlySet<string>, ReadonlySet<number>>();
  known.set(netlist, byProbed);
  const found = byProbed.get(probed);
  if (found) return found;
  const told = new Set([
    ...[...netlist.inputs, ...netlist.outputs].flatMap(({ nets }) => nets),
    // Wires of the sheet that runs, whichever block is looked into.
    ...[...probed].flatMap((wire) => netlist.netsOfWire(wire) ?? []),
  ]);
  byProbed.set(probed, told);
  return told;
}
