import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import { keptMachine } from './kept-machine';
import { rowBits, TableFunction, WORD } from './table-function';
import { GATES_A_FUNCTION, isBinary, needed, shareNets, type TableMachine } from './table-pieces';

/** Rows in one 128-bit word. */
const ROWS = 128;
/** Bytes of results that the machine's memory holds at most; larger tables are derived in several spans. */
const MOST_BYTES = 1 << 28;
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
 * @param most bytes of results that are held at once.
 */
export function tableMachine(netlist: Netlist, most = MOST_BYTES): TableMachine {
  const gates = needed(netlist);
  const binary = isBinary(netlist, gates);
  if (binary && netlist.inputColumns.length >= FEWEST_INPUTS) return keptMachine(netlist, gates, most);
  const blocks = Math.max(1, 2 ** netlist.inputColumns.length / ROWS);
  const columns = netlist.outputColumns.length * (binary ? 1 : 3);
  const span = Math.min(blocks, Math.max(1, Math.floor(most / (columns * WORD))));
  const writer = new Writer(netlist, gates, binary, span);
  const functions = writer.functions();
  const pages = Math.ceil(writer.memoryBytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages });
  const instance = new WebAssembly.Instance(new WebAssembly.Module(moduleOf(functions, pages)), {
    env: { memory },
  });
  const run = instance.exports.run as (first: number, end: number, at: number) => void;
  const kinds = { ones: 0, unknown: 1, floating: 2 };
  return {
    binary,
    span,
    run: (first, blocks, at) => run(first, first + blocks, at * WORD),
    column: (output, what) =>
      new Uint32Array(memory.buffer, writer.columnAt(output, kinds[what]), span * (ROWS / 32)),
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
    return [...functions, { parameters: 3, i32Locals: 0, v128Locals: 0, code: loop }];
  }
}
