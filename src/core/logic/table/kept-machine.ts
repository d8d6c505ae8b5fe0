import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf } from '../../values/wasm/module';
import { add, ctz, Local, load32, set, shl, xor } from '../../values/wasm/scalar';
import { callChanged, LevelWriter, levelPlan, WITHIN } from './levels';
import { WORD } from './table-function';
import type { TableMachine } from './table-pieces';

/*
 * The table of a circuit in which no net can be unknown, with all its rows: the last seven inputs vary within a word of 128 rows, and
 * the words of a span are written to where they belong, in the order in which the fewest gates have to be evaluated.
 */

const PAGE = 65_536;
/** Places of a counter of words. */
const PLACES = 32;

/** The compiled module of a netlist and the layout of its memory; one serves all derivations. */
interface Kept {
  readonly module: WebAssembly.Module;
  readonly pages: number;
  /** Where in the memory the changes of addresses are, and the columns. */
  readonly masks: number;
  readonly columns: number;
  /** For each place of the counter the place in the number of a word. */
  readonly places: readonly number[];
}

/** The code for netlists that are still in use, which a machine makes better the longer it runs. */
const made = new WeakMap<Netlist, Map<number, Kept>>();

/** As `tableMachine`, for circuits in which all nets that count are 0 or 1, of at least eight inputs. */
export function keptMachine(netlist: Netlist, gates: readonly number[], span: number): TableMachine {
  const known = made.get(netlist) ?? new Map<number, Kept>();
  made.set(netlist, known);
  const kept = known.get(span) ?? written(netlist, gates, span);
  known.set(span, kept);
  const memory = new WebAssembly.Memory({ initial: kept.pages });
  const instance = new WebAssembly.Instance(kept.module, { env: { memory } });
  const run = instance.exports.run as (first: number, end: number) => void;
  const { places, columns } = kept;
  const byteOf = (place: number) => (place < places.length ? WORD << places[place]! : 0);
  const masks = new Int32Array(memory.buffer, kept.masks, PLACES);
  for (let place = 0, all = 0; place < PLACES; place++) {
    all ^= byteOf(place);
    masks[place] = all;
  }
  return {
    binary: true,
    span,
    run: (first) => run(first, first + span),
    column: (output) => new Uint32Array(memory.buffer, columns + output * span * WORD, span * (WORD / 4)),
  };
}

function written(netlist: Netlist, gates: readonly number[], span: number): Kept {
  const { inputColumns, outputColumns } = netlist;
  const bitOf = (input: number) => inputColumns.length - 1 - input;
  const inSpan = Math.log2(span);
  const plan = levelPlan(netlist, gates, {
    outputCost: 0,
    // Spans follow one another as the rows do.
    mayCount: (input, place) => {
      const bit = bitOf(input) - WITHIN;
      if (place >= inSpan) return bit === place;
      return bit >= 0 && bit < inSpan;
    },
  });
  const writer = new LevelWriter(netlist, gates, plan, () =>
    outputColumns.map((c) => ({ net: c.nets[0], level: 0 })),
  );
  const masks = writer.slots * WORD;
  const columns = masks + 4 * PLACES;
  const bits = new Map(inputColumns.map((c, i) => [c.nets[0], bitOf(i)]));
  const columnAt = (output: number) => columns + output * span * WORD;
  const { functions, ofLevel } = writer.functions(
    (level) => (level === 0 ? { columnAt } : null),
    (net) => bits.get(net)!,
  );
  const [word, end, address] = [new Local(0), new Local(1), new Local(2)];
  const code = new Code();
  code.loop(() => {
    callChanged(code, writer.last, (level) => {
      for (const p of ofLevel(level)) code.localGet(word.index).localGet(address.index).call(p);
    });
    set(word, add(word, 1))(code);
    set(address, xor(address, load32(shl(ctz(word), 2), masks)))(code);
    code.localGet(word.index).localGet(end.index).i32LtU();
  });
  const pages = Math.ceil((columns + outputColumns.length * span * WORD) / PAGE);
  const all = [...functions, { parameters: 2, i32Locals: 1, v128Locals: 0, code }];
  return {
    module: new WebAssembly.Module(moduleOf(all, pages)),
    pages,
    masks,
    columns,
    places: plan.counting.slice(0, inSpan).map((net) => bits.get(net)! - WITHIN),
  };
}
