import { emptySheet, type Params, type Part, type Sheet } from '../../circuit/lesson';
import { compile } from '../../netlist/compile';
import type { Netlist } from '../../netlist/netlist';
import { findKind } from '../../parts/catalogue';
import { readParams } from '../../parts/params';
import type { PartKind } from '../../parts/part-kind';
import { letterOf } from '../../values/logic';
import { expectDone } from '../../values/result';
import { stateTable } from './state-table';
import { cell, inputAt, type TruthTable, truthTable, whyNoTable } from './truth-table';

/** A part by itself: a switch at each of its inputs and a lamp at each of its outputs. */
export interface AlonePart {
  readonly sheet: Sheet;
  readonly netlist: Netlist;
}

/** A part's own table: a truth table, or for storage the next state of each state at a clock edge. */
export interface OwnTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly rows: readonly (readonly string[])[];
  /** Whether the first inputs are the present state. */
  readonly states: number;
}

/** Tables of a part by itself have at most this many columns of inputs. */
const MOST_COLUMNS = 6;

/** A part of a kind on a sheet of its own, or null if it has no inputs or no outputs. */
export function alone(kind: PartKind, params: Params): AlonePart | null {
  const ports = kind.ports(params);
  const label = ports.find((p) => p.direction === 'out')?.name ?? '';
  const part: Part = { id: 'part', kind: kind.kind, at: { x: 0, y: 0 }, turn: 0, label, rank: 0, params };
  if (kind.role?.(params) || ports.some((p) => p.direction === 'both') || ports.length === 0) return null;
  const parts = new Map<string, Part>([['part', part]]);
  const wires = new Map();
  for (const [rank, port] of ports.entries()) {
    const isInput = port.direction === 'in';
    const end = findKind(isInput ? 'switch' : 'lamp')!;
    const id = `end${rank}`;
    const width = Math.min(port.width, 32);
    const made = expectDone(readParams(end, { width }));
    parts.set(id, {
      ...part,
      id,
      kind: end.kind,
      at: { x: 20 * (rank + 1), y: 0 },
      label: port.name,
      rank,
      params: made,
    });
    wires.set(`w${rank}`, {
      id: `w${rank}`,
      from: { part: 'part', port: port.name },
      to: { part: id, port: isInput ? 'Y' : 'A' },
      course: [],
    });
  }
  const sheet: Sheet = { ...emptySheet('alone', kind.name), parts, wires };
  const netlist = compile(sheet);
  return { sheet, netlist };
}

/** The table of a part by itself, or null if it would have too many rows to be read. */
export function ownTable({ netlist }: AlonePart): OwnTable | null {
  if (netlist.storage.length > 0) {
    if (netlist.inputColumns.length + netlist.storage.length > MOST_COLUMNS) return null;
    const made = stateTable(netlist);
    return made.ok ? nextStates(written(made.value, netlist.storage.length)) : null;
  }
  if (netlist.inputColumns.length > MOST_COLUMNS || whyNoTable(netlist)) return null;
  return written(truthTable(netlist), 0);
}

/** Without the outputs that only show the present state. */
function nextStates(table: OwnTable): OwnTable {
  const shown = new Set(table.inputs.slice(0, table.states).flatMap((name) => [name, `${name}'`]));
  const kept = table.outputs.map((name) => !shown.has(name));
  const { length } = table.inputs;
  return {
    ...table,
    outputs: table.outputs.filter((_, o) => kept[o]),
    rows: table.rows.map((row) => row.filter((_, i) => i < length || kept[i - length])),
  };
}

function written(table: TruthTable, states: number): OwnTable {
  const { inputs, outputs } = table;
  return {
    inputs,
    outputs,
    states,
    rows: Array.from({ length: table.rows }, (_, row) => [
      ...inputs.map((_, i) => String(inputAt(inputs.length, i, row))),
      ...outputs.map((_, o) => letterOf(cell(table, o, row))),
    ]),
  };
}
