import { sheetOf } from '@/core/circuit/lesson';
import { truthTable, whyNoTable } from '@/core/logic/table/truth-table';
import { problem, sentence } from '@/core/values/result';
import type { SessionState, TableMaker } from './state';

/** Tables of up to this many inputs are derived between two frames; larger ones by a worker. */
const TABLE_AT_ONCE = 12;
/** Tables of at least so many rows take the memory of the one that they replace. Formulas, which could still read it, end at 2^16 rows. */
const ROWS_TO_REUSE = 2 ** 20;

/** The part of the session that the deriver needs. */
export interface TableHost {
  readonly state: SessionState;
  set(change: Partial<SessionState>): void;
}

/** Derives the truth table of the running sheet: at once if it is small, else in the background. */
export class TableDeriver {
  /** Counts derivations, so that an outdated one can be told from the latest. */
  private last = 0;
  private under: { cancel(): void } | null = null;

  constructor(
    private readonly host: TableHost,
    private readonly makeTable: TableMaker | null,
  ) {}

  /** Derives the table of the present circuit; a derivation under way is cancelled. */
  derive(): void {
    const { host } = this;
    const { netlist, lesson, rootId, rules } = host.state;
    const work = ++this.last;
    this.under?.cancel();
    this.under = null;
    const kept = rules.still ?? (rules.isDark ? 'each row is told once you have tried it' : null);
    const reason = kept ? problem('still', kept) : whyNoTable(netlist);
    if (reason) {
      host.set({ table: { state: 'none', reason: sentence(reason) } });
      return;
    }
    if (netlist.inputColumns.length <= TABLE_AT_ONCE || !this.makeTable) {
      host.set({ table: { state: 'ready', table: truthTable(netlist) } });
      return;
    }
    const isCurrent = () => work === this.last;
    const cancel = () => {
      if (!isCurrent()) return;
      this.under?.cancel();
      host.set({ table: { state: 'none', reason: 'Stopped. The next change derives it again.' } });
    };
    const { table: outdated } = host.state;
    host.set({ table: { state: 'working', share: 0, cancel } });
    // Nobody looks at the outdated table from here on.
    const job = this.makeTable(sheetOf(lesson, rootId)!, lesson.sheets, memoryOf(outdated), (share) => {
      if (isCurrent()) host.set({ table: { state: 'working', share, cancel } });
    });
    this.under = job;
    job.result.then(
      (table) => isCurrent() && host.set({ table: { state: 'ready', table } }),
      (error: Error) =>
        isCurrent() && host.set({ table: { state: 'none', reason: `No table: ${error.message}.` } }),
    );
  }
}

/** The columns of a large table. */
function memoryOf(table: SessionState['table']): Uint32Array<ArrayBuffer>[] {
  if (table.state !== 'ready' || table.table.rows < ROWS_TO_REUSE) return [];
  const { ones, unknown, floating } = table.table;
  return [...ones, ...unknown, ...floating].filter(
    (column): column is Uint32Array<ArrayBuffer> => column !== null,
  );
}
