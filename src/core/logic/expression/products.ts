import type { Column, Netlist } from '../../netlist/netlist';
import { type Cube, coversRow } from '../minimise/cube';
import { cell, type TruthTable, truthTable, whyNoTable } from '../table/truth-table';

/** Larger circuits are not searched, so pointing at something never waits. */
const MOST_CELLS = 1_000_000;

/** A part whose output is a product of the inputs, or its complement, as at the first level of NANDs. */
export interface Product {
  /** The part as `Netlist.partName` has it. */
  readonly part: string;
  readonly cube: Cube;
  readonly inverted: boolean;
}

const known = new WeakMap<Netlist, readonly Product[]>();

/** The parts of a circuit whose output is a product, over the inputs in the order of its table. */
export function productsOf(netlist: Netlist): readonly Product[] {
  let found = known.get(netlist);
  if (!found) {
    found = findProducts(netlist);
    known.set(netlist, found);
  }
  return found;
}

function findProducts(netlist: Netlist): Product[] {
  const rows = 2 ** netlist.inputColumns.length;
  if (whyNoTable(netlist) || rows * netlist.out.length > MOST_CELLS) return [];
  const columns = [...netlist.out].map(
    (net, gate): Column => ({
      part: netlist.partName(netlist.owner[gate]!),
      name: '',
      nets: [net],
      bit: 0,
    }),
  );
  const table = truthTable({ ...netlist, outputColumns: columns });
  const parts = new Map<string, Product>();
  for (const [i, { part }] of columns.entries()) {
    const plain = cubeOfColumn(table, i, 1);
    const cube = plain ?? cubeOfColumn(table, i, 0);
    // The gate that stands for the part comes last; those before it are inside.
    if (cube) parts.set(part, { part, cube, inverted: plain === null });
    else parts.delete(part);
  }
  return [...parts.values()];
}

/** The product that is 1 in exactly the rows in which a column has a value; null if there is none. */
function cubeOfColumn(table: TruthTable, column: number, value: 0 | 1): Cube | null {
  let all = table.rows - 1;
  let first = -1;
  let count = 0;
  for (let row = 0; row < table.rows; row++) {
    const is = cell(table, column, row);
    if (is > 1) return null;
    if (is !== value) continue;
    if (first === -1) first = row;
    all &= ~(row ^ first);
    count++;
  }
  if (count === 0 || count === table.rows) return null;
  const cube = { mask: all, value: first & all };
  // Rows that agree in some bits are a product only if all rows that agree in them are there.
  let size = 0;
  for (let row = 0; row < table.rows; row++) if (coversRow(cube, row)) size++;
  return size === count ? cube : null;
}
