import { around } from '@/core/circuit/geometry';
import { type Sheet, sheetOf } from '@/core/circuit/lesson';
import type { Plan } from '@/core/circuit/plan';
import { newPart } from '@/core/drawing/gestures';
import { footprintOf } from '@/core/drawing/placement';
import { isAllowed } from '@/core/exercise/allowed';
import type { Form } from '@/core/logic/forms';
import type { Notation } from '@/core/logic/notation';
import { filled, openCells, planOfTable } from '@/core/logic/planned';
import { findKind } from '@/core/parts/catalogue';
import { replaceCircuit } from '@/core/synthesis/draw-functions';
import { circuitOfPlan, type DrawnAs } from '@/core/synthesis/from-plan';
import { sameName } from '@/core/values/names';
import { planDrawer } from '@/workers/draw-client';
import type { Session } from './session';

/*
 * The function of the sheet that runs: the table that is filled in for it, the circuit that is drawn from that, and
 * its formulas on the sheet.
 */

export function setPlan(session: Session, plan: Plan | undefined): void {
  session.edit({ type: 'changeSheet', id: session.state.rootId, change: { plan } });
}

/**
 * The table that is filled in for the sheet that runs, or else that of its circuit, to be changed from there; null where
 * there is neither, or where it is too large to be filled in.
 */
export function planInHand(session: Session): Plan | null {
  return sheetOf(session.state.lesson, session.state.rootId)!.plan ?? planDrawn(session);
}

/** The table of the circuit as one that is filled in, without what probes half-way add to it. */
export function planDrawn(session: Session): Plan | null {
  const { lesson, rootId, table, netlist } = session.state;
  if (table.state !== 'ready') return null;
  const { parts } = sheetOf(lesson, rootId)!;
  const isOutput = (column: number) => parts.get(netlist.outputColumns[column]!.part)?.kind !== 'probe';
  return planOfTable(table.table, [...netlist.outputColumns.keys()].filter(isOutput));
}

/** Puts a letter into a cell of the table in hand, by the name of its output. */
export function fillCell(session: Session, output: string, row: number, letter: string): void {
  const plan = planInHand(session);
  const at = plan?.outputs.findIndex((o) => sameName(o.name, output)) ?? -1;
  if (plan && at >= 0) setPlan(session, filled(plan, at, new Map([[row, letter]])));
}

/** Turns a cell over: what was 1 becomes 0, anything else 1. */
export function turnCell(session: Session, output: string, row: number): void {
  const column = planInHand(session)?.outputs.find((o) => sameName(o.name, output));
  if (column) fillCell(session, output, row, column.rows[row] === '1' ? '0' : '1');
}

/** Tables of up to this many inputs are drawn between two frames; larger ones by a worker. */
const DRAWN_AT_ONCE = 6;

/** A circuit that is being drawn elsewhere. */
export interface Drawing {
  readonly done: Promise<void>;
  readonly cancel: () => void;
}

/**
 * Draws the circuit of the table in place of what is on the sheet, as one step of undo.
 * @returns what goes on where it takes longer than a frame, else null.
 */
export function drawPlan(session: Session, as: DrawnAs): Drawing | null {
  const { lesson, rootId } = session.state;
  const sheet = sheetOf(lesson, rootId)!;
  const { plan } = sheet;
  if (!plan) return null;
  if (plan.inputs.length <= DRAWN_AT_ONCE) {
    takeDrawn(session, plan, circuitOfPlan(plan, as, rootId, sheet.name));
    return null;
  }
  const work = planDrawer();
  const done = work.draw(plan, as, rootId, sheet.name).then(
    (circuit) => takeDrawn(session, plan, circuit),
    (error: Error) => session.say(`The circuit could not be drawn: ${error.message}`, 'bad'),
  );
  return { done: done.finally(work.end), cancel: work.end };
}

/** Puts a circuit in the place of what is on the sheet, if it still is of the table that is filled in there. */
function takeDrawn(session: Session, plan: Plan, circuit: Sheet): void {
  const { lesson } = session.state;
  const sheet = sheetOf(lesson, circuit.id);
  if (sheet?.plan !== plan) {
    session.say('The table was changed meanwhile: draw it once more.');
    return;
  }
  const forbidden = [...circuit.parts.values()].find((p) => !isAllowed(lesson.exercise, p.kind));
  if (forbidden) {
    session.say(`This exercise does not allow ${findKind(forbidden.kind)!.name}.`, 'bad');
    return;
  }
  const open = openCells(plan);
  if (!session.edit(replaceCircuit(sheet, circuit))) return;
  session.lookAtAll();
  if (open > 0)
    session.say(
      `${open === 1 ? 'One cell is' : `${open} cells are`} still open: either value was taken there, whichever is simpler.`,
    );
}

/** Puts the formulas of the running sheet onto it as a note that follows the circuit, below what is there. */
export function placeFormulas(session: Session, form: Form, notation: Notation): void {
  const sheet = sheetOf(session.state.lesson, session.state.rootId)!;
  const all = around([...sheet.parts.values()].map(footprintOf));
  const at = { x: Math.round(all?.x0 ?? 0), y: Math.ceil(all?.y1 ?? 0) + 3 };
  const part = newPart(sheet, findKind('formula')!, at, { form, notation }, '');
  if (session.edit({ type: 'addPart', sheet: sheet.id, part })) session.lookAtAll();
}
