import type { Netlist } from '../../netlist/netlist';
import { countByWasm } from './count-machine';
import { hasWideWords, tableMachine } from './table-machine';
import { countOnes, packed, type TruthTable, truthTable, whyNoTable } from './truth-table';

export interface TableOptions {
  /** Is told after each share of the rows (0 to 1) and may throw to stop the work. */
  readonly progress?: ((share: number) => void) | undefined;
  /** How it is derived; the same rows either way. By itself: WebAssembly for larger tables, where there is one. */
  readonly by?: 'wasm' | 'words' | undefined;
}

/** Tables of fewer inputs are done before WebAssembly has been compiled. */
const WASM_FROM_INPUTS = 11;
let wideWords: boolean | null = null;

/**
 * Derives the truth table of a netlist in the quickest way that there is here.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function deriveTable(netlist: Netlist, { progress, by }: TableOptions = {}): TruthTable {
  const reason = whyNoTable(netlist);
  if (reason) throw new Error(reason.message);
  wideWords ??= hasWideWords();
  const wide = by ? by === 'wasm' : wideWords && netlist.inputColumns.length >= WASM_FROM_INPUTS;
  return wide ? tableByWasm(netlist, progress) : truthTable(netlist, progress);
}

/**
 * How many ones each output has over all rows, in the quickest way that there is here: where nobody wants the rows, most gates need
 * not be evaluated for most of them.
 * @throws Error where `whyNoTable` gives a reason.
 */
export function countTable(netlist: Netlist, { progress, by }: TableOptions = {}): number[] {
  const reason = whyNoTable(netlist);
  if (reason) throw new Error(reason.message);
  wideWords ??= hasWideWords();
  const wide = by ? by === 'wasm' : wideWords && netlist.inputColumns.length >= WASM_FROM_INPUTS;
  const counted = wide ? countByWasm(netlist, progress) : null;
  return counted ?? deriveTable(netlist, { progress, by }).ones.map(countOnes);
}

/** Blocks of 128 rows between two words on how far it is. */
const SHARE = 8192;

function tableByWasm(netlist: Netlist, progress?: (share: number) => void): TruthTable {
  const machine = tableMachine(netlist);
  const rows = 2 ** netlist.inputColumns.length;
  const words = Math.max(1, rows >>> 5);
  const blocks = Math.max(1, Math.ceil(rows / 128));
  const whole = machine.span === blocks;
  const columns = (what: 'ones' | 'unknown' | 'floating') =>
    netlist.outputColumns.map((_, o) =>
      whole ? machine.column(o, what).subarray(0, words) : new Uint32Array(words),
    );
  const ones = columns('ones');
  const unknown = machine.binary ? ones.map(() => null) : columns('unknown');
  const floating = machine.binary ? ones.map(() => null) : columns('floating');
  for (let from = 0; from < blocks; from += machine.span) {
    const span = Math.min(machine.span, blocks - from);
    for (let at = 0; at < span; at += SHARE) {
      machine.run(from + at, Math.min(SHARE, span - at), at);
      progress?.((from + at) / blocks);
    }
    if (whole) break;
    for (const [what, list] of Object.entries({ ones, unknown, floating }))
      for (const [o, into] of list.entries())
        into?.set(machine.column(o, what as 'ones').subarray(0, span * 4), from * 4);
  }
  return packed(netlist, rows, ones, unknown, floating);
}
