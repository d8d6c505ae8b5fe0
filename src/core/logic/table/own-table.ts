import { emptySheet, type Params, type Part, type Sheet } from '../../circuit/sheet';
import { compile } from '../../netlist/compile';
import { type Netlist, storeName } from '../../netlist/netlist';
import { findKind } from '../../parts/catalogue';
import { readParams } from '../../parts/params';
import type { PartKind } from '../../parts/part-kind';
import { Primitive } from '../../parts/primitive';
import { Run } from '../../simulate/run';
import { type Logic, letterOf, ONE, ZERO } from '../../values/logic';
import { expectDone } from '../../values/result';
import { ANY, type ShortLine, shortLines } from './short-lines';
import { Stepper, stateTable } from './state-table';
import { cell, inputAt, type TruthTable, truthTable, whyNoTable } from './truth-table';

/** A part by itself: a switch at each of its inputs and a lamp at each of its outputs. */
export interface AlonePart {
  readonly sheet: Sheet;
  readonly netlist: Netlist;
}

/**
 * A part's own table: a truth table, or for storage the next state. It is as short as it can be: an input that does not
 * matter in a line is `×`, and a line of one bit of storage says what it does to it.
 */
export interface OwnTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** A cell for each input, then for each output. An edge of the clock is an arrow. */
  readonly rows: readonly (readonly string[])[];
  /** How many of the first inputs are the present state. */
  readonly states: number;
  /** What each row does, where storage is one bit: `hold`, `set`, `reset`, `toggle`. */
  readonly words: readonly string[];
}

/** Tables of a part by itself have at most this many columns of inputs, and this many lines. */
const MOST_COLUMNS = 11;
const MOST_LINES = 32;
/** Truth tables of so many inputs are told row by row, as they are learnt. */
const ROW_BY_ROW = 3;

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

/** The table of a part by itself, or null if it would have too many lines to be read. */
export function ownTable({ netlist }: AlonePart): OwnTable | null {
  const bits = netlist.storage.length;
  if (netlist.inputColumns.length + bits > MOST_COLUMNS) return null;
  const table = bits === 1 ? lineByLine(netlist) : bits > 1 ? nextStates(netlist) : combinational(netlist);
  return table && table.rows.length <= MOST_LINES ? table : null;
}

function combinational(netlist: Netlist): OwnTable | null {
  if (whyNoTable(netlist)) return null;
  return shortened(truthTable(netlist), 0);
}

/** What one bit of storage does: its state follows from the inputs and, behind an arrow, the clock. */
const WORDS: Readonly<Record<string, readonly [next: string, word: string]>> = {
  '01': ['Q', 'hold'],
  '00': ['0', 'reset'],
  '11': ['1', 'set'],
  '10': ['Q′', 'toggle'],
};

function lineByLine(netlist: Netlist): OwnTable | null {
  const made = Stepper.of(netlist);
  if (!made.ok) return null;
  const stepper = made.value;
  const count = stepper.columns.length;
  const [net] = stepper.nets;
  const bitsOf = (row: number) => Array.from({ length: count }, (_, i) => inputAt(count, i, row) as Logic);
  const nextOf = (row: number) =>
    ([0, 1] as const).map((state) => letterOf(stepper.step([state], bitsOf(row)).next[0]!)).join('');
  const lines = shortLines(count, nextOf);
  const clock = netlist.inputColumns.find((c) => !stepper.columns.includes(c));
  const isFalling = [...netlist.storage].some((g) => netlist.op[g] === Primitive.DFF_FALL);
  const edge = isFalling ? '↓' : '↑';
  const put = (run: Run, { inputs }: ShortLine) =>
    run.set(stepper.columns.map((c, i) => [c.nets[0], inputs[i] === '1' ? ONE : ZERO]));
  /** Whether a line acts while the clock stands still: it sets or resets what was put otherwise. */
  const isAtOnce = (line: ShortLine) => {
    const other = lines.find((l) => l.result !== line.result);
    if (!clock || !other || !['00', '11'].includes(line.result)) return false;
    const run = new Run(netlist, { delays: 'zero' });
    run.set([[clock.nets[0], isFalling ? ONE : ZERO]]);
    put(run, other);
    run.putState(new Map([[storeName(netlist, 0), line.result === '11' ? ZERO : ONE]]));
    put(run, line);
    return letterOf(run.values[net!] as Logic) === line.result[0];
  };
  const said = lines.map((line) => {
    const [next, word] = WORDS[line.result] ?? ['X', 'not allowed'];
    const isSoon = isAtOnce(line);
    const arrow = clock ? [isSoon ? ANY : edge] : [];
    return { row: [...arrow, ...line.inputs, next], word, isSoon };
  });
  // What acts at once comes first, as it overrides the clock.
  said.sort((a, b) => Number(b.isSoon) - Number(a.isSoon));
  return {
    inputs: [...(clock ? [clock.name] : []), ...stepper.columns.map((c) => c.name)],
    outputs: ['Q+'],
    states: 0,
    rows: said.map((s) => s.row),
    words: said.map((s) => s.word),
  };
}

/** Without the outputs that only show the present state. */
function nextStates(netlist: Netlist): OwnTable | null {
  const made = stateTable(netlist);
  if (!made.ok) return null;
  const table = shortened(made.value, netlist.storage.length);
  const shown = new Set(table.inputs.slice(0, table.states).flatMap((name) => [name, `${name}'`]));
  const kept = table.outputs.map((name) => !shown.has(name));
  const { length } = table.inputs;
  return {
    ...table,
    outputs: table.outputs.filter((_, o) => kept[o]),
    rows: table.rows.map((row) => row.filter((_, i) => i < length || kept[i - length])),
  };
}

function shortened(table: TruthTable, states: number): OwnTable {
  const { inputs, outputs } = table;
  const count = inputs.length;
  const said = (row: number) => outputs.map((_, o) => letterOf(cell(table, o, row)));
  const rows =
    count <= ROW_BY_ROW
      ? Array.from({ length: table.rows }, (_, row) => [
          ...inputs.map((_, i) => String(inputAt(count, i, row))),
          ...said(row),
        ])
      : shortLines(count, (row) => said(row).join('')).map((line) => [...line.inputs, ...line.result]);
  return { inputs, outputs, states, rows, words: [] };
}

/**
 * The row in which the values of a table's inputs lie; -1 where one is unknown or no row has them.
 * @param valueAt the value at an input, by its number.
 */
export function rowOfOwn({ inputs, rows }: OwnTable, valueAt: (input: number) => Logic): number {
  const values = inputs.map((_, i) => letterOf(valueAt(i)));
  return rows.findIndex((row) =>
    values.every((value, i) => value === row[i] || (row[i] !== '0' && row[i] !== '1')),
  );
}
