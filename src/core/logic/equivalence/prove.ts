import type { Column, Netlist } from '../../netlist/netlist';
import { Primitive } from '../../parts/primitive';
import { letterOf, ONE } from '../../values/logic';
import { sameName } from '../../values/names';
import { done, type Result, refusal, refused } from '../../values/result';
import { tablePieces } from '../table/derive-table';
import { isBinary, needed } from '../table/table-pieces';
import { cell, firstDifference, inputAt, type TruthTable, whyNoTable } from '../table/truth-table';
import { AIG_FALSE, AIG_TRUE, Aig, type AigEdge, intoAig } from './aig';
import { Bdd, FALSE, MOST_NODES, TooLarge, TRUE } from './bdd';
import { rewriteWords } from './rewriting';
import { satSweep } from './sat-sweeping';

/** A row, or a row a clock, by the names of the inputs of the first circuit. */
export type Row = Readonly<Record<string, 0 | 1>>;
/** The values of the outputs there, as letters. */
export type Shown = Readonly<Record<string, string>>;

export type Proof =
  | { readonly verdict: 'equivalent'; readonly method: string }
  | {
      readonly verdict: 'different';
      readonly method: string;
      /** One row for circuits without memory, else one a clock, the last one that at which they differ. */
      readonly inputs: readonly Row[];
      readonly outputs: { readonly a: Shown; readonly b: Shown };
    }
  | { readonly verdict: 'undecided'; readonly method: string; readonly reason: string };

export interface ProofOptions {
  /** Is told the share of the work (0 to 1; a guess where states are found on the way) and may throw to stop it. */
  readonly progress?: (share: number) => void;
  /** Nodes of decision diagrams, at most. */
  readonly mostNodes?: number;
  /** Steps of two circuits with storage, at most. */
  readonly mostSteps?: number;
  /** Work of the search for a row, at most; see `sweep`. */
  readonly mostWork?: number;
}

/** Circuits of up to this many inputs are compared row by row, all of them: that is a proof too, and the quickest. */
const ALL_ROWS = 20;
/** Nodes of the diagrams that are tried first. */
const FEW_NODES = 400_000;
/** Circuits of up to this many inputs are compared row by row where diagrams grow too large. */
export const MOST_ROWS = 26;
/** Cells of both tables up to which that is tried before a search. */
const MOST_CELLS = 2 ** 31;
/** Blocks of 128 rows that are compared at a time. */
const SPAN = 512;

/** Inputs and outputs of two circuits that belong together, by name. */
interface Matched {
  readonly inputs: readonly (readonly [Column, Column])[];
  readonly outputs: readonly (readonly [Column, Column])[];
}

const listed = (columns: readonly Column[]) => columns.map((c) => c.name).join(', ') || 'none';

/** Matches ports by name and reports those without a partner. */
export function matched(a: Netlist, b: Netlist): Result<Matched> {
  const pair = (mine: readonly Column[], other: readonly Column[], what: string) => {
    const pairs = mine.map((c) => [c, other.find((o) => sameName(o.name, c.name))] as const);
    const lone =
      pairs.find(([, o]) => !o)?.[0] ?? other.find((o) => !mine.some((c) => sameName(c.name, o.name)));
    if (lone)
      return {
        problem: `the ${what} ${lone.name} is only in one of them: ${listed(mine)} here, ${listed(other)} there`,
      };
    return { pairs: pairs as readonly (readonly [Column, Column])[] };
  };
  const inputs = pair(a.inputColumns, b.inputColumns, 'input');
  const outputs = pair(a.outputColumns, b.outputColumns, 'output');
  if (inputs.problem !== undefined) return refused('other-ports', inputs.problem);
  if (outputs.problem !== undefined) return refused('other-ports', outputs.problem);
  if (outputs.pairs!.length === 0) return refused('no-outputs', 'they have no outputs to compare');
  return done({ inputs: inputs.pairs!, outputs: outputs.pairs! });
}

/**
 * Whether two circuits without memory do the same, proved: by all rows where there are few, by decision diagrams or a
 * search where there are many. Never by sampling.
 */
export function proveCombinational(
  a: Netlist,
  b: Netlist,
  { progress = () => {}, mostNodes = MOST_NODES, mostWork }: ProofOptions = {},
): Result<Proof> {
  const ports = matched(a, b);
  if (!ports.ok) return ports;
  for (const netlist of [a, b]) {
    const reason = netlist.inputColumns.length > MOST_ROWS ? null : whyNoTable(netlist);
    if (reason) return refusal(reason);
  }
  const { inputs } = ports.value;
  const binary = [a, b].every((n) => isBinary(n, needed(n)));
  if (inputs.length <= ALL_ROWS) return done(byRows(a, b, ports.value, progress));
  const cells = 2 * ports.value.outputs.length * 2 ** inputs.length;
  const part = (from: number, to: number) => (share: number) => progress(from + share * (to - from));
  if (binary) {
    const sums = byRewriting(a, b, ports.value, part(0, 0.1));
    if ('proof' in sums) return done(sums.proof);
    // Small diagrams are the quickest; a search finds common signals; large diagrams take longest.
    const proof =
      byDiagrams(a, b, sums.left, Math.min(FEW_NODES, mostNodes), part(0.1, 0.2)) ??
      (inputs.length <= MOST_ROWS && cells <= MOST_CELLS ? byRows(a, b, ports.value, part(0.2, 1)) : null) ??
      bySearch(a, b, sums.left, part(0.2, 0.6), mostWork) ??
      (mostNodes > FEW_NODES ? byDiagrams(a, b, sums.left, mostNodes, part(0.6, 1)) : null);
    if (proof)
      return done(
        sums.left === ports.value ? proof : { ...proof, method: `${BY_REWRITING}, and ${proof.method}` },
      );
  }
  if (inputs.length <= MOST_ROWS) return done(byRows(a, b, ports.value, progress));
  return done({
    verdict: 'undecided',
    method: binary ? 'decision diagrams and a search for a row' : 'none',
    reason: binary
      ? `the decision diagrams grew too large, the search for a row that differs did not finish, and ${inputs.length} inputs are too many to try every row`
      : `some wires can be undriven, and ${inputs.length} inputs are too many to try every row`,
  });
}

function byRows(a: Netlist, b: Netlist, ports: Matched, progress: (share: number) => void): Proof {
  const method = 'all rows';
  const reordered: Netlist = { ...b, inputColumns: ports.inputs.map(([, c]) => c) };
  const theirs = tablePieces(reordered, { span: SPAN });
  for (const mine of tablePieces(a, { progress, span: SPAN })) {
    const other = theirs.next();
    if (other.done) break;
    const row = differingRow(a, b, ports, mine, other.value);
    if (row === -1) continue;
    const width = ports.inputs.length;
    const shown = (table: TruthTable, column: (pair: readonly [Column, Column]) => number) =>
      Object.fromEntries(
        ports.outputs.map((pair) => [pair[0].name, letterOf(cell(table, column(pair), row))]),
      );
    return {
      verdict: 'different',
      method,
      inputs: [
        Object.fromEntries(ports.inputs.map(([c], i) => [c.name, inputAt(width, i, mine.first + row)])),
      ],
      outputs: {
        a: shown(mine, ([c]) => a.outputColumns.indexOf(c)),
        b: shown(other.value, ([, c]) => b.outputColumns.indexOf(c)),
      },
    };
  }
  return { verdict: 'equivalent', method };
}

/** The first row in which two tables differ, or -1. */
function differingRow(
  a: Netlist,
  b: Netlist,
  { outputs }: Matched,
  mine: TruthTable,
  theirs: TruthTable,
): number {
  let row = -1;
  for (const [own, other] of outputs) {
    const [o, p] = [a.outputColumns.indexOf(own), b.outputColumns.indexOf(other)];
    for (const kind of ['ones', 'unknown', 'floating'] as const) {
      const [left, right] = [mine[kind][o], theirs[kind][p]];
      const words = (left ?? right)?.length ?? 0;
      const none = () => new Uint32Array(words);
      const at = left || right ? firstDifference(left ?? none(), right ?? none()) : -1;
      if (at !== -1 && (row === -1 || at < row)) row = at;
    }
  }
  return row;
}

/**
 * An input order that keeps diagrams small: depth first from the outputs, the deepest operand first (Malik
 * and others, 1988), so that related inputs, such as the bits of two numbers, are tested together.
 */
export function variableOrder(netlist: Netlist): number[] {
  const driver = new Int32Array(netlist.nets).fill(-1);
  for (const g of netlist.order) driver[netlist.out[g]!] = g;
  const inputs = new Map(netlist.inputColumns.map((c, i) => [c.nets[0], i]));
  const depth = (net: number) => (driver[net] === -1 ? 0 : netlist.level[driver[net]!]!);
  const order: number[] = [];
  const seen = new Uint8Array(netlist.nets);
  const todo = netlist.outputColumns.map((c) => c.nets[0]).sort((a, b) => depth(a) - depth(b));
  for (let net = todo.pop(); net !== undefined; net = todo.pop()) {
    if (seen[net]) continue;
    seen[net] = 1;
    const input = inputs.get(net);
    if (input !== undefined) order.push(input);
    const g = driver[net]!;
    if (g === -1) continue;
    const reads = [...netlist.ins.subarray(netlist.inStart[g]!, netlist.inStart[g + 1]!)];
    // The last one pushed is read first.
    todo.push(...reads.sort((a, b) => depth(a) - depth(b)));
  }
  for (const i of netlist.inputColumns.keys()) if (!order.includes(i)) order.push(i);
  return order;
}

const depthOf = ({ level }: Netlist) => level.reduce((most, l) => Math.max(most, l), 0);

/** A proof by decision diagrams; null if they need more nodes than allowed. */
function byDiagrams(
  a: Netlist,
  b: Netlist,
  ports: Matched,
  mostNodes: number,
  progress: (share: number) => void,
): Proof | null {
  try {
    return withDiagrams(a, b, ports, new Bdd(mostNodes), progress);
  } catch (error) {
    if (error instanceof TooLarge) return null;
    throw error;
  }
}

/** Both circuits as one graph. @returns the pairs of outputs, in the order of the ports. */
function graphOf(a: Netlist, b: Netlist, ports: Matched): { aig: Aig; outputs: [AigEdge, AigEdge][] } {
  const aig = new Aig();
  const edges = ports.inputs.map(() => aig.input());
  const [mine, theirs] = ([a, b] as const).map((netlist, side) => {
    const places = new Map(ports.inputs.map((pair, i) => [pair[side as 0 | 1], edges[i]!]));
    const made = intoAig(
      aig,
      netlist,
      netlist.inputColumns.map((c) => places.get(c)!),
    );
    return ports.outputs.map((pair) => made[netlist.outputColumns.indexOf(pair[side as 0 | 1])]!);
  });
  return { aig, outputs: mine!.map((edge, o) => [edge, theirs![o]!]) };
}

const BY_REWRITING = 'algebraic rewriting';
/** Bits of a word at least, for it to be taken as a number. */
const WORD = 4;

/** The outputs that are bits of words, by their names, each word from its lowest bit. */
function wordsOf({ outputs }: Matched): Matched['outputs'][number][][] {
  const words = new Map<string, Map<number, Matched['outputs'][number]>>();
  for (const pair of outputs) {
    const [, stem, bit] = /^(.*?)\[?(\d+)\]?$/.exec(pair[0].name) ?? [];
    if (stem === undefined) continue;
    const word = words.get(stem) ?? new Map();
    words.set(stem, word.set(Number(bit), pair));
  }
  return [...words.values()]
    .filter((word) => word.size >= WORD)
    .map((word) => [...word].sort((x, y) => x[0] - y[0]).map(([, pair]) => pair));
}

/** Compares all words as numbers. @returns the proof, or the ports whose outputs are not yet proved. */
function byRewriting(
  a: Netlist,
  b: Netlist,
  ports: Matched,
  progress: (share: number) => void,
): { readonly proof: Proof } | { readonly left: Matched } {
  const words = wordsOf(ports);
  if (words.length === 0) return { left: ports };
  const { aig, outputs } = graphOf(a, b, ports);
  const found = rewriteWords(
    aig,
    words.map((word) => word.map((pair) => outputs[ports.outputs.indexOf(pair)]!)),
    progress,
  );
  if (found.verdict === 'undecided') return { left: ports };
  if (found.verdict === 'different') {
    const row = ports.inputs.map((_, i) => (found.ones.includes(i + 1) ? 1 : 0));
    return { proof: differentAt(a, b, ports, fewestOnes(a, b, ports, row), BY_REWRITING) };
  }
  const proved = new Set(words.flat());
  const left = ports.outputs.filter((pair) => !proved.has(pair));
  if (left.length === 0) return { proof: { verdict: 'equivalent', method: BY_REWRITING } };
  return { left: { ...ports, outputs: left } };
}

/**
 * A proof by merging equal signals gate by gate, with a search for a row that tells the outputs apart; null
 * if the effort does not suffice.
 */
function bySearch(
  a: Netlist,
  b: Netlist,
  ports: Matched,
  progress: (share: number) => void,
  mostWork?: number,
): Proof | null {
  const { aig, outputs } = graphOf(a, b, ports);
  const found = satSweep(aig, outputs, progress, mostWork);
  const method = 'comparing gate by gate, with a search for a row';
  if (found.verdict === 'undecided') return null;
  if (found.verdict === 'same') return { verdict: 'equivalent', method };
  return differentAt(a, b, ports, fewestOnes(a, b, ports, found.inputs), method);
}

/** A row at which two circuits differ with ones in it turned to zeros as long as they still do. */
function fewestOnes(a: Netlist, b: Netlist, ports: Matched, row: readonly (0 | 1)[]): (0 | 1)[] {
  const values = [...row];
  const differ = () => {
    const [mine, theirs] = [outputsIn(a, ports, 0, values), outputsIn(b, ports, 1, values)];
    return mine.some((bit, o) => bit !== theirs[o]);
  };
  for (const i of values.keys()) {
    if (values[i] === 0) continue;
    values[i] = 0;
    if (!differ()) values[i] = 1;
  }
  return values;
}

/** The outputs of one of two circuits of plain gates in a row, in the order of the pairs. */
function outputsIn(netlist: Netlist, ports: Matched, side: 0 | 1, values: readonly (0 | 1)[]): (0 | 1)[] {
  const given = new Map(ports.inputs.map((pair, i) => [pair[side], values[i]]));
  // A graph of constants is a constant: the same rules, without a second set of them.
  const edges = intoAig(
    new Aig(),
    netlist,
    netlist.inputColumns.map((c) => (given.get(c) ? AIG_TRUE : AIG_FALSE)),
  );
  return ports.outputs.map((pair) => (edges[netlist.outputColumns.indexOf(pair[side])] === AIG_TRUE ? 1 : 0));
}

function differentAt(
  a: Netlist,
  b: Netlist,
  ports: Matched,
  values: readonly (0 | 1)[],
  method: string,
): Proof {
  const shown = (netlist: Netlist, side: 0 | 1) => {
    const bits = outputsIn(netlist, ports, side, values);
    return Object.fromEntries(ports.outputs.map((pair, o) => [pair[0].name, String(bits[o])]));
  };
  const inputs = Object.fromEntries(ports.inputs.map(([c], i) => [c.name, values[i]!]));
  return { verdict: 'different', method, inputs: [inputs], outputs: { a: shown(a, 0), b: shown(b, 1) } };
}

function withDiagrams(
  a: Netlist,
  b: Netlist,
  ports: Matched,
  bdd: Bdd,
  progress: (share: number) => void,
): Proof {
  // The one that goes deeper tells more of which inputs belong together.
  const isFirst = depthOf(a) >= depthOf(b);
  const order = variableOrder(isFirst ? a : b);
  const place = new Map(
    ports.inputs.map(([mine, theirs], i) => [
      i,
      order.indexOf(isFirst ? a.inputColumns.indexOf(mine) : b.inputColumns.indexOf(theirs)),
    ]),
  );
  const variables = ports.inputs.map((_, i) => bdd.of(place.get(i)!));
  const build = (netlist: Netlist, columns: readonly Column[], from: number) => {
    const diagrams = new Int32Array(netlist.nets);
    for (const s of netlist.sources)
      if (s.kind === 'constant') diagrams[s.net] = s.value === ONE ? TRUE : FALSE;
    for (const [i, c] of columns.entries()) diagrams[c.nets[0]] = variables[i]!;
    const gates = needed(netlist);
    for (const [k, g] of gates.entries()) {
      diagrams[netlist.out[g]!] = gateDiagram(bdd, netlist, g, diagrams);
      if ((k & 63) === 0) progress(from + k / (2 * gates.length));
    }
    return diagrams;
  };
  const first = build(
    a,
    ports.inputs.map(([c]) => c),
    0,
  );
  const second = build(
    b,
    ports.inputs.map(([, c]) => c),
    0.5,
  );
  const method = 'decision diagrams';
  for (const [mine, theirs] of ports.outputs) {
    const differ = bdd.xor(first[mine.nets[0]]!, second[theirs.nets[0]]!);
    if (differ === FALSE) continue;
    const values = bdd.satisfied(differ)!;
    const row = ports.inputs.map((_, i) => values.get(place.get(i)!) ?? 0);
    return differentAt(a, b, ports, row, method);
  }
  return { verdict: 'equivalent', method };
}

function gateDiagram(bdd: Bdd, netlist: Netlist, g: number, diagrams: Int32Array): number {
  const [from, to] = [netlist.inStart[g]!, netlist.inStart[g + 1]!];
  const read = (i: number) => diagrams[netlist.ins[from + i]!]!;
  const op = netlist.op[g]!;
  if (op === Primitive.CONST_0 || op === Primitive.CONST_1) return op === Primitive.CONST_1 ? TRUE : FALSE;
  if (op === Primitive.MUX) {
    const select = read(0);
    return bdd.or(bdd.and(bdd.not(select), read(1)), bdd.and(select, read(2)));
  }
  let all = read(0);
  for (let i = 1; i < to - from; i++)
    if (op === Primitive.AND || op === Primitive.NAND) all = bdd.and(all, read(i));
    else if (op === Primitive.OR || op === Primitive.NOR) all = bdd.or(all, read(i));
    else all = bdd.xor(all, read(i));
  const isInverted =
    op === Primitive.NOT || op === Primitive.NAND || op === Primitive.NOR || op === Primitive.XNOR;
  return isInverted ? bdd.not(all) : all;
}
