import type { Netlist } from '../netlist/netlist';
import type { EngineState, FastEngine, Notes } from './engine';
import type { Grid } from './kernel/grid';
import type { GateDelays } from './plain-engine';

/**
 * Goes on from where another engine is between two instants.
 * @param mayBeStrips whether strips are thought of.
 * @returns null where none of the fast engines can.
 */
export type MakeFast = (
  netlist: Netlist,
  delays: GateDelays,
  grid: Grid,
  other: EngineState,
  time: number,
  notes: Notes | null,
  mayBeStrips: boolean,
) => FastEngine | null;

let inUse: MakeFast | null = null;

/** What makes fast engines here; null where they were not brought along, and runs go on with the reference. See `with-kernel.ts`. */
export const fastInUse = (): MakeFast | null => inUse;

/** Brings fast engines along, for all runs from now on. */
export function bringFast(make: MakeFast): void {
  inUse = make;
}
