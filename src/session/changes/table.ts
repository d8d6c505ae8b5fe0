import { sheetOf } from '@/core/circuit/lesson';
import type { SpecTable } from '@/core/circuit/spec-table';
import { specOfTable, withLetters } from '@/core/logic/specification/spec-edits';
import { kindOf } from '@/core/parts/catalogue';
import { sameName } from '@/core/values/names';
import { DONE, type Result } from '@/core/values/result';
import type { Session } from '../session';

/*
 * The table that is filled in for the sheet that runs.
 */

/** @param what the change of the table, as it follows “Undo:”. */
export function setSpec(
  session: Session,
  plan: SpecTable | undefined,
  what: string,
  merge: string | null = null,
): Result<undefined> {
  return session.edit(what, { type: 'changeSheet', id: session.state.rootId, change: { plan } }, merge);
}

/**
 * The filled-in table of the running sheet, or else the table of its circuit; null if there is neither, or if
 * it is too large to be filled in.
 */
export function specInHand(session: Session): SpecTable | null {
  return sheetOf(session.state.lesson, session.state.rootId)!.plan ?? specOfCircuit(session);
}

/** The table of the circuit as a filled-in one, without the columns of probes. */
export function specOfCircuit(session: Session): SpecTable | null {
  const { lesson, rootId, table, netlist } = session.state;
  if (table.state !== 'ready') return null;
  const { parts } = sheetOf(lesson, rootId)!;
  const isOutput = (column: number) => {
    const part = parts.get(netlist.outputColumns[column]!.part);
    return !part || !kindOf(part).isProbe;
  };
  return specOfTable(table.table, [...netlist.outputColumns.keys()].filter(isOutput));
}

/** Puts a letter into a cell of the table in hand, by the name of its output. */
export function fillCell(session: Session, output: string, row: number, letter: string): Result<undefined> {
  const plan = specInHand(session);
  const at = plan?.outputs.findIndex((o) => sameName(o.name, output)) ?? -1;
  if (!plan || at < 0) return DONE;
  return setSpec(
    session,
    withLetters(plan, at, new Map([[row, letter]])),
    `fill in ${output}`,
    `fill in ${output}`,
  );
}

/** Toggles a cell: 1 becomes 0, anything else 1. */
export function turnCell(session: Session, output: string, row: number): Result<undefined> {
  const column = specInHand(session)?.outputs.find((o) => sameName(o.name, output));
  return column ? fillCell(session, output, row, column.rows[row] === '1' ? '0' : '1') : DONE;
}
