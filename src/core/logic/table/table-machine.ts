import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import { keptMachine } from './kept-machine';
import { rowBits, TableFunction, WORD } from './table-function';
import {
  GATES_A_FUNCTION,
  isBinary,
  needed,
  ROWS_A_BLOCK,
  shareNets,
  type TableMachine,
} from './table-pieces';

/** Bytes of results that the machine's memory holds at most: they stay in a processor's own cache until they are used. */
const MOST_BYTES = 1 << 20;
/** Most blocks of a span: the engine switches to optimised code when a function is called again. */
const MOST_BLOCKS = 8192;
const PAGE = 65_536;
/** From so many inputs on it is worth while to choose the order of the words. */
const FEWEST_INPUTS = 14;

/** Whether this machine has WebAssembly with 128-bit words. */
export function hasWideWords(): boolean {
  if (typeof WebAssembly === 'undefined') return false;
  const code = new Code().i32(0).lanes([0, 0, 0, 0]).store(0);
  return WebAssembly.validate(moduleOf([{ parameters: 0, i32Locals: 0, v128Locals: 0, code }], 1));
}

/**
 * Makes the machine of a netlist without storage and loops; see `whyNoTable`.
 * @param order whether a span is 128 rows after 128 rows, or any blocks.
 * @param most blocks of 128 rows that its memory holds at once, a power of two; by itself as many as are quickest.
 */
export function tableMachine(netlist: Netlist, order: 'rows' | 'any', most?: number): TableMachine {
  const gates = needed(netlist);
  const binary = isBinary(netlist, gates);
  const blocks = Math.max(1, 2 ** netlist.inputColumns.length / ROWS_A_BLOCK);
  const columns = netlist.outputColumns.length * (binary ? 1 : 3);
  const fit = Math.min(MOST_BLOCKS, Math.max(1, MOST_BYTES / (columns * WORD)));
  const span = Math.min(blocks, most ?? 2 ** Math.floor(Math.log2(fit)));
  if (binary && netlist.inputColumns.length >= FEWEST_INPUTS) return keptMachine(netlist, gates, span, order);
  const writer = new Writer(netlist, gates, binary, span);
  const functions = writer.functions();
  const pages = Math.ceil(writer.memoryBytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages });
  const instance = new WebAssembly.Instance(new WebAssembly.Module(moduleOf(functions, pages)), {
    env: { memory },
  });
  const run = instance.exports.run as (first: number, end: number) => void;
  const kinds = { ones: 0, unknown: 1, floating: 2 };
  return {
    binary,
    span,
    stretch: span,
    run: (first) => {
      run(first, first + span);
      return [first];
    },
    column: (output, what) =>
      new Uint32Array(memory.buffer, writer.columnAt(output, kinds[what]), span * (ROWS_A_BLOCK / 32)),
  };
}

class Writer {
  /** Where a net's words lie in memory, for nets that more than one function uses; one or two words each. */
  private readonly slot: Int32Array;
  private slots = 0;
  private readonly rails: number;

  constructor(
    private readonly netlist: Netlist,
    private readonly gates: readonly number[],
    private readonly binary: boolean,
    private readonly span: number,
  ) {
    this.rails = binary ? 1 : 2;
    this.slot = new Int32Array(netlist.nets).fill(-1);
  }

  private get slotBytes(): number {
    return this.slots * this.rails * WORD;
  }

  get memoryBytes(): number {
    return this.slotBytes + this.netlist.outputColumns.length * (this.binary ? 1 : 3) * this.span * WORD;
  }

  columnAt(output: number, kind: number): number {
    return this.slotBytes + (output * (this.binary ? 1 : 3) + kind) * this.span * WORD;
  }

  /** Pieces of the circuit one after the other, and last the loop over the blocks that calls them. */
  functions(): WasmFunction[] {
    const { netlist, gates } = this;
    const pieces: number[][] = [];
    for (let at = 0; at < gates.length; at += GATES_A_FUNCTION)
      pieces.push(gates.slice(at, at + GATES_A_FUNCTION));
    if (pieces.length === 0) pieces.push([]);
    const last = pieces.length - 1;
    // The outputs are written by the last.
    const outputs = netlist.outputColumns.map((c) => ({ net: c.nets[0], piece: last }));
    this.slots = shareNets(netlist, pieces, outputs, this.slot);
    // Addresses are fixed only now that the number of slots is known.
    const functions = pieces.map((piece, p) =>
      new TableFunction(netlist, this.binary, this.slot, rowBits(netlist), p === last ? this : null).write(
        piece,
      ),
    );
    const loop = new Code();
    loop.loop(() => {
      for (let p = 0; p < pieces.length; p++) loop.localGet(0).localGet(2).call(p);
      loop.localGet(2).i32(WORD).i32Add().localSet(2);
      loop.localGet(0).i32(1).i32Add().localSet(0).localGet(0).localGet(1).i32LtU();
    });
    return [...functions, { parameters: 2, i32Locals: 1, v128Locals: 0, code: loop }];
  }
}
