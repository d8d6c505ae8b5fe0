import { isPinEnd, type Part, type Sheet } from '../circuit/sheet';
import { circuitGraph, type Opaque } from '../netlist/circuit-signature';
import { kindOf } from '../parts/catalogue';
import { numberHash, textNumber } from '../values/text-hash';

/*
 * What of a circuit is held against others of its class: how it is connected, how it is drawn, in which order. All of it are
 * numbers that equal things have in common; none tells the circuit.
 */

/** What stands for one circuit. */
export interface CircuitTraits {
  /** Equal for circuits that differ only in places, names and order. */
  readonly signature: string;
  /** Parts besides inputs and outputs. */
  readonly parts: number;
  /** In how many ways so many parts of these kinds can be connected, as a power of two. */
  readonly ways: number;
  /** For each part what it is, with its nearest neighbours. */
  readonly pieces: readonly number[];
  /** For each connection of two parts: the pins that it connects, and the direction from one part to the other. */
  readonly places: readonly Placed[];
  /** The courses of wires that were drawn by hand, from where they begin. */
  readonly courses: readonly number[];
  /** The order in which the wires were drawn, by what they join. */
  readonly order: number;
}

/** A connection: what is connected, and the same with the places. */
export type Placed = readonly [what: number, where: number];

/** Parts, connections or courses that are compared, at most. */
const MOST = 400;

/** The end of a wire at another wire. */
const A_WIRE = 1;

/** A number of a wire in the order in which wires were drawn: `w12`. */
const drawnAt = (id: string): number => Number(/\d+$/.exec(id)?.[0] ?? 0);

const factorialBits = (n: number): number => {
  let bits = 0;
  for (let i = 2; i <= n; i++) bits += Math.log2(i);
  return bits;
};

/** What stands for a circuit. @param opaque blocks that count by a name, and not by what is inside. */
export function circuitTraits(sheet: Sheet, sheets: readonly Sheet[], opaque?: Opaque): CircuitTraits {
  const { parts, colours, near, nets, signature } = circuitGraph(sheet, sheets, opaque);
  const isInner = (part: Part) => kindOf(part).role === undefined && kindOf(part).boundary === undefined;
  const inner = parts.filter(isInner);
  const places = nets.flatMap((pins) => {
    const drivers = pins.filter(({ isDriver }) => isDriver);
    return drivers.flatMap((from) =>
      pins.flatMap((to): Placed[] => {
        if (to.isDriver) return [];
        const [a, b] = [parts[from.part]!, parts[to.part]!];
        const what = numberHash([
          colours[from.part]!,
          textNumber(from.port),
          colours[to.part]!,
          textNumber(to.port),
        ]);
        return [[what, numberHash([what, b.at.x - a.at.x, b.at.y - a.at.y, a.turn, b.turn])]];
      }),
    );
  });
  const numberOf = new Map(parts.map(({ id }, i) => [id, i]));
  const end = (of: Parameters<typeof isPinEnd>[0]): number => {
    const at = isPinEnd(of) ? numberOf.get(of.part) : undefined;
    return at === undefined ? A_WIRE : near[at]!;
  };
  const wires = [...sheet.wires.values()].sort((a, b) => drawnAt(a.id) - drawnAt(b.id));
  const courses = wires.flatMap(({ from, to, course, drawn }) => {
    if (!drawn || course.length < 2) return [];
    const [start] = course;
    const bends = course.slice(1).flatMap(({ x, y }) => [x - start!.x, y - start!.y]);
    return [numberHash([end(from), end(to), ...bends])];
  });
  return {
    signature,
    parts: inner.length,
    ways: waysToConnect(inner, nets, parts),
    pieces: near.filter((_, i) => isInner(parts[i]!)).slice(0, MOST),
    places: places.slice(0, MOST),
    courses: courses.slice(0, MOST),
    order: numberHash(wires.flatMap(({ from, to }) => [end(from), end(to)])),
  };
}

/** Each input of each part may be at any net; parts of one kind, and inputs of one gate, can be exchanged. */
function waysToConnect(
  inner: readonly Part[],
  nets: readonly (readonly { readonly part: number; readonly port: string; readonly isDriver: boolean }[])[],
  parts: readonly Part[],
): number {
  const driven = nets.filter((pins) => pins.some(({ isDriver }) => isDriver)).length;
  const isInner = new Set(inner);
  let bits = 0;
  const exchangeable = new Map<number, number>();
  for (const { part, port, isDriver } of nets.flat()) {
    if (isDriver || !isInner.has(parts[part]!)) continue;
    bits += Math.log2(Math.max(1, driven));
    if (port === 'in') exchangeable.set(part, (exchangeable.get(part) ?? 0) + 1);
  }
  const kinds = new Map<string, number>();
  for (const { kind } of inner) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  for (const count of [...kinds.values(), ...exchangeable.values()]) bits -= factorialBits(count);
  return Math.max(0, bits);
}
