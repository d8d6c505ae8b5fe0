import { useStore } from 'zustand';
import { createStore } from 'zustand/vanilla';
import type { Cube } from '@/core/logic/cube';

/** What is pointed at on one face and lit on the others: some rows, as a product of an output's formula. */
export interface Pointed {
  readonly output: string;
  readonly cube: Cube;
}

interface Pointing {
  readonly pointed: Pointed | null;
  readonly point: (at: Pointed | null) => void;
}

const store = createStore<Pointing>((set) => ({
  pointed: null,
  point: (pointed) => set({ pointed }),
}));

export const usePointed = <T>(of: (pointing: Pointing) => T): T => useStore(store, of);
