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
  /** Of each net the place of the fastest input on which it depends; the number of places for none. */
  readonly levelOf: Int32Array;
  /** Gates that are evaluated for a word, on average. */
  readonly evaluated: number;
}

/** Constraints on the order of the inputs. */
export interface LevelWishes {
  /** An output that is read anew costs as much as so many gates. */
  readonly outputCost: number;
  /**
   * Whether an input may have the next place.
   * @param placed the inputs that have one, the fastest first. The seven left at the end vary within a word.
   */
  readonly mayCount?: (input: number, placed: readonly number[]) => boolean;
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
  /** Gates and outputs that depend on the same inputs and on none that is placed, by those inputs. */
  const open = new Map<number, { gates: number; outputs: number }>();
  const alike = (on: number) => {
    const found = open.get(on) ?? { gates: 0, outputs: 0 };
    open.set(on, found);
    return found;
  };
  // Plain loops: this runs once before each table, while the code is still interpreted.
  for (let k = 0; k < gates.length; k++) {
    const g = gates[k]!;
    let on = 0;
    for (let i = netlist.inStart[g]!; i < netlist.inStart[g + 1]!; i++) on |= depends[netlist.ins[i]!]!;
    depends[netlist.out[g]!] = on;
    alike(on).gates++;
  }
  for (const c of netlist.outputColumns) alike(depends[c.nets[0]]!).outputs++;
  /** The cost of each input at the next place: gates and outputs that depend on it, and on no input placed before. */
  const cost = new Int32Array(inputs.length);
  const charge = (on: number, by: number) => {
    for (let rest = on; rest !== 0; rest &= rest - 1) cost[31 - Math.clz32(rest & -rest)]! += by;
  };
  const costOf = (of: { gates: number; outputs: number }) => of.gates + outputCost * of.outputs;
  for (const [on, of] of open) charge(on, costOf(of));
  const levelOn = new Map<number, number>();
  const left = new Set(inputs.keys());
  const placed: number[] = [];
  let evaluated = 0;
  for (let level = 0; level < words; level++) {
    let best = -1;
    for (const input of left)
      if (mayCount(input, placed) && (best === -1 || cost[input]! < cost[best]!)) best = input;
    left.delete(best);
    placed.push(best);
    levelOn.set(1 << best, level);
    for (const [on, of] of open) {
      if (!(on & (1 << best))) continue;
      open.delete(on);
      charge(on, -costOf(of));
      levelOn.set(on, level);
      evaluated += of.gates / 2 ** level;
    }
  }
  const levelOf = new Int32Array(netlist.nets).fill(words);
  for (let net = 0; net < netlist.nets; net++) levelOf[net] = levelOn.get(depends[net]!) ?? words;
  const nets = (of: Iterable<number>) => [...of].map((i) => inputs[i]!);
  return { counting: nets(placed), within: nets(left), levelOf, evaluated };
}

/** Writes the functions of the levels of a plan. */
export class LevelWriter {
  private readonly slot: Int32Array;
  private readonly pieces: { readonly level: number; readonly gates: readonly number[] }[] = [];
  /** Of each level the number of its last piece. */
  private readonly ends: number[] = [];
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
    const ofLevel = Array.from({ length: this.last + 1 }, (): number[] => []);
    for (const g of gates) ofLevel[this.levelOfNet(netlist.out[g]!)]!.push(g);
    for (let level = this.last; level >= 0; level--) {
      const own = ofLevel[level]!;
      for (let at = 0; at === 0 || at < own.length; at += GATES_A_FUNCTION)
        this.pieces.push({ level, gates: own.slice(at, at + GATES_A_FUNCTION) });
      this.ends[level] = this.pieces.length - 1;
    }
    this.slot = new Int32Array(netlist.nets).fill(-1);
    this.slots = shareNets(
      netlist,
      this.pieces.map((piece) => piece.gates),
      read((net) => this.levelOfNet(net)).map(({ net, level }) => ({ net, piece: this.ends[level]! })),
      this.slot,
    );
  }

  /** The level of what depends on no input that counts. */
  get last(): number {
    return this.plan.counting.length;
  }

  levelOfNet(net: number): number {
    return this.plan.levelOf[net]!;
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
        p === this.ends[piece.level] ? ending(piece.level) : null,
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
