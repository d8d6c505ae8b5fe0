import type { ClockWave, Levels } from '../parts/part-kind';
import type { Store } from '../parts/template';
import type { Logic } from '../values/logic';
import type { Diagnostic } from './diagnostic';

/** One bit of a part that drives its net from outside the circuit: by hand, by time, or never changing. */
export type Source = {
  readonly part: string;
  readonly bit: number;
  readonly net: number;
} & (
  | { readonly kind: 'switch' | 'button' | 'port' }
  | { readonly kind: 'clock'; readonly wave: ClockWave }
  /** `repeats` for a level that alternates like a clock. */
  | { readonly kind: 'stimulus'; readonly levels: Levels; readonly repeats?: boolean }
  | { readonly kind: 'constant'; readonly value: Logic }
);

/** Whether a person sets a source by hand: a switch, a button, or a port. */
export const isByHand = ({ kind }: Source): boolean =>
  kind === 'switch' || kind === 'button' || kind === 'port';

/** A named input or output of the sheet in declared order. */
export interface Terminal {
  readonly part: string;
  readonly name: string;
  /** Nets of its bits, least significant first. */
  readonly nets: readonly number[];
}

/** One bit of a terminal: a column of a table. The bits of a bus follow one another, the most significant first. */
export interface Column extends Terminal {
  readonly bit: number;
  /** As in `Count[3]`; the terminal's own name if it has one bit. */
  readonly name: string;
  readonly nets: readonly [number];
}

/** The nets of one sheet at its place in the hierarchy. */
export interface SheetNets {
  /** Nets of a port's bits, least significant first; undefined where the part or port is not there. */
  netsOfPin(part: string, port: string): readonly number[] | undefined;
  netsOfWire(wire: string): readonly number[] | undefined;
  /** The net that a port's bit drives, before other drivers of the same wire are resolved. */
  ownNet(part: string, port: string, bit?: number): number | undefined;
}

/**
 * One sheet with all its blocks, flattened to single-bit nets and one-output primitives. `nets` nets are numbered
 * from 0, gates from 0 to `op.length - 1`. The inputs of gate g are `ins[inStart[g]] ... ins[inStart[g + 1] - 1]`;
 * the gates that read net n are `fan[fanStart[n]] ... fan[fanStart[n + 1] - 1]`.
 */
export interface Netlist extends SheetNets {
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
  /** 1 for gates that stand for a part's delay; the others are inside a part and take no time. */
  readonly delayed: Uint8Array;
  /** The part that each gate comes from; `partName` says which. */
  readonly owner: Int32Array;
  /** The path of a part by its number: its id on the compiled sheet, `block1/and2` inside a block. */
  partName(owner: number): string;
  /** Gates that remember nothing, so ordered that each comes after those it reads; loops are left out. */
  readonly order: Int32Array;
  /** Level of each gate in `order`, by gate number: 1 reads only sources and storage. 0 elsewhere. */
  readonly level: Int32Array;
  /** Gates that remember. */
  readonly storage: Int32Array;
  /** The name and the timing requirements of each of `storage`. */
  readonly stores: readonly Store[];
  /** Gates on or behind a loop without storage. */
  readonly looped: Int32Array;
  readonly sources: readonly Source[];
  readonly inputs: readonly Terminal[];
  readonly outputs: readonly Terminal[];
  readonly inputColumns: readonly Column[];
  readonly outputColumns: readonly Column[];
  readonly diagnostics: readonly Diagnostic[];
  /** The nets inside a block, by its path; undefined if there is none. */
  at(path: string): SheetNets | undefined;
}

/** The parts that drive the given nets, each once, in order. */
export function driversOf(netlist: Netlist, nets: Iterable<number>): string[] {
  const wanted = new Set(nets);
  const found = new Set<string>();
  for (let g = 0; g < netlist.op.length; g++)
    if (wanted.has(netlist.out[g]!)) found.add(netlist.partName(netlist.owner[g]!));
  return [...found];
}

export function terminalColumns(terminals: readonly Terminal[]): Column[] {
  const columns: Column[] = [];
  for (const { part, name, nets } of terminals)
    for (let bit = nets.length - 1; bit >= 0; bit--)
      columns.push({ part, bit, name: nets.length === 1 ? name : `${name}[${bit}]`, nets: [nets[bit]!] });
  return columns;
}

/** The name of one storage bit: the part's path and the bit's name in it. */
export function storeName(netlist: Netlist, index: number): string {
  return `${netlist.partName(netlist.owner[netlist.storage[index]!]!)}.${netlist.stores[index]!.name}`;
}

/** The name of one storage bit for people: its part, and the bit where the part keeps several. */
export function stateName(netlist: Netlist, index: number): string {
  const part = netlist.partName(netlist.owner[netlist.storage[index]!]!);
  const { name } = netlist.stores[index]!;
  if (name === 'Q') return part;
  const bit = /^Q(\d+)$/.exec(name);
  return bit ? `${part}[${bit[1]}]` : `${part}.${name}`;
}

/** The key of a source among the inputs of a run: the part, and the bit above 0 of a bus. */
export function sourceKey({ part, bit }: { part: string; bit: number }): string {
  return bit === 0 ? part : `${part}.${bit}`;
}
