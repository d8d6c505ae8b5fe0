import type { Netlist } from '../../netlist/netlist';
import type { Code, WasmFunction } from '../../values/wasm/module';
import { type Ending, TableFunction } from './table-function';
import { GATES_A_FUNCTION, shareNets } from './table-pieces';

/*
 * The gates of a circuit by how often they have to be evaluated while words of 128 rows are gone through in an order of one's own:
 * seven inputs vary within a word, and of the others, which count the words, those change fastest on which the fewest gates depend. From
 * one word to the next only gates are evaluated of which an input has changed.
 */

/** Inputs that vary within a word. */
export const WITHIN = 7;

/** How often gates are evaluated. */
export interface LevelPlan {
  /** Nets of the inputs that count the words, the one that changes fastest first; and of those within a word. */
  readonly counting: readonly number[];
  readonly within: readonly number[];
  /** Of each gate the place of the fastest input on which it depends; the last place for none. */
  readonly levelOf: ReadonlyMap<number, number>;
  /** Gates that are evaluated for a word, on average. */
  readonly evaluated: number;
}

/** Constraints on the order of the inputs. */
export interface LevelWishes {
  /** An output that is read anew costs as much as so many gates. */
  readonly outputCost: number;
  /** Whether an input may have a place, counted from the fastest; the seven within a word are those that are left. */
  readonly mayCount?: (input: number, place: number) => boolean;
}

/** Orders the inputs so that few gates are evaluated: each place in turn, from the fastest, goes to the input that adds fewest. */
export function levelPlan(
  netlist: Netlist,
  gates: readonly number[],
  { outputCost, mayCount = () => true }: LevelWishes,
): LevelPlan {
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
      if (!mayCount(input, level)) continue;
      const bit = 1 << input;
      let cost = 0;
      for (const g of open) if (depends[netlist.out[g]!]! & bit) cost++;
      for (const net of waiting) if (depends[net]! & bit) cost += outputCost;
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

/** Writes the functions of the levels of a plan. */
export class LevelWriter {
  private readonly slot: Int32Array;
  private readonly driver = new Map<number, number>();
  private readonly pieces: { readonly level: number; readonly gates: readonly number[] }[] = [];
  /** Words in memory, from address 0 on, by which functions hand nets to one another. */
  readonly slots: number;

  /** @param read nets that are read at the end of a level besides, by that level. */
  constructor(
    private readonly netlist: Netlist,
    gates: readonly number[],
    private readonly plan: LevelPlan,
    read: (
      levelOfNet: (net: number) => number,
    ) => readonly { readonly net: number; readonly level: number }[],
  ) {
    for (const g of gates) this.driver.set(netlist.out[g]!, g);
    for (let level = this.last; level >= 0; level--) {
      const own = gates.filter((g) => plan.levelOf.get(g) === level);
      for (let at = 0; at === 0 || at < own.length; at += GATES_A_FUNCTION)
        this.pieces.push({ level, gates: own.slice(at, at + GATES_A_FUNCTION) });
    }
    this.slot = new Int32Array(netlist.nets).fill(-1);
    this.slots = shareNets(
      netlist,
      this.pieces.map((piece) => piece.gates),
      read((net) => this.levelOfNet(net)).map(({ net, level }) => ({ net, piece: this.endOf(level) })),
      this.slot,
    );
  }

  /** The level of what depends on no input that counts. */
  get last(): number {
    return this.plan.counting.length;
  }

  levelOfNet(net: number): number {
    const gate = this.driver.get(net);
    if (gate !== undefined) return this.plan.levelOf.get(gate)!;
    const place = this.plan.counting.indexOf(net);
    return place === -1 ? this.last : place;
  }

  /** The last piece of a level. */
  private endOf(level: number): number {
    return this.pieces.findLastIndex((piece) => piece.level === level);
  }

  /**
   * A function for each piece.
   * @param ending what the last piece of a level does besides.
   * @param within the place of each of the seven inputs within a word.
   * @returns them, and which of them belong to a level and do anything.
   */
  functions(
    ending: (level: number) => Ending,
    within: (net: number, place: number) => number,
  ): { functions: WasmFunction[]; ofLevel: (level: number) => number[] } {
    const { plan, pieces } = this;
    const bits = new Map<number, number>([
      ...plan.within.map((net, place) => [net, within(net, place)] as const),
      ...plan.counting.map((net, place) => [net, WITHIN + place] as const),
    ]);
    const functions = pieces.map((piece, p) =>
      new TableFunction(
        this.netlist,
        true,
        this.slot,
        bits,
        p === this.endOf(piece.level) ? ending(piece.level) : null,
      ).write(piece.gates),
    );
    const ofLevel = (level: number) =>
      [...pieces.keys()].filter((p) => pieces[p]!.level === level && functions[p]!.code.content.length > 0);
    return { functions, ofLevel };
  }
}

/** Calls the levels of which an input has changed at the word in parameter 0, the slower ones first, as the faster ones read them. */
export function callChanged(code: Code, last: number, call: (level: number) => void): void {
  const from = (level: number) => {
    if (level > last) return;
    // Word 0 begins them all.
    code.localGet(0).i32Ctz().i32(level).i32GeU();
    code.when(() => {
      from(level + 1);
      call(level);
    });
  };
  from(1);
  call(0);
}
