import type { Row } from '@/core/logic/equivalence/prove';
import { sourceKey } from '@/core/netlist/netlist';
import { sameName } from '@/core/values/names';
import { hasClock } from './moment';
import type { Session } from './session';

/** Puts the switches as in a row, found by name. */
function putRow(session: Session, row: Row): void {
  const columns = session.state.netlist.inputColumns;
  session.put(
    Object.entries(row).flatMap(([name, value]) => {
      const column = columns.find((c) => sameName(c.name, name));
      return column ? [[sourceKey(column), value] as const] : [];
    }),
  );
}

/** A clock's whole period, by the clock itself or by a switch that stands for it. */
function clock(session: Session, row: Row): void {
  if (hasClock(session.state.netlist)) {
    session.time.stepHalf();
    session.time.stepHalf();
    return;
  }
  const hand = session.state.netlist.inputColumns.find(
    (c) => !Object.keys(row).some((n) => sameName(n, c.name)),
  );
  if (!hand) return;
  session.put([[sourceKey(hand), 1]]);
  session.put([[sourceKey(hand), 0]]);
}

/**
 * Takes all faces to where two circuits differ: to the row, or from power-up through a row a clock to the one at
 * which they do.
 */
export function showDifference(session: Session, sheetId: string, rows: readonly Row[]): void {
  if (session.state.rootId !== sheetId) session.openSheet(sheetId);
  if (session.state.netlist.storage.length > 0) {
    putRow(session, rows[0]!);
    session.time.restart();
  }
  for (const [i, row] of rows.entries()) {
    putRow(session, row);
    if (i < rows.length - 1) clock(session, row);
  }
}
