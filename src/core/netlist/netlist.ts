import type { ClockHalves } from '../parts/part-kind';
import type { Logic } from '../values/logic';
import type { Diagnostic } from './diagnostic';

/** A net that is moved from outside: by a hand, by time, or never. */
export type Source =
  | { readonly kind: 'switch' | 'button'; readonly part: string; readonly net: number }
  | { readonly kind: 'clock'; readonly part: string; readonly net: number; readonly halves: ClockHalves }
  | { readonly kind: 'constant'; readonly part: string; readonly net: number; readonly value: Logic };

/** A named input or output of the sheet in declared order. */
export interface Terminal {
  readonly part: string;
  readonly name: string;
  /** Nets of its bits, least significant first. */
  readonly nets: readonly number[];
}

/**
 * One sheet flattened to single-bit nets and one-output primitives. `nets` nets are numbered from 0, gates from
 * 0 to `op.length - 1`. The inputs of gate g are `ins[inStart[g]] ... ins[inStart[g + 1] - 1]`; the gates that
 * read net n are `fan[fanStart[n]] ... fan[fanStart[n + 1] - 1]`.
 */
export interface Netlist {
  readonly nets: number;
  readonly op: Uint8Array;
  readonly out: Int32Array;
  readonly inStart: Int32Array;
  readonly ins: Int32Array;
  readonly fanStart: Int32Array;
  readonly fan: Int32Array;
  /** Delays in ps. */
  readonly rise: Float64Array;
  readonly fall: Float64Array;
  /** The part that each gate comes from: an index into `parts`. */
  readonly owner: Int32Array;
  readonly parts: readonly string[];
  /** Gates that remember nothing, so ordered that each comes after those it reads; loops are left out. */
  readonly order: Int32Array;
  /** Level of each gate in `order`, by gate number: 1 reads only sources and storage. 0 elsewhere. */
  readonly level: Int32Array;
  /** Gates that remember (edge-triggered storage). */
  readonly storage: Int32Array;
  /** Gates on or behind a loop without storage. */
  readonly looped: Int32Array;
  readonly sources: readonly Source[];
  readonly inputs: readonly Terminal[];
  readonly outputs: readonly Terminal[];
  readonly diagnostics: readonly Diagnostic[];
  /** Nets of a port's bits, least significant first; undefined where the part or port is not there. */
  netsOfPin(part: string, port: string): readonly number[] | undefined;
  netsOfWire(wire: string): readonly number[] | undefined;
  /** The net of a port's bit 0 before other drivers of the same wire are taken in: what the part itself says. */
  ownNet(part: string, port: string): number | undefined;
}

/** Names of the parts that drive the given nets, each once, in order. */
export function driversOf(netlist: Netlist, nets: Iterable<number>): string[] {
  const wanted = new Set(nets);
  const found = new Set<string>();
  for (let g = 0; g < netlist.op.length; g++)
    if (wanted.has(netlist.out[g]!)) found.add(netlist.parts[netlist.owner[g]!]!);
  return [...found];
}
