import { sheetOf } from '@/core/circuit/lesson';
import { truthTable, whyNoTable } from '@/core/logic/table/truth-table';
import { problem, sentence } from '@/core/values/result';
import type { SessionState, TableMaker } from './state';

/** Tables of up to this many inputs are derived between two frames; larger ones by a worker. */
const TABLE_AT_ONCE = 12;

/** The part of the session that the deriver needs. */
export interface TableHost {
  readonly state: SessionState;
  set(change: Partial<SessionState>): void;
}

/** Derives the truth table of the running sheet: at once if it is small, else in the background. */
export class TableDeriver {
  /** Counts derivations, so that an outdated one can be told from the latest. */
  private last = 0;

  constructor(
    private readonly host: TableHost,
    private readonly makeTable: TableMaker | null,
  ) {}

  /** Derives the table of the present circuit; a derivation under way is cancelled. */
  derive(): void {
    const { host } = this;
    const { netlist, lesson, rootId, rules } = host.state;
    const work = ++this.last;
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
    const job = this.makeTable(sheetOf(lesson, rootId)!, lesson.sheets, (share) => {
      if (isCurrent()) host.set({ table: { state: 'working', share, cancel } });
    });
    const cancel = () => {
      job.cancel();
      if (isCurrent())
        host.set({ table: { state: 'none', reason: 'Stopped. The next change derives it again.' } });
    };
    host.set({ table: { state: 'working', share: 0, cancel } });
    job.result.then(
      (table) => isCurrent() && host.set({ table: { state: 'ready', table } }),
      (error: Error) =>
        isCurrent() && host.set({ table: { state: 'none', reason: `No table: ${error.message}.` } }),
    );
  }
}
