import type { Radix } from '../values/radix';
import type { Board } from './board';
import type { ChipsSetup } from './chips-setup';
import type { Point, Turn } from './geometry';
import type { SpecTable } from './spec-table';
import type { Delays, TimeSetup } from './time-setup';

/** Colours that a wire can be marked with, apart from its signal. */
export const WIRE_COLOURS = ['rose', 'violet', 'blue', 'teal', 'green', 'sand'] as const;
export type WireColour = (typeof WIRE_COLOURS)[number];

/** The two standards by which symbols are drawn: IEEE 91's distinctive shapes, IEC 60617's rectangles. */
export const SYMBOLS = ['distinctive', 'rectangular'] as const;
export type Symbols = (typeof SYMBOLS)[number];

export interface Settings {
  readonly symbols: Symbols;
  /** The value of storage parts when time begins. */
  readonly powerUp: '0' | '1' | 'X';
  /** How wires that cross and are not joined are told from those that are. */
  readonly crossings: 'plain' | 'gap' | 'bridge';
  /** How the value of a bus is written along its wires. */
  readonly buses: Radix;
  /** Whether parts take time: not at all, 1 ns each, or their own. */
  readonly delays: Delays;
  /** Whether a statement draws equal terms as often as they are written, or leads one to all that read it. */
  readonly terms: 'written' | 'shared';
}

export const DEFAULT_SETTINGS: Settings = {
  symbols: 'distinctive',
  powerUp: '0',
  crossings: 'plain',
  buses: 'unsigned',
  delays: 'zero',
  terms: 'written',
};

export type ParamValue = string | number | boolean | readonly number[];
export type Params = Readonly<Record<string, ParamValue>>;

export interface Part {
  readonly id: string;
  readonly kind: string;
  readonly at: Point;
  readonly turn: Turn;
  readonly mirrored?: boolean | undefined;
  readonly symbols?: Symbols | undefined;
  readonly label: string;
  readonly rank: number;
  readonly params: Params;
}

export interface PinEnd {
  readonly part: string;
  readonly port: string;
}
export interface BranchEnd {
  readonly wire: string;
  readonly at: Point;
}
export type End = PinEnd | BranchEnd;

export interface Wire {
  readonly id: string;
  readonly from: End;
  readonly to: End;
  readonly course: readonly Point[];
  readonly drawn?: boolean | undefined;
  readonly colour?: WireColour | undefined;
  /** What is wrong with it, though it is drawn as if it were sound; see `parts/fault.ts`. */
  readonly fault?: string | undefined;
}

export interface Sheet {
  readonly id: string;
  readonly name: string;
  readonly parts: ReadonlyMap<string, Part>;
  readonly wires: ReadonlyMap<string, Wire>;
  readonly plan?: SpecTable | undefined;
  readonly time?: TimeSetup | undefined;
  readonly chips?: ChipsSetup | undefined;
  readonly board?: Board | undefined;
}

export function isPinEnd(end: End): end is PinEnd {
  return 'part' in end;
}

export function emptySheet(id: string, name: string): Sheet {
  return { id, name, parts: new Map(), wires: new Map() };
}

/** An id that is not taken, made of a prefix and the lowest number from the count onwards: `and3`. */
export function freshId(taken: { has(id: string): boolean; readonly size: number }, prefix: string): string {
  let n = taken.size + 1;
  while (taken.has(prefix + n)) n++;
  return prefix + n;
}
