import type { Edit } from '@/core/circuit/edit';

/** What can be undone and redone: the inverse of each edit made, newest last. */
export interface History {
  readonly undo: readonly Edit[];
  readonly redo: readonly Edit[];
}

export const EMPTY_HISTORY: History = { undo: [], redo: [] };
const LONGEST = 500;

/** A new edit was made, of which `inverse` is the way back: what was undone before is gone. */
export function noted(history: History, inverse: Edit): History {
  return { undo: [...history.undo.slice(-(LONGEST - 1)), inverse], redo: [] };
}

export function undone(history: History, inverse: Edit): History {
  return { undo: history.undo.slice(0, -1), redo: [...history.redo, inverse] };
}

export function redone(history: History, inverse: Edit): History {
  return { undo: [...history.undo, inverse], redo: history.redo.slice(0, -1) };
}
