import type { Delays, Stimulus } from '@/core/circuit/time-setup';
import { type Column, type Netlist, sourceKey } from '@/core/netlist/netlist';
import { outputsSignature } from '@/core/netlist/same-circuit';
import type { Run } from '@/core/simulate/run';
import type { RunMoment } from '@/core/simulate/run-moment';

/*
 * The live circuit of a sheet while another sheet is shown: switches, tried rows and the run belong to the sheet.
 */

/** Rows that were set on the live circuit, and the letters of the outputs that were seen there. */
export type TriedRows = ReadonlyMap<number, string>;

/** What is kept of a sheet's live circuit beyond a visit of its lesson. */
export interface KeptStanding {
  /** Switches and held buttons at 1, by `sourceKey`. */
  readonly on: ReadonlySet<string>;
  readonly tried: TriedRows;
  /** `outputsSignature` of the circuit on which the rows were tried; null where older records do not say. */
  readonly circuit: string | null;
  /** How its run stood, where that is known. */
  readonly moment?: RunMoment | undefined;
}

/** The live circuit of a sheet as it was left. */
export interface Standing extends KeptStanding {
  readonly cursor: number | null;
  readonly pace: number;
  readonly live: Live | null;
}

/** A circuit, how it is driven, and its run. */
export interface Live {
  /** Before a stimulus drives it. */
  readonly bare: Netlist;
  readonly driving: Stimulus | null;
  readonly delays: Delays;
  readonly run: Run;
}

/** A sheet that has not been looked at yet. */
export const UNTOUCHED: Standing = {
  on: new Set(),
  tried: new Map(),
  circuit: null,
  cursor: null,
  pace: 0,
  live: null,
};

/** Whether a circuit is the one on which rows were tried. @param circuit compiles it on demand. */
export const isStillCircuit = (kept: KeptStanding, circuit: () => Netlist): boolean =>
  kept.tried.size === 0 || kept.circuit === null || kept.circuit === outputsSignature(circuit());

/**
 * Tried rows of a circuit for the same circuit with inputs and outputs in another order.
 * @returns the same map where the order is the same.
 */
export function reordered(tried: TriedRows, before: Netlist, after: Netlist): TriedRows {
  const inputs = placesOf(after.inputColumns, before.inputColumns);
  const outputs = placesOf(after.outputColumns, before.outputColumns);
  if (inputs.every(isInPlace) && outputs.every(isInPlace)) return tried;
  const bits = inputs.length;
  const rowAfter = (row: number) =>
    inputs.reduce((sum, at) => 2 * sum + (Math.floor(row / 2 ** (bits - 1 - at)) % 2), 0);
  return new Map(
    [...tried].map(([row, seen]) => [rowAfter(row), outputs.map((at) => seen[at] ?? 'X').join('')]),
  );
}

const isInPlace = (at: number, i: number) => at === i;

/** The place of each column in another list of the same columns. */
function placesOf(columns: readonly Column[], among: readonly Column[]): number[] {
  const keys = new Map(among.map((c, i) => [sourceKey(c), i]));
  return columns.map((c) => keys.get(sourceKey(c)) ?? -1);
}
