import { emptySheet, type Part, type Sheet, type Wire } from '../../../circuit/sheet';
import { stateTable } from '../../../logic/table/state-table';
import { cell } from '../../../logic/table/truth-table';
import { compile } from '../../../netlist/compile';
import { findKind, kindOf, PLACEABLE } from '../../../parts/catalogue';
import { defaultParams } from '../../../parts/params';
import { type Logic, letterOf, ONE } from '../../../values/logic';
import { expectDone } from '../../../values/result';
import type { WholeTable } from './set-up';

/** The kinds of flip-flop that have tables of their own. */
export const FLIP_FLOPS = PLACEABLE.filter(({ stores }) => stores === 'flip-flop').map(({ kind, name }) => ({
  kind,
  name,
}));

/** Pins of a flip-flop that take its data: not its clock, nor what sets it at any time. */
const dataOf = (part: Part): string[] =>
  kindOf(part)
    .ports(part.params)
    .filter(({ direction, name }) => direction === 'in' && name !== 'C')
    .map(({ name }) => name);

/** A flip-flop alone, with a switch at each of its inputs and a lamp at Q. */
function alone(kind: string): { readonly sheet: Sheet; readonly data: readonly string[] } {
  const placed = (id: string, of: string, label: string): Part => {
    const found = findKind(of)!;
    return { id, kind: of, at: { x: 0, y: 0 }, turn: 0, label, rank: 0, params: defaultParams(found) };
  };
  const store = placed('store', kind, '');
  const data = dataOf(store);
  const wire = (id: string, from: string, port: string): Wire => ({
    id,
    from: { part: from, port: 'Y' },
    to: { part: 'store', port },
    course: [],
  });
  const parts = [
    store,
    placed('clock', 'clock', 'C'),
    placed('lamp', 'lamp', 'Q'),
    ...data.map((name, rank) => ({ ...placed(`at${name}`, 'switch', name), rank })),
  ];
  const wires = [
    wire('c', 'clock', 'C'),
    ...data.map((name) => wire(`to${name}`, `at${name}`, name)),
    { id: 'q', from: { part: 'store', port: 'Q' }, to: { part: 'lamp', port: 'A' }, course: [] },
  ];
  const sheet: Sheet = {
    ...emptySheet('alone', 'Alone'),
    parts: new Map(parts.map((part) => [part.id, part])),
    wires: new Map(wires.map((one) => [one.id, one])),
  };
  return { sheet, data };
}

/** What a flip-flop does at the edge: for each state before and each row of its inputs, the state after; null where unknown. */
function stepsOf(kind: string) {
  const { sheet, data } = alone(kind);
  const table = expectDone(stateTable(compile(sheet, [sheet])));
  const rows = Array.from({ length: table.rows }, (_, row) => {
    const after = cell(table, 0, row) as Logic;
    return {
      before: row >> data.length,
      inputs: data.map((_, i) => (row >> (data.length - 1 - i)) & 1),
      after: letterOf(after).toLowerCase() === 'x' ? null : after === ONE ? 1 : 0,
    };
  });
  return { data, rows };
}

/** The characteristic table of a kind of flip-flop: its inputs and the state before, and the state after the edge. */
export function characteristicTable(kind: string): WholeTable {
  const { data, rows } = stepsOf(kind);
  // The inputs count first, as such tables are written.
  const ordered = [...rows].sort(
    (a, b) =>
      Number.parseInt(a.inputs.join(''), 2) - Number.parseInt(b.inputs.join(''), 2) || a.before - b.before,
  );
  return {
    rows: rows.length,
    columns: [
      ...data.map((name, i) => ({
        name,
        isInput: true,
        cells: ordered.map(({ inputs }) => String(inputs[i])),
      })),
      { name: 'Q', isInput: true, cells: ordered.map(({ before }) => String(before)) },
      {
        name: 'Q+',
        isInput: false,
        cells: ordered.map(({ after }) => (after === null ? 'x' : String(after))),
      },
    ],
  };
}

/** The excitation table of a kind of flip-flop: the states before and after, and what its inputs have to be; x where either will do. */
export function excitationTable(kind: string): WholeTable {
  const { data, rows } = stepsOf(kind);
  const changes = [
    [0, 0],
    [0, 1],
    [1, 0],
    [1, 1],
  ] as const;
  return {
    rows: changes.length,
    columns: [
      { name: 'Q', isInput: true, cells: changes.map(([before]) => String(before)) },
      { name: 'Q+', isInput: true, cells: changes.map(([, after]) => String(after)) },
      ...data.map((name, i) => ({
        name,
        isInput: false,
        cells: changes.map(([before, after]) => {
          const ways = rows.filter((row) => row.before === before && row.after === after);
          const bits = new Set(ways.map(({ inputs }) => inputs[i]!));
          return bits.size === 1 ? String([...bits][0]) : 'x';
        }),
      })),
    ],
  };
}
