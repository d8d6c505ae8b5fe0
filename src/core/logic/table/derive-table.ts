import type { Netlist } from '../../netlist/netlist';
import { countByWasm } from './count-machine';
import { hasWideWords, tableMachine } from './table-machine';
import { ROWS_A_BLOCK } from './table-pieces';
import { countOnes, packed, type TruthTable, truthTable, whyNoTable } from './truth-table';

export interface TableOptions {
  /** Is told after each share of the rows (0 to 1) and may throw to stop the work. */
  readonly progress?: ((share: number) => void) | undefined;
  /** How it is derived; the same rows either way. By itself: WebAssembly for larger tables, where there is one. */
  readonly by?: 'wasm' | 'words' | undefined;
}

/** Rows of a table that follow one another, as a table whose row 0 is row `first` of the whole. */
export interface TablePiece extends TruthTable {
  readonly first: number;
}

/** Tables of fewer inputs are done before WebAssembly has been compiled. */
const WASM_FROM_INPUTS = 11;
const KINDS = ['ones', 'unknown', 'floating'] as const;
let wideWords: boolean | null = null;

/** Whether a table is derived by WebAssembly. @throws Error where `whyNoTable` gives a reason. */
function isByWasm(netlist: Netlist, { by }: TableOptions): boolean {
  const reason = whyNoTable(netlist);
  if (reason) throw new Error(reason.message);
  wideWords ??= hasWideWords();
  return by ? by === 'wasm' : wideWords && netlist.inputColumns.length >= WASM_FROM_INPUTS;
}

/**
 * Derives the truth table of a netlist in the quickest way that there is here. By WebAssembly each column has memory of its own.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function deriveTable(netlist: Netlist, options: TableOptions = {}): TruthTable {
  if (!isByWasm(netlist, options)) return truthTable(netlist, options.progress);
  const rows = 2 ** netlist.inputColumns.length;
  const words = Math.max(1, rows >>> 5);
  let table: TruthTable | null = null;
  for (const { first, ...piece } of tablePieces(netlist, options)) {
    const own = (column: Uint32Array | null) => column && new Uint32Array(words);
    table ??= {
      ...piece,
      rows,
      ones: piece.ones.map(() => new Uint32Array(words)),
      unknown: piece.unknown.map(own),
      floating: piece.floating.map(own),
    };
    for (const kind of KINDS)
      for (const [o, column] of piece[kind].entries()) if (column) table[kind][o]!.set(column, first >>> 5);
  }
  return table!;
}

/**
 * The truth table of a netlist from the first row on, for those who look at each row once: a piece takes the memory of the one
 * before, which stays in the processor's own cache.
 * @param span blocks of 128 rows in a piece, a power of two; fewer where the table has fewer. Without WebAssembly all rows are one
 *   piece.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function* tablePieces(
  netlist: Netlist,
  options: TableOptions = {},
  span?: number,
): Generator<TablePiece> {
  if (!isByWasm(netlist, options)) {
    yield { ...truthTable(netlist, options.progress), first: 0 };
    return;
  }
  const machine = tableMachine(netlist, span);
  const rows = 2 ** netlist.inputColumns.length;
  const inPiece = Math.min(rows, machine.span * ROWS_A_BLOCK);
  const words = Math.max(1, inPiece >>> 5);
  const columns = (what: (typeof KINDS)[number]) =>
    netlist.outputColumns.map((_, o) => machine.column(o, what).subarray(0, words));
  const none = netlist.outputColumns.map(() => null);
  const ones = columns('ones');
  const [unknown, floating] = machine.binary ? [none, none] : [columns('unknown'), columns('floating')];
  for (let first = 0; first < rows; first += inPiece) {
    machine.run(first / ROWS_A_BLOCK);
    yield { ...packed(netlist, inPiece, ones, unknown, floating), first };
    options.progress?.(first / rows);
  }
}

/**
 * How many ones each output has over all rows, in the quickest way that there is here: where nobody wants the rows, most gates need
 * not be evaluated for most of them.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function countTable(netlist: Netlist, options: TableOptions = {}): number[] {
  const counted = isByWasm(netlist, options) ? countByWasm(netlist, options.progress) : null;
  if (counted) return counted;
  const ones = netlist.outputColumns.map(() => 0);
  for (const piece of tablePieces(netlist, options))
    for (const [o, column] of piece.ones.entries()) ones[o] = ones[o]! + countOnes(column);
  return ones;
}
