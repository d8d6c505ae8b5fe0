import type { Aig, AigEdge } from './aig';

/*
 * Half and full adders in a graph of ANDs, found by what nodes are as functions of two or three others, however they are built
 * (cuts: Cong and Ding, 1994; adders by them: Yu, Ciesielski and Mishchenko, 2018, "Fast algebraic rewriting based on and-inverter
 * graphs").
 */

/** A carry over the leaves of a unit: the node, inverted or not, is 1 where at least two of the literals are, or both. */
export interface Carry {
  readonly node: number;
  readonly isInverted: boolean;
  /** Which of the leaves are inverted before, a bit each. */
  readonly inverts: number;
}

/** All exclusive-ors and carries over the same two or three nodes. */
export interface AdderUnit {
  readonly leaves: readonly number[];
  /** Nodes that are the exclusive-or of the leaves, or that inverted. */
  readonly sums: Map<number, boolean>;
  readonly carries: readonly Carry[];
}

/** Ways to see a node that are kept: more find no more adders. */
const MOST_CUTS = 16;

interface Cut {
  /** In rising order. */
  readonly leaves: readonly number[];
  /** The node by its leaves: bit `r` where leaf k is bit k of `r`. */
  readonly table: number;
}

const VARIABLE = [0xaa, 0xcc, 0xf0];
const XOR = [0, 0, 0x66, 0x96];

/** Carries by their tables: of two leaves the ANDs, of three the majorities, with any of them inverted. */
const CARRIES: readonly ReadonlyMap<number, Omit<Carry, 'node'>>[] = [2, 3].map((count) => {
  const found = new Map<number, Omit<Carry, 'node'>>();
  for (const isInverted of [false, true])
    for (let inverts = 0; inverts < 1 << count; inverts++) {
      const [a, b, c] = VARIABLE.map((v, k) => (inverts & (1 << k) ? ~v : v) & 0xff) as [
        number,
        number,
        number,
      ];
      const carry = count === 2 ? a & b : (a & b) | (a & c) | (b & c);
      const table = (isInverted ? ~carry : carry) & 0xff;
      if (!found.has(table)) found.set(table, { isInverted, inverts });
    }
  return found;
});

/** A table over some leaves as one over more of them. */
function widened(table: number, from: readonly number[], to: readonly number[]): number {
  if (from.length === to.length) return table;
  const places = from.map((leaf) => to.indexOf(leaf));
  let wide = 0;
  for (let row = 0; row < 8; row++) {
    let own = 0;
    for (const [k, place] of places.entries()) own |= ((row >> place) & 1) << k;
    wide |= ((table >> own) & 1) << row;
  }
  return wide;
}

function union(a: readonly number[], b: readonly number[]): number[] | null {
  const all: number[] = [];
  for (let i = 0, k = 0; i < a.length || k < b.length; ) {
    const next = k === b.length || (i < a.length && a[i]! <= b[k]!) ? a[i]! : b[k]!;
    if (a[i] === next) i++;
    if (b[k] === next) k++;
    if (all.length === 3) return null;
    all.push(next);
  }
  return all;
}

/** Inputs of an AND of several, however it is built, up to which other ways to build it are looked for. */
const MOST_ANDED = 6;

/**
 * Other ways to have an AND: of nodes whose own ANDs together have the same inputs. `a & b & c & d` may stand for the carry of the
 * products `a & c` and `b & d`, and be built of others.
 */
function otherPairs(aig: Aig): Map<number, (readonly [AigEdge, AigEdge])[]> {
  const inputsOf: (readonly AigEdge[] | null)[] = [];
  const having = new Map<string, number>();
  for (let node = 0; node < aig.nodes; node++) {
    if (!aig.isAnd(node)) {
      inputsOf.push(null);
      continue;
    }
    const inputs = new Set<AigEdge>();
    for (const edge of [aig.first(node), aig.second(node)]) {
      const under = edge & 1 ? null : inputsOf[edge >> 1]!;
      for (const input of under ?? [edge]) inputs.add(input);
    }
    const own = inputs.size <= MOST_ANDED ? [...inputs].sort((x, y) => x - y) : null;
    inputsOf.push(own);
    if (own && !having.has(own.join())) having.set(own.join(), node);
  }
  const pairs = new Map<number, (readonly [AigEdge, AigEdge])[]>();
  for (const [node, inputs] of inputsOf.entries()) {
    if (!inputs || inputs.length < 3) continue;
    for (let chosen = 1; chosen < 1 << (inputs.length - 1); chosen++) {
      const part = (isIn: number) => {
        const some = inputs.filter((_, k) => ((chosen >> k) & 1) === isIn);
        const all = having.get(some.join());
        return some.length === 1 ? some[0] : all && 2 * all;
      };
      const [one, other] = [part(1), part(0)];
      if (one !== undefined && other !== undefined)
        pairs.set(node, [...(pairs.get(node) ?? []), [one, other]]);
    }
  }
  return pairs;
}

/** The ways to see each node. */
function cutsOf(aig: Aig): Cut[][] {
  const others = otherPairs(aig);
  const cuts: Cut[][] = [];
  const cutsAt = (node: number): Cut[] => {
    const known = cuts[node];
    if (known) return known;
    const own: Cut = { leaves: [node], table: VARIABLE[0]! };
    if (!aig.isAnd(node)) {
      cuts[node] = [own];
      return cuts[node];
    }
    const found = new Map<string, Cut>();
    const join = (p: AigEdge, q: AigEdge) => {
      for (const a of cutsAt(p >> 1))
        for (const b of cutsAt(q >> 1)) {
          const leaves = union(a.leaves, b.leaves);
          if (!leaves || found.has(leaves.join())) continue;
          const [x, y] = [widened(a.table, a.leaves, leaves), widened(b.table, b.leaves, leaves)];
          found.set(leaves.join(), { leaves, table: (p & 1 ? ~x : x) & (q & 1 ? ~y : y) & 0xff });
        }
    };
    join(aig.first(node), aig.second(node));
    const sorted = [...found.values()].sort((a, b) => a.leaves.length - b.leaves.length);
    found.clear();
    for (const [one, other] of others.get(node) ?? []) join(one, other);
    cuts[node] = [own, ...found.values(), ...sorted].slice(0, MOST_CUTS);
    return cuts[node];
  };
  for (let node = 0; node < aig.nodes; node++) cutsAt(node);
  return cuts;
}

/** The unit of each node that is a sum or a carry of one which has both. */
export function addersOf(aig: Aig): Map<number, AdderUnit> {
  const units = new Map<string, AdderUnit & { readonly carries: Carry[] }>();
  const cuts = cutsOf(aig);
  const unitAt = (leaves: readonly number[]) => {
    const key = leaves.join();
    const unit = units.get(key) ?? { leaves, sums: new Map<number, boolean>(), carries: [] as Carry[] };
    units.set(key, unit);
    return unit;
  };
  for (const [node, all] of cuts.entries())
    for (const { leaves, table } of all) {
      if (leaves.length < 2) continue;
      const sum = XOR[leaves.length]!;
      if (table === sum || table === (~sum & 0xff)) unitAt(leaves).sums.set(node, table !== sum);
      const carry = CARRIES[leaves.length - 2]!.get(table);
      if (carry) unitAt(leaves).carries.push({ node, ...carry });
    }
  const unitOf = new Map<number, AdderUnit>();
  // A full adder before the half adders of which it may be made; a node belongs to one of them only.
  for (const size of [3, 2])
    for (const { leaves, sums, carries } of units.values()) {
      if (leaves.length !== size) continue;
      const unit: AdderUnit = {
        leaves,
        sums: new Map([...sums].filter(([node]) => !unitOf.has(node))),
        carries: carries.filter(({ node }) => !unitOf.has(node)),
      };
      if (unit.sums.size === 0 || unit.carries.length === 0) continue;
      for (const node of [...unit.sums.keys(), ...unit.carries.map((c) => c.node)]) unitOf.set(node, unit);
    }
  return unitOf;
}
