import { Aig, type AigEdge, negated } from './aig';
import { inverse, Sat } from './sat';

/*
 * Decides whether two signals of one graph are equal by merging equal nodes on the way: nodes that agree on
 * many rows are proved equal from the inputs on, or a row is found that tells them apart (Kuehlmann and
 * Krohm, 1997; Mishchenko, Chatterjee, Jiang and Brayton, 2005, "FRAIGs: a unifying representation for logic
 * synthesis and verification").
 */

/** Rows that are evaluated first, in words of 32. */
const FIRST_WORDS = 32;
/** Candidates with the same signature that are tried for a node. */
const MOST_TRIED = 4;
/** Limits of the solver's effort: for two inner nodes, for two outputs, and in total. */
const EFFORT_BETWEEN = 2_000_000;
const EFFORT_AT_OUTPUTS = 50_000_000;
const EFFORT_IN_ALL = 150_000_000;

export type SatSweep =
  | { readonly verdict: 'same' }
  /** The values of the inputs at which two edges of a pair differ. */
  | { readonly verdict: 'different'; readonly inputs: readonly (0 | 1)[] }
  | { readonly verdict: 'undecided' };

/**
 * Whether the edges of each pair are the same for all values of the inputs.
 * @param progress receives the share of the nodes that were visited, and may throw to stop it.
 * @param most effort of the solver in total.
 */
export function satSweep(
  aig: Aig,
  pairs: readonly (readonly [AigEdge, AigEdge])[],
  progress: (share: number) => void = () => {},
  most = EFFORT_IN_ALL,
): SatSweep {
  return new Sweep(aig, most).run(pairs, progress);
}

/** The nodes that some edges read. */
function coneOf(aig: Aig, edges: Iterable<AigEdge>): Uint8Array {
  const wanted = new Uint8Array(aig.nodes);
  for (const edge of edges) wanted[edge >> 1] = 1;
  for (let node = aig.nodes - 1; aig.isAnd(node); node--)
    if (wanted[node]) wanted[aig.first(node) >> 1] = wanted[aig.second(node) >> 1] = 1;
  return wanted;
}

class Sweep {
  /** The same graph with equal nodes merged, and for each node of the given graph its edge there. */
  private readonly joined = new Aig();
  private readonly edges: Int32Array;
  private readonly rows: Rows;
  private readonly sat = new Sat();
  /** The variable of each node of the joined graph; -1 while none is needed. */
  private readonly variables: number[] = [];
  /** Nodes of the given graph that represent others, by signature. */
  private candidates = new Map<number, number[]>();
  private readonly representatives: number[] = [];

  constructor(
    private readonly aig: Aig,
    private readonly most: number,
  ) {
    this.edges = new Int32Array(aig.nodes);
    this.rows = new Rows(aig);
    for (let i = 1; i <= aig.inputs; i++) this.edges[i] = this.joined.input();
    for (let node = 0; node <= aig.inputs; node++) this.addRepresentative(node);
  }

  run(pairs: readonly (readonly [AigEdge, AigEdge])[], progress: (share: number) => void): SatSweep {
    const { aig } = this;
    for (const [a, b] of pairs) {
      const inputs = this.rows.distinguishingRow(a, b);
      if (inputs) return { verdict: 'different', inputs };
    }
    const cone = coneOf(aig, pairs.flat());
    for (let node = aig.inputs + 1; node < aig.nodes; node++) {
      if ((node & 15) === 0) progress(node / aig.nodes);
      if (cone[node]) this.join(node);
    }
    let isOpen = false;
    for (const [a, b] of pairs) {
      const [p, q] = [this.edgeOf(a), this.edgeOf(b)];
      const same = this.areSame(p, q, EFFORT_AT_OUTPUTS);
      if (same === false) return { verdict: 'different', inputs: this.found() };
      if (same === null) isOpen = true;
    }
    return { verdict: isOpen ? 'undecided' : 'same' };
  }

  /** An edge of the given graph in the joined one. */
  private edgeOf(edge: AigEdge): AigEdge {
    return this.edges[edge >> 1]! ^ (edge & 1);
  }

  /** Adds a node to the joined graph, or merges it with an equal one. */
  private join(node: number): void {
    const { aig, joined } = this;
    const before = joined.nodes;
    const edge = joined.and(this.edgeOf(aig.first(node)), this.edgeOf(aig.second(node)));
    this.edges[node] = edge;
    // The node exists already, or is proved equal to an existing one.
    if (edge >> 1 < before) return;
    for (let tried = 0; tried < MOST_TRIED; ) {
      const alike = this.candidates.get(this.rows.signature(node))?.[tried];
      if (alike === undefined) break;
      const other = this.edges[alike]! ^ this.rows.polarity(alike) ^ this.rows.polarity(node);
      const same = this.areSame(edge, other, EFFORT_BETWEEN);
      if (same) {
        this.edges[node] = other;
        return;
      }
      if (same === null) tried++;
      else {
        // The row that was found, and others near it, split the classes of candidates again.
        this.rows.add(this.found());
        this.sort();
        tried = 0;
      }
    }
    this.addRepresentative(node);
  }

  private addRepresentative(node: number): void {
    this.representatives.push(node);
    this.addCandidate(node);
  }

  private addCandidate(node: number): void {
    const look = this.rows.signature(node);
    const list = this.candidates.get(look);
    if (list) list.push(node);
    else this.candidates.set(look, [node]);
  }

  private sort(): void {
    this.candidates = new Map();
    for (const node of this.representatives) this.addCandidate(node);
  }

  /** Whether two edges of the joined graph are the same; null where the work does not suffice. */
  private areSame(a: AigEdge, b: AigEdge, work: number): boolean | null {
    if (a === b) return true;
    // Then any row tells them apart: that of the last search does, or all zeros.
    if (a === negated(b)) return false;
    const [p, q] = [this.literal(a), this.literal(b)];
    for (const assumed of [
      [p, inverse(q)],
      [inverse(p), q],
    ]) {
      const left = Math.min(work, this.most - this.sat.effort);
      const found = left > 0 ? this.sat.solve(assumed, left) : null;
      if (found === null) return null;
      if (found) return false;
    }
    this.sat.clause([p, inverse(q)]);
    this.sat.clause([inverse(p), q]);
    return true;
  }

  /** The values of the inputs that the last search found. */
  private found(): (0 | 1)[] {
    return Array.from({ length: this.aig.inputs }, (_, i) => {
      const v = this.variables[i + 1] ?? -1;
      return v !== -1 && this.sat.holds(2 * v) ? 1 : 0;
    });
  }

  /** The literal of an edge of the joined graph, with the clauses of all that it reads. */
  private literal(edge: AigEdge): number {
    const { joined, sat, variables } = this;
    const todo = [edge >> 1];
    while (todo.length > 0) {
      const node = todo.at(-1)!;
      const isKnown = (variables[node] ?? -1) !== -1;
      const reads = joined.isAnd(node) ? [joined.first(node), joined.second(node)] : [];
      const open = isKnown ? [] : reads.map((e) => e >> 1).filter((n) => (variables[n] ?? -1) === -1);
      todo.push(...open);
      if (open.length > 0) continue;
      todo.pop();
      if (isKnown) continue;
      const v = sat.variable();
      variables[node] = v;
      if (node === 0) sat.clause([2 * v + 1]);
      if (reads.length === 0) continue;
      const [a, b] = reads.map((e) => 2 * variables[e >> 1]! + (e & 1)) as [number, number];
      sat.clause([2 * v + 1, a]);
      sat.clause([2 * v + 1, b]);
      sat.clause([2 * v, inverse(a), inverse(b)]);
    }
    return 2 * variables[edge >> 1]! + (edge & 1);
  }
}

/**
 * The values of all nodes of a graph in some rows, 32 rows at a time. Different signatures prove two nodes
 * different; equal signatures only make them candidates.
 */
class Rows {
  /** How each node looked in all rows so far, the same for two that are the same or always opposite. */
  private readonly signatures: Int32Array;
  private readonly polarities: Uint8Array;
  private first: Int32Array[] = [];
  private seed = 0x2545f491;

  constructor(private readonly aig: Aig) {
    this.signatures = new Int32Array(aig.nodes);
    this.polarities = new Uint8Array(aig.nodes);
    for (let w = 0; w < FIRST_WORDS; w++) this.first.push(this.word(() => this.chance(), w === 0));
  }

  private chance(): number {
    this.seed ^= this.seed << 13;
    this.seed ^= this.seed >>> 17;
    this.seed ^= this.seed << 5;
    return this.seed;
  }

  private word(input: (i: number) => number, isFirst = false): Int32Array {
    const { aig, signatures: looks, polarities } = this;
    const values = new Int32Array(aig.nodes);
    for (let i = 1; i <= aig.inputs; i++) values[i] = input(i - 1);
    const onEdge = (edge: AigEdge) => (edge & 1 ? ~values[edge >> 1]! : values[edge >> 1]!);
    for (let node = aig.inputs + 1; node < aig.nodes; node++)
      values[node] = onEdge(aig.first(node)) & onEdge(aig.second(node));
    for (let node = 0; node < aig.nodes; node++) {
      if (isFirst) polarities[node] = values[node]! & 1;
      const seen = values[node]! ^ (polarities[node] ? -1 : 0);
      looks[node] = Math.imul(looks[node]! ^ seen, 0x9e3779b1) ^ (looks[node]! >>> 15);
    }
    return values;
  }

  /** The row, and 31 rows that each differ from it in a few inputs. */
  add(row: readonly (0 | 1)[]): void {
    this.word((i) => (row[i] ? -1 : 0) ^ (this.chance() & this.chance() & this.chance() & ~1));
  }

  /** 1 where a node is 1 in the first row: it is compared turned over. */
  polarity(node: number): number {
    return this.polarities[node]!;
  }

  /** Two that look otherwise are not the same; two that look the same may be. */
  signature(node: number): number {
    return this.signatures[node]!;
  }

  /** The inputs of the first row in which two edges differ; null if there is none. */
  distinguishingRow(a: AigEdge, b: AigEdge): (0 | 1)[] | null {
    for (const values of this.first) {
      const differ = values[a >> 1]! ^ values[b >> 1]! ^ ((a ^ b) & 1 ? -1 : 0);
      if (differ === 0) continue;
      const bit = 31 - Math.clz32(differ);
      return Array.from({ length: this.aig.inputs }, (_, i) => ((values[i + 1]! >>> bit) & 1) as 0 | 1);
    }
    return null;
  }
}
