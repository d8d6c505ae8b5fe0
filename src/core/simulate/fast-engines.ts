import type { MakeFast } from './fast-in-use';
import { KernelEngine } from './kernel/kernel-engine';
import { StripEngine } from './strips/strip-engine';

/** Strips where the circuit has them and nothing is due, else the kernel. */
export const makeFast: MakeFast = (netlist, delays, grid, other, time, notes, mayBeStrips) =>
  (mayBeStrips ? StripEngine.from(netlist, delays, grid, other, time, notes) : null) ??
  KernelEngine.from(netlist, delays, grid, other, time, notes);
