import type { Netlist } from '../../netlist/netlist';
import { Code, moduleOf, type WasmFunction } from '../../values/wasm/module';
import { TableFunction, WORD } from './table-function';
import { GATES_A_FUNCTION, isBinary, needed, shareNets } from './table-machine';

/*
 * How many ones each output has, over all rows, without keeping a row. The order of the rows is free then: seven inputs vary within
 * a word of 128 rows, and of the others, which count the words, those change fastest on which the fewest gates depend. From one word
 * to the next only gates are evaluated of which an input has changed.
 */

/** Inputs that vary within a word. */
const WITHIN = 7;
/** An output costs as much as so many gates. */
const OUTPUT_COST = 3;
const PAGE = 65_536;
/** Words between two words on how far it is; few, as the engine takes its better code when a function is called anew. */
const SHARE = 1 << 12;

/** How often gates are evaluated, for whoever measures. */
export interface CountPlan {
  /** Nets of the inputs that count the words, the one that changes fastest first; and of those within a word. */
  readonly counting: readonly number[];
  readonly within: readonly number[];
  /** Of each gate the place of the fastest input on which it depends; the last place for none. */
  readonly levelOf: ReadonlyMap<number, number>;
  /** Gates that are evaluated for a word, on average. */
  readonly evaluated: number;
}

/** Orders the inputs so that few gates are evaluated: each place in turn, from the fastest, goes to the input that adds fewest. */
export function countPlan(netlist: Netlist, gates: readonly number[]): CountPlan {
  const inputs = netlist.inputColumns.map((c) => c.nets[0]);
  const words = Math.max(0, inputs.length - WITHIN);
  /** For each net the inputs on which it depends, a bit each. */
  const depends = new Int32Array(netlist.nets);
  for (const [i, net] of inputs.entries()) depends[net] = 1 << i;
  for (const g of gates) {
    let on = 0;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) on |= depends[netlist.ins[i]!]!;
    depends[netlist.out[g]!] = on;
  }
  const levelOf = new Map<number, number>();
  let open = [...gates];
  let waiting = netlist.outputColumns.map((c) => c.nets[0]);
  const left = new Set(inputs.keys());
  const counting: number[] = [];
  let evaluated = 0;
  for (let level = 0; level < words; level++) {
    let best = -1;
    let least = Number.POSITIVE_INFINITY;
    for (const input of left) {
      const bit = 1 << input;
      let cost = 0;
      for (const g of open) if (depends[netlist.out[g]!]! & bit) cost++;
      for (const net of waiting) if (depends[net]! & bit) cost += OUTPUT_COST;
      if (cost < least) [best, least] = [input, cost];
    }
    left.delete(best);
    counting.push(inputs[best]!);
    const isOn = (net: number) => (depends[net]! & (1 << best)) !== 0;
    const [own, others]: [number[], number[]] = [[], []];
    for (const g of open) (isOn(netlist.out[g]!) ? own : others).push(g);
    for (const g of own) levelOf.set(g, level);
    evaluated += own.length / 2 ** level;
    open = others;
    waiting = waiting.filter((net) => !isOn(net));
  }
  for (const g of open) levelOf.set(g, words);
  return { counting, within: [...left].map((i) => inputs[i]!), levelOf, evaluated };
}

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

function countMachine(netlist: Netlist, gates: readonly number[]): CountMachine {
  const plan = countPlan(netlist, gates);
  const writer = new CountWriter(netlist, gates, plan);
  const functions = writer.functions();
  const pages = Math.ceil(writer.memoryBytes / PAGE);
  const memory = new WebAssembly.Memory({ initial: pages });
  const instance = new WebAssembly.Instance(new WebAssembly.Module(moduleOf(functions, pages)), {
    env: { memory },
  });
  const run = instance.exports.run as (first: number, end: number) => void;
  const words = 2 ** plan.counting.length;
  const sums = writer.counts.map(({ at, level }) => ({ four: new Uint32Array(memory.buffer, at, 4), level }));
  return (progress) => {
    for (const { four } of sums) four.fill(0);
    for (let at = 0; at < words; at += SHARE) {
      run(at, Math.min(words, at + SHARE));
      progress?.(at / words);
    }
    return sums.map(({ four, level }) => four.reduce((sum, n) => sum + n, 0) * 2 ** level);
  };
}

class CountWriter {
  private readonly slot: Int32Array;
  private slots = 0;

  constructor(
    private readonly netlist: Netlist,
    private readonly gates: readonly number[],
    private readonly plan: CountPlan,
  ) {
    this.slot = new Int32Array(netlist.nets).fill(-1);
  }

  get memoryBytes(): number {
    return (this.slots + this.netlist.outputColumns.length) * WORD;
  }

  /** Where the sums of each output are, and how often each stands: 2^level times. */
  get counts(): readonly { readonly net: number; readonly at: number; readonly level: number }[] {
    return this.netlist.outputColumns.map((c, o) => ({
      net: c.nets[0],
      at: (this.slots + o) * WORD,
      level: this.levelOfNet(c.nets[0]),
    }));
  }

  private readonly driver = new Map<number, number>();

  private levelOfNet(net: number): number {
    const { counting, levelOf } = this.plan;
    const gate = this.driver.get(net);
    if (gate !== undefined) return levelOf.get(gate)!;
    const place = counting.indexOf(net);
    return place === -1 ? counting.length : place;
  }

  /** The pieces of each level, and last the loop over the words that calls those of which an input has changed. */
  functions(): WasmFunction[] {
    const { netlist, gates, plan } = this;
    for (const g of gates) this.driver.set(netlist.out[g]!, g);
    const last = plan.counting.length;
    const pieces: { readonly level: number; readonly gates: readonly number[] }[] = [];
    for (let level = last; level >= 0; level--) {
      const own = gates.filter((g) => plan.levelOf.get(g) === level);
      for (let at = 0; at === 0 || at < own.length; at += GATES_A_FUNCTION)
        pieces.push({ level, gates: own.slice(at, at + GATES_A_FUNCTION) });
    }
    // Outputs are counted by the last piece of their level.
    const countedIn = (level: number) => pieces.findLastIndex((piece) => piece.level === level);
    this.slots = shareNets(
      netlist,
      pieces.map((piece) => piece.gates),
      netlist.outputColumns.map((c) => ({ net: c.nets[0], piece: countedIn(this.levelOfNet(c.nets[0])) })),
      this.slot,
    );
    const bits = new Map([...plan.within, ...plan.counting].map((net, bit) => [net, bit]));
    const functions = pieces.map((piece, p) => {
      const counts =
        p === countedIn(piece.level) ? this.counts.filter(({ level }) => level === piece.level) : [];
      return new TableFunction(netlist, true, this.slot, bits, { counts }).write(piece.gates);
    });
    const loop = new Code();
    const call = (level: number) => {
      for (const [p, piece] of pieces.entries())
        if (piece.level === level && functions[p]!.code.content.length > 0)
          loop.localGet(0).localGet(0).call(p);
    };
    // The slower levels first: the faster ones read them. Word 0 begins them all.
    const from = (level: number) => {
      if (level > last) return;
      loop.localGet(0).i32Ctz().i32(level).i32GeU();
      loop.when(() => {
        from(level + 1);
        call(level);
      });
    };
    loop.loop(() => {
      from(1);
      call(0);
      loop.localGet(0).i32(1).i32Add().localSet(0).localGet(0).localGet(1).i32LtU();
    });
    return [...functions, { parameters: 2, i32Locals: 0, v128Locals: 0, code: loop }];
  }
}
