import type { Board, BoardWire } from '../circuit/board';
import { DEVICE_PINS, holeOfPin, type Strip, stripOf, typeOf } from './holes';

/*
 * The nets of a board: strips that wires join. A wire that is broken inside joins nothing, though it lies there.
 */

export interface BoardNets {
  /** The net of a strip; a strip without wires is a net of its own. */
  netOf(strip: Strip): Strip;
  /** The net in which a pin of a package or a device (`U1.3`, `X2.1`), or a pole of the supply, is; undefined if it is not there. */
  netOfPin(end: string): Strip | undefined;
  /** The pins that hang on a net, and the poles of the supply. */
  pinsOf(net: Strip): readonly string[];
  /** Every net with a pin. */
  readonly nets: readonly Strip[];
}

/** @param without wires that are taken for not being there. */
export function boardNets(board: Board, without: ReadonlySet<string> = new Set()): BoardNets {
  const parents = new Map<Strip, Strip>();
  const netOf = (strip: Strip): Strip => {
    let at = strip;
    for (let next = parents.get(at); next !== undefined; next = parents.get(at)) at = next;
    if (at !== strip) parents.set(strip, at);
    return at;
  };
  const broken = new Set(board.faults.flatMap((fault) => (fault.is === 'broken wire' ? [fault.wire] : [])));
  for (const wire of board.wires) {
    if (without.has(wire.id) || broken.has(wire.id)) continue;
    const [a, b] = endsOf(wire).map(netOf);
    // The poles of the supply stay what their nets are called after.
    if (a === b) continue;
    if (a === '+' || a === '-') parents.set(b!, a);
    else parents.set(a!, b!);
  }
  const strips = pinStrips(board);
  const pins = new Map<Strip, string[]>();
  for (const [end, strip] of strips) pins.set(netOf(strip), [...(pins.get(netOf(strip)) ?? []), end]);
  return {
    netOf,
    netOfPin: (end) => {
      const strip = strips.get(end);
      return strip === undefined ? undefined : netOf(strip);
    },
    pinsOf: (net) => pins.get(net) ?? [],
    nets: [...pins.keys()],
  };
}

export const endsOf = ({ from, to }: Pick<BoardWire, 'from' | 'to'>): [Strip, Strip] => [
  stripOf(from) ?? from,
  stripOf(to) ?? to,
];

/** The strip in which each pin stands: of packages, of devices, and the poles of the supply. */
export function pinStrips(board: Board): Map<string, Strip> {
  const strips = new Map<string, Strip>([
    ['+', '+'],
    ['-', '-'],
  ]);
  for (const one of board.packages)
    for (const { number } of typeOf(one)?.pins ?? [])
      strips.set(`${one.ref}.${number}`, stripOf(holeOfPin(one, number))!);
  for (const { ref, kind } of board.devices)
    for (const pin of DEVICE_PINS[kind]) strips.set(`${ref}.${pin}`, `${ref}.${pin}`);
  return strips;
}
