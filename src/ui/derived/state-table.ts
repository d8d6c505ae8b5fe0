import type { Sheet } from '@/core/circuit/lesson';
import { Stepper, stateTable } from '@/core/logic/table/state-table';
import type { TruthTable } from '@/core/logic/table/truth-table';
import type { Netlist } from '@/core/netlist/netlist';
import { spokenName } from '@/core/parts/catalogue';
import { done, type Result, refused } from '@/core/values/result';

/** Tables of up to this many columns of state and inputs are derived between two frames: each row is a small run. */
const AT_ONCE = 9;
/** And up to this many when one asks for it. */
export const MOST_ASKED = 14;

const known = new WeakMap<Netlist, Result<TruthTable>>();

/** The displayed name of a bit of state: that of its part, as people know it, in place of the part's id. */
export function stateLabel(sheet: Sheet, name: string): string {
  const [, id, rest] = /^([A-Za-z0-9_-]+)(.*)$/.exec(name) ?? [];
  const part = id === undefined ? undefined : sheet.parts.get(id);
  return part ? `${part.label || spokenName(part)}${rest}` : name;
}

/** The table with its states called by their labels, where that leaves no two columns called the same. */
function labelled(table: Result<TruthTable>, sheet: Sheet, bits: number): Result<TruthTable> {
  if (!table.ok) return table;
  const { inputs, outputs } = table.value;
  const by = (names: readonly string[]) => names.map((n, i) => (i < bits ? stateLabel(sheet, n) : n));
  const [ins, outs] = [by(inputs), by(outputs)];
  const isPlain = (names: readonly string[]) => new Set(names).size === names.length;
  return isPlain(ins) && isPlain(outs) ? done({ ...table.value, inputs: ins, outputs: outs }) : table;
}

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
    table = labelled(stateTable(netlist), sheet, netlist.storage.length);
    known.set(netlist, table);
  }
  return table;
}
