import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf } from '../../values/wasm/module';
import { add, ctz, Local, load32, set, shl, xor } from '../../values/wasm/scalar';
import { callChanged, LevelWriter, levelPlan, WITHIN } from './levels';
import { rowBits, WORD } from './table-function';
import type { TableMachine } from './table-pieces';

/*
 * The table of a circuit in which no net can be unknown, with all its rows. The last seven inputs vary within a word of 128 rows.
 * The words of a span are computed in the order that evaluates the fewest gates, and written to their places in the table. A span
 * is consecutive words, or a few stretches of words from all over the table: the inputs with the fewest dependent gates can then
 * change fastest, wherever they stand.
 */

const PAGE = 65_536;
/** Places of a counter of words. */
const PLACES = 32;
/** A span has at most 2^MOST_APART stretches. */
const MOST_APART = 3;
/** A stretch has at least 2^LEAST_LOW blocks, if the span does. */
const LEAST_LOW = 7;

/** The compiled module of a netlist and the layout of its memory; one serves all derivations. */
interface Kept {
  readonly module: WebAssembly.Module;
  readonly pages: number;
  /** Where in the memory the changes of addresses are, and the columns. */
  readonly masks: number;
  readonly columns: number;
  readonly spans: Spans;
}

/** Which words a span has. */
interface Spans {
  /** For each place of the counter of words, the fastest first, its place in the number of a block. */
  readonly bits: readonly number[];
  /** The places in the number of a block that vary within a span, the lowest first. */
  readonly inside: readonly number[];
  /** How many of these are the lowest that there are: they vary within a stretch. */
  readonly low: number;
}

/** The code for netlists that are still in use, which a machine makes better the longer it runs. */
const made = new WeakMap<Netlist, Map<string, Kept>>();

/** As `tableMachine`, for circuits in which all nets that count are 0 or 1, of at least eight inputs. */
export function keptMachine(
  netlist: Netlist,
  gates: readonly number[],
  span: number,
  order: 'rows' | 'any',
): TableMachine {
  const known = made.get(netlist) ?? new Map<string, Kept>();
  made.set(netlist, known);
  const key = `${order} ${span}`;
  const kept = known.get(key) ?? written(netlist, gates, span, order);
  known.set(key, kept);
  const memory = new WebAssembly.Memory({ initial: kept.pages });
  const instance = new WebAssembly.Instance(kept.module, { env: { memory } });
  const run = instance.exports.run as (first: number, end: number) => void;
  const { columns, spans } = kept;
  const { bits, inside, low } = spans;
  const masks = new Int32Array(memory.buffer, kept.masks, PLACES);
  for (let place = 0, all = 0; place < PLACES; place++) {
    if (place < inside.length) all ^= WORD << inside.indexOf(bits[place]!);
    masks[place] = all;
  }
  /** Moves bit i of a number to bit `to[i]`. */
  const spread = (number: number, to: readonly number[]) =>
    to.reduce((sum, bit, i) => sum | (((number >>> i) & 1) << bit), 0);
  const apart = Array.from({ length: span >>> low }, (_, i) => spread(i, inside.slice(low)));
  return {
    binary: true,
    span,
    stretch: 1 << low,
    run: (first) => {
      run(first, first + span);
      const base = spread(first, bits);
      return apart.map((block) => base | block);
    },
    column: (output) => new Uint32Array(memory.buffer, columns + output * span * WORD, span * (WORD / 4)),
  };
}

/** The order of the words of which a span has so many, and how it is split into stretches. */
function keptPlan(netlist: Netlist, gates: readonly number[], span: number, order: 'rows' | 'any') {
  const { inputColumns } = netlist;
  const inSpan = Math.log2(span);
  const blockBit = (input: number) => inputColumns.length - 1 - input - WITHIN;
  const low = order === 'rows' ? inSpan : Math.min(inSpan, Math.max(LEAST_LOW, inSpan - MOST_APART));
  const isLow = (input: number) => blockBit(input) < low;
  const plan = levelPlan(netlist, gates, {
    outputCost: 0,
    mayCount: (input, placed) => {
      const bit = blockBit(input);
      const place = placed.length;
      if (bit < 0) return false;
      if (place >= inSpan) return order === 'any' || bit === place;
      return isLow(input) || low - placed.filter(isLow).length < inSpan - place;
    },
  });
  const bitOf = new Map(inputColumns.map((c, input) => [c.nets[0], blockBit(input)]));
  const bits = plan.counting.map((net) => bitOf.get(net)!);
  const inside = bits.slice(0, inSpan).sort((a, b) => a - b);
  const gap = inside.findIndex((bit, i) => bit !== i);
  return { plan, spans: { bits, inside, low: gap === -1 ? inSpan : gap } };
}

function written(netlist: Netlist, gates: readonly number[], span: number, order: 'rows' | 'any'): Kept {
  const { outputColumns } = netlist;
  const { plan, spans } = keptPlan(netlist, gates, span, order);
  const writer = new LevelWriter(netlist, gates, plan, () =>
    outputColumns.map((c) => ({ net: c.nets[0], level: 0 })),
  );
  const masks = writer.slots * WORD;
  const columns = masks + 4 * PLACES;
  const columnAt = (output: number) => columns + output * span * WORD;
  const places = rowBits(netlist);
  const { functions, ofLevel } = writer.functions(
    (level) => (level === 0 ? { columnAt } : null),
    (net) => places.get(net)!,
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
    spans,
  };
}
