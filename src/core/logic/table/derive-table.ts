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
  /** Blocks of 128 rows that are derived together by WebAssembly, a power of two; by itself as many as are quickest. */
  readonly span?: number | undefined;
}

/** Rows of a table that follow one another, as a table whose row 0 is row `first` of the whole. */
export interface TablePiece extends TruthTable {
  readonly first: number;
}

const WORDS_A_BLOCK = ROWS_A_BLOCK / 32;
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
 * @param memory columns that nobody looks at any longer: those of the right length are written over.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function deriveTable(
  netlist: Netlist,
  options: TableOptions = {},
  memory: readonly Uint32Array<ArrayBuffer>[] = [],
): TruthTable {
  if (!isByWasm(netlist, options)) return truthTable(netlist, options.progress);
  const machine = tableMachine(netlist, 'any', options.span);
  const rows = 2 ** netlist.inputColumns.length;
  const words = Math.max(1, rows >>> 5);
  const free = memory.filter((column) => column.length === words);
  const none = netlist.outputColumns.map(() => null);
  const own = () => netlist.outputColumns.map(() => free.pop() ?? new Uint32Array(words));
  const columns = machine.binary
    ? { ones: own(), unknown: none, floating: none }
    : { ones: own(), unknown: own(), floating: own() };
  const stretch = Math.min(words, machine.stretch * WORDS_A_BLOCK);
  /** Each column with the stretches of the machine's memory that are copied into it. */
  const copied = KINDS.flatMap((kind) =>
    columns[kind].flatMap((column, o) => {
      if (!column) return [];
      const made = machine.column(o, kind);
      const count = machine.span / machine.stretch;
      return {
        column,
        from: Array.from({ length: count }, (_, i) => made.subarray(i * stretch, (i + 1) * stretch)),
      };
    }),
  );
  const blocks = rows / ROWS_A_BLOCK;
  for (let first = 0; first < blocks; first += machine.span) {
    const to = machine.run(first);
    for (const { column, from } of copied)
      for (let i = 0; i < to.length; i++) column.set(from[i]!, to[i]! * WORDS_A_BLOCK);
    options.progress?.(first / blocks);
  }
  return packed(netlist, rows, columns.ones, columns.unknown, columns.floating);
}

/**
 * The truth table of a netlist from the first row on, for those who look at each row once: a piece takes the memory of the one
 * before, which stays in the processor's own cache. A piece is the rows of a span; without WebAssembly all rows are one piece.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function* tablePieces(netlist: Netlist, options: TableOptions = {}): Generator<TablePiece> {
  if (!isByWasm(netlist, options)) {
    yield { ...truthTable(netlist, options.progress), first: 0 };
    return;
  }
  const machine = tableMachine(netlist, 'rows', options.span);
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
