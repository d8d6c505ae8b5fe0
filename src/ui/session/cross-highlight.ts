import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import { type Cube, reordered } from '@/core/logic/minimise/cube';

/** What is pointed at on one face and lit on the others: some rows, as a product of an output's formula. */
export interface Highlight {
  /** The output whose formula or map it is of; of all, where it is a gate that is pointed at. */
  readonly output: string | null;
  /** The inputs over which the product goes, in order. */
  readonly inputs: readonly string[];
  readonly cube: Cube;
}

/** What is pointed at as a product of an output's formula over its inputs; null where it is of another one. */
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
}

const store = createStore<Pointing>((set) => ({
  pointed: null,
  point: (pointed) => set({ pointed }),
  parts: null,
  light: (parts) => set({ parts }),
}));

export const useCrossHighlight = <T>(of: (pointing: Pointing) => T): T => useStore(store, of);
