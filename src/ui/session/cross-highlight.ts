import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { type Cube, reordered } from '@/core/logic/minimise/cube';

/** A highlight that one face sets and the others show: some rows, as a product of an output's formula. */
export interface Highlight {
  /** The output of the formula or map; null for all outputs, when a gate is pointed at. */
  readonly output: string | null;
  /** The inputs over which the product goes, in order. */
  readonly inputs: readonly string[];
  readonly cube: Cube;
}

/**
 * The highlight as a product of an output's formula over its inputs; null if it belongs to another output.
 */
export function highlightIn(
  pointed: Highlight | null,
  output: string,
  inputs: readonly string[],
): Cube | null {
  if (!pointed || (pointed.output !== null && pointed.output !== output)) return null;
  return reordered(pointed.cube, pointed.inputs, inputs);
}

interface Pointing {
  readonly pointed: Highlight | null;
  readonly point: (at: Highlight | null) => void;
  /** Parts of the sheet that are lit besides: a way through the circuit. */
  readonly parts: ReadonlySet<string> | null;
  readonly light: (parts: ReadonlySet<string> | null) => void;
  /** The part under the pointer on the drawing. */
  readonly over: string | null;
  readonly hover: (part: string | null) => void;
  /** The ends of a wire of the plan that is pointed at, as pins (`U1.3`) and poles of the supply. */
  readonly ends: readonly string[];
  readonly lightEnds: (ends: readonly string[]) => void;
}

const store = createStore<Pointing>((set) => ({
  pointed: null,
  point: (pointed) => set({ pointed }),
  parts: null,
  light: (parts) => set({ parts }),
  over: null,
  hover: (over) => set({ over }),
  ends: [],
  lightEnds: (ends) => set({ ends }),
}));

export const useCrossHighlight = <T>(of: (pointing: Pointing) => T): T => useStore(store, of);
