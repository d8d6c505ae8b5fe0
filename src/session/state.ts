import type { Edit } from '@/core/circuit/edit';
import type { Lesson } from '@/core/circuit/lesson';
import type { Sheet } from '@/core/circuit/sheet';
import type { SheetRules } from '@/core/exercise/rules';
import type { TruthTable } from '@/core/logic/table/truth-table';
import type { Diagnostic } from '@/core/netlist/diagnostic';
import type { Netlist, SheetNets } from '@/core/netlist/netlist';
import type { Logic } from '@/core/values/logic';
import type { Saving } from '@/store/lesson-writer';
import type { UpdateDerived } from './derived';
import type { History } from './history';
import type { RuleBook } from './rules';
import type { KeptStanding } from './standing';

/** A time in ps to run to, or values that some nets are to have. */
export type Goal =
  /** `isStep` where it is only the next stretch, and not a run that was asked for and is shown whole. */
  | { readonly is: 'time'; readonly time: number; readonly isStep?: boolean }
  | { readonly is: 'values'; readonly nets: readonly number[]; readonly values: readonly Logic[] };

/** Pace at which a run goes as fast as it can. */
export const AS_FAST = 1e21;

export interface Selection {
  readonly parts: ReadonlySet<string>;
  readonly wires: ReadonlySet<string>;
}
export const NOTHING: Selection = { parts: new Set(), wires: new Set() };

/** A short word to the user at the bottom of the page. */
export interface Notice {
  readonly text: string;
  readonly tone: 'calm' | 'bad';
  /** The step of undo that it tells of and can take back, by its id; it goes when another edit is made. */
  readonly undoes: number | null;
  /** The step of undo that has had this effect, by its id: what else is told of that step is told with it. */
  readonly effectOf?: number | undefined;
  /** Parts of the shown sheet of which it tells; they are lit while it stands. */
  readonly lit?: ReadonlySet<string>;
  /** What ends what it tells of, at a press. */
  readonly offers?: 'power-up';
}

export const SAVED: Saving = { is: 'saved' };

export type Table =
  | { readonly state: 'ready'; readonly table: TruthTable }
  | { readonly state: 'none'; readonly reason: string }
  | { readonly state: 'working'; readonly share: number; readonly cancel: () => void };

export interface SessionState {
  readonly lesson: Lesson;
  /** The sheet that runs, and that the table and the time are of. */
  readonly rootId: string;
  /** Blocks on the way from the running sheet to the shown one; empty if they are the same. */
  readonly path: readonly string[];
  /** The sheet that is shown and edited. */
  readonly sheetId: string;
  /** The nets of the shown sheet, at its place in the hierarchy. */
  readonly view: SheetNets;
  readonly selection: Selection;
  readonly history: History;
  readonly netlist: Netlist;
  readonly table: Table;
  /** Value of each net at the moment; a new array at each change. */
  readonly values: Uint8Array;
  readonly conflicts: ReadonlySet<number>;
  /** The present problems, from the drawing and from the run. */
  readonly diagnostics: readonly Diagnostic[];
  /** Switches and held buttons at 1, by `sourceKey`. */
  readonly on: ReadonlySet<string>;
  /** Rows that were set on the live circuit, and the letters of the outputs as they were seen there at last. */
  readonly tried: ReadonlyMap<number, string>;
  /** Wires that were selected one by one on a sheet whose signals are dark until they are probed. */
  readonly probed: ReadonlySet<string>;
  /** Time in ps up to which the circuit has run. */
  readonly now: number;
  /** Time in ps of the past moment that the faces show, or null at the present. */
  readonly cursor: number | null;
  readonly playing: boolean;
  /** Simulated ps a wall-clock second. */
  readonly pace: number;
  /** How far in ms of the wall clock the run is behind its pace. */
  readonly behind: number;
  /** Until when it runs as fast as it goes, or nothing. */
  readonly goal: Goal | null;
  readonly readOnly: boolean;
  readonly notice: Notice | null;
  /**
   * Counts the requests to show all of the sheet, and says whether they hold only if the selection is out of
   * sight.
   */
  readonly looks: { readonly times: number; readonly onlyIfHidden: false | 'parts' | 'middles' };
  readonly saving: Saving;
  /** What an exercise lets be done on what is shown. */
  readonly rules: SheetRules;
}

/** Where a session's edits go; a session without one lives in memory alone. */
export interface PersistenceSink {
  edit(edit: Edit): void;
  moment(state: SessionState): void;
}

/** The interface for deriving large tables without holding up the page; `memory` is given to it and written over. */
export type TableMaker = (
  sheet: Sheet,
  sheets: readonly Sheet[],
  memory: readonly Uint32Array<ArrayBuffer>[],
  progress: (share: number) => void,
) => { readonly result: Promise<TruthTable>; readonly cancel: () => void };

export interface Beginning {
  readonly sink?: PersistenceSink | null;
  /** Derives large tables; without it all are derived at once. */
  readonly makeTable?: TableMaker | null;
  /** The function that `needsUpdateDerived` asks for, once it is loaded. */
  readonly updateDerived?: UpdateDerived | null;
  readonly sheetId?: string;
  /** Switches and tried rows of earlier visits, by sheet. */
  readonly standings?: ReadonlyMap<string, KeptStanding>;
  readonly readOnly?: boolean;
  /** What an exercise lets be done; without it everything may be. */
  readonly rules?: RuleBook | null;
}
