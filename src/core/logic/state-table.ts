import { type Netlist, stateName, storeName } from '../netlist/netlist';
import { Primitive } from '../parts/primitive';
import { Run } from '../simulate/run';
import { type Logic, ONE, X, Z, ZERO } from '../values/logic';
import { inputAt, type TruthTable } from './truth-table';

/** Present states and inputs together, at most: a row is a run of its own. */
const MOST_STATE_COLUMNS = 16;

export type StateTable =
  | { readonly ok: true; readonly value: TruthTable }
  | { readonly ok: false; readonly problem: string };

/**
 * The table of a circuit with storage: over the present state and the inputs (without the clock) the state after
 * the next active edge of the clock, and the outputs before it. The engine without delays goes through it row by
 * row, so that whatever the circuit is made of it gives what the engine gives. Columns of the state are called after their
 * storage, those of the next state with `+` behind.
 */
export function stateTable(netlist: Netlist, progress?: (share: number) => void): StateTable {
  const clocks = clockNets(netlist);
  if (clocks.length > 1)
    return { ok: false, problem: 'it has several clocks, so that “the next edge” does not say which.' };
  const columns = netlist.inputColumns.filter((c) => c.nets[0] !== clocks[0]);
  // The highest bit of a register comes first, as in all tables.
  const order = [...netlist.storage.keys()].sort(
    (a, b) => netlist.owner[netlist.storage[a]!]! - netlist.owner[netlist.storage[b]!]! || b - a,
  );
  const keys = order.map((i) => storeName(netlist, i));
  const states = order.map((i) => stateName(netlist, i));
  const count = states.length + columns.length;
  if (count > MOST_STATE_COLUMNS)
    return {
      ok: false,
      problem: `${states.length} bits of state and ${columns.length} inputs make more rows than fit: ${MOST_STATE_COLUMNS} together are the most.`,
    };
  const falling = [...netlist.storage].some((g) => netlist.op[g] === Primitive.DFF_FALL);
  const rising = [...netlist.storage].some((g) => netlist.op[g] !== Primitive.DFF_FALL);
  if (falling && rising)
    return { ok: false, problem: 'some of it works on the rising and some on the falling edge.' };
  const rows = 2 ** count;
  const outputs = [...states.map((s) => `${s}+`), ...netlist.outputColumns.map((c) => c.name)];
  const made = () => outputs.map(() => new Uint32Array(Math.max(1, rows >>> 5)));
  const [ones, unknown, floating] = [made(), made(), made()];
  const [idle, active]: [Logic, Logic] = falling ? [ONE, ZERO] : [ZERO, ONE];
  const sources = new Map(netlist.sources.map((s) => [s.net, s]));
  const begin = () => new Run(netlist, { delays: 'zero', mostChanges: 0 });
  let run = begin();
  for (let row = 0; row < rows; row++) {
    // A loop of gates keeps something from the row before, which storage does not.
    if (netlist.looped.length > 0) run = begin();
    const held = new Map(keys.map((name, i) => [name, inputAt(count, i, row) as Logic]));
    // A clock that runs by itself stands still here, and is put by hand.
    const settled: [number, Logic][] = columns.map((c, i) => [
      c.nets[0],
      inputAt(count, states.length + i, row),
    ]);
    if (clocks[0] !== undefined && sources.get(clocks[0])) settled.push([clocks[0], idle]);
    run.set(settled);
    // Whatever moved the storage on the way is put back.
    run.putState(held);
    const now = netlist.outputColumns.map((c) => run.values[c.nets[0]] as Logic);
    if (clocks[0] !== undefined) run.set([[clocks[0], active]]);
    const next = order.map((i) => run.values[netlist.out[netlist.storage[i]!]!] as Logic);
    for (const [o, value] of [...next, ...now].entries()) {
      const bit = 1 << (row & 31);
      const word = row >>> 5;
      if (value === ONE) ones[o]![word]! |= bit;
      if (value === X || value === Z) unknown[o]![word]! |= bit;
      if (value === Z) floating[o]![word]! |= bit;
    }
    if ((row & 0xff) === 0) progress?.(row / rows);
  }
  const inputs = [...states, ...columns.map((c) => c.name)];
  return { ok: true, value: { inputs, outputs, rows, ones, unknown, floating } };
}

/** The inputs of the sheet that clock its storage, straight or by way of gates. */
function clockNets(netlist: Netlist): number[] {
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (let g = 0; g < netlist.op.length; g++) driver[netlist.out[g]!] = g;
  const found = new Set<number>();
  const seen = new Set<number>();
  const inputs = new Set(netlist.inputColumns.map((c) => c.nets[0]));
  const follow = (net: number) => {
    if (seen.has(net)) return;
    seen.add(net);
    if (inputs.has(net)) {
      found.add(net);
      return;
    }
    const g = driver[net]!;
    // Only what hands the clock on: a gate that has it as one of several inputs may be an enable.
    if (
      g !== -1 &&
      (netlist.op[g] === Primitive.BUF ||
        netlist.op[g] === Primitive.NOT ||
        netlist.op[g] === Primitive.WIRED)
    )
      follow(netlist.ins[netlist.inStart[g]!]!);
  };
  for (const g of netlist.storage)
    if (netlist.op[g] !== Primitive.LATCH) follow(netlist.ins[netlist.inStart[g]! + 1]!);
  return [...found];
}
