import type { Edit } from '@/core/circuit/edit';

/** One step of undo. */
export interface Step {
  /** Counts up; two steps never share it. */
  readonly id: number;
  /** The name of the step, as it follows “Undo:”: `move 3 parts`. */
  readonly name: string;
  /** The edit that takes it back. */
  readonly inverse: Edit;
  /** Steps with the same key that follow one another become one; null where each stands alone. */
  readonly merge: string | null;
}

/** The steps that can be undone and redone, the newest last. */
export interface History {
  readonly undo: readonly Step[];
  readonly redo: readonly Step[];
}

export const EMPTY_HISTORY: History = { undo: [], redo: [] };
const MOST_STEPS = 500;

let lastId = 0;

/** A step that was just made. */
export const stepOf = (name: string, inverse: Edit, merge: string | null = null): Step => ({
  id: ++lastId,
  name,
  inverse,
  merge,
});

/**
 * The history after a step; steps that were undone before are gone.
 * @param goesOn whether nothing has come between the last step and this one, so that they may become one.
 */
export function noted(history: History, step: Step, goesOn: boolean): History {
  const last = history.undo.at(-1);
  if (goesOn && last && step.merge !== null && last.merge === step.merge && history.redo.length === 0) {
    const inverse: Edit = { type: 'group', edits: [step.inverse, last.inverse] };
    return { undo: [...history.undo.slice(0, -1), { ...step, inverse }], redo: [] };
  }
  return { undo: [...history.undo.slice(-(MOST_STEPS - 1)), step], redo: [] };
}

/** After the last step was undone; `inverse` makes it again. */
export function undone({ undo, redo }: History, inverse: Edit): History {
  return { undo: undo.slice(0, -1), redo: [...redo, { ...undo.at(-1)!, inverse, merge: null }] };
}

/** After the step that was undone last was made again; `inverse` takes it back. */
export function redone({ undo, redo }: History, inverse: Edit): History {
  return { undo: [...undo, { ...redo.at(-1)!, inverse, merge: null }], redo: redo.slice(0, -1) };
}
