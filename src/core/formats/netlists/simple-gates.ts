import type { Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { ONE, ZERO } from '../../values/logic';
import { done, type Result, refused } from '../../values/result';

/** A gate of two-valued logic; of `mux` the inputs are select, taken at 0, taken at 1. */
export interface SimpleGate {
  readonly op: 'and' | 'nand' | 'or' | 'nor' | 'xor' | 'xnor' | 'not' | 'buf' | 'mux' | '0' | '1';
  readonly out: string;
  readonly ins: readonly string[];
}

/** A D flip-flop; `begins` is its power-up value, null for unknown. */
export interface SimpleStore {
  readonly out: string;
  readonly data: string;
  readonly clock: string;
  readonly edge: 'rising' | 'falling';
  readonly begins: 0 | 1 | null;
}

/** A circuit as the formats of netlists can hold it: bits with names, gates of two values, storage at edges. */
export interface SimpleCircuit {
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly gates: readonly SimpleGate[];
  readonly stores: readonly SimpleStore[];
}

const OPS: Readonly<Record<number, SimpleGate['op']>> = {
  [Primitive.BUF]: 'buf',
  [Primitive.NOT]: 'not',
  [Primitive.AND]: 'and',
  [Primitive.NAND]: 'nand',
  [Primitive.OR]: 'or',
  [Primitive.NOR]: 'nor',
  [Primitive.XOR]: 'xor',
  [Primitive.XNOR]: 'xnor',
  [Primitive.MUX]: 'mux',
  [Primitive.CONST_0]: '0',
  [Primitive.CONST_1]: '1',
};

const WHY: Readonly<Record<number, string>> = {
  [Primitive.WIRED]: 'outputs that are joined',
  [Primitive.TRI]: 'three-state buffers',
  [Primitive.PULL_UP]: 'pull resistors',
  [Primitive.PULL_DOWN]: 'pull resistors',
  [Primitive.CONST_X]: 'unknown constants or inputs that are open',
  [Primitive.LATCH]: 'latches',
};

/**
 * The gates of a netlist that simpler formats can hold; inverters in front of asynchronous sets and clears are not among them.
 * @param powerUp what storage begins with where a part does not say.
 */
export function simpleGates(netlist: Netlist, powerUp: 0 | 1 | null): Result<SimpleCircuit> {
  const names = new Array<string | undefined>(netlist.nets);
  const taken = new Set<string>();
  const named = (net: number, wish: string): string => {
    const base = wish.replaceAll(/[^\w[\].<>-]/g, '_') || 'n';
    let name = base;
    for (let i = 2; taken.has(name); i++) name = `${base}_${i}`;
    taken.add(name);
    names[net] = name;
    return name;
  };
  const inputs: string[] = [];
  for (const { part, bit, net, kind } of netlist.sources) {
    if (kind === 'constant') continue;
    const terminal = netlist.inputs.find((t) => t.part === part);
    const wish = terminal ? (terminal.nets.length === 1 ? terminal.name : `${terminal.name}[${bit}]`) : part;
    inputs.push(named(net, wish));
  }
  const outputs: string[] = [];
  const gates: SimpleGate[] = [];
  const ends: SimpleGate[] = [];
  for (const { name, nets } of netlist.outputs)
    for (const [bit, net] of nets.entries()) {
      const wish = nets.length === 1 ? name : `${name}[${bit}]`;
      // An output of its own name may hang on an input, or share its net with another.
      if (names[net] === undefined) outputs.push(named(net, wish));
      else {
        const own = `${wish}`.replaceAll(/[^\w[\].<>-]/g, '_');
        const out = taken.has(own) ? `${own}_out` : own;
        taken.add(out);
        outputs.push(out);
        ends.push({ op: 'buf', out, ins: [names[net]!] });
      }
    }
  const of = (net: number): string => names[net] ?? named(net, `n${net}`);
  for (const { net, ...source } of netlist.sources) {
    if (source.kind !== 'constant') continue;
    if (source.value !== ZERO && source.value !== ONE)
      return refused('not-simple', 'the format has no unknown constants');
    gates.push({ op: source.value === ONE ? '1' : '0', out: of(net), ins: [] });
  }
  const stores: SimpleStore[] = [];
  for (const [i, g] of netlist.storage.entries()) {
    const op = netlist.op[g]!;
    const ins = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)];
    if (op === Primitive.LATCH)
      return refused('not-simple', 'the format has no latches that are open at a level');
    if (ins.length > 2) return refused('not-simple', 'the format has no asynchronous sets and clears');
    const own = netlist.stores[i]!.powerUp;
    const begins = own === '0' ? 0 : own === '1' ? 1 : own === 'X' ? null : powerUp;
    const edge = op === Primitive.DFF_RISE ? 'rising' : 'falling';
    stores.push({ out: of(netlist.out[g]!), data: of(ins[0]!), clock: of(ins[1]!), edge, begins });
  }
  const remembers = new Set(netlist.storage);
  for (let g = 0; g < netlist.op.length; g++) {
    if (remembers.has(g)) continue;
    const op = OPS[netlist.op[g]!];
    if (!op) return refused('not-simple', `the format has no ${WHY[netlist.op[g]!] ?? 'such parts'}`);
    const ins = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)].map(of);
    gates.push({ op, out: of(netlist.out[g]!), ins });
  }
  return done({ inputs, outputs, gates: [...gates, ...ends], stores });
}
