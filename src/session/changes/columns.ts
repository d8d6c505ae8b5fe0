import { sheetOf } from '@/core/circuit/lesson';
import { inputAt } from '@/core/logic/table/truth-table';
import { sourceKey } from '@/core/netlist/netlist';
import { sameName } from '@/core/values/names';
import type { Result } from '@/core/values/result';
import type { Session } from '../session';

/** Puts the switches, found by name, as in a row of a table; the first name is its highest bit. */
export function goToNamedRow(session: Session, inputs: readonly string[], row: number): void {
  const there = session.state.netlist.inputColumns;
  session.put(
    inputs.flatMap((name, i) => {
      const input = there.find((t) => sameName(t.name, name));
      return input ? [[sourceKey(input), inputAt(inputs.length, i, row)] as const] : [];
    }),
  );
}

/** Puts one of the running sheet's inputs or outputs before another in declared order. */
export function reorder(session: Session, order: readonly string[]): Result<undefined> {
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const edits = order.flatMap((id, rank) =>
    sheet.parts.get(id)?.rank === rank
      ? []
      : [{ type: 'changePart', sheet: sheet.id, id, change: { rank } } as const],
  );
  return session.edit('reorder the columns', { type: 'group', edits });
}
