import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf } from '../../values/wasm/module';
import { callChanged, LevelWriter, levelPlan, WITHIN } from './levels';
import { WORD } from './table-function';
import { isBinary, needed } from './table-pieces';

/*
 * How many ones each output has, over all rows, without keeping a row: the order of the rows is free then.
 */

/** An output costs as much as so many gates. */
const OUTPUT_COST = 3;
const PAGE = 65_536;
/** Words between two words on how far it is; few, as the engine takes its better code when a function is called anew. */
const SHARE = 1 << 12;

/**
 * The ones of each output over all rows of a netlist without storage and loops; null where a net can be anything but 0 or 1, or
 * where there are too few inputs for words to be worth while.
 * @param progress is told after each share of the rows (0 to 1) and may throw to stop the work.
 */
export function countByWasm(netlist: Netlist, progress?: (share: number) => void): number[] | null {
  const gates = needed(netlist);
  if (netlist.inputColumns.length <= WITHIN || !isBinary(netlist, gates)) return null;
  const machine = machines.get(netlist) ?? countMachine(netlist, gates);
  machines.set(netlist, machine);
  return machine(progress);
}

/** The machines of netlists that are still in use, with the code that the engine has made of them. */
const machines = new WeakMap<Netlist, CountMachine>();

type CountMachine = (progress?: (share: number) => void) => number[];

/** The order of the inputs in which the fewest gates are evaluated. */
export const countPlan = (netlist: Netlist, gates: readonly number[]) =>
  levelPlan(netlist, gates, { outputCost: OUTPUT_COST });

function countMachine(netlist: Netlist, gates: readonly number[]): CountMachine {
  const plan = countPlan(netlist, gates);
  const writer = new LevelWriter(netlist, gates, plan, (levelOfNet) =>
    netlist.outputColumns.map((c) => ({ net: c.nets[0], level: levelOfNet(c.nets[0]) })),
  );
  // Where the sums of each output are; one of level p stands for 2^p words.
  const counts = netlist.outputColumns.map((c, o) => ({
    net: c.nets[0],
    at: (writer.slots + o) * WORD,
    level: writer.levelOfNet(c.nets[0]),
  }));
  const { functions, ofLevel } = writer.functions(
    (level) => ({ counts: counts.filter((count) => count.level === level) }),
    (_, place) => place,
  );
  const pages = Math.ceil(((writer.slots + counts.length) * WORD) / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages });
  const all = [
    ...functions,
    { parameters: 2, i32Locals: 0, v128Locals: 0, code: loopOver(writer.last, ofLevel) },
  ];
  const instance = new WebAssembly.Instance(new WebAssembly.Module(moduleOf(all, pages)), {
    env: { memory },
  });
  const run = instance.exports.run as (first: number, end: number) => void;
  const words = 2 ** plan.counting.length;
  const sums = counts.map(({ at, level }) => ({ four: new Uint32Array(memory.buffer, at, 4), level }));
  return (progress) => {
    for (const { four } of sums) four.fill(0);
    for (let at = 0; at < words; at += SHARE) {
      run(at, Math.min(words, at + SHARE));
      progress?.(at / words);
    }
    return sums.map(({ four, level }) => four.reduce((sum, n) => sum + n, 0) * 2 ** level);
  };
}

/** A loop over words, from parameter 0 up to parameter 1, that calls the pieces of which an input has changed. */
function loopOver(last: number, ofLevel: (level: number) => number[]): Code {
  const loop = new Code();
  loop.loop(() => {
    callChanged(loop, last, (level) => {
      for (const p of ofLevel(level)) loop.localGet(0).localGet(0).call(p);
    });
    loop.localGet(0).i32(1).i32Add().localSet(0).localGet(0).localGet(1).i32LtU();
  });
  return loop;
}
