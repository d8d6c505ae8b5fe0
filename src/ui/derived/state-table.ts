import type { Sheet } from '@/core/circuit/sheet';
import { Stepper, stateTable } from '@/core/logic/table/state-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { type Result, refused } from '@/core/values/result';

/** Tables of up to this many columns of state and inputs are derived between two frames: each row is a small run. */
const AT_ONCE = 9;
/** And up to this many when one asks for it. */
export const MOST_ASKED = 14;

const known = new WeakMap<Netlist, Result<TruthTable>>();

/** Bits of state and inputs together. */
export function stateColumnCount(netlist: Netlist): number {
  const made = Stepper.of(netlist);
  return made.ok ? made.value.columns.length + netlist.storage.length : 0;
}

/**
 * The state table of a netlist, derived once; null if it is so large that it is derived only on request.
 * @param sheet that was compiled to it.
 * @param isAsked whether it was requested.
 */
export function stateTableOf(netlist: Netlist, sheet: Sheet, isAsked = false): Result<TruthTable> | null {
  let table = known.get(netlist);
  if (!table) {
    const columns = stateColumnCount(netlist);
    if (columns > (isAsked ? MOST_ASKED : AT_ONCE))
      return isAsked
        ? refused('too-many-rows', `${columns} bits of state and inputs give too many rows to derive here`)
        : null;
    table = stateTable(netlist, { sheet });
    known.set(netlist, table);
  }
  return table;
}
