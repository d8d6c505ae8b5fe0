/**
 * How a circuit may come about: drawn part by part alone, also by typed statements, or also out of a filled-in table.
 */
export const DRAWINGS = ['by hand', 'typed', 'free'] as const;
export type Drawing = (typeof DRAWINGS)[number];

/** How much the guide does on the wiring board: lays wires, only shows the next one and what is wrong, or nothing. */
export const GUIDES = ['lays', 'shows', 'none'] as const;
export type Guide = (typeof GUIDES)[number];

/** What a student may do on a sheet. */
export interface SheetRules {
  /** Kinds of part that may be placed; null for all. */
  readonly parts: ReadonlySet<string> | null;
  /** Why the sheet cannot be changed, as a clause; null where it can. */
  readonly fixed: string | null;
  /** Why the circuit stands still, without signals and tables, as a clause; null where it runs. */
  readonly still: string | null;
  readonly drawing: Drawing;
  /** Whether wires tell their signals only where they were probed, and rows only where they were tried. */
  readonly isDark: boolean;
  /** Whether the student has to find out by trying why something is as it is. */
  readonly isPuzzle: boolean;
  /** Whether time runs while the task is done. */
  readonly needsTime: boolean;
  /** Whether nothing is asked of the sheet: the answer is given elsewhere, and this one is for trying. */
  readonly isScratch: boolean;
  /** How much the guide does where the task is done on the wiring board; null where it is not. */
  readonly guide: Guide | null;
}

/** A sheet on which everything may be done. */
export const FREE: SheetRules = {
  parts: null,
  fixed: null,
  still: null,
  drawing: 'free',
  isDark: false,
  isPuzzle: false,
  needsTime: false,
  isScratch: false,
  guide: null,
};

/** The sheet of a task that gives no circuit and asks for none. */
export const SCRATCH: SheetRules = { ...FREE, isScratch: true };

/** A sheet whose circuit is given and is only tried. */
export const GIVEN: SheetRules = { ...FREE, fixed: 'the circuit of this task is given, and stays as it is' };
